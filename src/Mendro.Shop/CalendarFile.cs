using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using Mendro.Core;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>iCalendar (RFC 5545): the shop's feed is written, fixed hours are read.</summary>
public static class CalendarFile
{
    /// <summary>Longest file, characters.</summary>
    public const int Longest = 2 * 1024 * 1024;

    /// <summary>Days ahead for which hours that come again are read.</summary>
    public const int Ahead = 56;

    private const int MostHours = 500;
    private const string Utc = "UTC";

    /// <summary>Writes entries, times in the shop's zone.</summary>
    /// <param name="items">Entries; those that were called off say so.</param>
    /// <param name="zone">Zone.</param>
    public static string Write(IReadOnlyList<FeedItem> items, TimeZoneInfo zone)
    {
        var calendar = new Calendar { ProductId = "-//Mendro//bench day//EN", Method = "PUBLISH" };
        calendar.AddProperty("X-WR-CALNAME", "Mendro");
        var hasZone = items.Any(i => !i.AllDay) && zone.HasIanaId && zone.Id != Utc;
        if (hasZone)
            calendar.AddTimeZone(VTimeZone.FromSystemTimeZone(zone, items.Min(i => i.FromAt).UtcDateTime.AddYears(-1), false));
        CalDateTime At(DateTimeOffset at, bool allDay) =>
            allDay ? new CalDateTime(DateOnly.FromDateTime(at.UtcDateTime))
            : hasZone ? new CalDateTime(TimeZoneInfo.ConvertTime(at, zone).DateTime, zone.Id)
            : new CalDateTime(at.UtcDateTime, Utc);
        foreach (var item in items)
            calendar.Events.Add(
                new CalendarEvent
                {
                    Uid = item.Uid,
                    Summary = item.Words,
                    DtStart = At(item.FromAt, item.AllDay),
                    DtEnd = At(item.ToAt, item.AllDay),
                    DtStamp = new CalDateTime(item.ChangedAt.UtcDateTime, Utc),
                    LastModified = new CalDateTime(item.ChangedAt.UtcDateTime, Utc),
                    Sequence = item.Sequence,
                    Status = item.CancelledAt is null ? EventStatus.Confirmed : EventStatus.Cancelled,
                    Transparency = item.AllDay ? TransparencyType.Transparent : TransparencyType.Opaque,
                }
            );
        return new CalendarSerializer().SerializeToString(calendar) ?? "";
    }

    /// <summary>Reads hours that are fixed: those of some weeks ahead, each time of what comes again; what was called off is left out.</summary>
    /// <param name="text">The file.</param>
    /// <param name="zone">Zone of times that name none.</param>
    /// <param name="now">Now, UTC.</param>
    /// <returns>The hours, or why there are none.</returns>
    public static Outcome<IReadOnlyList<FixedHour>> Read(string text, TimeZoneInfo zone, DateTimeOffset now)
    {
        static Outcome<IReadOnlyList<FixedHour>> Fail(string problem) => Outcome<IReadOnlyList<FixedHour>>.Fail(problem);

        if (text.Length > Longest)
            return Fail("The file is too long: at most 2 MB.");
        if (!text.Contains("BEGIN:VCALENDAR", StringComparison.OrdinalIgnoreCase))
            return Fail("That is no iCalendar file: it has no BEGIN:VCALENDAR.");
        try
        {
            var (from, to) = (now, now.AddDays(Ahead));
            var hours = new List<FixedHour>();
            foreach (var calendar in CalendarCollection.Load(text))
                foreach (var one in calendar.Events.Where(e => e.Status != EventStatus.Cancelled && e.DtStart is not null))
                {
                    var times = one.GetOccurrences(new CalDateTime(from.UtcDateTime.AddDays(-1), Utc));
                    foreach (var time in times.TakeWhile(o => Moment(o.Period.StartTime, zone) < to))
                    {
                        var (begin, end) = (Moment(time.Period.StartTime, zone), Moment(time.Period.EffectiveEndTime ?? time.Period.StartTime, zone));
                        if (end <= begin && one.IsAllDay)
                            end = begin.AddDays(1);
                        if (end <= from || end <= begin)
                            continue;
                        hours.Add(
                            new FixedHour
                            {
                                Uid = one.RecurrenceRule is not null ? $"{one.Uid}/{begin.UtcDateTime:yyyyMMddTHHmm}" : one.Uid ?? "",
                                Words = Cut(one.Summary ?? "away"),
                                FromAt = begin,
                                ToAt = end,
                            }
                        );
                        if (hours.Count > MostHours)
                            return Fail($"More than {MostHours} hours in the next {Ahead} days.");
                    }
                }

            return hours.Count == 0
                ? Fail($"It has no hours in the next {Ahead} days.")
                : Outcome<IReadOnlyList<FixedHour>>.Ok(hours.OrderBy(h => h.FromAt).ToList());
        }
        catch (Exception ex)
            when (ex
                    is System.Runtime.Serialization.SerializationException
                        or FormatException
                        or ArgumentException
                        or InvalidOperationException
                        or NotSupportedException
                        or OverflowException
            )
        {
            return Fail("The calendar cannot be read: " + ex.Message);
        }
    }

    private static string Cut(string words)
    {
        var said = string.Join(' ', words.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
        return said.Length <= DayDesk.LongestWords ? said : said[..DayDesk.LongestWords];
    }

    // A time without a zone is one of the wall clock; a day begins at midnight there.
    private static DateTimeOffset Moment(CalDateTime at, TimeZoneInfo zone)
    {
        if (at.HasTime && at.TzId is not null)
            return new DateTimeOffset(at.AsUtc, TimeSpan.Zero);
        var wall = DateTime.SpecifyKind(at.Value, DateTimeKind.Unspecified);
        while (zone.IsInvalidTime(wall))
            wall = wall.AddMinutes(1);
        return new DateTimeOffset(wall, zone.GetUtcOffset(wall)).ToUniversalTime();
    }
}
