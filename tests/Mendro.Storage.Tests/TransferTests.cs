using CsCheck;
using Dapper;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;

namespace Mendro.Storage.Tests;

/// <summary>Export and import: what goes out comes in, to the byte.</summary>
public sealed class TransferTests : IDisposable
{
    private readonly string _outside = Directory.CreateTempSubdirectory("mendro-move-").FullName;

    public void Dispose()
    {
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        Directory.Delete(_outside, true);
    }

    private static readonly string[] Odd =
    [
        "",
        @"\N",
        @"\\N",
        "'",
        "'=1",
        "=1+1",
        " =1",
        "\t=1",
        "-5",
        "\r\n",
        "\"",
        "日本",
        "a\nb",
        "@x",
        "+49 30",
    ];

    private static readonly Gen<string> Nasty = Gen.OneOf(
        Gen.String[Gen.Char["abcäß €\t\n\r\",;'=+-@\\N0"], 0, 12],
        Gen.Int[0, Odd.Length - 1].Select(n => Odd[n])
    );

    [Fact]
    public void A_field_comes_back_as_it_was_and_no_spreadsheet_takes_it_for_a_formula() =>
        Nasty.Sample(text =>
        {
            var field = TransferText.Write(text, isText: true);
            TransferText.Read(field).ShouldBe(text);
            field.TrimStart().ShouldNotMatch("^[=+@-]");
            TransferText.Read(TransferText.Write(null, true)).ShouldBeNull();
        });

    [Fact]
    public void Export_import_and_export_again_gives_the_same_bytes()
    {
        var n = 0;
        Gen.Select(Nasty.Array[8], Gen.Double[-1e9, 1e9], Gen.Decimal[0, 1_000_000], Gen.Int[0, 4])
            .Sample(
                (texts, value, money, count) =>
                {
                    using var shop = new ShopFile();
                    Fill(shop, texts, value, decimal.Round(money, 2), count);
                    var (first, second, target) = (
                        Path.Combine(_outside, $"a{n}"),
                        Path.Combine(_outside, $"b{n}"),
                        Path.Combine(_outside, $"shop{n++}")
                    );
                    ShopTransfer.Export(shop.Database, first);
                    ShopTransfer.Import(first, target);
                    var copy = new ShopDatabase(Path.Combine(target, "shop.db"));
                    ShopTransfer.Export(copy, second);
                    var files = Files(first);
                    Files(second).ShouldBe(files);
                    foreach (var file in files)
                        File.ReadAllBytes(Path.Combine(second, file)).ShouldBe(File.ReadAllBytes(Path.Combine(first, file)), file);
                    // And it is the same shop to those who read it.
                    copy.AllJobs().Select(j => j with { Mark = 0 }).ShouldBe(shop.Database.AllJobs().Select(j => j with { Mark = 0 }));
                    new LessonStore(copy, shop.Time).Counts().ShouldBe(new LessonStore(shop.Database, shop.Time).Counts());
                    copy.Found("quartet").Select(j => j.Id).ShouldBe(shop.Database.Found("quartet").Select(j => j.Id));
                    foreach (var job in shop.Database.AllJobs())
                        new BenchRecordStore(copy, shop.Time)
                            .Of(job.Id)
                            .Select(r => (r.Id, r.Words, r.Body.Key))
                            .ShouldBe(shop.Records.Of(job.Id).Select(r => (r.Id, r.Words, r.Body.Key)));
                    // Numbers go on where they were.
                    if (count > 0)
                        new JobStore(copy, shop.Time)
                            .TakeIn(new NewJob(ShopFile.Blank(), null, "", []))
                            .Number.ShouldBe(shop.TakeIn().Number);
                },
                iter: 12,
                threads: 1
            );
    }

