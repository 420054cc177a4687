using Mendro.Core.Dismantling;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.StandIns;

/// <summary>One step of work on a practice unit.</summary>
/// <param name="Title">What was done.</param>
/// <param name="Answer">What came of it.</param>
/// <param name="Why">Why it was done, when the one who did it said so.</param>
/// <param name="Minutes">Minutes it took, taking apart included.</param>
public sealed record PracticeStep(string Title, string Answer, string? Why, double Minutes);

/// <summary>A practice unit on the bench: every touch costs its minutes and is written down.</summary>
public sealed class PracticeBench(DeviceModel model, HiddenUnit unit, BenchCosts costs) : IReplayBench
{
    private readonly List<BenchEvent> _events = [];
    private readonly List<RecordBody> _bodies = [];
    private readonly List<PracticeStep> _steps = [];
    private readonly List<DialogueMove> _moves = [];
    private (double? Chance, bool Known) _asked;
    private int _told;

    /// <summary>The model.</summary>
    public DeviceModel Model { get; } = model;

    /// <summary>The unit; only the oracle may look into it.</summary>
    public HiddenUnit Unit { get; } = unit;

    /// <summary>What happened, in order.</summary>
    public IReadOnlyList<BenchEvent> Events => _events;

    /// <summary>The same as records.</summary>
    public IReadOnlyList<RecordBody> Bodies => _bodies;

    /// <summary>The same in words.</summary>
    public IReadOnlyList<PracticeStep> Steps => _steps;

    /// <summary>The same as moves by their ids; what was tried before the first of them is told and no move.</summary>
    public IReadOnlyList<DialogueMove> Moves => _moves;

    /// <summary>What was known before the first move: what was tried as it came in.</summary>
    public IReadOnlyList<EvidenceEntry> Told =>
        _bodies.Take(_told).OfType<FunctionTrial>().Select(t => Entry(t.Function, t.Passed ? "pass" : "fail", t.Look)).ToList();

    private static EvidenceEntry Entry(FunctionId function, string result, string? look) =>
        new(function, null, null, null, result, look, null, null, null, null, null, null, null, null, null, null);

    /// <summary>Says what is believed before the next move.</summary>
    /// <param name="chance">Chance that the unit is cured in the end.</param>
    /// <param name="known">True when what the move cures is known.</param>
    public void Asked(double? chance, bool known) => _asked = (chance, known);

    /// <summary>The work ends with something still failing.</summary>
    /// <param name="id">Id of the move that ends it.</param>
    public void End(string id) => Moved(id, DialogueKind.End, null, 0, id);

    private void Moved(string id, DialogueKind kind, PartId? part, double minutes, string answer)
    {
        _moves.Add(new DialogueMove(id, kind, part?.ToString(), Math.Round(minutes, 2), Access, answer, _asked.Chance, _asked.Known));
        _asked = default;
    }

    /// <summary>How far the unit is apart, in the coarse states.</summary>
    private AccessState Access =>
        Enum.GetValues<AccessState>().Where(s => Model.Disassembly.Reached(Apart, Disassembly.Goal(s))).DefaultIfEmpty(AccessState.Closed).Max();

    /// <summary>Minutes so far.</summary>
    public double Minutes { get; private set; }

    /// <summary>Parts so far, in the library's currency units.</summary>
    public decimal PartsCost { get; private set; }

    /// <summary>How far the unit is apart.</summary>
    public Apart Apart { get; private set; }

    /// <summary>True when every function worked when last tried.</summary>
    public bool AllWork => Model.Profile.Functions.All(f => UnitDiagnosis.StateOf(_events, f.Id) == FunctionState.Works);

    /// <summary>Tries every function that was not tried yet and can be: without a light, or a start, the others are no subject.</summary>
    public void Baseline()
    {
        var untried = Model
            .Profile.Functions.Where(f => UnitDiagnosis.StateOf(_events, f.Id) == FunctionState.NotTried)
            .OrderBy(f => Model.Closure(f.Id).Count)
            .ToList();
        foreach (var function in untried)
        {
            if (UnitDiagnosis.CanBeTried(Model, function, _events))
                Try(function, null, function.Minutes, told: _moves.Count == 0);
        }
    }

