using Mendro.Core.Dismantling;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <content>
/// Laws of the bench: what a seasoned hand does in an order of its own, whatever the figures say. Each names what it serves; all are
/// common practice without a source. That they are kept is read off simulated dialogues (docs/diagnosis.md).
/// </content>
internal sealed partial class BenchOrder
{
    /// <summary>A glance: half a minute, with the case as it is.</summary>
    private const double GlanceMinutes = 0.5;

    /// <summary>A glance comes before work of at least this many minutes at the same place.</summary>
    private const double WorthAGlance = 2;

    /// <summary>Volts that can be had with the case closed come before anything that takes this long.</summary>
    private const double WorthAMeter = 5;

    /// <summary>What a gentle repair needs of the chance of a harsher one at the same part to come first.</summary>
    private const double GentleShare = 0.2;

    /// <summary>Chance from which a glance may show something, and up to which it is no foregone thing.</summary>
    private const double MayShow = 0.04;

    /// <summary>Share of the blame of what is not thrown away unlooked at.</summary>
    private const double StillSuspect = 0.03;

    /// <summary>Minutes of a check that is made before a unit is set aside.</summary>
    private const double BeforeAside = 2;

    /// <summary>True when a mark puts the whole board in doubt.</summary>
    private bool IsWreck =>
        Diagnosis.Case.Events.OfType<MarkSeen>().Any(m => Model.Library.FindMark(m.MarkId)?.WreckFrom is { } from && m.Grade >= from);

    /// <summary>A board that is cracked, soaked or eaten is looked at, and its rail asked for a short, before anything is cleaned or
    /// replaced; what then shows ruin is the end.</summary>
    private Move? Wreck()
    {
        if (!IsWreck)
            return null;
        return Ruined
            ? End(Move.StopId, "Stop: beyond repair", "What the board shows is not repaired at the bench. Keep what is good for parts.")
            : Model
                .Profile.Probes.Where(p => (ShowsTheBoard(p) || p.Rail is not null) && p.Minutes <= BeforeAside)
                .Where(p => !Diagnosis.Case.Events.OfType<ProbeTaken>().Any(t => t.ProbeId == p.Id))
                // The eye before the meter, unless the meter spares it a long way in.
                .OrderBy(p => Model.Disassembly.Minutes(work.State, Model.Disassembly.Goal(p)) + p.Minutes + (p.Rail is null ? 0 : WorthAMeter))
                .Select(work.CheckAnyway)
                .FirstOrDefault(m => m is not null);
    }

    /// <summary>True when a rail is a dead short, or the board shows to the eye that it is eaten.</summary>
    private bool Ruined =>
        Diagnosis
            .Case.Events.OfType<ProbeTaken>()
            .Where(t => t.Outcome == ProbeOutcome.Abnormal && Diagnosis.Verdict.Fresh.ContainsKey(t.ProbeId))
            .Any(t =>
                t.Degree == ReadingDegree.Short
                || Model.Profile.FindProbe(t.ProbeId) is { } probe && ShowsTheBoard(probe) && SeenWords.Grade(t.Words ?? "") == SeenGrade.Heavy
            );

    private bool ShowsTheBoard(Probe probe) => Wreckage.IsLookAtBoard(Model, probe);

    /// <summary>The same work is not done again without anything found since; nor is anything renewed twice, treated a third time, or
    /// the last work gone over a third time.</summary>
    private bool IsDoneEnough(Move move)
    {
        if (move.Repair is not { } again)
            return false;
        var events = Diagnosis.Case.Events;
        bool Same(BenchEvent e) => e is RepairDone { Claimed: false } r && r.PartId == again.Part.Id && r.MethodId == again.Method.Id;
        var times = events.Count(Same);
        var gone = Model.Library.MethodsFor("*").Any(m => m.Id == again.Method.Id);
        if (gone && events.Count(e => e is RepairDone { Claimed: false } r && r.MethodId == again.Method.Id) >= MostGoneOver)
            return true;
        if (times == 0)
            return false;
        var last = events.Select((e, at) => (e, at)).Last(x => Same(x.e)).at;
        var since = events.Skip(last + 1).ToList();
        // Something else was done meanwhile, it helped for a while, or an eye or a finger found something there.
        var found =
            since.OfType<RepairDone>().Any(r => !r.Claimed)
            || since.OfType<ProbeTaken>().Any(t => t.Outcome != ProbeOutcome.Normal && IsAt(t, again.Part.Id))
            || since.OfType<FunctionTried>().GroupBy(t => t.FunctionId).Any(g => g.Any(t => t.Passed) && g.Any(t => !t.Passed));
        return !found || times >= (again.Method.Renews ? 1 : MostTreated);
    }

