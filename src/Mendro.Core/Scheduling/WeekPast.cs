namespace Mendro.Core.Scheduling;

/// <summary>A week that is past, or the one that is on.</summary>
/// <param name="Monday">Its first day.</param>
/// <param name="Active">Minutes of hands at work.</param>
/// <param name="Passive">Minutes that things went on by themselves.</param>
/// <param name="IdleDays">Days that units lay idle for want of a part, all together.</param>
/// <param name="Reopened">Units that were reopened.</param>
/// <param name="OpenedAgain">Times that a unit was put together and opened again with nothing repaired between: something was forgotten.</param>
public sealed record WeekPast(DateOnly Monday, double Active, double Passive, double IdleDays, int Reopened, int OpenedAgain = 0)
{
    /// <summary>Weeks up to a day, the oldest first.</summary>
    /// <param name="today">Day in the last of them.</param>
    /// <param name="count">How many.</param>
    /// <param name="active">Minutes of hands, by day.</param>
    /// <param name="passive">Minutes of waits, by day.</param>
    /// <param name="idle">When a unit lay idle for want of a part: from one moment of the shop's clock to another.</param>
    /// <param name="reopened">Days on which units were reopened.</param>
    /// <param name="openedAgain">Days on which one was opened again for something forgotten.</param>
    public static IReadOnlyList<WeekPast> Of(
        DateOnly today,
        int count,
        IReadOnlyList<(DateOnly Day, double Minutes)> active,
        IReadOnlyList<(DateOnly Day, double Minutes)> passive,
        IReadOnlyList<(DateTime From, DateTime To)> idle,
        IReadOnlyList<DateOnly> reopened,
        IReadOnlyList<DateOnly>? openedAgain = null
    )
    {
        var monday = MondayOf(today);
        return Enumerable
            .Range(0, count)
            .Select(n => monday.AddDays(7 * (n - count + 1)))
            .Select(week =>
            {
                var (from, to) = (week.ToDateTime(TimeOnly.MinValue), week.AddDays(7).ToDateTime(TimeOnly.MinValue));
                return new WeekPast(
                    week,
                    active.Where(a => MondayOf(a.Day) == week).Sum(a => a.Minutes),
                    passive.Where(a => MondayOf(a.Day) == week).Sum(a => a.Minutes),
                    idle.Sum(i => Math.Max(0, ((i.To < to ? i.To : to) - (i.From > from ? i.From : from)).TotalDays)),
                    reopened.Count(d => MondayOf(d) == week),
                    openedAgain?.Count(d => MondayOf(d) == week) ?? 0
                );
            })
            .ToList();
    }

    private static DateOnly MondayOf(DateOnly day) => day.AddDays(-(((int)day.DayOfWeek + 6) % 7));
}
