using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>
/// What fails under a condition stays with it: a unit that fails when warm, or works only when pressed, says nothing new by working
/// cold, or while it is pressed. Such a pass clears hardly anything of what would fail so. Nor does what can only be tried while the
/// complaint works, of one that comes and goes.
/// </summary>
internal sealed class Conditions
{
    /// <summary>What is left of the weight of a pass against a fault that fails under the condition told (value from memory).</summary>
    private const double LeftOfAPass = 0.1;

    /// <summary>What is left of it against a part in which the failing function has a line of its own (value from memory).</summary>
    private const double AnotherLine = 0.4;

    /// <summary>Share of a mode's failures that come and go from which it may work just when the complaint does.</summary>
    public const double ComesAndGoes = 0.2;

    private static readonly string[] Looks = ["warm", "pressed"];

    /// <summary>True for a look that tells under which condition something fails.</summary>
    public static bool Is(string? look) => look is not null && Looks.Contains(look);

    private readonly DeviceModel _model;
    private readonly IReadOnlyList<PartFault> _faults;
    private readonly int[] _momentOf;
    private readonly List<(int Moment, DeviceFunction Function, HashSet<int> Faults)> _told = [];
    private readonly List<(int Moment, DeviceFunction Function)> _wentAway = [];
    private readonly List<(int Moment, DeviceFunction Function)> _failed = [];

    /// <summary>Gathers what was told under a condition.</summary>
    public Conditions(DeviceModel model, IReadOnlyList<PartFault> faults, BenchFacts facts, int count)
    {
        (_model, _faults, _momentOf) = (model, faults, new int[count]);
        var moment = 0;
        var results = new Dictionary<(int, FunctionId), HashSet<bool>>();
        for (var at = 0; at < count; at++)
        {
            if (facts[at] is RepairDone { Claimed: false })
                moment++;
            _momentOf[at] = moment;
            if (facts[at] is FunctionTried trial && model.Profile.FindFunction(trial.FunctionId) is { } came)
            {
                var seen = results.TryGetValue((moment, came.Id), out var known) ? known : results[(moment, came.Id)] = [];
                if (seen.Add(trial.Passed) && seen.Count == 2)
                    _wentAway.Add((moment, came));
                if (!trial.Passed)
                    _failed.Add((moment, came));
            }

            if (
                facts[at] is FunctionTried { Passed: false, LookId: { } look } tried
                && Is(look)
                && model.Profile.FindFunction(tried.FunctionId) is { } function
                && model.HasLook(function, look)
            )
                _told.Add((moment, function, model.FunctionLooks(function, look).Links.Where(l => l.P > 0).Select(l => l.Fault).ToHashSet()));
        }
    }

    /// <summary>Links of a trial, less those that a condition explains.</summary>
    public IReadOnlyList<Link> Links(int at, FunctionTried tried, IReadOnlyList<Link> links)
    {
        if (!tried.Passed || tried.Starts > 1 || _model.Profile.FindFunction(tried.FunctionId) is not { } works)
            return links;
        var met = Met(at, works);
        var failing = _failed.Where(f => f.Moment == _momentOf[at] && f.Function.Id != works.Id).Select(f => f.Function).ToList();
        return links.Select(l => l with { P = l.P * (met.Contains(l.Fault) ? LeftOfAPass : OfItsOwnWay(failing, works, l.Fault)) }).ToList();
    }

    /// <summary>What works needs the complaint to work just then: the condition was met.</summary>
    private HashSet<int> Met(int at, DeviceFunction works)
    {
        bool Needs(DeviceFunction complaint) => !Goal.CanBeTried(_model, works, complaint, starts: false);
        return _told
            .Where(t => t.Moment == _momentOf[at] && (t.Function.Id == works.Id || Needs(t.Function)))
            .SelectMany(t => t.Faults)
            .Concat(
                _wentAway
                    .Where(w => w.Moment == _momentOf[at] && w.Function.Id != works.Id && Needs(w.Function))
                    .SelectMany(w => _model.FunctionFails(w.Function).Links)
                    .Where(l => DeviceModel.Flickers(_faults[l.Fault].Mode) >= ComesAndGoes)
                    .Select(l => l.Fault)
            )
            .ToHashSet();
    }

    /// <summary>Share of its weight that a pass keeps for a fault whose complaint goes another way: sound says little of the picture's
    /// line in one cable, and a unit that runs on what is in its pack says little of what charges it.</summary>
    private double OfItsOwnWay(List<DeviceFunction> failing, DeviceFunction works, int fault)
    {
        if (failing.Count == 0)
            return 1;
        var part = _faults[fault].Part;
        if (!_model.Closure(works.Id).Contains(part.Id) && failing.Any(f => f.Kind == "charging" && _model.Closure(f.Id).Contains(part.Id)))
            return LeftOfAPass;
        return _model.Library.Has(part.Kind, PartRole.Lines)
            && MediumOf(works) is { } medium
            && failing.Any(f => MediumOf(f) is { } other && other != medium && _model.Closure(f.Id).Contains(part.Id))
            ? AnotherLine
            : 1;
    }

    private Carries? MediumOf(DeviceFunction function) => _model.Library.FindFunctionKind(function.Kind)?.Medium;
}
