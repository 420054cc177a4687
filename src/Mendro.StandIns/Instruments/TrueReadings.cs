using Mendro.Core.Boards;
using Mendro.Core.Diagnosis;
using Mendro.Core.Electrical;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;

namespace Mendro.StandIns.Instruments;

/// <summary>The true value at a point of a unit with hidden faults, for the stand-in meter and supply.</summary>
public static class TrueReadings
{
    private const double ShortOhms = 1.6;

    /// <summary>What the tips find at a probe.</summary>
    /// <param name="model">Model of the unit.</param>
    /// <param name="unit">The unit; it is asked as a technician would ask it.</param>
    /// <param name="probe">Probe.</param>
    /// <param name="share">Where within its range a good value lies, 0 to 1; the same for the whole unit.</param>
    /// <returns>The point, or null when no meter answers there.</returns>
    public static TipPoint? At(DeviceModel model, HiddenUnit unit, Probe probe, double share)
    {
        if (MeterDialect.Function(model.Profile, probe) is not { } node)
            return null;
        if (unit is not PracticeUnit drawn)
            return OfReading(unit.Measure(probe), node);
        var (outcome, cause) = drawn.ProbeCause(probe);
        var expect = ExpectationRules.For(model.Profile, probe).Probe.Expect;
        return new TipPoint(
            node.Replace(":DC", "", StringComparison.Ordinal),
            outcome == ProbeOutcome.Normal ? Good(probe, expect, share) : Bad(probe, expect, cause?.Mode.Effect)
        );
    }

    /// <summary>A unit that obeys physics gives the value itself.</summary>
    private static TipPoint OfReading(ProbeReading told, string node)
    {
        var reading = told.Reading;
        double? value = reading switch
        {
            null or { Jumps: true } => 0.5,
            { Unit: ReadingUnit.OverRange } or { Unit: ReadingUnit.Beep, Value: not > 0 } => null,
            { Unit: ReadingUnit.Beep } => 0.2,
            _ => reading.Value,
        };
        return new TipPoint(node.Replace(":DC", "", StringComparison.Ordinal), value);
    }

    /// <summary>What the unit is to a bench supply: its normal load, a short, or nothing at all.</summary>
    public static SupplyLoad Load(DeviceModel model, HiddenUnit unit)
    {
        var (volts, amps) = Normal(model.Profile);
        var faults = unit.Present.Select(f => model.Faults[f]).ToList();
        if (faults.Any(f => f.Mode.Effect == ModeEffect.Short))
            return new SupplyLoad(ShortOhms, 0);
        var power = model.Profile.Functions.FirstOrDefault(f => f.Kind == "power-light") ?? model.Profile.Functions[0];
        var needed = model.Graph.Closure(power);
        var cut = faults.Any(f => f.Mode.Effect is ModeEffect.Open or ModeEffect.Dead && needed.Contains(f.Part.Id));
        return cut ? new SupplyLoad(1e6, 0) : new SupplyLoad(volts / (0.6 * amps), 0.7 * volts);
    }

    /// <summary>What the tips find between two points of a net: a unit whose traces are broken has them broken where it is
    /// likeliest; wires in place count.</summary>
    /// <param name="model">Model.</param>
    /// <param name="unit">Unit with its hidden faults.</param>
    /// <param name="net">Net.</param>
    /// <param name="wires">Wires in place, by the keys of their ends.</param>
    /// <param name="a">Key of one point.</param>
    /// <param name="b">Key of the other.</param>
    /// <returns>Ohms; null for nothing.</returns>
    public static double? Line(DeviceModel model, HiddenUnit unit, NetTree net, IReadOnlyList<(string A, string B)> wires, string a, string b)
    {
        var isBroken = net.Serves is { } part && unit.Present.Any(f => model.Faults[f].Part.Id == part);
        var likeliest = net.Stretches.Where(s => !s.IsJoint).MaxBy(s => s.Weight);
        var whole = net
            .Stretches.Where(s => !(isBroken && s == likeliest) && !net.ByKey[s.A].IsOff && !net.ByKey[s.B].IsOff)
            .Select(s => (s.A, s.B))
            .Concat(wires)
            .ToList();
        var (seen, open) = (new HashSet<string> { a }, new Queue<string>([a]));
        while (open.TryDequeue(out var at))
            foreach (var to in whole.Where(w => w.A == at || w.B == at).Select(w => w.A == at ? w.B : w.A))
                if (seen.Add(to))
                    open.Enqueue(to);
        return seen.Contains(b) ? 0.3 : null;
    }

