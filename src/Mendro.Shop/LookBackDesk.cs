using Mendro.Core.Jobs;
using Mendro.Core.Scheduling;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>Looks back on the weeks: hands, waits, idle for want of parts, what came back.</summary>
public sealed class LookBackDesk(LookBackStore store, TimeProvider time)
{
    // What began to wait before is still waiting in the first week.
    private const int DaysBefore = 180;

    /// <summary>The last weeks, the oldest first; the last is the one that is on.</summary>
    /// <param name="count">How many.</param>
    /// <param name="zone">The shop's zone.</param>
    public IReadOnlyList<WeekPast> Weeks(int count, TimeZoneInfo zone)
    {
        var now = time.GetUtcNow();
        DateTime Wall(DateTimeOffset at) => TimeZoneInfo.ConvertTime(at, zone).DateTime;
        DateOnly Day(DateTimeOffset at) => DateOnly.FromDateTime(Wall(at));
        var from = now.AddDays(-7 * (count + 1));
        var moves = store.Moves(now.AddDays(-DaysBefore));
        var waits = StageWords.Name(Shelf.WaitingPart);
        var idle = new List<(DateTime, DateTime)>();
        foreach (var job in moves.GroupBy(m => m.Number))
        {
            DateTimeOffset? since = null;
            foreach (var move in job)
            {
                var shelved = move.Words.StartsWith(waits, StringComparison.Ordinal);
                if (since is { } began && !shelved)
                    idle.Add((Wall(began), Wall(move.At)));
                since = shelved ? since ?? move.At : null;
            }

            if (since is { } still)
                idle.Add((Wall(still), Wall(now)));
        }

        return WeekPast.Of(
            Day(now),
            count,
            store.Active(from).Select(a => (Day(a.At), a.Minutes)).ToList(),
            store.Passive(from, now).Select(a => (Day(a.At), a.Minutes)).ToList(),
            idle,
            moves.Where(m => m.Words.StartsWith("Reopened", StringComparison.Ordinal)).Select(m => Day(m.At)).ToList(),
            Forgotten(store.Steps(from)).Select(Day).ToList()
        );
    }

    /// <summary>When a unit was opened at a step that had been put back, with nothing repaired between.</summary>
    /// <param name="steps">Steps and repairs, by job and order.</param>
    public static IReadOnlyList<DateTimeOffset> Forgotten(IReadOnlyList<HappenedAt> steps)
    {
        const string Back = "back ";
        var found = new List<DateTimeOffset>();
        foreach (var job in steps.GroupBy(s => s.Number))
        {
            var back = new HashSet<string>();
            var counted = false;
            foreach (var step in job)
            {
                if (step.Words.Length == 0)
                    back.Clear();
                else if (step.Words.StartsWith(Back, StringComparison.Ordinal))
                    (_, counted) = (back.Add(step.Words[Back.Length..]), false);
                else if (back.Remove(step.Words) && !counted)
                {
                    // All that is taken off again on the way counts once.
                    found.Add(step.At);
                    counted = true;
                }
            }
        }

        return found;
    }
}
