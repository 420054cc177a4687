using System.Globalization;
using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;
using Mendro.StandIns;
using Mendro.Storage;

namespace Mendro.Scale;

/// <summary>
/// Fills an empty shop with many jobs through the shop's own stores. What happened to each unit is what happened to a practice
/// unit of its model, so that the evidence hangs together; the same number of jobs is the same shop.
/// </summary>
internal sealed class ShopFiller
{
    private const int Batch = 500;
    private const int HistoriesOfAModel = 24;
    private const int OnTheBench = 40;
    private const int OnShelves = 110;
    private const int GoodUnits = 200;

    private static readonly string[] First = ["Ada", "Bero", "Cila", "Doran", "Ebba", "Farin", "Gesa", "Hollis", "Imre", "Jorun"];
    private static readonly string[] Last = ["Ashgrove", "Brackwell", "Corvane", "Dellmoor", "Eastmere", "Fennick", "Garrowby", "Hathen"];

    private readonly ShopDatabase _database;
    private readonly JobStore _jobs;
    private readonly BenchRecordStore _records;
    private readonly Clock _clock = new();
    private readonly Random _random = new(20_000);
    private readonly List<(DeviceModel Model, List<PracticeBench> Histories)> _models;

    public ShopFiller(string folder)
    {
        _database = new ShopDatabase(Path.Combine(folder, "shop.db"));
        _database.Migrate();
        new ProfileStore(_database, _clock).TakeIn(TradeLibrary.Shipped, demo: true);
        (_jobs, _records) = (new JobStore(_database, _clock), new BenchRecordStore(_database, _clock));
        _models = TradeLibrary
            .Shipped.Profiles.Where(p => !p.Id.StartsWith("generic-", StringComparison.Ordinal))
            .Select(p => new DeviceModel(p, TradeLibrary.Shipped))
            .Select(m => (m, Enumerable.Range(0, HistoriesOfAModel).Select(n => History(m, n)).ToList()))
            .ToList();
    }

    /// <summary>Fills the shop.</summary>
    /// <param name="count">Number of jobs, 200 or more.</param>
    public void Fill(int count)
    {
        if (_jobs.Live().Count > 0)
            throw new InvalidOperationException("The shop is not empty.");
        _clock.Now = new DateTimeOffset(2026, 11, 1, 8, 0, 0, TimeSpan.Zero).AddMinutes(-90.0 * count);
        Gear();
        Good();
        for (var from = 0; from < count; from += Batch)
        {
            _database.InOneTransaction(() =>
            {
                for (var n = from; n < Math.Min(count, from + Batch); n++)
                    Job(n, count);
                return true;
            });
            Console.Error.Write(string.Create(CultureInfo.InvariantCulture, $"\r{Math.Min(count, from + Batch)} jobs"));
        }

        Console.Error.WriteLine();
    }

    private static PracticeBench History(DeviceModel model, int number) =>
        Simulation.Work(model, PracticeUnit.Draw(model, 77, number), SimulatedPolicy.Checklist);

    private void Gear()
    {
        var gear = new GearStore(_database, _clock);
        foreach (
            var (name, kind) in ((string, string)[])
                [
                    ("Bench console", "test-console"),
                    ("Test cartridge 1", "test-cartridge"),
                    ("Cable A", "test-cable"),
                    ("Bench supply", "adapter"),
                ]
        )
            gear.AddUses(gear.Add(name, kind), 20);
    }

    private void Good()
    {
        var store = new GoodReadingStore(_database, _clock);
        foreach (var (model, _) in _models)
        {
            var probes = model.Profile.Probes.Where(p => p.Kind is ProbeKind.Volts or ProbeKind.Ohms).Take(10).ToList();
            store.Add(
                Enumerable
                    .Range(1, GoodUnits)
                    .SelectMany(unit =>
                        probes.Select(p => new GoodReading(
                            model.Profile.Id,
                            "",
                            p.Id,
                            p.Kind == ProbeKind.Volts ? "V" : "ohm",
                            Math.Round(5 + 0.1 * _random.NextDouble(), 3),
                            string.Create(CultureInfo.InvariantCulture, $"good {unit}")
                        ))
                    )
            );
        }
    }

