using Mendro.Core.Diagnosis;
using Mendro.Core.Profiles;

namespace Mendro.Core.Jobs;

/// <summary>Work after which something that had failed worked, without anything else done between.</summary>
/// <param name="Work">What was done since it last failed, in order of time.</param>
/// <param name="Works">What works since.</param>
public sealed record CuredBy(IReadOnlyList<RepairLogged> Work, IReadOnlyList<DeviceFunction> Works)
{
    /// <summary>All such work of a job, in order of time. What somebody else is said to have done counts for nothing.</summary>
    /// <param name="model">Model of the job.</param>
    /// <param name="records">Its records, in order of time.</param>
    public static IReadOnlyList<CuredBy> Of(DeviceModel model, IEnumerable<RecordBody> records)
    {
        var failing = new Dictionary<FunctionId, List<RepairLogged>>();
        var cured = new List<(List<RepairLogged> Work, FunctionId Works)>();
        foreach (var body in records)
            switch (body)
            {
                case FunctionTrial { Passed: false } failed:
                    failing[failed.Function] = [];
                    break;
                case FunctionTrial trial when failing.Remove(trial.Function, out var since) && since.Count > 0:
                    cured.Add((OnItsWay(model, trial.Function, since), trial.Function));
                    break;
                case RepairLogged { Claimed: not true } done:
                    foreach (var since in failing.Values)
                        since.Add(done);
                    break;
            }

        return cured
            .GroupBy(c => string.Join(' ', c.Work.Select(w => $"{w.Part}:{w.Method}")))
            .Select(g => new CuredBy(g.First().Work, g.Select(c => model.Profile.FindFunction(c.Works)).OfType<DeviceFunction>().ToList()))
            .Where(c => c.Works.Count > 0)
            .ToList();
    }

    /// <summary>What was done on the way of a function: a tray runs by no cable. All of it, where none was there.</summary>
    private static List<RepairLogged> OnItsWay(DeviceModel model, FunctionId function, List<RepairLogged> done)
    {
        var way = model.Closure(function).Union(model.ChargesOf(function)).ToHashSet();
        if (model.Profile.FindFunction(function) is { } shown)
            way.UnionWith(model.LightOf(shown));
        var there = done.Where(d => way.Contains(d.Part)).ToList();
        return there.Count > 0 ? there : done;
    }

    /// <summary>“Cartridge connector: not seen what was wrong; picture output and sound output work since it was worked on”.</summary>
    public string Words(DeviceModel model)
    {
        var parts = Work.Select(w => model.Profile.FindPart(w.Part)?.Name ?? w.Part.Value).Distinct().ToList();
        var works = Works.Select(f => f.Name).ToList();
        return $"{Listed(parts)}: what was wrong was not seen; {MoveWords.Lower(Listed(works))} {(works.Count == 1 ? "works" : "work")} since "
            + $"{(parts.Count == 1 ? "it was" : "they were")} worked on";
    }

    private static string Listed(List<string> names) =>
        names.Count < 2 ? string.Concat(names) : string.Join(", ", names[..^1]) + " and " + MoveWords.Lower(names[^1]);
}
