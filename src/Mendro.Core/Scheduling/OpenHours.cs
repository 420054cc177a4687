namespace Mendro.Core.Scheduling;

/// <summary>Hours of a weekday at which somebody is at the bench, by the shop's wall clock.</summary>
/// <param name="Day">Weekday.</param>
/// <param name="From">First moment.</param>
/// <param name="To">Moment at which it ends, after <paramref name="From"/>.</param>
public sealed record OpenSpan(DayOfWeek Day, TimeOnly From, TimeOnly To);

/// <summary>When somebody is at the bench.</summary>
/// <param name="Spans">Hours of the week.</param>
/// <param name="Zone">The shop's zone: hours are hours of its wall clock, also where that is put forward or back.</param>
public sealed record OpenHours(IReadOnlyList<OpenSpan> Spans, TimeZoneInfo Zone)
{
    // Nobody plans further ahead than this.
    private const int MostDays = 400;

    /// <summary>Weekdays from nine to half past twelve and one to half past five (common practice, no source).</summary>
    public static IReadOnlyList<OpenSpan> Usual { get; } =
    [
        .. Enumerable
            .Range(1, 5)
            .SelectMany(day =>
                (OpenSpan[])[
                    new OpenSpan((DayOfWeek)day, new TimeOnly(9, 0), new TimeOnly(12, 30)),
                    new OpenSpan((DayOfWeek)day, new TimeOnly(13, 0), new TimeOnly(17, 30)),
                ]
            ),
    ];

    /// <summary>Open stretches from a moment on, as moments of UTC, in order; the first may have begun before.</summary>
    public IEnumerable<(DateTimeOffset From, DateTimeOffset To)> Open(DateTimeOffset now)
    {
        var day = DateOnly.FromDateTime(TimeZoneInfo.ConvertTime(now, Zone).DateTime).AddDays(-1);
        for (var n = 0; n < MostDays; n++)
            foreach (var span in Spans.Where(s => s.Day == day.AddDays(n).DayOfWeek).OrderBy(s => s.From))
            {
                var (from, to) = (Utc(day.AddDays(n), span.From), Utc(day.AddDays(n), span.To));
                if (to > now && to > from)
                    yield return (from, to);
            }
    }

    /// <summary>Stretches at which nobody is there, minutes from a moment, up to a horizon.</summary>
    public IReadOnlyList<Stretch> Closed(DateTimeOffset now, double horizonMinutes)
    {
        var closed = new List<Stretch>();
        var at = 0.0;
        foreach (var (from, to) in Open(now))
        {
            var (begin, end) = ((from - now).TotalMinutes, (to - now).TotalMinutes);
            if (begin > at)
                closed.Add(new Stretch(at, Math.Min(begin, horizonMinutes)));
            at = Math.Max(at, end);
            if (at >= horizonMinutes)
                return closed.Where(c => c.To > c.From).ToList();
        }

        closed.Add(new Stretch(at, horizonMinutes));
        return closed.Where(c => c.To > c.From).ToList();
    }

    /// <summary>Moment at which so many open minutes have gone by; null when the shop is not open for so long in a year.</summary>
    public DateTimeOffset? After(DateTimeOffset now, double openMinutes)
    {
        foreach (var (from, to) in Open(now))
        {
            var begin = from > now ? from : now;
            var here = (to - begin).TotalMinutes;
            if (openMinutes <= here)
                return begin.AddMinutes(openMinutes);
            openMinutes -= here;
        }

        return null;
    }

    /// <summary>Open minutes from one moment to another.</summary>
    public double Between(DateTimeOffset now, DateTimeOffset until) =>
        Open(now)
            .TakeWhile(s => s.From < until)
            .Sum(s => Math.Max(0, ((s.To < until ? s.To : until) - (s.From > now ? s.From : now)).TotalMinutes));

    /// <summary>Last open moment of a day, or of the last open day before it; null when there is none from now on.</summary>
    public DateTimeOffset? Closing(DateTimeOffset now, DateOnly day)
    {
        var end = Utc(day.AddDays(1), TimeOnly.MinValue);
        DateTimeOffset? last = null;
        foreach (var (from, to) in Open(now))
        {
            if (from >= end)
                break;
            last = to;
        }

        return last;
    }

    /// <summary>A moment of the shop's wall clock. One that is left out as clocks are put forward is the moment after; of one that comes
    /// twice it is the first.</summary>
    private DateTimeOffset Utc(DateOnly day, TimeOnly time)
    {
        var wall = day.ToDateTime(time);
        while (Zone.IsInvalidTime(wall))
            wall = wall.AddMinutes(1);
        var offset = Zone.IsAmbiguousTime(wall) ? Zone.GetAmbiguousTimeOffsets(wall).Max() : Zone.GetUtcOffset(wall);
        return new DateTimeOffset(wall, offset).ToUniversalTime();
    }
}