    private void Job(int n, int count)
    {
        _clock.Now = _clock.Now.AddMinutes(80);
        var (model, histories) = _models[_random.Next(_models.Count)];
        var history = histories[_random.Next(histories.Count)];
        var owned = _random.Next(3) > 0;
        var live = n >= count - OnTheBench - OnShelves;
        var baseline = model.Profile.Functions.Count;
        var job = _jobs.TakeIn(
            new NewJob(
                new Job
                {
                    ProfileId = model.Profile.Id,
                    ProfileVersion = 1,
                    ModelName = model.Profile.FullName,
                    Revision = _random.Next(2) == 0 ? "B" : "",
                    Serial = string.Create(CultureInfo.InvariantCulture, $"K{_random.Next(100_000_000):00000000}"),
                    Lot = owned ? "" : string.Create(CultureInfo.InvariantCulture, $"lot {n / 40}"),
                    Paid = owned ? null : 20,
                    Currency = "EUR",
                    Claim = _random.Next(2) == 0 ? "dead when it came out of the attic" : "worked last year, then stopped",
                    Accessories = "case",
                    ValueWorking = 90,
                    ValueAsIs = 35,
                    ValueParts = 20,
                    Stage = WorkStage.Find,
                    ReceivedAt = _clock.Now,
                },
                owned ? $"{First[_random.Next(First.Length)]} {Last[_random.Next(Last.Length)]} {_random.Next(count / 5)}" : null,
                "",
                history.Bodies.Take(baseline).Select(b => BenchRecord.Of(b, model, WorkStage.Intake, _clock.Now)).ToList()
            )
        );
        var done = live ? baseline + _random.Next(3) : int.MaxValue;
        Work(job, model, history, baseline, done);
        if (!live)
            Finish(job, n);
        else if (n < count - OnTheBench)
            _jobs.Move(job, job.Status with { Shelf = (Shelf)(1 + n % 3) }, "Waits", "a part is on its way");
    }

    private void Work(Job job, DeviceModel model, PracticeBench history, int baseline, int most)
    {
        void File(RecordBody body, WorkStage stage)
        {
            _clock.Now = _clock.Now.AddMinutes(1);
            _records.Add(BenchRecord.Of(body, model, stage, _clock.Now) with { JobId = job.Id });
        }

        var guilty = history.Bodies.OfType<RepairLogged>().Select(r => r.Part).Distinct().ToList();
        // Not every repairer says what the cause was.
        var told = _random.Next(5) < 2;
        foreach (var body in history.Bodies.Take(most).Skip(baseline).Where((_, n) => n < 3))
        {
            if (!told && body is RepairLogged repair && guilty.Count > 0 && model.FaultsOf(repair.Part) is [var fault, ..])
            {
                told = true;
                if (CauseSeen.Make(model, repair.Part, model.Faults[fault].Mode.Id, true) is { } cause)
                    File(cause, WorkStage.Fix);
            }

            File(body, body is RepairLogged ? WorkStage.Fix : WorkStage.Find);
        }

        if (most < int.MaxValue)
            return;
        foreach (var function in model.Profile.Functions)
            File(new FunctionTrial(function.Id, true), WorkStage.Prove);
    }

    private void Finish(Job job, int n)
    {
        var end = n % 3 == 0 ? JobEnd.ForSale : JobEnd.Returned;
        foreach (var stage in (WorkStage[])[WorkStage.Fix, WorkStage.Prove])
            _jobs.Move(job, job.Status with { Stage = stage }, $"On to {StageWords.Name(stage)}");
        _jobs.Move(job, new JobStatus(WorkStage.HandOver, Shelf.None, end, n % 100 == 0), StageWords.Name(end));
    }

    private sealed class Clock : TimeProvider
    {
        public DateTimeOffset Now { get; set; } = DateTimeOffset.UnixEpoch;

        public override DateTimeOffset GetUtcNow() => Now;
    }
}
