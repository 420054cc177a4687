using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;

namespace Mendro.StandIns;

/// <summary>
/// A unit with hidden faults, drawn from the same network that diagnoses it. Lasting faults answer a check the same
/// way every time; bench errors draw anew at each trial.
/// </summary>
public sealed class PracticeUnit : HiddenUnit
{
    private PracticeUnit(DeviceModel model, string seed, IEnumerable<int> present)
        : base(model, seed, present) { }

    /// <summary>Draws a unit in which at least one function fails when first tried.</summary>
    /// <inheritdoc cref="HiddenUnit.Drawn{TUnit}"/>
    public static PracticeUnit Draw(DeviceModel model, long seed, int number, double[]? priors = null) =>
        Drawn(model, seed, number, priors, (key, present) => new PracticeUnit(model, key, present));

    /// <summary>A unit with certain faults.</summary>
    /// <param name="model">Model.</param>
    /// <param name="seed">Seed of its answers.</param>
    /// <param name="faults">Indexes of the faults.</param>
    public static PracticeUnit With(DeviceModel model, string seed, IEnumerable<int> faults) => new(model, seed, faults);

    /// <summary>
    /// Frequencies of another world: each fault's odds a third to three times the library's, log-uniform by the seed.
    /// </summary>
    public static double[] ShiftedPriors(DeviceModel model, long shiftSeed) =>
        model
            .Faults.Select(f =>
            {
                var odds = f.Prior / (1 - f.Prior) * Math.Pow(3, 2 * Uniform($"world/{shiftSeed}", "shift", f.Id) - 1);
                return odds / (1 + odds);
            })
            .ToArray();

    /// <inheritdoc/>
    public override (bool Works, string? Look) Try(DeviceFunction function)
    {
        if (Cause(Model.FunctionFails(function)) is not { } cause)
            return (true, null);
        if (cause < 0)
            return (false, null);
        var kind = Model.Library.FindFunctionKind(function.Kind);
        var left = Uniform("look", $"{Model.Faults[cause].Id}/{function.Id}");
        var fails = Model.FunctionFails(function).Links.Single(l => l.Fault == cause).P;
        foreach (var look in kind?.Looks ?? [])
        {
            var link = Model.FunctionLooks(function, look.Id).Links.Single(l => l.Fault == cause);
            left -= link.P / fails;
            if (left < 0)
                return (false, look.Id);
        }

        return (false, null);
    }

    /// <inheritdoc/>
    public override ProbeReading Measure(Probe probe)
    {
        var (outcome, cause) = ProbeCause(probe);
        // Who sees or feels something says what it is.
        return outcome == ProbeOutcome.Abnormal
            && TradeLibrary.Of(probe.Kind).ByEye
            && cause?.Mode.PlainWord is { } word
            && ReadingJudge.Judge(Model.Profile, probe, $"bad, {word}{Which(probe, cause.Part)}") is { IsOk: true } judged
            ? ProbeReading.Of(probe, judged.Value)
            : ProbeReading.Told(probe, outcome) with
            {
                Degree = outcome == ProbeOutcome.Abnormal && cause is not null ? Degree(probe, cause) : null,
            };
    }

    /// <summary>How far a meter's reading is off, drawn as often as the advice expects it of the fault; null where it tells none.</summary>
    private ReadingDegree? Degree(Probe probe, PartFault cause)
    {
        if (TradeLibrary.Of(probe.Kind).ByEye)
            return null;
        double Shows(ReadingDegree degree) =>
            Model
                .Shown(probe, new ProbeTaken(0, probe.Id, ProbeOutcome.Abnormal, Degree: degree))
                .Links.Where(l => Model.Faults[l.Fault].Id == cause.Id)
                .Sum(l => l.P);
        ReadingDegree[] degrees = probe switch
        {
            { Kind: ProbeKind.Volts or ProbeKind.Current } => [ReadingDegree.Missing, ReadingDegree.Sagging, ReadingDegree.Low, ReadingDegree.High],
            { Rail: not null } => [ReadingDegree.Short, ReadingDegree.Low],
            { Kind: ProbeKind.Continuity } => [ReadingDegree.Open, ReadingDegree.Resistive],
            _ => [],
        };
        var left = Uniform("degree", $"{cause.Id}/{probe.Id}") * Shows(ReadingDegree.Untold);
        foreach (var degree in degrees)
            if ((left -= Shows(degree)) < 0)
                return degree;
        return null;
    }

    /// <summary>Takes a probe.</summary>
    public ProbeOutcome Probe(Probe probe) => ProbeCause(probe).Outcome;

    /// <summary>Takes a probe; the fault behind a bad answer is null for a bench error or damage.</summary>
    public (ProbeOutcome Outcome, PartFault? Cause) ProbeCause(Probe probe) =>
        Cause(Model.ProbeAbnormal(probe)) is not { } cause
            ? (ProbeOutcome.Normal, null)
            : (ProbeOutcome.Abnormal, cause >= 0 ? Model.Faults[cause] : null);

    /// <inheritdoc/>
    public override bool Swap(DeviceFunction function, IReadOnlyList<PartId> chain)
    {
        // It is the same function tried: what lasts and stays in the chain fails it just as it did before the swap.
        var template = Model.SwapFails(function, chain, 0);
        return Cause(template with { Id = Model.FunctionFails(function).Id, Momentary = true }) is null;
    }

    /// <inheritdoc/>
    public override bool Provoke(DeviceFunction function, Provocation how)
    {
        // Behind something that stays broken nothing can be seen to change.
        var fails = Model.FunctionFails(function);
        var solid =
            fails.Links.Any(l =>
                Present.Contains(l.Fault)
                && EvidenceWeights.Changes(Model.Faults[l.Fault].Mode, function.Kind, how) <= 0
                && Shows(fails, l, 0)
            ) || Damaged.Any(p => fails.Damage!.TryGetValue(p, out var chance) && Uniform("damage", $"{p}/{fails.Id}") < chance);
        return Cause(Model.ChangesWhen(function, how)) is not null && !solid;
    }

    /// <summary>The fault that makes a finding present at this trial, −1 for a bench error or damage, null when it is absent.</summary>
    private int? Cause(FindingTemplate finding)
    {
        var trial = Trial(finding.Id);
        foreach (var link in finding.Links)
        {
            if (!Present.Contains(link.Fault))
                continue;
            var fault = Model.Faults[link.Fault];
            if (fault.Mode.Effect != ModeEffect.Intermittent)
            {
                if (Shows(finding, link, 0))
                    return link.Fault;
                continue;
            }

            if (
                !finding.Momentary
                    ? Shows(finding, link, trial)
                    : Failing(fault) && Uniform("cause", $"{fault.Id}/{finding.Id}/{trial}") < Steady
            )
                return link.Fault;
        }

        foreach (var part in Damaged)
            if (finding.Damage?.TryGetValue(part, out var p) == true && Uniform("damage", $"{part}/{finding.Id}") < p)
                return -1;
        return Uniform("leak", $"{finding.Id}/{trial}") < finding.Leak ? -1 : null;
    }

    private bool Shows(FindingTemplate finding, Link link, int moment) =>
        Uniform("cause", $"{Model.Faults[link.Fault].Id}/{finding.Id}/{moment}") < link.P;
}
