using Mendro.Core.Dismantling;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <content>Checks that come before what the figures would do: the quick look, the look once open, the one that confirms.</content>
internal sealed partial class BenchOrder
{
    /// <summary>
    /// A quick look with the case as it is. Before the unit is taken further apart all come that bear on a fair share of the blame;
    /// before a longer repair at most one at a standstill, and only when its answer can change what comes next.
    /// </summary>
    private Move? QuickFirst(Move best)
    {
        var quick = Quick(QuickMinutes);
        // Where the cure is as good as certain there is nothing to look for.
        if (best.ChanceToWork >= AsGoodAsCured)
            return null;
        if (best.PreparationMinutes >= TakesApart)
            return quick.FirstOrDefault(m => m.Id != best.Id) ?? TriedBeforeOpening(best) ?? BeforeItIsOpened();
        if (best.Repair is null || best.Minutes < LongRepair || work.LookedAtThisStandstill)
            return null;
        // Another piece in its place tells for good, and spares a good unit the work; it may cost three times its minutes.
        return quick.FirstOrDefault(m =>
            m.ExpectedMinutes <= best.ExpectedMinutes + m.Minutes * (m.SwapOut is null ? 0.5 : SwapMay)
            && m.Outcomes.Any(o => o.Probability >= Bears && o.Then is { } then && then != best.Title)
        );
    }

    /// <summary>What can be tried with the case closed and would clear the very part that the unit is opened for is tried before. Another
    /// piece in place of what may be it, where that takes no longer than the opening alone: it tells for good, and spares a good unit the
    /// opening; but of what comes and goes one trial tells little.</summary>
    private Move? TriedBeforeOpening(Move best)
    {
        var parts = best.Repair is { } repair ? [repair.Part.Id] : best.Probe?.PartIds().ToList() ?? [];
        var trial = work
            .TrialsAnyway(f => parts.Exists(Model.Closure(f.Id).Contains) && !Model.Closure(work.Target.Id).IsSubsetOf(Model.Closure(f.Id)))
            .Where(m => m.Minutes <= QuickMinutes && m.Outcomes.All(o => o.Probability >= Doubtful))
            .Where(m => m.Outcomes.Any(o => o.Then is { } then && then != best.Title))
            .MaxBy(m => m.Outcomes.Min(o => o.Probability));
        if (trial is not null || Diagnosis.Case.Events.Any(e => e is FunctionTried { Passed: true } t && t.FunctionId == work.Target.Id))
            return trial;
        return Quick(best.PreparationMinutes)
            .FirstOrDefault(m => m.SwapOut is not null && m.ExpectedMinutes <= best.ExpectedMinutes + SwapMay * m.Minutes);
    }

    /// <summary>What was said at the door encloses nothing: before a unit is opened for a part that nobody has looked at, felt or measured,
    /// each that bears a share of the blame gets the glance that can be had with the case closed.</summary>
    private Move? BeforeItIsOpened()
    {
        var glanced = Diagnosis.Case.Events.OfType<ProbeTaken>().Select(t => Model.Profile.FindProbe(t.ProbeId)).ToList();
        if (
            glanced.Exists(p => p is not { State: AccessState.Closed, Minutes: <= GlanceMinutes })
            || Diagnosis.Case.Events.Any(e => e is SwapTried or Provoked or MarkSeen or RepairDone { Claimed: false })
        )
            return null;
        var seen = glanced.SelectMany(p => p!.Spans ?? []).ToHashSet();
        var suspects = Diagnosis.Parts.Values.Where(v => v.Share >= Bears && !seen.Contains(v.Part.Id)).ToDictionary(v => v.Part.Id, v => v.Share);
        return Unanswered(work.State, GlanceMinutes)
            .Where(p => TradeLibrary.Of(p.Kind).ByEye && p.Spans?.Any(suspects.ContainsKey) == true)
            .OrderByDescending(p => p.Spans!.Max(s => suspects.GetValueOrDefault(s)))
            // What works when pressed is pressed.
            .ThenBy(p => p.Kind == ProbeKind.Press != (LookOfTarget == "pressed"))
            .Select(work.CheckAnyway)
            .FirstOrDefault(m => m is { Outcomes: [{ Probability: >= MayShow }, ..] } && !IsSpared(m));
    }

