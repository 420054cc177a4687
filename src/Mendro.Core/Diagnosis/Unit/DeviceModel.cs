using Mendro.Core.Dismantling;
using System.Collections.Concurrent;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>One failure mode of one part of one model.</summary>
/// <param name="Part">Part.</param>
/// <param name="Mode">Failure mode.</param>
/// <param name="Prior">Chance before anything is seen, 0 to 1.</param>
public sealed record PartFault(Part Part, FailureMode Mode, double Prior)
{
    /// <summary>Id such as <c>switch.dirty</c>.</summary>
    public string Id => $"{Part.Id}.{Mode.Id}";

    /// <summary>Words such as <c>Power switch, dirty</c>.</summary>
    public string Words => $"{Part.Name}, {Mode.Name}";
}

/// <summary>A finding of a model before repairs are taken into account: links go to fault indexes.</summary>
/// <param name="Id">Id such as <c>fn:picture</c>.</param>
/// <param name="Leak">Chance with no fault, 0 to 1.</param>
/// <param name="Links">Faults that make it present.</param>
/// <param name="Damage">For each part: chance that it is present when the last step damaged that part; null for none.</param>
/// <param name="Momentary">True for what shows how things stand at this very moment, as a trial or volts do, and not a property of a
/// part.</param>
public sealed record FindingTemplate(
    string Id,
    double Leak,
    IReadOnlyList<Link> Links,
    IReadOnlyDictionary<PartId, double>? Damage = null,
    bool Momentary = false
);

/// <summary>
/// A profile compiled against the library: its faults, and the findings by which they show. Made once a profile and
/// shared by every job; safe for use by several threads.
/// </summary>
public sealed partial class DeviceModel
{
    // One for all who share the model: what one instance numbers means nothing to another.
    private readonly Lazy<Disassembly> _disassembly;

    private readonly ConcurrentDictionary<string, FindingTemplate> _templates = new();
    private readonly Dictionary<PartId, List<int>> _faultsOfPart = [];
    private readonly Dictionary<FunctionId, HashSet<PartId>> _closures;
    private readonly Dictionary<PartId, SupplyRail> _rails = [];
    private readonly Lazy<HashSet<PartId>> _shared;

    /// <summary>Compiles a profile.</summary>
    /// <param name="profile">Profile; problems that <see cref="ProfileValidator"/> reports are skipped over.</param>
    /// <param name="library">Library.</param>
    public DeviceModel(DeviceProfile profile, TradeLibrary library)
    {
        (Profile, Library, Graph) = (profile, library, ProfileGraph.Of(profile, library));
        _disassembly = new(() => Disassembly.Of(profile));
        var faults = new List<PartFault>();
        foreach (var part in profile.Parts)
        {
            var indexes = _faultsOfPart[part.Id] = [];
            var kind = library.FindPartKind(part.Kind);
            foreach (var mode in kind?.Modes ?? [])
            {
                indexes.Add(faults.Count);
                faults.Add(new PartFault(part, mode, kind!.Prior(part, mode, profile.Supply?.Chemistry)));
            }

            if (indexes.Any(i => faults[i].Mode.Effect == ModeEffect.Short))
                _rails[part.Id] = Graph.RailOf(part.Id);
        }

        Faults = faults;
        _shared = new(() => profile.Functions.Where(f => f.Kind is "power-light" or "start-up").SelectMany(f => Closure(f.Id)).ToHashSet());
        _closures = profile.Functions.GroupBy(f => f.Id).ToDictionary(g => g.Key, g => Graph.Closure(g.First(), Medium(g.First()), lit: false));
        _backlight = profile.Functions.FirstOrDefault(f => f.Kind == "backlight");
        _lit = new(() => profile.Functions.FirstOrDefault(f => LightOf(f).Count > 0));
    }

    /// <summary>The profile.</summary>
    public DeviceProfile Profile { get; }

    /// <summary>The library.</summary>
    public TradeLibrary Library { get; }

    /// <summary>Reachability over the feeds.</summary>
    public ProfileGraph Graph { get; }

    /// <summary>Every failure mode of every part.</summary>
    public IReadOnlyList<PartFault> Faults { get; }

    /// <summary>What it costs to reach its parts and probes.</summary>
    public Disassembly Disassembly => _disassembly.Value;

    /// <summary>Fault indexes of a part.</summary>
    public IReadOnlyList<int> FaultsOf(PartId partId) => _faultsOfPart.TryGetValue(partId, out var list) ? list : [];

