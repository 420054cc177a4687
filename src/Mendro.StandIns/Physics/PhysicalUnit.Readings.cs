using System.Globalization;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;

namespace Mendro.StandIns.Physics;

/// <content>What is typed at the bar when a probe is taken.</content>
public sealed partial class PhysicalUnit
{
    private string Typed(Probe probe)
    {
        var trial = Trial($"probe:{probe.Id}");
        var slip = Uniform("slip", $"{probe.Id}/{trial}") < (TradeLibrary.Of(probe.Kind).ByEye ? EyeError : BenchError);
        var expect = ExpectationRules.For(Model.Profile, probe).Probe.Expect;
        switch (probe.Kind)
        {
            case ProbeKind.Volts when probe.At is { } at:
                var sign = expect.High < 0 ? -1 : 1;
                var volts = slip ? 0 : Volts(at, probe.Unloaded);
                var jumps = Acting(probe.Toward is { } toward ? new HashSet<PartId> { at, toward } : new HashSet<PartId> { at })
                    .Any(f => f.Mode.Effect == ModeEffect.Intermittent);
                return jumps && volts < 0.5 * _supply.NominalOf(at) && Uniform("jumps", $"{probe.Id}/{trial}") < 0.35
                    ? "jumps"
                    : Text(sign * volts, "V");
            case ProbeKind.Continuity:
                var ohms = slip ? PartCondition.OpenOhms : Across(probe);
                return ohms < 1 ? "beep"
                    : ohms < ReadingDegrees.OpenFromOhms ? Text(ohms, "ohm")
                    : "open";
            case ProbeKind.Ohms or ProbeKind.Diode when probe.Rail is { } rail:
                return Text(
                    slip ? 3 : Math.Round(_supply.OhmsToGround(rail, id => Condition(id, Acting(new HashSet<PartId> { id }))), 1),
                    "ohm"
                );
            case ProbeKind.Ohms:
                return Resistance(probe, expect, slip);
            case ProbeKind.Capacitance:
                var share = Faults(probe).Select(f => f.Mode.Id == "dried" ? 0.35 : 0.5).DefaultIfEmpty(slip ? 0.5 : 1).Min();
                return $"{((expect.Low ?? 0) + (expect.High ?? 0)) / 2 * share * 1e6:0.###}u".ToString(CultureInfo.InvariantCulture);
            case ProbeKind.Look:
                return Seen(probe, slip);
            case ProbeKind.Press:
                var answers = Faults(probe).FirstOrDefault(f => Moves(f, $"{probe.Id}/{trial}"));
                return answers is not null || slip ? $"bad, {answers?.Mode.PlainWord ?? "it changes"}" : "ok";
            default:
                return "ok";
        }
    }

    private IEnumerable<PartFault> Faults(Probe probe) =>
        (probe.Spans ?? []).SelectMany(Model.FaultsOf).Where(Present.Contains).Select(f => Model.Faults[f]);

    private bool Moves(PartFault fault, string trial) =>
        Uniform("moves", $"{fault.Id}/{trial}")
        < (fault.Mode.Effect == ModeEffect.Intermittent ? Answers : fault.Mode.Detect?.GetValueOrDefault(ProbeKind.Press) ?? 0);

    private double Across(Probe probe)
    {
        var ohms = 0.2;
        foreach (var fault in Faults(probe))
        {
            if (fault.Mode.Effect == ModeEffect.Intermittent && !Failing(fault))
                continue;
            var now = PartCondition.Of(PartCondition.Sound(false), [(fault.Mode, fault.Part.Kind, Severity(fault))]);
            // A contact row has many contacts: only what is broken on the one under the tips shows.
            ohms += fault.Mode.Effect is ModeEffect.Degraded && now.SeriesOhms < 1 ? 0 : now.SeriesOhms;
        }

        return ohms;
    }

    private string Resistance(Probe probe, Core.Profiles.Expectation expect, bool slip)
    {
        var fault = Faults(probe).FirstOrDefault(f => f.Mode.Effect != ModeEffect.Intermittent || Failing(f));
        var good =
            expect is { Low: { } low, High: { } high } ? (low + high) / 2
            : expect.High is { } most ? most / 4
            : 5 * (expect.Low ?? 1000);
        return fault switch
        {
            null => slip ? "OL" : Text(good, "ohm"),
            { Mode.Effect: ModeEffect.Short } => Text(0.4 + Severity(fault), "ohm"),
            { Mode.Effect: ModeEffect.Open or ModeEffect.Intermittent } => "OL",
            { Mode.Effect: ModeEffect.Degraded } when expect.Low is null => Text((expect.High ?? 100) * (1.5 + 8 * Severity(fault)), "ohm"),
            _ => Text(good, "ohm"),
        };
    }

    private string Seen(Probe probe, bool slip)
    {
        foreach (var fault in Faults(probe))
        {
            var shows = fault.Mode.Detect?.GetValueOrDefault(ProbeKind.Look) ?? 0;
            if (Uniform("seen", $"{fault.Id}/{probe.Id}") >= shows)
                continue;
            var grade = Severity(fault) > 0.8 ? "heavy " : "";
            return $"bad, {grade}{fault.Mode.PlainWord ?? ""}{Which(probe, fault.Part)}".TrimEnd(',', ' ');
        }

        return slip ? "bad" : "ok";
    }

    private static string Text(double value, string unit) => string.Create(CultureInfo.InvariantCulture, $"{value:0.###} {unit}");
}