    /// <summary>Where the unit is open for the meter anyway, the part that has half the blame is looked at first, when that takes no
    /// longer.</summary>
    private Move? EyesFirst(Move best)
    {
        if (best.Probe is not { } probe || TradeLibrary.Of(probe.Kind).ByEye)
            return null;
        var opened = Model.Disassembly.After(work.State, Model.Disassembly.Goal(probe));
        var leading = Diagnosis.Parts.Values.Where(v => v.Share >= HalfTheBlame).Select(v => v.Part.Id).ToHashSet();
        return Unanswered(opened, Math.Min(1, probe.Minutes))
            .Where(p => p.Kind == ProbeKind.Look && p.Spans?.Any(leading.Contains) == true)
            .OrderBy(p => p.Minutes)
            .Select(work.CheckAnyway)
            .FirstOrDefault(m => m is { Outcomes: [{ Probability: >= Telling }, ..] });
    }

    /// <summary>Bench gear is changed for another piece before it is cleaned, where that takes half as long at most.</summary>
    private Move? SwapFirst(Move best, RepairOption repair) =>
        !IsGear(repair.Part.Id)
            ? null
            : Quick(best.Minutes / 2)
                .FirstOrDefault(m =>
                    m.SwapOut is { } part && part == repair.Part.Id && m.ExpectedMinutes <= best.ExpectedMinutes + SwapMay * m.Minutes
                );

    /// <summary>Once volts were found off, the supply is followed with the meter: what takes a minute as the unit lies comes before
    /// anything else that is as good.</summary>
    private Move? MeterFirst(IEnumerable<Move> ranked, Move best) =>
        !work.Answered.VoltsOff
            ? null
            : ranked.FirstOrDefault(m =>
                m is { Probe.Kind: ProbeKind.Volts, PreparationMinutes: 0, Minutes: <= QuickMinutes }
                && m.ExpectedMinutes <= best.ExpectedMinutes + AsGood
                && m.Outcomes.All(o => o.Probability >= Bears)
            );

    /// <summary>The one part between a point with good volts and one without any is pushed, looked at or beeped, whatever else the
    /// figures think of.</summary>
    private Move? Enclosed(Move best)
    {
        if (Diagnosis.Stretch is not { LastGood: not null, FirstBad: { } dead, Parts: [var only] })
            return null;
        var gone = Diagnosis.Case.Events.OfType<ProbeTaken>().Last(t => t.ProbeId == dead.Id).Degree == ReadingDegree.Missing;
        if (!gone || (best.Repair is { } repair ? only.Id == repair.Part.Id : best.Probe is { } probe && IsAt(probe, only.Id)))
            return null;
        return Unanswered(work.State, QuickMinutes)
            .Where(p => p.At is null && p.Spans?.Contains(only.Id) == true)
            .OrderBy(p => p.Kind == ProbeKind.Press ? 0 : 1)
            .ThenBy(p => p.Minutes)
            .Select(work.CheckAnyway)
            .FirstOrDefault(m => m is { Outcomes: [{ Probability: >= Doubtful }, ..] });
    }

    /// <summary>The short check that would confirm what a harsh repair is for, when it was not made yet.</summary>
    private Move? Confirming(RepairOption repair)
    {
        var method = repair.Method;
        if (LookAgain(repair) is { } look)
            return look;
        var gentle = method.Type is MethodType.Clean && !method.WantsIron;
        if (gentle || method.Type is MethodType.Swap || method.State == AccessState.Closed)
            return null;
        var opened = Model.Disassembly.After(work.State, repair.Goal);
        var modes = repair.Cures.Select(c => Diagnosis.Case.Faults[c.Fault].Mode).ToList();
        return Unanswered(opened, method.Minutes / 2)
            .Where(p => IsAt(p, repair.Part.Id) && modes.Any(m => DeviceModel.Detects(m, p.Kind) >= Confirms))
            .OrderBy(p => p.PartIds().Distinct().Count())
            .ThenBy(p => p.State)
            .ThenBy(p => p.Minutes)
            .Select(work.CheckAnyway)
            .FirstOrDefault(m => m is not null)
            ?? Supplied(repair, opened);
    }

