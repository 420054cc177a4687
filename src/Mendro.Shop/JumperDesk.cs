using System.Collections.Concurrent;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Mendro.Core.Boards;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;
using Mendro.Solver;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>One school of bridging, in figures.</summary>
/// <param name="School">Which.</param>
/// <param name="Wires">Wires still to be soldered.</param>
/// <param name="TotalMm">Length of their ways together, mm.</param>
/// <param name="Twice">Points with two wires.</param>
/// <param name="Crossings">Crossings.</param>
/// <param name="Minutes">Minutes.</param>
public sealed record JumperFigures(JumperSchool School, int Wires, double TotalMm, int Twice, int Crossings, double Minutes);

/// <summary>The wires that are still to be soldered.</summary>
/// <param name="Wires">Wires in the order of the work.</param>
/// <param name="Unreachable">Nets that cannot be joined, and why.</param>
/// <param name="Schools">Both schools in figures.</param>
public sealed record JumperSheet(
    IReadOnlyList<PlannedWire> Wires,
    IReadOnlyList<UnreachableNet> Unreachable,
    IReadOnlyList<JumperFigures> Schools
);

/// <summary>Plans the wires of a unit from what is, and takes it through soldering them.</summary>
public sealed class JumperDesk(JobBench bench, TraceStore store, TraceDesk traces, BenchDesk desk)
{
    private const int MostKept = 64;
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(3);
    private static readonly TraceLibrary Known = TraceLibrary.Shipped;
    private static readonly MethodId Bridging = "jumper";

    private readonly ConcurrentDictionary<string, JumperSheet> _kept = new();

    /// <summary>The plan, made anew whenever something of it has changed.</summary>
    public JumperSheet Plan(TraceSheet sheet)
    {
        if (!sheet.Nets.Any(n => n.IsBroken))
            return new JumperSheet([], [], []);
        var mark = Mark(sheet);
        if (_kept.TryGetValue(mark, out var kept))
            return kept;
        if (_kept.Count >= MostKept)
            _kept.Clear();
        return _kept[mark] = Make(sheet);
    }

    /// <summary>A wire was soldered, tugged and beeped.</summary>
    public Deed<Done> Lay(long number, string from, string to, string? once = null) =>
        On(
            number,
            once,
            (job, sheet) =>
            {
                if (sheet.ToBeep.FirstOrDefault() is { } warmed)
                    return Refusal.Invalid($"Beep the wire {sheet.Name(warmed.From)} to {sheet.Name(warmed.To)} again first: its joint was warmed.");
                if (Plan(sheet).Wires.FirstOrDefault(w => w.Wire.From.Id == from && w.Wire.To.Id == to) is not { } planned)
                    return Refusal.Invalid("That wire is no longer in the plan; this is how it stands now.");
                var path = planned.Wire.Path.Select(p => (IReadOnlyList<double>)[Math.Round(p.X, 3), Math.Round(p.Y, 3)]).ToList();
                var laid = new WireLaid(planned.Net.Name, from, to, planned.Wire.Layer.Side, Math.Round(planned.CutMm, 1), planned.Sort.Id, path);
                var filed = bench.File(job, laid, WorkStage.Fix, r => r with { Minutes = Known.Minutes.Wire });
                Whole(job, sheet, planned.Net.Serves);
                bench.Settle(job, JobStep.Repaired);
                return new Done(filed.Words);
            }
        );

    /// <summary>A wire in place was beeped again, or is off.</summary>
    public Deed<Done> Check(long number, string from, string to, bool holds, string? once = null) =>
        On(
            number,
            once,
            (job, sheet) =>
            {
                if (!sheet.Wires.Any(w => w.From == from && w.To == to))
                    return Refusal.Missing;
                var filed = bench.File(job, new WireChecked(from, to, holds), WorkStage.Fix, r => r with { Minutes = 0 });
                bench.Settle(job, JobStep.Looked);
                return new Done(holds ? filed.Words : filed.Words + "; it is back in the plan.");
            }
        );

