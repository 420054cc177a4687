using System.Diagnostics;
using System.Globalization;
using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Storage;

namespace Mendro.Scale;

/// <summary>Times the pages of a running shop: the 95th percentile in milliseconds, and the size where it matters.</summary>
internal sealed partial class PageTimes(Uri address, string folder, string label)
{
    private const int Rounds = 40;
    private const int LookedAt = 6000;

    private readonly JobStore _jobs = new(new ShopDatabase(Path.Combine(folder, "shop.db")), TimeProvider.System);
    private readonly Dictionary<string, DeviceModel> _models = TradeLibrary.Shipped.Profiles.ToDictionary(
        p => p.Id,
        p => new DeviceModel(p, TradeLibrary.Shipped)
    );

    /// <summary>Runs all of it and prints a table.</summary>
    public async Task<int> Run()
    {
        using var visitor = new ShopVisitor(address);
        var live = _jobs.Live();
        var bench = live.Where(j => j.Shelf == Shelf.None).ToList();
        Console.WriteLine($"| {(label.Length > 0 ? label : "page")} | p50 ms | p95 ms | KB |");
        Console.WriteLine("|---|---|---|---|");

        await Time("bench", 1, _ => visitor.Get("/"), " (first)");
        await Task.Delay(3000);
        await Time("bench", Rounds, _ => visitor.Get("/"));
        await Time("reading posted", bench.Count, n => Reading(visitor, bench[n]));
        await Time("bench after a reading", Rounds, n => visitor.Get("/"), before: n => Reading(visitor, bench[n % bench.Count]));
        await Time("Find", bench.Count, n => visitor.Get($"/Jobs/{bench[n].Number}/Find"), " (first)");
        await Time("Find", bench.Count, n => visitor.Get($"/Jobs/{bench[n].Number}/Find"));
        await Time(
            "Find after a reading",
            Rounds,
            n => visitor.Get($"/Jobs/{bench[n % bench.Count].Number}/Find"),
            before: n => Reading(visitor, bench[n % bench.Count])
        );
        await Time(
            "judge while typing",
            bench.Count,
            n => visitor.Get($"/Jobs/{bench[n].Number}/Find?handler=Judge&probe={Probe(bench[n]).Id}&text=4.9")
        );
        await Time("repair with a cause confirmed", Rounds, n => Repair(visitor, bench[n % bench.Count]));
        await Task.Delay(3000);
        await Time("bench after a confirmed cause", Rounds, _ => visitor.Get("/"), before: n => Repair(visitor, bench[n % bench.Count]));
        await Time("bench after a setting", 6, _ => visitor.Get("/"), before: n => Setting(visitor, n));
        await Task.Delay(3000);
        await Time("search by serial", Rounds, n => visitor.Get($"/Jobs?q={bench[n % bench.Count].Serial}"));
        await Time("search by owner", Rounds, _ => visitor.Get("/Jobs?q=Fennick"));
        await Time("search by symptom", Rounds, _ => visitor.Get("/Jobs?q=fails+attic"));
        await Time("search, 8 words, no match", Rounds, _ => visitor.Get("/Jobs?q=bero+grey+attic+lot+quartet+sound+K77+zebra"));
        await Time("closed jobs", Rounds, _ => visitor.Get("/Jobs?show=closed"));
        await Time("Patterns", Rounds, _ => visitor.Get("/Patterns"));
        await Time("good readings", Rounds, _ => visitor.Get("/Models/harrow-quartet/Good"));
        await Time("good readings, CSV", Rounds, _ => visitor.Get("/Models/harrow-quartet/Good?handler=Csv"));
        await Time("intake", Rounds, _ => visitor.Get("/Intake"));
        await Time("gear", Rounds, _ => visitor.Get("/Gear"));
        await EightBenches(bench);
        await Memory(visitor);
        return 0;
    }

    private Probe Probe(Job job) => _models[job.ProfileId].Profile.Probes.First(p => p.Kind is ProbeKind.Volts or ProbeKind.Ohms);

    private async Task<(double, int)> Reading(ShopVisitor visitor, Job job)
    {
        var (took, code) = await visitor.Post(
            $"/Jobs/{job.Number}/Find?handler=Reading",
            ("probe", Probe(job).Id.Value),
            ("text", (4 + (Stopwatch.GetTimestamp() % 1000 / 1000.0)).ToString("0.000", CultureInfo.InvariantCulture))
        );
        return code is 302 or 422 ? (took, 0) : throw new InvalidOperationException($"A reading was answered with {code}.");
    }