    /// <summary>Tries a function.</summary>
    public void Try(DeviceFunction function, string? why = null) => Try(function, why, function.Minutes);

    private void Try(DeviceFunction function, string? why, double minutes, bool told = false)
    {
        var (works, look) = Unit.Try(function);
        Happened(new FunctionTrial(function.Id, works, look));
        if (told)
            _told = _bodies.Count;
        else
            Moved($"fn:{function.Id}", DialogueKind.Trial, null, minutes, works ? "pass" : look is null ? "fail" : $"fail:{look}");
        var name = Model.Library.FindLook(function.Kind, look)?.Name;
        Step($"Try: {function.Name}", works ? "works" : name ?? "fails", why, minutes);
    }

    /// <summary>Starts of a run by which a repair is proved, between which the unit is pressed, wiggled and warmed (common practice, no
    /// source).</summary>
    public const int ProofStarts = 6;

    /// <summary>Minutes of that run.</summary>
    public const double ProofMinutes = 3;

    /// <summary>One good start proves little: what failed at some time is started several times, the unit moved between, before the
    /// case is closed.</summary>
    /// <returns>True when all held.</returns>
    public bool Prove()
    {
        var failed = _events.OfType<FunctionTried>().Where(t => !t.Passed).Select(t => t.FunctionId).ToHashSet();
        var held = true;
        foreach (var function in Model.Profile.Functions.Where(f => failed.Contains(f.Id)))
        {
            var good = 0;
            (bool Works, string? Look) trial = (true, null);
            while (good < ProofStarts && trial.Works)
            {
                Unit.Stir();
                trial = Unit.Try(function);
                good += trial.Works ? 1 : 0;
            }

            if (good > 0)
                Happened(new FunctionTrial(function.Id, true, Starts: good));
            if (!trial.Works)
                Happened(new FunctionTrial(function.Id, false, trial.Look));
            held &= trial.Works;
        }

        Moved("prove", DialogueKind.Proof, null, ProofMinutes, held ? "pass" : "fail");
        Step($"Prove: {ProofStarts} starts, moved between", held ? "works" : "fails", null, ProofMinutes);
        return held;
    }

    /// <summary>Takes a probe.</summary>
    public void Measure(Probe probe, string? why = null)
    {
        var opened = Reach(Model.Disassembly.Goal(probe));
        var told = Unit.Measure(probe);
        Happened(told);
        Moved(
            $"probe:{probe.Id}",
            DialogueKind.Check,
            null,
            opened + probe.Minutes,
            told.Outcome switch
            {
                ProbeOutcome.Normal => "ok",
                ProbeOutcome.Jumps => "jumps",
                _ => "bad",
            }
        );
        Step(MoveWords.CheckTitle(probe), told.Reading?.ToString() ?? told.Verdict, why, opened + probe.Minutes);
    }

    /// <summary>Presses, flexes or warms the unit and watches a function.</summary>
    public void Provoke(DeviceFunction function, Provocation how, string? why = null)
    {
        var opened = how == Provocation.Flexed ? Reach(Disassembly.Goal(AccessState.Open)) : 0;
        var changed = Unit.Provoke(function, how);
        Happened(new ProvokeTrial(function.Id, how, changed));
        Moved(
            $"provoke:{function.Id}:{how.ToString().ToLowerInvariant()}",
            DialogueKind.Provoke,
            null,
            opened + MoveWords.ProvokeMinutes(function, how),
            changed ? "changed" : "same"
        );
        Step(
            MoveWords.ProvokeTitle(function, how),
            changed ? "it changes" : "nothing changes",
            why,
            opened + MoveWords.ProvokeMinutes(function, how)
        );
    }