    /// <summary>Parts a function depends on.</summary>
    public IReadOnlySet<PartId> Closure(FunctionId functionId) =>
        _closures.TryGetValue(functionId, out var set) ? set : new HashSet<PartId>();

    /// <summary>Parts that must let a start through and are none of its own: what starts shows that they do.</summary>
    public IReadOnlySet<PartId> BeforeTheBoard(DeviceFunction start) => _before.GetOrAdd(start.Id, _ => Closure(start.Id).Except(start.Needs).ToHashSet());

    private readonly ConcurrentDictionary<FunctionId, IReadOnlySet<PartId>> _before = new();

    /// <summary>What charges the cells or pack a function runs on, and is none of its own parts: without it the function fails in the end.</summary>
    public IReadOnlySet<PartId> ChargesOf(FunctionId function) =>
        _charges.GetOrAdd(function, id => Graph.ChargeWays(Closure(id)).Except(Closure(id)).ToHashSet());

    private readonly ConcurrentDictionary<FunctionId, IReadOnlySet<PartId>> _charges = new();

    /// <summary>What gives a picture its light and nothing else; empty for any other function, and where no light is tried by itself.</summary>
    public IReadOnlySet<PartId> LightOf(DeviceFunction function) =>
        _light.GetOrAdd(
            function.Id,
            id => function.Kind == "picture" && _backlight is { } lit ? Closure(lit.Id).Except(Closure(id)).ToHashSet() : new HashSet<PartId>()
        );

    private readonly ConcurrentDictionary<FunctionId, IReadOnlySet<PartId>> _light = new();

    private readonly DeviceFunction? _backlight;

    private Carries? Medium(DeviceFunction function) => Library.FindFunctionKind(function.Kind)?.Medium;

    /// <summary>“The function fails”, whatever it looks like.</summary>
    public FindingTemplate FunctionFails(DeviceFunction function) =>
        _templates.GetOrAdd(
            $"fn:{function.Id}",
            id => new FindingTemplate(
                id,
                EvidenceWeights.FunctionLeak,
                LinksTo(function, (_, _, fails) => fails),
                Damage(Closure(function.Id), EvidenceWeights.DamageFails),
                Momentary: true
            )
        );

    /// <summary>“The function fails and looks like this”; stands in place of the plain failure when the look is told.</summary>
    public FindingTemplate FunctionLooks(DeviceFunction function, string lookId) =>
        _templates.GetOrAdd(
            $"fn:{function.Id}:{lookId}",
            id => new FindingTemplate(
                id,
                EvidenceWeights.LookLeak,
                LinksTo(function, (fault, shown, fails) => HasLook(shown, lookId) ? fails * Share(fault, shown, lookId) : 0),
                Damage(Closure(function.Id), EvidenceWeights.DamageFails * (lookId == "nothing" ? 0.5 : 0.15)),
                Momentary: true
            )
        );

    /// <summary>True when the library knows this look for the function's kind.</summary>
    public bool HasLook(DeviceFunction function, string? lookId) => Library.FindLook(function.Kind, lookId) is not null;

    /// <summary>The finding that a trial is about: the failure with its look when that was told, else the plain failure.</summary>
    public FindingTemplate Shown(DeviceFunction function, FunctionTried tried) =>
        !tried.Passed && HasLook(function, tried.LookId) ? FunctionLooks(function, tried.LookId!) : FunctionFails(function);

    /// <summary>“The function fails with this chain of parts”; with flicker: “it comes and goes with this chain”.</summary>
    /// <param name="function">Function tried.</param>
    /// <param name="chain">Parts that stayed.</param>
    /// <param name="id">Number of the trial.</param>
    /// <param name="flickers">True when it came and went.</param>
    /// <param name="now">True for a trial that is only thought of: the function fails now, and what fails it goes on to.</param>
    public FindingTemplate SwapFails(DeviceFunction function, IReadOnlyList<PartId> chain, long id, bool flickers = false, bool now = false)
    {
        var stayed = Stayed(function, chain);
        var links = FunctionFails(function)
            .Links.Where(l => stayed(Faults[l.Fault].Part.Id))
            .Select(l => now && l.P > 0 ? l with { P = Math.Max(l.P, EvidenceWeights.GoesOnFailing(Faults[l.Fault].Mode)) } : l)
            // One thing is changed and nothing else, at once: what comes and goes would have shown again.
            .Select(l =>
                Faults[l.Fault].Mode.Effect == ModeEffect.Intermittent ? l with { P = Math.Max(l.P, EvidenceWeights.ClearsAtTheMoment) } : l
            )
            .Select(l => flickers ? l with { P = l.P * Flickers(Faults[l.Fault].Mode) } : l)
            .ToList();
        return new FindingTemplate(
            $"swap:{id}",
            EvidenceWeights.FunctionLeak,
            links,
            Damage(chain.Intersect(Closure(function.Id)), EvidenceWeights.DamageFails)
        );
    }

