using Mendro.Core.Profiles;

namespace Mendro.Core.Scheduling;

/// <summary>Reads <c>mendro.plan/1</c>: people, places, what is to be done, and what the plan is to be best at.</summary>
public static class PlanFile
{
    /// <summary>The format name.</summary>
    public const string FormatName = "mendro.plan/1";

    /// <summary>Most tasks.</summary>
    public const int MostTasks = 500;

    /// <summary>Most people, places, and things at one place.</summary>
    public const int Most = 500;

    /// <summary>Longest task, and furthest due, minutes.</summary>
    public const double MostMinutes = 100_000;

    private const double MostWeight = 1_000_000;

    /// <summary>Reads a file.</summary>
    /// <returns>The workload, or what is wrong with its place.</returns>
    public static Outcome<Workload> Read(string json)
    {
        static Outcome<Workload> Fail(string problem) => Outcome<Workload>.Fail(problem);

        if (ProfileJson.Deserialize<Document>(json, out var told) is { } unreadable)
            return Fail(unreadable);
        if (told?.Format is not (null or FormatName))
            return Fail($"format: expected “{FormatName}”.");
        if (told is not { People: >= 0 and <= Most and var people, Tasks: { } tasks })
            return Fail($"people and tasks: both are needed; people are 0 to {Most}.");
        var places = told.Places ?? [];
        if (tasks.Count > MostTasks || places.Count > Most)
            return Fail($"at most {MostTasks} tasks and {Most} places.");
        for (var n = 0; n < places.Count; n++)
            if (places[n] is not { Id.Length: > 0, Count: >= 0 and <= Most })
                return Fail($"places[{n}]: an id and a count of 0 to {Most} are needed.");
        if (places.GroupBy(p => p!.Id).FirstOrDefault(g => g.Count() > 1) is { } same)
            return Fail($"places: “{same.Key}” is there twice.");
        if (told.Goal is not (null or "makespan" or "tardiness"))
            return Fail("goal: makespan or tardiness.");
        var counts = places.ToDictionary(p => p!.Id!, p => p!.Count!.Value);
        for (var n = 0; n < tasks.Count; n++)
            if (Wrong(tasks[n], people, counts) is { } wrong)
                return Fail($"tasks[{n}]{wrong}");
        if (tasks.GroupBy(t => t!.Id).FirstOrDefault(g => g.Count() > 1) is { } twice)
            return Fail($"tasks: “{twice.Key}” is there twice.");
        var ids = tasks.Select(t => t!.Id!).ToHashSet();
        for (var n = 0; n < tasks.Count; n++)
            if ((tasks[n]!.After ?? []).FirstOrDefault(a => a is null || !ids.Contains(a)) is { } unknown)
                return Fail($"tasks[{n}].after: there is no task “{unknown}”.");
        var load = new Workload(
            people,
            places.Select(p => new WorkPlace(p!.Id!, p.Count!.Value)).ToList(),
            tasks.Select(t => Of(t!)).ToList(),
            told.Goal == "tardiness" ? PlanGoal.Tardiness : PlanGoal.Makespan
        );
        return Circle(load) is { } circle
            ? Fail($"tasks: {string.Join(", ", circle)} wait for one another in a circle.")
            : Outcome<Workload>.Ok(load);
    }

    private static WorkTask Of(Told task) =>
        new(task.Id!, task.Job ?? "", task.Minutes!.Value, task.Passive ?? false, task.Place, [.. (task.After ?? []).Distinct()!], task.Due, task.Weight ?? 1);

    private static string? Wrong(Told? task, int people, Dictionary<string, int> places)
    {
        if (task is not { Id.Length: > 0 and <= 100 })
            return ": an id of at most 100 characters is needed.";
        if (task.Minutes is not (>= 0 and <= MostMinutes))
            return $".minutes: 0 to {MostMinutes:0}.";
        if (task.Due is { } due && !(Math.Abs(due) <= MostMinutes))
            return $".due: a minute from now, up to {MostMinutes:0}; null for none.";
        if (task.Weight is { } weight && !(weight is >= 0 and <= MostWeight))
            return $".weight: 0 to {MostWeight:0}.";
        if (task.Place is { } place && !places.ContainsKey(place))
            return $".place: there is no place “{place}”.";
        if (task.Place is { } full && places[full] == 0)
            return $".place: “{full}” takes nothing.";
        return task.Passive != true && people == 0 ? ": it takes a person, and there is none." : null;
    }

    /// <summary>Ids of tasks that wait for one another, or null.</summary>
    private static IReadOnlyList<string>? Circle(Workload load)
    {
        var left = load.Tasks.ToDictionary(t => t.Id, t => t.After);
        while (left.Count > 0)
        {
            var free = left.Where(t => t.Value.All(a => !left.ContainsKey(a))).Select(t => t.Key).ToList();
            if (free.Count == 0)
                return left.Keys.Order(StringComparer.Ordinal).Take(10).ToList();
            foreach (var id in free)
                left.Remove(id);
        }

        return null;
    }

    private sealed record Place(string? Id, int? Count);

    private sealed record Told(
        string? Id,
        string? Job,
        double? Minutes,
        bool? Passive,
        string? Place,
        IReadOnlyList<string?>? After,
        double? Due,
        double? Weight
    );

    private sealed record Document(string? Format, int? People, IReadOnlyList<Place?>? Places, IReadOnlyList<Told?>? Tasks, string? Goal);
}