    private const int MostTreated = 2;
    private const int MostGoneOver = 2;

    /// <summary>What a meter has found good at the part itself is not replaced while anything else is left: meters and hands err too. An eye
    /// proves less: what looks whole may rattle.</summary>
    private bool IsProtected(Move move)
    {
        if (move.Repair is { Method.Type: MethodType.Swap } swap && GivesWell(swap.Part.Id))
            return true;
        if (move.Repair is not { Method: { Type: MethodType.Replace } or { Type: MethodType.Repair, WantsIron: true } } replaced)
            return false;
        if (work.Answered.Showed(replaced.Part.Id))
            return false;
        var part = replaced.Part.Id;
        // A coil that measures well says nothing of a torn cone.
        var lead = replaced.Cures.Where(c => Diagnosis.Case.Faults[c.Fault].Part.Id == part).MaxBy(c => work.Shares[c.Fault]).Fault;
        return Diagnosis.Verdict.Fresh.Any(f =>
            f.Value == ProbeOutcome.Normal
            && Model.Profile.FindProbe(f.Key) is { } probe
            && (probe.Spans?.Contains(part) == true || probe is { Kind: ProbeKind.Volts, At: { } at } && at == part)
            && !TradeLibrary.Of(probe.Kind).ByEye
            && DeviceModel.Detects(Diagnosis.Case.Faults[lead].Mode, probe.Kind) >= Confirms
        );
    }

    /// <summary>A swab that stays clean ends the cleaning of that place; of the bench's own gear a swap tells more.</summary>
    private bool IsCleanAlready(Move move) =>
        move.Repair is { Method.Type: MethodType.Clean } cleaning
        && !IsGear(cleaning.Part.Id)
        && Diagnosis.Case.Events.OfType<ProbeTaken>().LastOrDefault(t => Swabs(t, cleaning.Part.Id)) is { Outcome: ProbeOutcome.Normal } swab
        && Diagnosis.Verdict.Fresh.ContainsKey(swab.ProbeId);

    private bool Swabs(ProbeTaken taken, PartId part) =>
        Model.Profile.FindProbe(taken.ProbeId) is { Spans: [var only], Expect.Text: { } text }
        && only == part
        && text.Contains("stays clean", StringComparison.Ordinal);

    /// <summary>The moves that the laws leave, what is clean already behind the rest.</summary>
    private List<Move> Lawful(IEnumerable<Move> ranked) =>
        ranked.Where(m => !IsDoneEnough(m) && !IsSpared(m)).OrderBy(m => IsProtected(m) || IsCleanAlready(m)).ToList();

    private bool IsAt(ProbeTaken taken, PartId part) => Model.Profile.FindProbe(taken.ProbeId)?.PartIds().Contains(part) == true;

    /// <summary>What cannot be undone waits while a repair is left that helps a fifth as often.</summary>
    private Move UndoableFirst(Move best, List<Move> ranked) =>
        best.Repair is not { Method.Type: MethodType.Modification } change
            ? best
            : ranked.FirstOrDefault(m =>
                m.Repair is { Method.Type: not MethodType.Modification } r && r.Chance >= change.Chance * GentleShare
            ) ?? best;

