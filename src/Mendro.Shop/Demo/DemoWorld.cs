using System.Text.Json;
using Mendro.Core.Capacitors;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Money;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;
using Mendro.Core.Stock;
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
public sealed partial class DemoWorld(
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
            new ShelfStore(database, _clock),
            new SettingsStore(database)
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
                stock.Add(StockItem.Of(line), "put in");
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
}
