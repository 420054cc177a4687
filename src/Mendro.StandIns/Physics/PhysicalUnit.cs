using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;

namespace Mendro.StandIns.Physics;

/// <summary>
/// A unit that obeys physics: its supply is a circuit, its signals pass or not, force and warmth act on places, and how it looks
/// follows from what is really missing. What it answers is typed at the bar like any reading.
/// </summary>
public sealed partial class PhysicalUnit : HiddenUnit
{
    private const double BenchError = 0.01;
    private const double EyeError = 0.02;
    private const double Answers = 0.85;

    private readonly SupplyCircuit _supply;
    private readonly Dictionary<string, IReadOnlyDictionary<PartId, double>> _solved = [];

    private PhysicalUnit(DeviceModel model, SupplyCircuit supply, string seed, IEnumerable<int> present)
        : base(model, seed, present) => _supply = supply;

    /// <summary>Draws a unit in which at least one function fails when first tried.</summary>
    /// <inheritdoc cref="HiddenUnit.Drawn{TUnit}"/>
    public static PhysicalUnit Draw(DeviceModel model, long seed, int number, double[]? priors = null)
    {
        var supply = new SupplyCircuit(model);
        return Drawn(model, seed, number, priors, (key, present) => new PhysicalUnit(model, supply, key, present));
    }

    /// <summary>A unit with certain faults.</summary>
    /// <param name="model">Model.</param>
    /// <param name="seed">Seed of its answers.</param>
    /// <param name="faults">Indexes of the faults.</param>
    public static PhysicalUnit With(DeviceModel model, string seed, IEnumerable<int> faults) =>
        new(model, new SupplyCircuit(model), seed, faults);

    /// <inheritdoc/>
    public override (bool Works, string? Look) Try(DeviceFunction function)
    {
        if (Uniform("slip", $"{function.Id}/{Trial($"fn:{function.Id}")}") < BenchError / 2)
            return (false, null);
        var look = LookOf(function, Model.Closure(function.Id));
        return look is null ? (true, null) : (false, Model.HasLook(function, look) ? look : null);
    }

    /// <inheritdoc/>
    protected override double Doubts => EyeError;

    /// <inheritdoc/>
    public override bool Swap(DeviceFunction function, IReadOnlyList<PartId> chain) => LookOf(function, chain.ToHashSet()) is null;

    /// <inheritdoc/>
    public override bool Provoke(DeviceFunction function, Provocation how)
    {
        var closure = Model.Closure(function.Id);
        var acting = Acting(closure).ToList();
        var moves = acting.Where(f => Reacts(f, how, $"{function.Id}/{how}/{Trial($"provoke:{function.Id}:{how}")}")).ToList();
        if (moves.Count == 0)
            return false;
        // It changes only when nothing else keeps it broken.
        var without = moves.Select(f => f.Id).ToHashSet();
        return LookOf(function, closure, f => !without.Contains(f.Id)) is null != LookOf(function, closure) is null;
    }

    /// <inheritdoc/>
    public override ProbeReading Measure(Probe probe)
    {
        var typed = Typed(probe);
        var judged = ReadingJudge.Judge(Model.Profile, probe, typed);
        return judged.IsOk
            ? ProbeReading.Of(probe, judged.Value)
            : ProbeReading.Told(probe, typed.StartsWith("ok", StringComparison.Ordinal) ? ProbeOutcome.Normal : ProbeOutcome.Abnormal);
    }

    /// <summary>Volts at a part's output now, by magnitude.</summary>
    /// <param name="part">Part.</param>
    /// <param name="unplugged">True with what it feeds unplugged.</param>
    public double Volts(PartId part, bool unplugged = false)
    {
        var feeds = unplugged
            ? Model.Graph.OutOf(part).Where(f => f.Carries == Carries.Power).Select(f => (f.From, f.To)).ToHashSet()
            : null;
        return Solve(unplugged ? part.ToString() : "", feeds).GetValueOrDefault(part);
    }

