namespace Mendro.Core.Scheduling;

/// <summary>Checks a plan against its workload from the words of the rules alone, apart from whoever made it.</summary>
public static class PlanCheck
{
    private const double Hair = 1e-6;

    /// <summary>What is wrong with a plan; empty when nothing is.</summary>
    public static IReadOnlyList<string> Problems(Workload load, WorkPlan plan)
    {
        var found = new List<string>();
        var tasks = load.Tasks.ToDictionary(t => t.Id);
        var planned = plan.Tasks.ToDictionary(p => p.Id);
        if (plan.Tasks.Count != load.Tasks.Count || load.Tasks.Any(t => !planned.ContainsKey(t.Id)))
            return ["not every task is planned once"];
        foreach (var at in plan.Tasks)
        {
            var task = tasks[at.Id];
            if (at.Start < (task.Begun is null ? task.Earliest : double.MinValue) - Hair)
                found.Add($"{at.Id} begins too early");
            if (task.Begun is { } begun && Math.Abs(at.Start - begun) > Hair)
                found.Add($"{at.Id} has begun and is moved");
            if (Math.Abs(at.End - at.Start - task.Minutes) > Hair)
                found.Add($"{at.Id} takes {task.Minutes} minutes");
            if (task.Begun is null)
                found.AddRange(task.After.Where(a => planned[a].End > at.Start + Hair).Select(a => $"{at.Id} begins before {a} has ended"));
            if ((at.Person is null) != task.Passive || at.Person is { } who && (who < 1 || who > load.People))
                found.Add($"{at.Id} has not the person it needs");
            if (task.Begun is null && (!task.Passive || task.Attended))
                found.AddRange(load.Closed.Where(c => at.Start < c.To - Hair && at.End > c.From + Hair).Select(_ => $"{at.Id} runs while nobody is there"));
        }

        foreach (var hands in plan.Tasks.Where(p => p.Person is not null && p.End > p.Start).GroupBy(p => p.Person))
            found.AddRange(Overlaps(hands, 1).Select(id => $"person {hands.Key} is used twice at {id}"));
        foreach (var place in load.Places)
            found.AddRange(
                Overlaps(plan.Tasks.Where(p => tasks[p.Id].Place == place.Id && p.End > p.Start), place.Count).Select(id => $"{place.Id} is full at {id}")
            );
        return found;
    }

    // Where more run at once than may, it is so at the start of one of them.
    private static IEnumerable<string> Overlaps(IEnumerable<PlannedTask> tasks, int most)
    {
        var all = tasks.ToList();
        return all.Where(t => all.Count(o => o.Start <= t.Start + Hair && o.End > t.Start + Hair) > most).Select(t => t.Id);
    }
}