    /// <summary>What hid points goes back on: not before all that it hides is soldered and tested.</summary>
    public Deed<Done> PutBack(long number, string what, string? once = null) =>
        On(
            number,
            once,
            (job, sheet) =>
            {
                if (!sheet.Plan.Off.Contains(what))
                    return Refusal.Missing;
                if (Plan(sheet).Wires.Count(w => w.Under == what) is > 0 and var open)
                    return Refusal.Invalid($"{open} {(open == 1 ? "wire ends" : "wires end")} under {what} and {(open == 1 ? "is" : "are")} not in yet.");
                if (Owed(sheet, what).FirstOrDefault() is { } owed)
                    return Refusal.Invalid($"Test {owed.Net.Name} before {what} goes back on: afterwards its joints cannot be reached.");
                if (sheet.ToBeep.FirstOrDefault() is { } warmed)
                    return Refusal.Invalid($"Beep the wire {sheet.Name(warmed.From)} to {sheet.Name(warmed.To)} again first: its joint was warmed.");
                store.Save(job.Job.Id, sheet.Plan with { Off = sheet.Plan.Off.Where(o => o != what).ToList() });
                return new Done($"{what} is back on.");
            }
        );

    /// <summary>Bridged nets with wires under something that were not tested since.</summary>
    public static IEnumerable<TraceNet> Owed(TraceSheet sheet, string what) =>
        sheet.Nets.Where(n =>
            n.Proof.Count > 0 && n.Wires.Any(w => n.Net.ByKey[w.From].Point.Under == what || n.Net.ByKey[w.To].Point.Under == what)
        );

    private Deed<Done> On(long number, string? once, Func<OpenJob, TraceSheet, Deed<Done>> work) =>
        bench.On<Done>(number, once, job => traces.Open(desk.OpenToFile(job.Job)) is { } sheet ? work(job, sheet) : Refusal.Missing);

    /// <summary>Once all nets that count for a part are whole again, that is a repair of it.</summary>
    private void Whole(OpenJob job, TraceSheet before, PartId? part)
    {
        if (part is not { } repaired || traces.Now(before) is not { } sheet)
            return;
        if (sheet.Nets.Any(n => n.Net.Serves is { } own && own == repaired && n.IsBroken) || RepairLogged.Make(job.Model, repaired, Bridging) is not { } repair)
            return;
        bench.File(job, repair, WorkStage.Fix, r => r with { Minutes = 0 });
    }

    private JumperSheet Make(TraceSheet sheet)
    {
        var made = Enum.GetValues<JumperSchool>().ToDictionary(s => s, s => Solve(sheet, sheet.Plan with { School = s }));
        return new JumperSheet(
            made[sheet.Plan.School].Wires,
            made[sheet.Plan.School].Unreachable,
            made.Select(m => new JumperFigures(
                    m.Key,
                    m.Value.Wires.Count,
                    m.Value.Wires.Sum(w => w.Wire.LengthMm),
                    Twice(sheet, m.Value.Wires),
                    Crossings(m.Value.Wires),
                    m.Value.Wires.Count * Known.Minutes.Wire
                ))
                .ToList()
        );
    }

    private static (IReadOnlyList<PlannedWire> Wires, IReadOnlyList<UnreachableNet> Unreachable) Solve(TraceSheet sheet, TracePlan plan)
    {
        var task = new JumperTask(
            sheet.Boards,
            sheet.View.Job.Revision,
            sheet.Nets.Select(n => n.Search).ToList(),
            sheet.Wires,
            plan,
            sheet.CanReach,
            Known
        );
        return (task.Plan(JumperSolver.Solve(task.Puzzle, Longest, spareCrossings: true)), task.Puzzle.Unreachable);
    }

    /// <summary>Crossings, each once: two planned wires each count theirs.</summary>
    private static int Crossings(IReadOnlyList<PlannedWire> wires) =>
        wires.Sum(w => w.Crosses) - wires.SelectMany((w, n) => wires.Skip(n + 1).Where(o => w.Net != o.Net && w.Wire.Crosses(o.Wire))).Count();

    private static int Twice(TraceSheet sheet, IReadOnlyList<PlannedWire> wires) =>
        wires
            .SelectMany(w => (string[])[w.Wire.From.Id, w.Wire.To.Id])
            .Concat(sheet.Wires.SelectMany(w => (string[])[w.From, w.To]))
            .GroupBy(e => e)
            .Count(g => g.Count() > 1);

    private static string Mark(TraceSheet sheet)
    {
        var text = new StringBuilder(BoardText.Write(sheet.Boards)).Append(sheet.Plan.Write()).Append(sheet.View.Job.Revision);
        foreach (var net in sheet.Nets)
            text.Append(net.Net.Id)
                .Append(net.State)
                .AppendJoin(',', net.Search.Broken.Select(s => $"{s.A} {s.B}"))
                .AppendJoin(',', net.Search.Suspects.Select(s => $"{s.A} {s.B}"))
                .AppendJoin(',', net.Net.Points.Select(p => p.State));
        text.Append(JsonSerializer.Serialize(sheet.Wires, ProfileJson.Options));
        return Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(text.ToString())));
    }
}