    private async Task<(double, int)> Repair(ShopVisitor visitor, Job job)
    {
        var model = _models[job.ProfileId];
        var (part, method, mode) = model
            .Profile.Parts.SelectMany(p =>
                TradeLibrary
                    .Shipped.Methods.Where(m => m.Cures.Any(c => c.Kind == p.Kind))
                    .SelectMany(m => model.FaultsOf(p.Id).Take(1).Select(f => (p.Id, m.Id, model.Faults[f].Mode.Id)))
            )
            .ElementAt(Random.Shared.Next(6));
        var (took, code) = await visitor.Post(
            $"/Jobs/{job.Number}/Fix",
            ("part", part.Value),
            ("method", method.Value),
            ("cause", mode),
            ("minutes", "5")
        );
        return code is 302 or 422 ? (took, 0) : throw new InvalidOperationException($"A repair was answered with {code}.");
    }

    private static async Task Setting(ShopVisitor visitor, int n) =>
        await visitor.Post(
            "/Settings",
            ("ShopName", "Scale"),
            ("Currency", "EUR"),
            ("Rate", (30 + n).ToString(CultureInfo.InvariantCulture)),
            ("Originality", "60"),
            ("Strength", "2"),
            ("LookMinutes", "20"),
            ("LookPercent", "40")
        );

    private Task EightBenches(List<Job> bench) => EightBenches(bench, () => Task.FromResult(new ShopVisitor(address)));

    /// <returns>Answers that said that something was written.</returns>
    private async Task<int> EightBenches(List<Job> bench, Func<Task<ShopVisitor>> visitors)
    {
        var until = Stopwatch.GetTimestamp() + 10 * Stopwatch.Frequency;
        var all = await Task.WhenAll(
            Enumerable
                .Range(0, 8)
                .Select(n =>
                    Task.Run(async () =>
                    {
                        using var visitor = await visitors();
                        var (readings, repairs) = (new List<double>(), new List<double>());
                        for (var step = 0; Stopwatch.GetTimestamp() < until; step++)
                        {
                            var job = bench[(n + 8 * (step % 4)) % bench.Count];
                            if (step % 5 == 4)
                                repairs.Add((await Repair(visitor, job)).Item1);
                            else
                                readings.Add((await Reading(visitor, job)).Item1);
                        }

                        return (readings, repairs);
                    })
                )
        );
        var (took, fixes) = (all.SelectMany(a => a.readings).ToList(), all.SelectMany(a => a.repairs).ToList());
        Line("eight benches, a reading", took, 0);
        Line("eight benches, a repair", fixes, 0);
        Console.WriteLine(FormattableString.Invariant($"| eight benches, writes a second | {(took.Count + fixes.Count) / 10.0:0.0} | | |"));
        return took.Count + fixes.Count;
    }

    private async Task Memory(ShopVisitor visitor)
    {
        Console.WriteLine(FormattableString.Invariant($"| memory before, MB | {Resident()} | | |"));
        for (var n = 0; n < LookedAt; n++)
        {
            var number = 101 + n;
            if (_jobs.Find(number) is null)
                break;
            await visitor.Get($"/Jobs/{number}/Find");
        }

        Console.WriteLine(FormattableString.Invariant($"| memory after {LookedAt} jobs looked at, MB | {Resident()} | | |"));
    }

    /// <summary>Resident memory of the server, found by the shop's folder in its command line; Linux only.</summary>
    private long Resident() => OfServer(process => process.WorkingSet64 / 1024 / 1024);

    private long OfServer(Func<Process, long> ask)
    {
        foreach (var process in Process.GetProcessesByName("dotnet"))
        {
            using (process)
            {
                var line = File.ReadAllText($"/proc/{process.Id}/cmdline");
                if (line.Contains("Mendro.Web.dll", StringComparison.Ordinal) && line.Contains(folder, StringComparison.Ordinal))
                    return ask(process);
            }
        }

        return 0;
    }

    private static async Task Time(
        string name,
        int rounds,
        Func<int, Task<(double, int)>> ask,
        string more = "",
        Func<int, Task>? before = null
    )
    {
        var times = new List<double>();
        var bytes = 0;
        // The very first visit of a page after a start compiles it; it is not what a day at the bench is made of.
        if (before is null && rounds > 1)
            await ask(0);
        for (var n = 0; n < rounds; n++)
        {
            if (before is not null)
                await before(n);
            var (took, size) = await ask(n);
            times.Add(took);
            bytes = Math.Max(bytes, size);
        }

        Line(name + more, times, bytes);
    }

    private static void Line(string name, List<double> times, int bytes)
    {
        times.Sort();
        double At(double share) => times[Math.Min(times.Count - 1, (int)(share * times.Count))];
        Console.WriteLine(
            string.Create(CultureInfo.InvariantCulture, $"| {name} | {At(0.5):0} | {At(0.95):0} | {(bytes > 0 ? $"{bytes / 1024}" : "")} |")
        );
    }
}
