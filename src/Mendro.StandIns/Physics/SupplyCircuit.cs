using Mendro.Core.Diagnosis;
using Mendro.Core.Electrical;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;

namespace Mendro.StandIns.Physics;

/// <summary>
/// The supply of a model as a circuit: sources with inner resistance, what lies in series, converters with drop-out, loads. Solved by
/// <see cref="NodalCircuit"/>, converters by iteration, since what they take at the input depends on what they give at the output.
/// </summary>
public sealed class SupplyCircuit
{
    private const int Rounds = 40;
    private const double Damping = 0.5;
    private const double Efficiency = 0.85;
    private const double BleedOhms = 220e3;
    private const double LimitAmps = 1.5;

    private readonly DeviceModel _model;
    private readonly List<PartId> _parts;
    private readonly Dictionary<PartId, double> _nominal = [];
    private readonly Dictionary<PartId, List<PartId>> _pins = [];
    private readonly HashSet<PartId> _implied = [];

    /// <summary>Reads the supply of a model.</summary>
    public SupplyCircuit(DeviceModel model)
    {
        _model = model;
        _parts = model
            .Profile.Parts.Select(p => p.Id)
            .Where(id => model.Graph.OutOf(id).Concat(model.Graph.Into(id)).Any(f => f.Carries == Carries.Power))
            .ToList();
        foreach (var id in _parts)
            _nominal[id] = Nominal(id);
        foreach (var id in _parts.Where(id => !IsSource(id)))
        {
            // A part that hangs on several rails has a pin for each; that of its own voltage is the one it passes on.
            var from = Feeding(id, null);
            if (
                from.Count > 1
                && from.Where(b => !Near(_nominal[b], _nominal[id])).ToList() is { Count: > 0 } others
                && others.Count < from.Count
            )
                _pins[id] = others;
            // Where the profile names no converter between two voltages, one is there all the same.
            if (Main(id, null).Count > 0 && Main(id, null).All(b => !Near(_nominal[b], _nominal[id])))
                _implied.Add(id);
        }
    }

    /// <summary>Rails of other voltages that a part hangs on beside the one it passes on: the parts that feed it from there.</summary>
    public IReadOnlyList<PartId> OtherPins(PartId id) => _pins.GetValueOrDefault(id, []);

    /// <summary>Parts that have to do with the supply.</summary>
    public IReadOnlyList<PartId> Parts => _parts;

    /// <summary>Volts a part is made to have at its output, by magnitude.</summary>
    public double NominalOf(PartId id) => _nominal.GetValueOrDefault(id, 5);

    /// <summary>Amperes a part takes when it runs (common practice, no source); 0 for what only passes the supply on.</summary>
    public double LoadAmps(PartId id) =>
        _model.Profile.FindPart(id)?.Kind switch
        {
            "logic" => 0.09,
            "light" => 0.01,
            "backlight" or "tube-backlight" => 0.08,
            "display-panel" => 0.02,
            "optical-drive" => 0.25,
            "hard-disk" => 0.4,
            "port" or "cartridge-edge" or "trace" => 0.005,
            _ => 0,
        };

    /// <summary>Volts at the output of every part, by magnitude.</summary>
    /// <param name="condition">Condition of each part.</param>
    /// <param name="unplugged">Feeds that are unplugged: from and to.</param>
    public IReadOnlyDictionary<PartId, double> Volts(
        Func<PartId, PartCondition> condition,
        IReadOnlySet<(PartId From, PartId To)>? unplugged = null
    )
    {
        var volts = _parts.ToDictionary(id => id, id => _nominal[id]);
        var given = _parts.Where(IsConverter).ToDictionary(id => id, id => _nominal[id]);
        var taken = given.Keys.ToDictionary(id => id, _ => 0.0);
        for (var round = 0; round < Rounds; round++)
        {
            var circuit = new NodalCircuit();
            var node = _parts.ToDictionary(id => id, _ => circuit.AddNode());
            var inner = new Dictionary<PartId, double>();
            foreach (var id in _parts)
            {
                var now = condition(id);
                var from = Main(id, unplugged);
                foreach (var pin in OtherPins(id).Where(b => Feeding(id, unplugged).Contains(b)))
                    circuit.AddResistor(node[pin], 0, _nominal[pin] / Math.Max(0.01, LoadAmps(id) / 4));
                if (IsConverter(id))
                {
                    inner[id] = now.InnerOhms;
                    circuit.AddSource(node[id], given[id], now.InnerOhms);
                    foreach (var before in from)
                        circuit.AddCurrent(node[before], -taken[id] / from.Count);
                }
                else if (IsSource(id))
                {
                    circuit.AddSource(
                        node[id],
                        _nominal[id] * now.Strength,
                        now.InnerOhms + Math.Min(now.SeriesOhms, PartCondition.OpenOhms)
                    );
                }
                else
                {
                    foreach (var before in from)
                        circuit.AddResistor(node[before], node[id], now.SeriesOhms);
                }

                // Whatever hangs on a rail bleeds a little, the meter too.
                circuit.AddResistor(node[id], 0, BleedOhms);
                if (LoadAmps(id) is > 0 and var amps)
                    circuit.AddResistor(node[id], 0, _nominal[id] / amps);
                if (now.ToGroundOhms is { } shorted)
                    circuit.AddResistor(node[id], 0, shorted);
            }

            var solved = circuit.Solve();
            foreach (var id in _parts)
                volts[id] = Math.Max(0, solved[node[id]]);
            foreach (var id in given.Keys.ToList())
            {
                var from = Main(id, unplugged);
                var input = from.Count == 0 ? 0 : from.Max(b => volts[b]);
                var wanted = Output(id, condition(id), input, from);
                // A converter protects itself: into a short it gives its limit and no more.
                wanted = Math.Min(wanted, volts[id] + LimitAmps * inner[id]);
                given[id] += Damping * (wanted - given[id]);
                var amps = Math.Max(0, (given[id] - volts[id]) / inner[id]);
                var linear = _model.Graph.Has(id, PartRole.Linear);
                var draw =
                    linear ? amps
                    : input < 0.3 ? 0
                    : amps * volts[id] / (input * Efficiency);
                taken[id] += Damping * (Math.Min(draw, 3) - taken[id]);
            }
        }

        return volts;
    }