    /// <summary>Of two repairs of one part the gentle one comes first, unless what was seen there rules it out or it helps far less
    /// often.</summary>
    private Move GentleFirst(Move best, List<Move> ranked)
    {
        if (best.Repair is not { } harsh || best.Known || Diagnosis.Case.GradeOf(harsh.Part.Id) == SeenGrade.Heavy)
            return best;
        // A part that has answered to a finger or an eye has failed, whatever is to blame for the complaint looked at.
        if (work.Answered.Showed(harsh.Part.Id))
        {
            var options = OptionsAt(harsh.Part.Id, There(harsh.Part.Id));
            if (options.Find(o => o.Method.Id == harsh.Method.Id) is { } heavy && options.Where(o => IsWorthTrying(o, heavy)).MaxBy(Ratio) is { } gentle)
                return work.RepairOf(gentle);
        }

        return ranked
                .Where(m =>
                    m.Repair is { } r
                    && r.Part.Id == harsh.Part.Id
                    && r.Method.Id != harsh.Method.Id
                    && !r.Method.OneOfMany
                    && r.Method.Harshness <= harsh.Method.Harshness
                    && (m.Minutes <= best.Minutes / 2 || r.Method.Minutes <= harsh.Method.Minutes / 2)
                    && r.Chance >= harsh.Chance * GentleShare
                    && !Diagnosis.Case.Events.OfType<RepairDone>().Any(d => d.PartId == r.Part.Id && d.MethodId == r.Method.Id)
                )
                .OrderBy(m => m.Minutes / Math.Max(m.Repair!.Chance, 1e-6))
                .FirstOrDefault() ?? best;
    }

    /// <summary>Before long work with the iron everything of two minutes or less is looked at, pushed or beeped that the access for it allows
    /// and that has a fair share of the blame: every leg before a wire.</summary>
    private Move? MinutesFirst(Move best)
    {
        if (best.Known || best.Repair is not { Method: { WantsIron: true, Type: not MethodType.Clean } method } repair || best.ChanceToWork >= AsGoodAsCured)
            return null;
        if (method.Minutes < LongRepair || work.Answered.Showed(repair.Part.Id))
            return null;
        var suspects = Diagnosis.Suspects.Where(s => Share(s) >= StillSuspect).Select(s => s.Fault.Part.Id).ToHashSet();
        return Unanswered(Model.Disassembly.After(work.State, repair.Goal), BeforeAside)
            .Where(p => p.At is null && p.Spans is { Count: > 0 } spans && spans.Any(suspects.Contains))
            .OrderBy(p => p.Minutes)
            .Select(work.CheckAnyway)
            .FirstOrDefault(m => m is { Outcomes: [{ Probability: >= MayShow }, ..] } && !IsSpared(m));
    }

    /// <summary>A glance at the very place comes before minutes of work there, where its answer can change what is done.</summary>
    private Move? GlanceFirst(Move best) =>
        best.Repair is not { Method.Type: not MethodType.Swap } repair
        || best.Minutes < WorthAGlance
        || best.ChanceToWork >= AsGoodAsCured
        || work.Answered.Showed(repair.Part.Id)
            ? null
            : Unanswered(work.State, GlanceMinutes)
                .Where(p => p.Spans?.Contains(repair.Part.Id) == true && TradeLibrary.Of(p.Kind).ByEye)
                .OrderBy(p => p.Spans!.Count)
                .Select(work.CheckAnyway)
                .FirstOrDefault(m => m is not null && m.Outcomes.Any(o => o.Probability >= MayShow && o.Then is { } then && then != best.Title));

    /// <summary>A long check of a chip waits for the volts nearest before it that are in doubt, as its replacement does.</summary>
    private Move? SuppliedFirst(Move best)
    {
        if (best.Probe is not { Minutes: >= WorthAMeter, Spans: { Count: > 0 } spans } probe)
            return null;
        var opened = Model.Disassembly.After(work.State, Model.Disassembly.Goal(probe));
        var upstream = spans.SelectMany(s => Model.Graph.Upstream(s, powerOnly: true)).ToHashSet();
        return Unanswered(opened, BeforeAside)
            .Where(p => p is { Kind: ProbeKind.Volts, At: { } at } && upstream.Contains(at))
            .OrderByDescending(p => Model.Graph.Upstream(p.At!.Value, powerOnly: true).Count)
            .Select(work.CheckAnyway)
            .FirstOrDefault(m => m is { Outcomes: [{ Probability: >= InDoubt }, ..] });
    }