    /// <summary>Tries a function with another piece, one that works, in the place of a part.</summary>
    public void Swap(DeviceFunction function, PartId part, string? why = null)
    {
        var chain = SwapPlanner.Chain(Model, function.Id, [part]);
        var works = Unit.Swap(function, chain);
        Happened(new SwapTrial(function.Id, works ? SwapResult.Pass : SwapResult.Fail, chain, [part], []));
        Moved($"swap:{part}", DialogueKind.Swap, part, function.Minutes + 1, works ? "pass" : "fail");
        Step(MoveWords.SwapTitle(function, Model.Profile.FindPart(part)!), works ? "works" : "still fails", why, function.Minutes + 1);
    }

    /// <summary>Carries a method out, then tries what it was for.</summary>
    /// <param name="partId">Part.</param>
    /// <param name="method">Method.</param>
    /// <param name="target">What it was for.</param>
    /// <param name="why">Why it is done.</param>
    /// <param name="tryTheRest">True to try everything else that failed, too, once that works; false for who asks what to do
    /// next.</param>
    public void Repair(PartId partId, Method method, DeviceFunction target, string? why = null, bool tryTheRest = true)
    {
        var opened = Reach(Model.Disassembly.Goal(partId, method.State));
        var left = false;
        foreach (var (part, done) in Model.InOneGo(Model.Profile.FindPart(partId)!, method))
        {
            Unit.Repair(part.Id, done);
            // The check at its end belongs to the method and to its minutes; where it is a probe of the model it is filed as that.
            var proof = Model.CheckProbe(part.Id, done.Id);
            var held = proof is null ? Unit.Held(part.Id, done) : null;
            Happened(new RepairLogged(part.Id, done.Id, Held: held));
            left |= held == false;
            if (proof is null)
                continue;
            var shown = Unit.Measure(proof);
            Happened(shown);
            left |= shown.Outcome != ProbeOutcome.Normal;
        }

        PartsCost += method.PartsCost;
        Moved($"fix:{partId}:{method.Id}", DialogueKind.Repair, partId, opened + method.Minutes, left ? "bad" : "done");
        Step($"{method.Name} ({Model.Profile.FindPart(partId)!.Name})", "done", why, opened + method.Minutes);
        // The retest takes what the advisor counts for one, however long the function takes at its first trial.
        Try(target, null, costs.RetestMinutes);
        if (!tryTheRest || UnitDiagnosis.StateOf(_events, target.Id) != FunctionState.Works)
            return;
        foreach (var function in Model.Profile.Functions.Where(f => UnitDiagnosis.StateOf(_events, f.Id) == FunctionState.Fails).ToList())
            Try(function);
    }

    /// <summary>The function tried after a repair: the one worked on, else the first of the baseline.</summary>
    public DeviceFunction Target => UnitDiagnosis.ChooseTarget(Model, _events) ?? Model.Profile.Functions[0];

    /// <inheritdoc/>
    void IReplayBench.Try(DeviceFunction function) => Try(function);

    /// <inheritdoc/>
    void IReplayBench.Measure(Probe probe) => Measure(probe);

    /// <inheritdoc/>
    void IReplayBench.Provoke(DeviceFunction function, Provocation how) => Provoke(function, how);

    /// <inheritdoc/>
    void IReplayBench.Swap(DeviceFunction function, PartId part) => Swap(function, part);

    void IReplayBench.Repair(PartId part, MethodId method)
    {
        if (Model.Library.FindMethod(method) is { } known && Model.Profile.FindPart(part) is not null)
            Repair(part, known, Target);
    }

    private void Happened(RecordBody body)
    {
        _bodies.Add(body);
        _events.Add(body.ToEvent(_events.Count)!);
    }

    /// <summary>Minutes to take the unit apart for a method on a part.</summary>
    public double ToReach(PartId part, Method method) => Model.Disassembly.Minutes(Apart, Model.Disassembly.Goal(part, method.State));

    private double Reach(int goal)
    {
        var minutes = Model.Disassembly.Minutes(Apart, goal);
        Apart = Model.Disassembly.After(Apart, goal);
        return minutes;
    }

    private void Step(string title, string answer, string? why, double minutes)
    {
        Minutes += minutes;
        _steps.Add(new PracticeStep(title, answer, why, minutes));
    }
}