    private IReadOnlyDictionary<PartId, double> Solve(
        string key,
        IReadOnlySet<(PartId, PartId)>? unplugged,
        Func<PartFault, bool>? only = null
    )
    {
        var acting = Acting(null).Where(f => only?.Invoke(f) != false).ToList();
        var name = $"{key}|{string.Join(',', acting.Select(f => f.Id))}|{string.Join(',', Damaged.Order(StringComparer.Ordinal))}";
        if (_solved.TryGetValue(name, out var known))
            return known;
        var by = acting.ToLookup(f => f.Part.Id);
        return _solved[name] = _supply.Volts(id => Condition(id, by[id]), unplugged);
    }

    private PartCondition Condition(PartId id, IEnumerable<PartFault> faults)
    {
        var sound = PartCondition.Sound(Model.Graph.Has(id, PartRole.Pack));
        if (Damaged.Contains(id))
            return sound with { SeriesOhms = PartCondition.OpenOhms, Strength = 0 };
        var now = PartCondition.Of(sound, faults.Select(f => (f.Mode, f.Part.Kind, Severity(f))));
        // A pack that nothing has charged is empty.
        return Model.Graph.Has(id, PartRole.Store) && Uncharged(id)
            ? now with
            {
                Strength = Math.Min(now.Strength, 0.7),
                InnerOhms = 10,
            }
            : now;
    }

    private bool Uncharged(PartId store) =>
        Model
            .Graph.ChargeWays([store])
            .SelectMany(Model.FaultsOf)
            .Any(f => Present.Contains(f) && Model.Faults[f].Mode.Effect is ModeEffect.Open or ModeEffect.Dead);

    /// <summary>Faults that act at this moment.</summary>
    private IEnumerable<PartFault> Acting(IReadOnlySet<PartId>? within) =>
        Present
            .Order()
            .Select(f => Model.Faults[f])
            .Where(f => within?.Contains(f.Part.Id) != false && (f.Mode.Effect != ModeEffect.Intermittent || Failing(f)));

    /// <summary>How bad a fault is, 0 to 1; fixed for the unit.</summary>
    private double Severity(PartFault fault) => Uniform("severity", fault.Id);

    /// <summary>Look of a function with some of its parts, or null when it works.</summary>
    private string? LookOf(DeviceFunction function, IReadOnlySet<PartId> chain, Func<PartFault, bool>? only = null)
    {
        // What was swapped out brings no fault of its own.
        var closure = Model.Closure(function.Id);
        bool Here(PartId part) => chain.Contains(part) || !closure.Contains(part);
        var volts = Solve("", null, f => (Here(f.Part.Id) || IsShort(f)) && only?.Invoke(f) != false);
        if (SupplyLook(function, chain, volts) is { } starved)
            return starved;
        var start = Model.Profile.Functions.FirstOrDefault(f => f.Kind is "start-up" or "cartridge");
        if (
            start is not null
            && start.Id != function.Id
            && UnitDiagnosis.WantsStart(Model, function, start)
            && LookOf(start, Model.Closure(start.Id).Where(Here).ToHashSet(), only) is { } stalled
        )
            return function.Kind switch
            {
                "picture" or "video-out" => stalled,
                "saving" => "cannot-save",
                _ => "nothing",
            };
        foreach (var fault in Acting(chain).Where(f => only?.Invoke(f) != false))
            if (SignalLook(function, fault) is { } look)
                return look;
        return Damaged.Any(p => chain.Contains(p)) ? "nothing" : null;
    }

    private static bool IsShort(PartFault fault) => fault.Mode.Effect == ModeEffect.Short;

    private string? SupplyLook(DeviceFunction function, IReadOnlySet<PartId> chain, IReadOnlyDictionary<PartId, double> volts)
    {
        var worst = chain
            .Where(id => _supply.LoadAmps(id) > 0 && volts.ContainsKey(id))
            .SelectMany(id => _supply.OtherPins(id).Where(volts.ContainsKey).Append(id))
            .Select(id => volts[id] / _supply.NominalOf(id))
            .DefaultIfEmpty(1)
            .Min();
        if (function.Kind == "charging")
            return ChargingLook(chain, volts);
        return PhysicalLooks.OfSupply(function.Kind, worst);
    }