    /// <summary>Ohms from the output of a part to ground with the supply off: loads lie in their off state, shorts as ever.</summary>
    public double OhmsToGround(PartId at, Func<PartId, PartCondition> condition)
    {
        var circuit = new NodalCircuit();
        var rail = _model.Graph.RailOf(at).Members.Where(_parts.Contains).ToList();
        var node = rail.ToDictionary(id => id, _ => circuit.AddNode());
        foreach (var id in rail)
        {
            var now = condition(id);
            if (!IsConverter(id) && !IsSource(id))
                foreach (var before in Main(id, null).Where(node.ContainsKey))
                    circuit.AddResistor(node[before], node[id], now.SeriesOhms);
            if (LoadAmps(id) is > 0 and var amps)
                circuit.AddResistor(node[id], 0, 60 * _nominal[id] / amps);
            if (now.ToGroundOhms is { } shorted)
                circuit.AddResistor(node[id], 0, shorted);
        }

        if (!node.TryGetValue(at, out var here))
            return PartCondition.OpenOhms;
        const double TestAmps = 1e-3;
        circuit.AddCurrent(here, TestAmps);
        return circuit.Solve()[here] / TestAmps;
    }

    private List<PartId> Feeding(PartId id, IReadOnlySet<(PartId, PartId)>? unplugged) =>
        _model
            .Graph.Into(id)
            .Where(f => f.Carries == Carries.Power && unplugged?.Contains((f.From, id)) != true)
            .Select(f => f.From)
            .ToList();

    private List<PartId> Main(PartId id, IReadOnlySet<(PartId, PartId)>? unplugged) =>
        Feeding(id, unplugged).Where(b => !OtherPins(id).Contains(b)).ToList();

    private static bool Near(double one, double other) => Math.Abs(one - other) <= 0.3 * Math.Max(one, other);

    private bool IsSource(PartId id) => _model.Graph.Has(id, PartRole.Store) || _model.Graph.Into(id).All(f => f.Carries != Carries.Power);

    private bool IsConverter(PartId id) => !IsSource(id) && (_model.Graph.Has(id, PartRole.Converter) || _implied.Contains(id));

    /// <summary>What a converter gives: its volts while the input suffices, then less and less.</summary>
    private double Output(PartId id, PartCondition now, double input, List<PartId> from)
    {
        var nominal = _nominal[id];
        if (from.Count == 0 || now.SeriesOhms >= PartCondition.OpenOhms)
            return 0;
        if (_model.Graph.Has(id, PartRole.Linear))
            return Math.Min(nominal, Math.Max(0, input - BenchLimits.Shipped.Regulator.DropoutVolts)) * now.Strength;
        var full = from.Max(b => _nominal[b]);
        // A switching converter holds down to about two thirds of its usual input and stops below a third.
        var share = Math.Clamp((input / full - 0.33) / (0.66 - 0.33), 0, 1);
        return nominal * share * now.Strength;
    }

    private double Nominal(PartId id)
    {
        var seen = new HashSet<PartId>();
        PartId? at = id;
        // The nearest part at or before it that a probe or the profile gives volts for.
        while (at is { } here && seen.Add(here))
        {
            if (Told(here) is { } volts)
                return volts;
            if (IsConverter(here) || IsSource(here))
                return Behind(here) ?? Rated(here);
            at = Feeding(here, null).Cast<PartId?>().FirstOrDefault();
        }

        return 5;
    }

    private double? Told(PartId id)
    {
        foreach (var probe in _model.Profile.Probes.Where(p => p.Kind == ProbeKind.Volts && p.At is { } at && at.Equals(id)))
            if (ExpectationRules.For(_model.Profile, probe).Probe.Expect is { Low: { } low, High: { } high })
                return Math.Abs(low + high) / 2;
        return null;
    }

    /// <summary>Volts told at a point behind a source or converter, before the next one.</summary>
    private double? Behind(PartId id) =>
        _model
            .Graph.Downstream(id, powerOnly: true)
            .Where(d => d != id && !_model.Graph.Has(d, PartRole.Converter) && _model.Graph.RailOf(d).Heads.Contains(id))
            .Select(Told)
            .FirstOrDefault(v => v is not null);

    private double Rated(PartId id)
    {
        var supply = _model.Profile.Supply;
        if (_model.Graph.Has(id, PartRole.Adapter) && supply?.AdapterVolts is { } adapter)
            return adapter < 50 ? adapter : 12;
        if (
            _model.Graph.Has(id, PartRole.Pack)
            && supply is { Cells: { } cells, Chemistry: { } chemistry }
            && BenchLimits.Shipped.Cell(chemistry) is { } cell
        )
            return cells * cell.Nominal;
        return IsConverter(id) && supply?.Rails is [var rail, ..] ? Math.Abs(rail.Volts)
            : IsConverter(id) ? 5
            : 9;
    }
}
