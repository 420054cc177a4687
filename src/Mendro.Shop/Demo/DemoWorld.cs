using System.Globalization;
using System.Text.Json;
using Mendro.Core.Capacitors;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Money;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;
using Mendro.Core.Stock;
using Mendro.Pictures;
using Mendro.Storage;

namespace Mendro.Shop.Demo;

/// <summary>
/// Fills an empty shop with an invented world. Every step goes through the same stores and rules as a page would.
/// Steps: <c>mark ID</c>, <c>pass FUNCTION …</c>, <c>fail FUNCTION [LOOK]</c>, <c>failall [LOOK]</c>, <c>read PROBE TEXT</c>,
/// <c>starts FUNCTION pass|fail N</c>, <c>provoke FUNCTION HOW changed|same</c>, <c>swap FUNCTION PART=GEAR… RESULT</c> (gear by
/// its number), <c>cause PART MODE</c>, <c>fix PART METHOD [MINUTES] [COST]</c>, <c>prove</c> (all functions pass), <c>stage
/// NAME</c>, <c>quote LOW LIKELY HIGH WORKS</c>,
/// <c>picture before|after YELLOWED WORDS</c> (0 not at all to 1 brown),
/// <c>contacts CONNECTOR NUMBER=STATE…</c>, <c>hide PART.MODE …</c> (what the stand-in meter will find), <c>close</c> (case closed
/// up), <c>shelf NAME REASON|NEXT</c>, <c>end NAME NOTE</c>, <c>day N</c> (days later).
/// </summary>
public sealed class DemoWorld(
    ShopDatabase database,
    SecondLookDesk secondLooks,
    PracticeDesk practice,
    ModelShelf models,
    TradeLibrary library,
    PictureFiles pictureFiles,
    TimeProvider time
)
{
    private const long PracticeSeed = 7;

    private static readonly (string Name, string Kind, int Uses)[] Pieces =
    [
        ("Bench console", "test-console", 34),
        ("Spare console, grey", "test-console", 4),
        ("Test cartridge 1", "test-cartridge", 26),
        ("Test cartridge 2", "test-cartridge", 3),
        ("Cable A", "test-cable", 38),
        ("Cable B, blue tape", "test-cable", 6),
        ("Bench screen", "test-screen", 0),
        ("Old set by the door", "test-screen", 0),
        ("Bench supply", "adapter", 30),
        ("Fresh cells, AA", "cells", 0),
        ("Drive from unit 119", "optical-drive", 2),
    ];

    private readonly SteppedClock _clock = new(time);

    private JobStore Jobs => new(database, _clock);

    private BenchRecordStore Records => new(database, _clock);

    private JobBench Bench => new(Jobs, Records, models, new Ledger(database, new ActionStore(database, _clock)), _clock);

    private HandOverDesk HandOver =>
        new(
            Bench,
            Jobs,
            Records,
            new GoodReadingStore(database, _clock),
            new SaleStore(database, _clock),
            new DonorStore(database, _clock),
            new ShelfStore(database, _clock)
        );

    private PictureDesk Pictures => new(Bench, new PictureStore(database, _clock), pictureFiles);

    /// <summary>Seeds the shop, unless it has jobs already.</summary>
    public void SeedOnce() =>
        database.InOneTransaction(() =>
        {
            if (!Jobs.IsEmpty())
                return false;
            new SettingsStore(database).Save(ShopSettings.Default with { ShopName = "Lantern Yard Repairs" });
            TakeGear();
            var world = JsonSerializer.Deserialize<List<DemoJob>>(Resource("demo-jobs.json"), ProfileJson.Options) ?? [];
            foreach (var job in world.OrderByDescending(j => j.Days))
                Play(job);
            new GoodReadingStore(database, _clock).Add(GoodReadingFile.Read(Resource("demo-good-readings.csv"), out _));
            new CapacitorStore(database, _clock).Add(
                CapacitorFile.ReadParts(Resource("demo-capacitors.csv"), CapacitorSource.Stock, out _)
            );
            var stock = new StockStore(database, _clock);
            foreach (var line in StockFile.Read(Resource("demo-stock.csv"), out _))
                stock.Add(StockItem.Of(line), "counted");
            foreach (var (name, words) in ((string, string)[])[
                ("5", "attic find, by word of mouth"), ("6", "two consoles with a box of cartridges"), ("7", "broken, untested, from a closing shop"),
                ("8", "mixed box, market by the river"),
            ])
            {
                var lots = new LotStore(database, _clock);
                if (lots.Find(name) is { } lot)
                    lots.Save(lot with { Words = words });
            }

            foreach (var model in (string[])["harrow-quartet", "tarn-leaflet"])
                new SaleStore(database, _clock).Add(
                    model,
                    ComparableFile.Read(
                        Resource($"demo-prices-{model}.csv"),
                        new Currency(ShopSettings.Default.Currency),
                        DateOnly.FromDateTime(time.GetUtcNow().UtcDateTime),
                        out _
                    )
                );
            practice.Start("harrow-quartet", PracticeSeed);
            return true;
        });

    private static string Resource(string name)
    {
        using var stream =
            typeof(DemoWorld).Assembly.GetManifestResourceStream(name) ?? throw new InvalidOperationException($"{name} is not embedded.");
        using var reader = new StreamReader(stream);
        return reader.ReadToEnd();
    }

    private void TakeGear()
    {
        _clock.Set(time.GetUtcNow().AddDays(-60));
        var gear = new GearStore(database, _clock);
        foreach (var (name, kind, uses) in Pieces)
            gear.AddUses(gear.Add(name, kind), uses);
    }

    private void Play(DemoJob told)
    {
        var (model, version) = models.Latest(told.Model) ?? throw new InvalidOperationException($"Demo: no profile {told.Model}.");
        _clock.Set(time.GetUtcNow().AddDays(-told.Days));
        var steps = told.Script.Select(s => s.Split(' ', 2)).Select(s => (Verb: s[0], Told: s.Length > 1 ? s[1] : "")).ToList();
        var atDoor = steps.TakeWhile(s => s.Verb is "mark" or "pass" or "fail" or "failall").ToList();
        var job = Jobs.TakeIn(
            new NewJob(
                new Job
                {
                    ProfileId = told.Model,
                    ProfileVersion = version,
                    ModelName = model.Profile.FullName,
                    UnitName = told.Unit ?? "",
                    Revision = told.Revision ?? "",
                    Serial = told.Serial ?? "",
                    Lot = told.Lot ?? "",
                    Paid = told.Paid,
                    Currency = ShopSettings.Default.Currency,
                    Claim = told.Claim ?? "",
                    Accessories = told.Accessories ?? "",
                    Promised = told.PromisedIn is { } days ? DayText.Write(DateOnly.FromDateTime(time.GetUtcNow().UtcDateTime).AddDays(days)) : "",
                    ValueWorking = told.Values?[0],
                    ValueAsIs = told.Values?[1],
                    ValueParts = told.Values?[2],
                    Stage = WorkStage.Find,
                    ReceivedAt = _clock.GetUtcNow(),
                },
                told.Owner,
                told.Contact ?? "",
                atDoor
                    .SelectMany(s => Tried(model, s.Verb, s.Told))
                    .Select(b => BenchRecord.Of(b, model, WorkStage.Intake, _clock.GetUtcNow()))
                    .ToList()
            )
        );
        foreach (var (verb, rest) in steps.Skip(atDoor.Count))
            Step(Jobs.Find(job.Number)!, model, verb, rest);
    }

    private void Step(Job job, DeviceModel model, string verb, string rest)
    {
        _clock.Step(TimeSpan.FromMinutes(4));
        var (words, open) = (rest.Split(' '), new OpenJob(job, model));
        long File(RecordBody? body, WorkStage? stage = null, Func<BenchRecord, BenchRecord>? more = null)
        {
            var filed = Bench.File(open, body ?? throw Wrong(job, verb, rest), stage ?? job.Stage, more);
            Bench.Settle(new OpenJob(Jobs.Find(job.Number)!, model), body.Step);
            return filed.Id;
        }

        switch (verb)
        {
            case "pass" or "fail" or "failall" or "mark":
                foreach (var body in Tried(model, verb, rest))
                    File(body);
                break;
            case "read":
                var probe = model.Profile.FindProbe(words[0]) ?? throw Wrong(job, verb, rest);
                var judged = ReadingJudge.Judge(model.Profile, probe, rest[(words[0].Length + 1)..]);
                File(judged.IsOk ? ProbeReading.Of(probe, judged.Value) : throw Wrong(job, verb, rest));
                break;
            case "contacts":
                var marks = new ContactMarkStore(database, _clock);
                foreach (var pair in words[1..].Select(w => w.Split('=')))
                    marks.Add(
                        job.Id,
                        words[0],
                        new ContactMark(Number(pair[0]), Enum.Parse<ContactState>(pair[1], ignoreCase: true), null)
                    );
                break;
            case "point":
                File(new PointNoted(words[0], words[1], words[2]), WorkStage.Fix);
                break;
            case "crack":
                File(new BoardCracked(words[0], NetText.ReadLine(rest[(words[0].Length + 1)..]) ?? throw Wrong(job, verb, rest)), WorkStage.Fix);
                break;
            case "beep" or "silent":
                File(new LineBeeped(words[0], words[1], verb == "beep", string.Join(' ', words[2..])), WorkStage.Fix);
                break;
            case "hide":
                new StandInTruthStore(database).Hide(job.Id, words);
                break;
            case "starts":
                File(FunctionTrial.Make(model, words[0], words[1] == "pass", null, Number(words[2])));
                break;
            case "provoke":
                File(ProvokeTrial.Make(model, words[0], Enum.Parse<Provocation>(words[1], ignoreCase: true), words[2] == "changed"));
                break;
            case "swap":
                var swaps = words[1..^1].Select(w => w.Split('=')).Select(w => (Part: new PartId(w[0]), Piece: Number(w[1]))).ToList();
                var stood = swaps
                    .Select(s => new SwapPiece(Gear.EngineId(s.Piece), Pieces[s.Piece - 1].Name, Pieces[s.Piece - 1].Kind))
                    .ToList();
                var swapped = swaps.Select(s => s.Part).ToList();
                File(
                    new SwapTrial(
                        words[0],
                        Enum.Parse<SwapResult>(words[^1], ignoreCase: true),
                        SwapPlanner.Chain(model, words[0], swapped),
                        swapped,
                        stood
                    )
                );
                break;
            case "cause":
                secondLooks.Consider(File(CauseSeen.Make(model, words[0], words[1], true)));
                break;
            case "fix":
                var minutes = words.Length > 2 ? double.Parse(words[2], CultureInfo.InvariantCulture) : default(double?);
                var cost =
                    words.Length > 3 ? decimal.Parse(words[3], CultureInfo.InvariantCulture) : library.FindMethod(words[1])?.PartsCost;
                File(
                    RepairLogged.Make(model, words[0], words[1]),
                    WorkStage.Fix,
                    r => r with { Minutes = minutes ?? r.Minutes, Cost = cost }
                );
                break;
            case "prove":
                foreach (var function in model.Profile.Functions)
                {
                    var now = new OpenJob(Jobs.Find(job.Number)!, model);
                    Bench.File(now, new FunctionTrial(function.Id, true), WorkStage.Prove);
                    Bench.Settle(now, JobStep.Proving);
                }

                break;
            case "stage":
                Jobs.Move(
                    job,
                    job.Status with
                    {
                        Stage = Enum.Parse<WorkStage>(rest),
                    },
                    $"On to {StageWords.Name(Enum.Parse<WorkStage>(rest))}"
                );
                break;
            case "close":
                File(new AccessNoted(AccessState.Closed));
                break;
            case "shelf":
                var reason = rest[(words[0].Length + 1)..].Split('|');
                Must(
                    HandOver.Shelve(job.Number, Enum.Parse<Shelf>(words[0]), reason[0], reason.Length > 1 ? reason[1] : ""),
                    job,
                    verb,
                    rest
                );
                break;
            case "end":
                var ending = Enum.Parse<JobEnd>(words[0]);
                var order = new CloseOrder(
                    job.Number,
                    ending,
                    rest[words[0].Length..].Trim(),
                    "",
                    ending == JobEnd.ForSale ? job.ValueWorking : null,
                    false
                );
                Must(HandOver.Close(order), job, verb, rest);
                break;
            case "quote":
                var range = words[..3].Select(w => decimal.Parse(w, CultureInfo.InvariantCulture)).ToList();
                File(new QuoteGiven(range[0], range[1], range[2], job.Currency, string.Join(' ', words[3..]), ConsentWay.Phone), job.Stage);
                break;
            case "picture":
                var shell = StandInCamera.Shell(double.Parse(words[1], CultureInfo.InvariantCulture), (int)job.Number);
                var told = new PictureWords("", words[0], string.Join(' ', words[2..]));
                if (Pictures.Take(job.Number, shell, told).Refusal is { } refused)
                    throw new InvalidOperationException($"{Wrong(job, verb, rest).Message} {refused.Problem}");
                break;
            case "day":
                _clock.Step(TimeSpan.FromDays(double.Parse(rest, CultureInfo.InvariantCulture)));
                break;
            default:
                throw Wrong(job, verb, rest);
        }
    }

    private static List<RecordBody> Tried(DeviceModel model, string verb, string rest)
    {
        var words = rest.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        List<RecordBody?> bodies = verb switch
        {
            "mark" => [MarkNoted.Make(model.Library, words[0])],
            "pass" => [.. words.Select(f => FunctionTrial.Make(model, f, true))],
            "fail" => [FunctionTrial.Make(model, words[0], false, words.ElementAtOrDefault(1))],
            _ => [.. model.Profile.Functions.Select(f => FunctionTrial.Make(model, f.Id, false, words.ElementAtOrDefault(0)))],
        };
        return bodies
            .Select(b => b ?? throw new InvalidOperationException($"Demo: {model.Profile.Id} knows nothing of “{verb} {rest}”."))
            .ToList();
    }

    private static int Number(string text) => int.Parse(text, CultureInfo.InvariantCulture);

    private static void Must(Deed<Done> deed, Job job, string verb, string rest)
    {
        if (deed.Refusal is { } refusal)
            throw new InvalidOperationException($"{Wrong(job, verb, rest).Message} {refusal.Problem}");
    }

    private static InvalidOperationException Wrong(Job job, string verb, string rest) =>
        new($"Demo job {job.Number}: “{verb} {rest}” cannot be done.");

    /// <summary>A clock that the demo world sets, so that its history lies in the past.</summary>
    private sealed class SteppedClock(TimeProvider real) : TimeProvider
    {
        private DateTimeOffset _now = real.GetUtcNow();

        public override DateTimeOffset GetUtcNow() => _now;

        public void Set(DateTimeOffset at) => _now = at;

        /// <summary>Goes on, but never past the present.</summary>
        public void Step(TimeSpan by) => _now = _now + by < real.GetUtcNow() ? _now + by : real.GetUtcNow();
    }
}