    [Fact]
    public void An_import_wants_an_empty_shop_and_a_whole_export()
    {
        using var shop = new ShopFile();
        Fill(shop, ["a", "b", "c", "d", "e", "f", "g", "h"], 1, 2, 2);
        var export = Path.Combine(_outside, "out");
        ShopTransfer.Export(shop.Database, export);
        Should.Throw<ShopFileException>(() => ShopTransfer.Export(shop.Database, export)).Message.ShouldContain("not empty");
        Should
            .Throw<ShopFileException>(() => ShopTransfer.Import(export, Path.GetDirectoryName(shop.Database.File)!))
            .Message.ShouldContain("not empty");
        Should
            .Throw<ShopFileException>(() => ShopTransfer.Import(_outside, Path.Combine(_outside, "x")))
            .Message.ShouldContain("holds no export");

        var records = Path.Combine(export, "records.csv");
        var lines = File.ReadAllLines(records);
        File.WriteAllLines(records, lines[..^1]);
        var target = Path.Combine(_outside, "target");
        Should.Throw<ShopFileException>(() => ShopTransfer.Import(export, target)).Message.ShouldContain("not whole");
        File.WriteAllLines(records, [.. lines[..^1], lines[^1].Replace(",function,", ",function,").Insert(0, "x")]);
        Should.Throw<ShopFileException>(() => ShopTransfer.Import(export, target));
        File.WriteAllLines(records, [lines[0] + ",later", .. lines[1..].Select(l => l + ",1")]);
        Should.Throw<ShopFileException>(() => ShopTransfer.Import(export, target)).Message.ShouldContain("“later”");
        // Nothing half done is left.
        Directory.Exists(target).ShouldBeTrue();
        Directory.EnumerateFileSystemEntries(target).ShouldBeEmpty();
    }

    private static List<string> Files(string folder) =>
        Directory
            .EnumerateFiles(folder, "*", SearchOption.AllDirectories)
            .Select(f => Path.GetRelativePath(folder, f))
            .Order(StringComparer.Ordinal)
            .ToList();

    private static void Fill(ShopFile shop, string[] texts, double value, decimal money, int count)
    {
        new SettingsStore(shop.Database).Save(ShopSettings.Default with { ShopName = texts[0], LearningStrength = 2.5 });
        var gear = new GearStore(shop.Database, shop.Time);
        var piece = gear.Add("Cable " + texts[1], "test-cable");
        for (var n = 0; n < count; n++)
        {
            var job = shop.Jobs.TakeIn(
                new NewJob(
                    ShopFile.Blank(texts[2]) with
                    {
                        Serial = texts[3],
                        Paid = money,
                        ValueParts = 0.10m,
                        ConditionNote = texts[4],
                    },
                    "Owner " + n,
                    texts[5],
                    [shop.Tried("power-light", false)]
                )
            );
            shop.Records.Add(
                shop.Record(new ProbeReading("tp3", ProbeOutcome.Normal, new Reading(ReadingUnit.Volts, value), texts[6]), job.Id) with
                {
                    Note = texts[7],
                    Minutes = Math.Abs(value),
                }
            );
            shop.Records.Add(
                shop.Record(
                    new SwapTrial("start-up", SwapResult.Fail, ["main"], ["slot"], [new SwapPiece($"g{piece}", texts[1], "test-cable")]),
                    job.Id
                )
            );
            var cause = shop.Records.Add(shop.Record(new CauseSeen("switch", "dirty", true), job.Id) with { Cost = money });
            shop.Records.Correct(job.Id, shop.Records.Of(job.Id)[0].Id, shop.Tried("power-light", true));
            if (n % 2 == 0)
                new LessonStore(shop.Database, shop.Time).Exclude(cause);
            new SecondLookStore(shop.Database, shop.Time).Add(job.Id, cause, new LookReason(0.1, 0.1 + 0.2, 20));
            new GoodReadingStore(shop.Database, shop.Time).Add(
                [
                    new GoodReading("harrow-quartet", "", "tp5", "V", value, $"unit {n}"),
                    new GoodReading("harrow-quartet", "", "tp5", "ohm", null, $"unit {n}"),
                ],
                job.Id
            );
            new ContactMarkStore(shop.Database, shop.Time).Add(job.Id, "slot", new ContactMark(n + 1, ContactState.Beep, value));
            if (n == 1)
                shop.Move(job, JobLife.Delete(job.Status));
        }
    }
}
