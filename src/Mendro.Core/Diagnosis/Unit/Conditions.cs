using Mendro.Core.Evidence;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>
/// What fails under a condition stays with it: a unit that fails when warm, or works only when pressed, says nothing new by working
/// cold, or while it is pressed. Such a pass clears hardly anything of what would fail so.
/// </summary>
internal sealed class Conditions
{
    /// <summary>What is left of the weight of a pass against a fault that fails under the condition told (value from memory).</summary>
    private const double LeftOfAPass = 0.1;

    private static readonly string[] Looks = ["warm", "pressed"];

    private readonly DeviceModel _model;
    private readonly int[] _momentOf;
    private readonly List<(int Moment, DeviceFunction Function, HashSet<int> Faults)> _told = [];

    /// <summary>Gathers what was told under a condition.</summary>
    public Conditions(DeviceModel model, BenchFacts facts, int count)
    {
        (_model, _momentOf) = (model, new int[count]);
        var moment = 0;
        for (var at = 0; at < count; at++)
        {
            if (facts[at] is RepairDone { Claimed: false })
                moment++;
            _momentOf[at] = moment;
            if (
                facts[at] is FunctionTried { Passed: false, LookId: { } look } tried
                && Looks.Contains(look)
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
        // What works needs the complaint to work just then: the condition was met.
        var met = _told
            .Where(t => t.Moment == _momentOf[at])
            .Where(t => t.Function.Id == works.Id || !Goal.CanBeTried(_model, works, t.Function, starts: false))
            .SelectMany(t => t.Faults)
            .ToHashSet();
        return met.Count == 0 ? links : links.Select(l => met.Contains(l.Fault) ? l with { P = l.P * LeftOfAPass } : l).ToList();
    }
}