    /// <summary>Before a long cleaning of what was cleaned already and did not help, or before the same again, one looks whether there
    /// is anything left to clean; where the check of that cleaning was told, that is known.</summary>
    private Move? LookAgain(RepairOption repair)
    {
        var (method, events) = (repair.Method, Diagnosis.Case.Events);
        if (method.Type != MethodType.Clean)
            return null;
        var again = events.Any(e => e is RepairDone done && done.PartId == repair.Part.Id && done.MethodId == method.Id);
        if (!again && method.Minutes < LongRepair)
            return null;
        var cleaned = events
            .Select((e, at) => (Done: e as RepairDone, At: at))
            .LastOrDefault(x => x.Done is { Claimed: false } done && done.PartId == repair.Part.Id);
        if (cleaned.Done is null or { Held: not null } || Model.Library.FindMethod(cleaned.Done.MethodId)?.Type != MethodType.Clean)
            return null;
        var since = events.Skip(cleaned.At).OfType<ProbeTaken>().Select(t => t.ProbeId).ToHashSet();
        var opened = Model.Disassembly.After(work.State, repair.Goal);
        return Model
            .Profile.Probes.Where(p =>
                p.Kind == ProbeKind.Look
                && p.Minutes <= method.Minutes / 4
                && p.Spans?.Contains(repair.Part.Id) == true
                && !since.Contains(p.Id)
                && Model.Disassembly.Reached(opened, Model.Disassembly.Goal(p))
            )
            .OrderBy(p => p.Minutes)
            .Select(work.CheckAnyway)
            .FirstOrDefault(m => m is { Outcomes: [{ Probability: >= Telling and <= 1 - Telling }, ..] });
    }

    /// <summary>True for a check of a part itself, its own volts among them.</summary>
    private static bool IsAt(Probe probe, PartId part) =>
        probe.Spans?.Contains(part) == true || probe is { Kind: ProbeKind.Volts, At: { } at } && at == part;

    /// <summary>A board or a chip is judged only where its supply is known to arrive: the volts nearest before it, when they are in
    /// doubt.</summary>
    private Move? Supplied(RepairOption repair, Apart opened)
    {
        if (repair.Method.Minutes < LongRepair || !repair.Cures.Any(c => Diagnosis.Case.Faults[c.Fault].Mode.Effect == ModeEffect.Dead))
            return null;
        var upstream = Model.Graph.Upstream(repair.Part.Id, powerOnly: true);
        return Unanswered(opened, repair.Method.Minutes / 4)
            .Where(p => p is { Kind: ProbeKind.Volts, At: { } at } && at != repair.Part.Id && upstream.Contains(at))
            .OrderByDescending(p => Model.Graph.Upstream(p.At!.Value, powerOnly: true).Count)
            .Select(work.CheckAnyway)
            .FirstOrDefault(m => m is { Outcomes: [{ Probability: >= InDoubt }, ..] })
            ?? LedTo(repair, opened);
    }

    /// <summary>Before a board or chip goes, what leads right to it is looked at, beeped or pushed, such as its legs.</summary>
    private Move? LedTo(RepairOption repair, Apart opened)
    {
        if (repair.Part.Kind != "logic" || repair.Method.Type != MethodType.Replace)
            return null;
        var before = Model.Profile.Feeds.Where(f => f.To == repair.Part.Id).Select(f => f.From).ToHashSet();
        return Unanswered(opened, repair.Method.Minutes / 4)
            .Where(p => p.At is null && p.Spans?.Any(before.Contains) == true)
            .Select(work.CheckAnyway)
            .Where(m => m is { Outcomes: [{ Probability: >= Doubtful }, ..] })
            .MaxBy(m => m!.Outcomes[0].Probability / m.Minutes);
    }

    /// <summary>Checks that can be made with the unit so far apart, take no longer, and have something left to tell.</summary>
    private IEnumerable<Probe> Unanswered(Apart opened, double minutes) =>
        Model.Profile.Probes.Where(p =>
            p.Minutes <= minutes && Model.Disassembly.Reached(opened, Model.Disassembly.Goal(p)) && !work.Answered.Has(p)
        );
}