    /// <summary>Ohms across one contact; null when it is open. A hidden fault of the connector shows on one contact in eight, at
    /// least on one.</summary>
    /// <param name="model">Model.</param>
    /// <param name="unit">The unit.</param>
    /// <param name="connector">Connector.</param>
    /// <param name="contact">Contact.</param>
    /// <param name="seed">Seed of which contacts are hurt.</param>
    public static double? Contact(DeviceModel model, HiddenUnit unit, Connector connector, Contact contact, long seed)
    {
        var spanned = model.Profile.FindProbe(connector.Probe ?? "")?.Spans ?? [connector.Part];
        var cause = unit.Present.Select(f => model.Faults[f]).FirstOrDefault(f => spanned.Contains(f.Part.Id));
        var wanted = connector.Contacts.Where(c => c.Group != "unused").ToList();
        // A fixed pick of contacts by the seed: the same unit has the same ones.
        var hurt = cause is null
            ? []
            : wanted.OrderBy(c => (c.Number * 7919L + seed * 104729L) % 997).Take(Math.Max(1, wanted.Count / 8)).ToList();
        if (hurt.All(c => c.Number != contact.Number))
            return 0.2 + 0.01 * (contact.Number % 17);
        return cause!.Mode.Effect is ModeEffect.Degraded or ModeEffect.Intermittent ? 45 : null;
    }

    /// <summary>Volts and amperes the unit is made for; 5 V and 0.2 A where the profile is silent.</summary>
    public static (double Volts, double Amps) Normal(DeviceProfile profile)
    {
        var supply = profile.Supply;
        var volts =
            supply is { Cells: { } cells, Chemistry: { } chemistry }
            && Mendro.Core.Electrical.BenchLimits.Shipped.Cell(chemistry) is { } cell
                ? cells * cell.Nominal
            : supply?.AdapterKind == "dc" ? supply.AdapterVolts ?? 5
            : supply?.Rails?.FirstOrDefault(r => r.Volts > 0)?.Volts ?? 5;
        return (volts, supply is { AdapterAmps: { } amps, AdapterVolts: < 50 } ? amps : 0.2);
    }

    private static double? Good(Probe probe, Expectation expect, double share) =>
        probe.Kind switch
        {
            ProbeKind.Continuity => 0.15 + 0.3 * share,
            ProbeKind.Ohms when probe.Rail is not null => Math.Max(expect.Low ?? 0, 1000) * (3 + 4 * share),
            ProbeKind.Ohms when expect.Low is null => 0.2 * (expect.High ?? 1) * (1 + share),
            ProbeKind.Volts or ProbeKind.Diode or ProbeKind.Capacitance or ProbeKind.Current or ProbeKind.Ohms => Within(expect, share),
            _ => null,
        };

    private static double? Bad(Probe probe, Expectation expect, ModeEffect? effect)
    {
        var cut = effect is null or ModeEffect.Open or ModeEffect.Dead;
        var low = expect.Low ?? expect.High ?? 1;
        return probe.Kind switch
        {
            ProbeKind.Volts => cut ? 0.004 : 0.55 * low,
            ProbeKind.Continuity => cut ? null : 34,
            ProbeKind.Ohms when probe.Rail is not null => ShortOhms,
            ProbeKind.Ohms => cut ? null
            : expect.High is { } high ? 6 * high
            : 0.3 * low,
            ProbeKind.Diode => cut ? null : 0.003,
            ProbeKind.Capacitance => cut ? 40e-12 : 0.4 * low,
            ProbeKind.Current => cut ? 0 : 3 * (expect.High ?? 1),
            _ => null,
        };
    }

    private static double Within(Expectation expect, double share)
    {
        var low = expect.Low ?? 0;
        var high = expect.High ?? low * 2;
        return low + (high - low) * (0.3 + 0.4 * share);
    }
}
