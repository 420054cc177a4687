using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>
/// What the events say, each fact once. Pressing, leaning and “works when pressed” are one property of a place, and the answer
/// of a part overrules that of the unit as a whole; a light that blinks because the console restarts is the failure of the
/// start; what hangs on a function that fails fails with it.
/// </summary>
internal sealed class BenchFacts
{
    private readonly DeviceModel _model;
    private readonly BenchEvent?[] _events;
    private readonly bool[] _lookSpent;

    /// <summary>Reads the events.</summary>
    public BenchFacts(DeviceModel model, IReadOnlyList<BenchEvent> events)
    {
        _model = model;
        _events = events.Select(e => (BenchEvent?)Restated(model, e)).ToArray();
        _lookSpent = new bool[_events.Length];
        var consequences = Consequences();
        ForceOnce();
        foreach (var at in consequences.Concat(NotHeld()).ToList())
            _events[at] = null;
    }

    /// <summary>The fact an event adds, or null when it is known already.</summary>
    public BenchEvent? this[int at] => _events[at];

    /// <summary>True when the look of a failure is told by another fact, and only the failure itself counts.</summary>
    public bool LookSpent(int at) => _lookSpent[at];

    /// <summary>An event as the fact it is: a light that blinks once a second means that the start is broken off and tried
    /// again.</summary>
    public static BenchEvent Restated(DeviceModel model, BenchEvent happened) =>
        happened is FunctionTried { Passed: false, LookId: "blinks" } tried
        && model.Profile.FindFunction(tried.FunctionId)?.Kind == "power-light"
        && Restarting(model) is { } start
            ? tried with
            {
                FunctionId = start.Id,
            }
            : happened;

    /// <summary>The start that a lost cartridge breaks off, in a unit that has such a thing.</summary>
    private static DeviceFunction? Restarting(DeviceModel model) =>
        model.Profile.Functions.FirstOrDefault(f =>
            f.Kind == "start-up"
            && model
                .Closure(f.Id)
                .SelectMany(model.FaultsOf)
                .Any(i => model.Faults[i].Mode.Looks?.Any(l => l.Function == "start-up" && l.Look == "blinks") == true)
        );

    /// <summary>Failures of functions that need all that another failing function needs, and say no more than it.</summary>
    private List<int> Consequences()
    {
        var found = new List<int>();
        for (var at = 0; at < _events.Length; at++)
        {
            if (_events[at] is not FunctionTried { Passed: false } tried)
                continue;
            var closure = _model.Closure(tried.FunctionId);
            if (_model.Profile.FindFunction(tried.FunctionId) is { } function && CannotBeTried(function, at))
            {
                found.Add(at);
                continue;
            }

            foreach (var other in _model.Profile.Functions.Where(f => f.Id != tried.FunctionId))
            {
                if (
                    State(other.Id, at) is { Passed: false } cause
                    && (tried.LookId is null or "nothing" || tried.LookId == cause.LookId)
                    && _model.Closure(other.Id) is var less
                    && less.Count < closure.Count
                    && less.All(closure.Contains)
                )
                {
                    found.Add(at);
                    break;
                }
            }
        }

        return found;
    }

    /// <summary>True for sound, buttons and the like while the unit has no light or does not start: what is told of them then is told
    /// of another day. That it does not start either is told of the same moment, and speaks against the light itself.</summary>
    private bool CannotBeTried(DeviceFunction function, int at) =>
        function.Kind is not ("picture" or "video-out" or "backlight" or "start-up")
        && _model.Profile.Functions.Any(f =>
            f.Kind is "power-light" or "start-up"
            && f.Id != function.Id
            && !Goal.CanBeTried(_model, function, f, StartsAt(at))
            && State(f.Id, at) is { Passed: false, LookId: not ("pressed" or "warm" or "dim") }
        );

    /// <summary>A cleaning that helped for a while and did not hold has cured nothing: the trials between that went well clear nothing
    /// that hangs on the part. Another function that fails on as before says nothing of that: it may have a cause of its own.</summary>
    private IEnumerable<int> NotHeld()
    {
        var cleaned = -1;
        for (var at = 0; at < _events.Length; at++)
        {
            if (_events[at] is RepairDone done)
                cleaned = _model.Library.FindMethod(done.MethodId) is { Type: MethodType.Clean } ? at : -1;
            if (cleaned < 0 || _events[at] is not FunctionTried { Passed: false } again)
                continue;
            var part = ((RepairDone)_events[cleaned]!).PartId;
            var before = _events.Take(cleaned).OfType<FunctionTried>().LastOrDefault(t => t.FunctionId == again.FunctionId);
            if (before is not { Passed: false } || !_model.Closure(again.FunctionId).Contains(part))
                continue;
            if (!_events.Take(at).Skip(cleaned).OfType<FunctionTried>().Any(t => t.Passed && t.FunctionId == again.FunctionId))
                continue;
            for (var n = cleaned + 1; n < at; n++)
                if (_events[n] is FunctionTried { Passed: true } well && _model.Closure(well.FunctionId).Contains(part))
                    yield return n;
        }
    }

    private bool StartsAt(int at) => _model.Profile.Functions.Any(f => f.Kind == "start-up" && State(f.Id, at) is { Passed: true });

    /// <summary>How a function stood at an event: when it was last tried, else when it was next, with no repair between.</summary>
    private FunctionTried? State(FunctionId id, int at)
    {
        for (var n = at; n >= 0; n--)
            if (_events[n] is FunctionTried tried && tried.FunctionId == id)
                return tried;
        for (var n = at; n < _events.Length && _events[n] is not RepairDone; n++)
            if (_events[n] is FunctionTried tried && tried.FunctionId == id)
                return tried;
        return null;
    }

    private void ForceOnce()
    {
        // Parts that answered to a finger themselves.
        var moved = new HashSet<PartId>();
        for (var at = 0; at < _events.Length; at++)
        {
            if (
                _events[at] is ProbeTaken { Outcome: not ProbeOutcome.Normal } taken
                && _model.Profile.FindProbe(taken.ProbeId) is { } probe
                && (probe.Kind == ProbeKind.Press || taken.Outcome == ProbeOutcome.Jumps)
            )
                moved.UnionWith(probe.PartIds());
        }

        var told = new List<IReadOnlySet<PartId>>();
        for (var at = 0; at < _events.Length; at++)
        {
            switch (_events[at])
            {
                case RepairDone:
                    told.Clear();
                    break;
                case FunctionTried { Passed: false, LookId: "pressed" } tried:
                    _lookSpent[at] = Known(_model.Closure(tried.FunctionId));
                    told.Add(_model.Closure(tried.FunctionId));
                    break;
                case Provoked { How: not Provocation.Warmed } provoked:
                    var closure = _model.Closure(provoked.FunctionId);
                    if (Known(closure))
                        _events[at] = null;
                    else if (provoked.Changed)
                        told.Add(closure);
                    break;
            }
        }

        bool Known(IReadOnlySet<PartId> closure) => moved.Overlaps(closure) || told.Any(t => t.Overlaps(closure));
    }
}