    /// <summary>What was there in a trial in which pieces were changed: the chain and, where nothing but pieces that come out by hand was
    /// changed, the rest of the unit, such as what hangs on its rails; what charges a pack only with that pack. Where a board was unplugged
    /// nobody knows what else was.</summary>
    /// <param name="function">Function tried.</param>
    /// <param name="chain">Parts of its chain that stayed.</param>
    internal Func<PartId, bool> Stayed(DeviceFunction function, IReadOnlyList<PartId> chain)
    {
        var stayed = chain.ToHashSet();
        var changed = Closure(function.Id).Except(stayed).ToList();
        bool Is(PartId id, Func<PartKind, bool> kind) => Profile.FindPart(id) is { } part && Library.FindPartKind(part.Kind) is { } found && kind(found);
        if (changed.Count > 0 && changed.TrueForAll(p => Is(p, k => k.Swappable)) && stayed.Any(p => !Is(p, k => k.Swappable)))
            stayed.UnionWith(Profile.Parts.Select(p => p.Id).Except(changed));
        if (changed.Exists(p => Is(p, k => k.Has(PartRole.Pack))))
            stayed.ExceptWith(ChargesOf(function.Id));
        return stayed.Contains;
    }

    /// <summary>“It changes when the unit is pressed, flexed or warmed”.</summary>
    public FindingTemplate ChangesWhen(DeviceFunction function, Provocation how) =>
        _templates.GetOrAdd(
            $"provoked:{function.Id}:{how}",
            id => new FindingTemplate(
                id,
                EvidenceWeights.ProvokedLeak,
                LinksTo(function, (fault, shown, _) => EvidenceWeights.Changes(fault.Mode, shown.Kind, how)).Where(l => l.P > 0).ToList()
            )
        );

    /// <summary>“It fails all the while the unit is pressed, flexed or warmed”.</summary>
    public FindingTemplate FailsThroughout(DeviceFunction function, Provocation how) =>
        _templates.GetOrAdd(
            $"steady:{function.Id}:{how}",
            id => new FindingTemplate(
                id,
                EvidenceWeights.FunctionLeak,
                LinksTo(function, (fault, shown, fails) => fails * (1 - EvidenceWeights.Changes(fault.Mode, shown.Kind, how))),
                Damage(Closure(function.Id), EvidenceWeights.DamageFails)
            )
        );

    /// <summary>Share of the failures under a mode that come and go.</summary>
    public static double Flickers(FailureMode mode) =>
        mode.Effect switch
        {
            ModeEffect.Intermittent => 0.7,
            ModeEffect.Degraded => 0.2,
            // Dirt, crust and wear pass enough at times.
            _ => mode.Resistive || (mode.Looks ?? []).Any(l => l.Look == "pressed") ? 0.2 : 0.03,
        };

    /// <summary>“The reading changes when the place is pressed, flexed or touched”: a cracked joint right there.</summary>
    public FindingTemplate ProbeJumps(Probe probe) =>
        _templates.GetOrAdd(
            $"probe:{probe.Id}:jumps",
            id =>
            {
                // A probe on the way from one part to the next touches both ends.
                var here = (probe.Spans ?? []).Cast<PartId?>().Append(probe.At).Append(probe.Toward).OfType<PartId>().ToHashSet();
                var links = Faults
                    .Select((fault, i) => (fault, i))
                    .Where(x => here.Contains(x.fault.Part.Id) && x.fault.Mode.Effect == ModeEffect.Intermittent)
                    .Select(x => new Link(x.i, EvidenceWeights.JumpsWhenIntermittent))
                    .ToList();
                return new FindingTemplate(id, EvidenceWeights.JumpLeak, links);
            }
        );

    /// <summary>“The cause was seen with one's own eyes”.</summary>
    public FindingTemplate Confirmed(PartId partId, string modeId) =>
        _templates.GetOrAdd(
            $"cause:{partId}.{modeId}",
            id => new FindingTemplate(
                id,
                EvidenceWeights.ConfirmationLeak,
                FaultsOf(partId).Where(i => Faults[i].Mode.Id == modeId).Select(i => new Link(i, EvidenceWeights.Confirmation)).ToList()
            )
        );
}