    /// <summary>A charge light wants current through the whole way; a fuse that opens at once lets it flash.</summary>
    private string? ChargingLook(IReadOnlySet<PartId> chain, IReadOnlyDictionary<PartId, double> volts)
    {
        var ways = Model.Graph.ChargeWays(Model.Profile.Parts.Where(p => chain.Contains(p.Id)).Select(p => p.Id)).Union(chain).ToHashSet();
        foreach (var fault in Acting(ways))
        {
            if (Model.Graph.Has(fault.Part.Id, PartRole.Store))
                return "never-full";
            if (fault.Mode.Effect is ModeEffect.Open or ModeEffect.Dead or ModeEffect.Intermittent)
                return Model.Graph.Has(fault.Part.Id, PartRole.Fuse) ? "one-second"
                    : fault.Mode.Effect == ModeEffect.Intermittent ? "pressed"
                    : "nothing";
        }

        return null;
    }

    /// <summary>What a fault does to a function by the signals that it does not pass, or passes badly.</summary>
    private string? SignalLook(DeviceFunction function, PartFault fault)
    {
        var looks = PhysicalLooks.Of(fault.Part.Kind, fault.Mode, function.Kind);
        var supplies = Model.Graph.OutOf(fault.Part.Id).Any(f => f.Carries == Carries.Power);
        // What lies in the supply is dealt with by volts; capacitors that pass them show in what they feed.
        if (supplies && fault.Part.Kind != "capacitors")
            return null;
        var main = fault.Part.Kind == "capacitors" && Feeds(fault.Part.Id).Contains("start-up");
        if (main && function.Kind is "start-up" or "power-light" && fault.Mode.Effect == ModeEffect.Degraded)
            return Severity(fault) > 0.5 ? "on-then-off" : null;
        if (fault.Part.Kind == "capacitors" && (Severity(fault) < 0.35 || main && function.Kind != "video-out"))
            return null;
        if (fault.Mode.Only?.Contains(function.Kind) == false)
            return null;
        if (looks is null)
            return fault.Mode.Effect is ModeEffect.Open or ModeEffect.Dead or ModeEffect.Intermittent ? "nothing" : null;
        if (fault.Mode.Effect == ModeEffect.Degraded && Severity(fault) < 0.12)
            return null;
        var auth = function.Kind is "start-up" && Model.Closure(function.Id).Any(p => Model.Profile.FindPart(p)?.Kind == "auth-chip");
        if (auth && fault.Part.Kind is "cartridge-connector" or "test-cartridge" && Uniform("look", $"auth/{fault.Id}") < 0.75)
            return "blinks";
        if (fault.Mode.Effect == ModeEffect.Intermittent && Uniform("look", $"pressed/{fault.Id}/{function.Id}") < 0.25)
            return "pressed";
        return looks[(int)(Uniform("look", $"{fault.Id}/{function.Kind}") * looks.Length)];
    }

    /// <summary>Kinds of the functions that hang on a part's output.</summary>
    private HashSet<string> Feeds(PartId part) =>
        Model.Profile.Functions.Where(f => Model.Closure(f.Id).Contains(part)).Select(f => f.Kind).ToHashSet();

    private bool Reacts(PartFault fault, Provocation how, string trial)
    {
        var loose = fault.Mode.Effect == ModeEffect.Intermittent;
        var force =
            how == Provocation.Warmed
                ? (
                    fault.Mode.Id == "overheats" ? 0.9
                    : loose ? 0.25
                    : 0
                )
            : loose ? 0.65
            : fault.Mode.Resistive ? 0.25
            : 0;
        return Uniform("reacts", $"{fault.Id}/{trial}") < force;
    }
}
