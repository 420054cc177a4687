using System.Text.RegularExpressions;
using Mendro.Core.Boards;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>Finds breaks in the nets of a unit: what was marked and beeped, and what comes next.</summary>
public sealed partial class TraceDesk(
    JobBench bench,
    TraceStore store,
    CapacitorStore capacitors,
    BenchRecordStore records,
    BenchDesk desk
)
{
    // Line 10 comes after line 9.
    [GeneratedRegex("[0-9]+")]
    private static partial Regex DigitsPattern();

    private static readonly TraceLibrary Known = TraceLibrary.Shipped;

    /// <summary>Boards of a job: those that were drawn for it, else the model's.</summary>
    public IReadOnlyList<Board> BoardsOf(JobView view) => capacitors.Plan(view.Job.Id).Own ?? view.Profile.Boards ?? [];

    /// <summary>The traces worked out; null when nobody has told of any net.</summary>
    public TraceSheet? Open(JobView view)
    {
        var boards = BoardsOf(view).Where(b => b.Nets is { Count: > 0 }).ToList();
        if (boards.Count == 0)
            return null;
        var plan = store.Plan(view.Job.Id);
        var states = view.All<PointNoted>().GroupBy(p => p.Body.Subject).ToDictionary(g => g.Key, g => g.Last().Body.State);
        var cracks = view.All<BoardCracked>()
            .GroupBy(c => c.Body.Board)
            .Select(g => new BoardCrack(g.Key, g.Last().Body.Line))
            .Where(c => c.Line.Count > 1)
            .ToList();
        var trees = NetTree.All(boards, states, cracks, Known.Weights);
        var log = TraceLog.Of(view, trees, plan.ReheatMm);
        var nets = trees
            .Select(tree => Judge(view, plan, tree, log))
            .OrderBy(n =>
                n.State switch
                {
                    NetState.Open => 0,
                    NetState.Broken => 1,
                    NetState.Bridged => n.Proof.Count > 0 ? 2 : 6,
                    NetState.Sound => 7,
                    _ => 3,
                }
            )
            .ThenByDescending(n => n.IsMarked)
            .ThenByDescending(n => n.Share)
            .ThenBy(n => DigitsPattern().Replace(n.Net.Id, m => m.Value.PadLeft(6, '0')), StringComparer.Ordinal)
            .ToList();
        var runs = cracks
            .Select(c => LineRun.OverCrack(c.Board, boards.FirstOrDefault(b => b.Id == c.Board)?.Name ?? c.Board, trees, p => TraceSheet.Reach(plan, p)))
            .OfType<LineRun>()
            .Concat(LineRun.All(trees))
            .ToList();
        return new TraceSheet(view, plan, boards, nets, cracks, log.Wires, runs, log.Told);
    }

    /// <summary>The same with what was filed since, inside the action that filed it.</summary>
    internal TraceSheet? Now(TraceSheet before) => Open(before.View with { Records = records.Of(before.View.Job.Id) });

    private static TraceNet Judge(JobView view, TracePlan plan, NetTree tree, TraceLog log)
    {
        var search = new NetSearch(tree, log.Results(tree), p => TraceSheet.Reach(plan, p), Known.Minutes);
        var wires = log.Wires.Where(w => tree.ByKey.ContainsKey(w.From)).ToList();
        var ends = wires.Select(w => (w.From, w.To)).ToList();
        var bridged = wires.Count > 0 && (search.State is NetState.Open or NetState.Broken) && search.Pieces(ends).Count <= 1;
        return new TraceNet(
            search,
            bridged ? NetState.Bridged : search.State,
            wires,
            bridged ? log.Unproved(search) : [],
            tree.Serves is { } part ? view.Diagnosis?.Parts.GetValueOrDefault(part)?.Share ?? 0 : 0
        );
    }

    /// <summary>Notes how a point is.</summary>
    public Deed<Done> Mark(long number, string board, string point, string state, string? once = null) =>
        On(
            number,
            once,
            (job, sheet) =>
                !NetPoint.States.Contains(state) || sheet.Boards.FirstOrDefault(b => b.Id == board)?.Points?.Any(p => p.Id == point) != true
                    ? Refusal.Missing
                    : Filed(job, new PointNoted(board, point, state))
        );

    /// <summary>Notes a crack; without a line it is taken back.</summary>
    public Deed<Done> Crack(long number, string board, IReadOnlyList<IReadOnlyList<double>> line, string? once = null) =>
        On(
            number,
            once,
            (job, sheet) =>
                sheet.Boards.All(b => b.Id != board) ? Refusal.Missing
                : line.Count == 1 || line.Count > MostCorners || line.Any(p => p.Count != 2 || p.Any(v => !(Math.Abs(v) <= ProfileFormat.FurthestMm)))
                    ? Refusal.Invalid($"A crack is 2 to {MostCorners} points in mm: 0 12, 30 18.")
                : Filed(job, new BoardCracked(board, line))
        );

    private const int MostCorners = 40;

    /// <summary>Notes whether two points are joined, and tells Find when that decides something.</summary>
    public Deed<Done> Beep(long number, string a, string b, bool beeps, string? once = null) =>
        On(
            number,
            once,
            (job, sheet) =>
            {
                if (sheet.NetOf(a) is not { } first || sheet.NetOf(b) is not { } second || a == b)
                    return Refusal.Missing;
                var done = Filed(job, new LineBeeped(a, b, beeps, first == second ? first.Net.Name : null));
                Tell(job, sheet);
                return done;
            }
        );

    /// <summary>A line told by its two ends, and whether it beeps; it is planned, bridged and proved as every other.</summary>
    /// <param name="number">Number of the job.</param>
    /// <param name="from">One end, as it is called.</param>
    /// <param name="to">The other.</param>
    /// <param name="distanceMm">How far apart they are, mm.</param>
    /// <param name="beeps">Whether they beep.</param>
    /// <param name="once">Key of the form.</param>
    /// <returns>Id of the line.</returns>
    public Deed<Done> ByEnds(long number, string from, string to, double distanceMm, bool beeps, string? once = null) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                var view = desk.OpenToFile(job.Job);
                var added = TypedLine.Add(BoardsOf(view), from, to, distanceMm);
                if (!added.IsOk)
                    return Refusal.Invalid(added.Problem);
                var told = added.Value;
                capacitors.Save(job.Job.Id, capacitors.Plan(job.Job.Id) with { Own = told.Boards });
                Filed(job, new LineBeeped(told.A, told.B, beeps, told.Line.Name));
                return new Done(told.Net);
            }
        );

    /// <summary>Decides something of the plan.</summary>
    public Deed<Done> Decide(long number, Func<TracePlan, TracePlan> change, string? once = null) =>
        On(
            number,
            once,
            (job, sheet) =>
            {
                var plan = change(sheet.Plan);
                if (!(plan.ReheatMm is >= 0 and <= 100))
                    return Refusal.Invalid("A joint warms others within 0 to 100 mm.");
                if (!(plan.Slack is >= 1 and <= 3))
                    return Refusal.Invalid("Slack is 1 to 3: 1.1 is a tenth more than the way.");
                if (!(plan.StripMm is >= 0 and <= 20))
                    return Refusal.Invalid("Stripped at each end: 0 to 20 mm.");
                if (plan.Wire is not null && Known.FindWire(plan.Wire) is null)
                    return Refusal.Missing;
                store.Save(job.Job.Id, plan);
                return new Done("Kept.");
            }
        );

    /// <summary>Something that hides points comes off, so that they can be reached.</summary>
    public Deed<Done> TakeOff(long number, string what, string? once = null) =>
        On(
            number,
            once,
            (job, sheet) =>
            {
                if (!sheet.Covers.Contains(what))
                    return Refusal.Missing;
                store.Save(job.Job.Id, sheet.Plan with { Off = [.. sheet.Plan.Off.Where(o => o != what), what] });
                return new Done($"{what} is off.");
            }
        );

    /// <summary>Takes back what was noted last, with what it had told Find.</summary>
    public Deed<Done> Undo(long number, string? once = null) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                if (records.Undo(job.Job.Id) is not { } gone)
                    return Refusal.Missing;
                // What the desk itself had concluded goes with what it was concluded from.
                while (
                    gone.Body is CauseSeen or ProbeReading or RepairLogged
                    && records.Of(job.Job.Id).LastOrDefault() is { Body: LineBeeped or WireLaid } before
                    && gone.At - before.At < Together
                    && records.Undo(job.Job.Id) is { } more
                )
                    gone = more;
                bench.Settle(job, JobStep.Noted);
                return new Done($"Undone: {gone.Words}");
            }
        );

    private static readonly TimeSpan Together = TimeSpan.FromSeconds(2);

    private static Done Words(BenchRecord record) => new(record.Words);

    private Done Filed(OpenJob job, RecordBody body)
    {
        var filed = bench.File(job, body, WorkStage.Fix, r => r with { Minutes = 0 });
        bench.Settle(job, body.Step);
        return Words(filed);
    }

    private Deed<Done> On(long number, string? once, Func<OpenJob, TraceSheet, Deed<Done>> work) =>
        bench.On<Done>(number, once, job => Open(desk.OpenToFile(job.Job)) is { } sheet ? work(job, sheet) : Refusal.Missing);

    /// <summary>Tells Find what the nets of a part say together: one that is silent is broken for certain, all that beep rule it out.</summary>
    private void Tell(OpenJob job, TraceSheet before)
    {
        if (Now(before) is not { } sheet)
            return;
        foreach (var nets in sheet.Nets.Where(n => n.Net.Serves is not null).GroupBy(n => n.Net.Serves!.Value))
        {
            bool? broken =
                nets.Any(n => n.IsBroken && n.Search.Results.Any(r => !r.Beeps)) ? true
                : nets.All(n => n.State == NetState.Sound) ? false
                : null;
            if (broken is { } told)
                Tell(job, sheet.View, nets.Key, told, nets.Any(n => n.Search.Broken.Any(s => s.CrossesCrack)));
        }
    }

    private void Tell(OpenJob job, JobView view, PartId part, bool broken, bool cracked)
    {
        var probe = view.Profile.Probes.FirstOrDefault(p => p.Kind == ProbeKind.Continuity && p.Spans is [var only] && only == part);
        if (probe is not null)
        {
            var judged = ReadingJudge.Judge(view.Profile, probe, broken ? "OL" : "beep");
            var known = view.Fresh.Contains(probe.Id) ? view.LastReadings.GetValueOrDefault(probe.Id).Body?.Outcome : null;
            if (judged.IsOk && known != judged.Value.Outcome)
                bench.File(job, ProbeReading.Of(probe, judged.Value), more: r => r with { Minutes = 0 });
            return;
        }

        var mode = ((string[])[cracked ? "cracked" : "eaten", "eaten", "cracked"]).FirstOrDefault(m => CauseSeen.Make(job.Model, part, m, broken) is not null);
        if (mode is null)
            return;
        var worked = view.All<RepairLogged>().Where(r => r.Body.Part == part).Select(r => r.Record.Id).DefaultIfEmpty(0).Max();
        var last = view.All<CauseSeen>().LastOrDefault(c => c.Body.Part == part && c.Body.Mode == mode && c.Record.Id > worked);
        if (last.Body?.Present != broken)
            bench.File(job, CauseSeen.Make(job.Model, part, mode, broken)!, more: r => r with { Minutes = 0 });
    }
}
