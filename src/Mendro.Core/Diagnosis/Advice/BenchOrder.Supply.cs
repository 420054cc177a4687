using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <content>
/// Laws of the supply: it is followed from its source, what can be had with the case closed first, and what was measured is used.
/// </content>
internal sealed partial class BenchOrder
{
    /// <summary>A source is read before another takes its place, and before a board or a chip that it feeds is replaced.</summary>
    private Move? SourceRead(Move best) =>
        best switch
        {
            { SwapOut: { } piece } when IsSource(piece) => SourceVolts(piece) is { } volts && volts.Minutes <= best.Minutes ? volts : null,
            { Known: false, Minutes: > BeforeAside, Repair: { Method.Type: MethodType.Swap or MethodType.Replace } repair }
                when IsSource(repair.Part.Id)
                    || !Runs && repair.Method.Minutes >= LongRepair && repair.Cures.All(c => IsDead(c.Fault)) => SourceVolts(repair.Part.Id),
            _ => null,
        };

    /// <summary>The case is not opened for volts while those at the source can be had with it closed: works, but how well? What a finger
    /// changes is no matter of the source.</summary>
    private Move? BeforeOpeningForVolts(Move best) =>
        best is { Probe: { Kind: ProbeKind.Volts, At: { } at }, PreparationMinutes: >= TakesApart } && !Runs && LookOfTarget != "pressed"
            ? SourceVolts(at)
            : null;

    /// <summary>No light: the supply is followed from its source, whose volts come first. What fails when warm: a linear regulator burns
    /// what its source gives too much.</summary>
    private Move? FromTheSource()
    {
        var closure = Model.Closure(work.Target.Id);
        if (Diagnosis.Complaints.Any(c => c.Open && LookOf(c.Function.Id) == "warm"))
            return Model
                .Profile.Parts.Where(p => closure.Contains(p.Id) && KindOf(p.Id)?.Has(PartRole.Linear) == true)
                .Select(p => SourceVolts(p.Id))
                .FirstOrDefault(m => m is not null);
        // What an eye has found at the door goes before.
        return work.Target.Kind == "power-light" && LookOfTarget is null or "nothing" or "dim" && !Diagnosis.Case.Events.Any(e => e is MarkSeen)
            ? Model.Profile.Parts.Where(p => closure.Contains(p.Id) && IsSource(p.Id)).Select(p => SourceVolts(p.Id)).FirstOrDefault(m => m is not null)
            : null;
    }

    /// <summary>Volts at the source of a part, where no volts on its way are known and the case stays closed.</summary>
    private Move? SourceVolts(PartId end)
    {
        var upstream = Model.Graph.Upstream(end, powerOnly: true).Append(end).ToHashSet();
        bool Tells(Probe? probe) => probe is { Kind: ProbeKind.Volts, At: { } at } && upstream.Contains(at);
        return Diagnosis.Case.FreshReadings().Keys.Any(r => Tells(Model.Profile.FindProbe(r)))
            ? null
            : Unanswered(work.State, QuickMinutes)
                .Where(p => Tells(p) && p.State == AccessState.Closed && IsSource(p.At!.Value))
                .OrderBy(p => p.Minutes)
                .Select(work.CheckAnyway)
                .FirstOrDefault(m => m is not null);
    }

    /// <summary>True when the unit is known to start: a picture on the screen, or a sound, needs no look at the supply.</summary>
    private bool Runs =>
        Goal.Starts(Model, Diagnosis.Case.Events)
        || Model.Profile.Functions.FirstOrDefault(f => f.Kind == "start-up") is { } start
            && Model.Profile.Functions.Any(f =>
                Diagnosis.Functions[f.Id] == FunctionState.Works && f.Id != start.Id && !Goal.CanBeTried(Model, f, start, starts: false)
            );

    /// <summary>Parts that a working function needs.</summary>
    private IEnumerable<PartId> Working =>
        Model.Profile.Functions.Where(f => Diagnosis.Functions[f.Id] == FunctionState.Works).SelectMany(f => Model.Closure(f.Id));

    private string? LookOfTarget => LookOf(work.Target.Id);

    private string? LookOf(FunctionId function) =>
        Diagnosis.Case.Events.OfType<FunctionTried>().LastOrDefault(t => t.FunctionId == function && !t.Passed)?.LookId;

    private bool IsSource(PartId part) => KindOf(part)?.Has(PartRole.Source) == true;

    private bool IsDead(int fault) => Diagnosis.Case.Faults[fault].Mode.Effect == ModeEffect.Dead;

    private PartKind? KindOf(PartId part) => Model.Profile.FindPart(part) is { } found ? Model.Library.FindPartKind(found.Kind) : null;

    /// <summary>No light, no start or no picture without a sign: volts that can be had with the case closed come before anything
    /// long.</summary>
    private Move? VoltsFirst(Move best)
    {
        var sign = LookOfTarget;
        if (
            best.Minutes < WorthAMeter
            || best.Known
            || sign is not (null or "nothing")
            || work.Target.Kind is not ("power-light" or "start-up" or "picture" or "video-out")
        )
            return null;
        // What works shows its supply.
        var closure = Model.Closure(work.Target.Id).Except(Working).ToHashSet();
        return Unanswered(work.State, BeforeAside)
            .Where(p => p is { Kind: ProbeKind.Volts, State: AccessState.Closed, At: { } at } && closure.Contains(at))
            .OrderBy(p => Model.Graph.Upstream(p.At!.Value, powerOnly: true).Count)
            .Select(work.CheckAnyway)
            .FirstOrDefault(m => m is { Outcomes: [{ Probability: >= InDoubt and <= AsGoodAsKnown }, ..] });
    }

    /// <summary>True when a source gives the volts it should, measured at itself: another in its place tells nothing.</summary>
    private bool GivesWell(PartId part) =>
        IsSource(part)
        && Diagnosis.Verdict.Fresh.Any(f =>
            f.Value == ProbeOutcome.Normal && Model.Profile.FindProbe(f.Key) is { Kind: ProbeKind.Volts, At: { } at } && at == part
        );
}
