namespace Mendro.Core.Scheduling;

/// <summary>A task as a plan has it, at moments of UTC.</summary>
/// <param name="Id">Task.</param>
/// <param name="Words">What it is.</param>
/// <param name="Start">Begin.</param>
/// <param name="End">End.</param>
/// <param name="Place">Place, or null.</param>
/// <param name="Active">True when it takes a person.</param>
/// <param name="Due">By when it was promised, or null.</param>
public sealed record TimedTask(string Id, string Words, DateTimeOffset Start, DateTimeOffset End, string? Place, bool Active, DateTimeOffset? Due = null);

/// <summary>A task that moved from one plan to the next, or a promised one that came in.</summary>
/// <param name="Task">Task, as the new plan has it.</param>
/// <param name="Minutes">Minutes later; below nothing earlier; nothing for what came in.</param>
/// <param name="Why">Why, in words.</param>
/// <param name="CameIn">True for a promised task that the plan before did not have: where it stands is news, also when nothing moved for
/// it.</param>
public sealed record PlanChange(TimedTask Task, double Minutes, string Why, bool CameIn = false)
{
    // Less is no news.
    private const double Least = 5;

    /// <summary>What moved over two plans: a better one that is found a moment later does not take the news of the first away.</summary>
    /// <param name="first">What the first moved.</param>
    /// <param name="then">What the second moved.</param>
    public static IReadOnlyList<PlanChange> Over(IReadOnlyList<PlanChange> first, IReadOnlyList<PlanChange> then)
    {
        var earlier = first.ToDictionary(c => c.Task.Id);
        var again = then.Select(c => c.Task.Id).ToHashSet();
        return InOrder(
            then.Select(c => earlier.TryGetValue(c.Task.Id, out var before) ? Net(before, c) : c)
                .Where(c => c.CameIn || Math.Abs(c.Minutes) >= Least)
                .Concat(first.Where(c => !again.Contains(c.Task.Id)))
        );

        static PlanChange Net(PlanChange before, PlanChange now)
        {
            if (before.CameIn)
                return before with { Task = now.Task };
            var minutes = before.Minutes + now.Minutes;
            return now with { Minutes = minutes, Why = Math.Sign(minutes) == Math.Sign(before.Minutes) ? before.Why : now.Why };
        }
    }

    private static List<PlanChange> InOrder(IEnumerable<PlanChange> changes) =>
        changes.OrderByDescending(c => c.CameIn).ThenBy(c => c.Minutes < 0).ThenBy(c => c.Task.Start).ToList();

    /// <summary>What moved from one plan to the next, and why: first what came in promised, then what comes later, which somebody may wait
    /// for.</summary>
    public static IReadOnlyList<PlanChange> Between(IReadOnlyList<TimedTask> before, IReadOnlyList<TimedTask> after)
    {
        var old = before.ToDictionary(t => t.Id);
        var now = after.ToDictionary(t => t.Id);
        return InOrder(
            after
                .Where(t => old.TryGetValue(t.Id, out var was) && Math.Abs((t.Start - was.Start).TotalMinutes) >= Least)
                .Select(t => new PlanChange(t, Math.Round((t.Start - old[t.Id].Start).TotalMinutes), Why(t, old[t.Id])))
                .Concat(after.Where(t => t.Due is not null && !old.ContainsKey(t.Id)).Select(t => new PlanChange(t, 0, "came in", CameIn: true)))
        );

        string Why(TimedTask task, TimedTask was)
        {
            if (task.Start > was.Start)
            {
                // What stands now where it stood: new, longer, or put first.
                var there = after
                    .Where(o => o.Id != task.Id && o.Start < was.End && o.End > was.Start)
                    .Where(o => (o.Active && task.Active) || (o.Place is not null && o.Place == task.Place))
                    .OrderBy(o => o.Due ?? DateTimeOffset.MaxValue)
                    .ToList();
                if (there.FirstOrDefault(o => !old.ContainsKey(o.Id)) is { } added)
                    return $"{added.Words} came in";
                if (there.FirstOrDefault(o => (o.End - o.Start) - (old[o.Id].End - old[o.Id].Start) > TimeSpan.FromMinutes(Least)) is { } longer)
                    return $"{longer.Words} takes longer";
                if (there.FirstOrDefault(o => o.Start < task.Start && old[o.Id].Start > was.Start) is { } first)
                    return first.Due is not null ? $"{first.Words} is promised" : $"{first.Words} goes first";
                // Or what came in pushed that away which stands there now.
                if (after.FirstOrDefault(o => !old.ContainsKey(o.Id) && o.Active && task.Active && o.Start < task.Start) is { } pushes)
                    return $"{pushes.Words} came in";
                return "what it waits for ends later";
            }

            if (before.Where(o => !now.ContainsKey(o.Id)).OrderBy(o => Math.Abs((o.Start - task.Start).TotalMinutes)).FirstOrDefault() is { } gone)
                return $"{gone.Words} is done or gone";
            if (task.Due is not null)
                return "it is promised";
            return "there is room earlier";
        }
    }
}