    /// <summary>What must never be done with something that an eye would show waits for that look: nobody charges a pack that he has not
    /// seen. For a trial alone the unit is not opened.</summary>
    private Move? LookedAtFirst(Move due)
    {
        var (parts, minutes) = due switch
        {
            { Repair: { Method.NotWith: { Count: > 0 }, Part: var part } } => (new HashSet<PartId> { part.Id }, due.Minutes + LongRepair),
            { Function: { } tried, SwapOut: null, Provoke: null } when Model.Library.FindFunctionKind(tried.Kind)?.NotWith is { Count: > 0 } => (
                Model.Closure(tried.Id).Where(p => KindOf(p)?.Has(PartRole.Lithium) == true).ToHashSet(),
                QuickMinutes
            ),
            _ => ([], 0),
        };
        return parts.Count == 0
            ? null
            : Model
                .Profile.Probes.Where(p => p.Kind == ProbeKind.Look && p.Spans?.Any(parts.Contains) == true && !work.Answered.Has(p))
                .Where(p => p.Minutes + Model.Disassembly.Minutes(work.State, Model.Disassembly.Goal(p)) <= minutes)
                .OrderBy(p => p.Minutes)
                .Select(work.CheckAnyway)
                .FirstOrDefault(m => m is not null);
    }

    /// <summary>What was worked on and is still to blame is asked by the buzzer before it is worked on again, by a finger where there is no
    /// buzzer for it: volts tell where, and not what.</summary>
    private Move? AskedAgain(RepairOption due)
    {
        var events = Diagnosis.Case.Events;
        var done = events.Select((e, at) => (e, at)).LastOrDefault(x => x.e is RepairDone { Claimed: false } r && r.PartId == due.Part.Id);
        if (done.e is null || due.Method.Harshness == 0)
            return null;
        var since = events.Skip(done.at).OfType<ProbeTaken>().Select(t => t.ProbeId).ToHashSet();
        var opened = Model.Disassembly.After(work.State, due.Goal);
        var own = Model.Profile.Probes.Where(p => p.At is null && p.Spans?.Contains(due.Part.Id) == true).ToLookup(p => TradeLibrary.Of(p.Kind).ByEye);
        return (own[false].Any() ? own[false] : own[true].Where(p => p.Kind == ProbeKind.Press))
            .Where(p => p.Minutes <= QuickMinutes && !since.Contains(p.Id))
            .Where(p => due.Cures.Any(c => DeviceModel.Detects(Diagnosis.Case.Faults[c.Fault].Mode, p.Kind) >= Confirms))
            .Where(p => Model.Disassembly.Reached(opened, Model.Disassembly.Goal(p)))
            .OrderBy(p => p.Minutes)
            .Select(work.CheckAnyway)
            .FirstOrDefault(m => m is { Outcomes: [{ Probability: >= Doubtful }, ..] });
    }

    /// <summary>Quick checks that the laws leave.</summary>
    private IEnumerable<Move> Quick(double minutes) => work.Quick(minutes, Bears).Where(m => !IsSpared(m));

    /// <summary>Before a unit is set aside everything short is looked at that may still show something.</summary>
    private Move? BeforeItIsSetAside()
    {
        var suspects = Diagnosis.Suspects.Where(s => Share(s) >= StillSuspect).Select(s => s.Fault.Part.Id).ToHashSet();
        return Unanswered(work.State, BeforeAside)
            .Where(p => p.PartIds().Any(suspects.Contains))
            .OrderBy(p => p.Minutes)
            .Select(work.CheckAnyway)
            .FirstOrDefault(m => m is { Outcomes: [{ Probability: >= MayShow }, ..] });
    }

    private double Share(Suspect suspect) => work.Shares[suspect.FaultIndex];
}
