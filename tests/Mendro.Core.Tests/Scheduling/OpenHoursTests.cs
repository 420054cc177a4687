using System.Globalization;
using Mendro.Core.Scheduling;

namespace Mendro.Core.Tests.Scheduling;

/// <summary>Open hours by the wall clock, also on the days on which it is put forward or back.</summary>
public sealed class OpenHoursTests
{
    private static OpenHours Hours(string zone, params (DayOfWeek Day, int From, int To)[] spans) =>
        new(
            spans.Length == 0 ? OpenHours.Usual : spans.Select(s => new OpenSpan(s.Day, new TimeOnly(s.From, 0), new TimeOnly(s.To, 0))).ToList(),
            TimeZoneInfo.FindSystemTimeZoneById(zone)
        );

    private static DateTimeOffset At(string utc) => DateTimeOffset.Parse(utc, CultureInfo.InvariantCulture, DateTimeStyles.AssumeUniversal);

    [Fact]
    public void A_monday_morning_is_open_until_noon_shut_at_noon_and_over_the_night()
    {
        // 30 Nov 2026 is a Monday; Berlin is an hour ahead in winter.
        var hours = Hours("Europe/Berlin");
        var now = At("2026-11-30 09:00");
        hours.Closed(now, 1440).ShouldBe([new Stretch(150, 180), new Stretch(450, 1380)]);
        hours.After(now, 150).ShouldBe(At("2026-11-30 11:30"));
        hours.After(now, 160).ShouldBe(At("2026-11-30 12:10"));
        hours.After(now, 421).ShouldBe(At("2026-12-01 08:01"));
        hours.Between(now, At("2026-12-01 09:00")).ShouldBe(150 + 270 + 60);
        hours.Closing(now, new DateOnly(2026, 12, 6)).ShouldBe(At("2026-12-04 16:30"));
        hours.Closing(now, new DateOnly(2026, 11, 29)).ShouldBeNull();
    }

    // The European Union puts clocks forward at 01:00 UTC on the last Sunday of March and back on that of October (Directive 2000/84/EC).
    [Theory]
    [InlineData("2026-03-29", 7)]
    [InlineData("2026-03-30", 8)]
    [InlineData("2026-10-25", 9)]
    public void A_night_shift_is_an_hour_shorter_in_march_and_longer_in_october(string day, int hours)
    {
        var open = Hours("Europe/Berlin", (DateOnly.Parse(day, CultureInfo.InvariantCulture).DayOfWeek, 0, 8));
        var from = open.Open(At($"{day} 00:00").AddHours(-3)).First();
        (from.To - from.From).TotalHours.ShouldBe(hours);
    }

    [Fact]
    public void An_hour_that_does_not_exist_begins_with_the_one_after()
    {
        // New York, 8 March 2026: from 02:00 to 03:00 there is none (Energy Policy Act of 2005).
        var open = Hours("America/New_York", (DayOfWeek.Sunday, 2, 5));
        open.Open(At("2026-03-08 00:00")).First().ShouldBe((At("2026-03-08 07:00"), At("2026-03-08 09:00")));
        // The same wall clock in two zones is not the same moment.
        Hours("Europe/Berlin", (DayOfWeek.Sunday, 2, 5)).Open(At("2026-03-08 00:00")).First().From.ShouldBe(At("2026-03-08 01:00"));
    }

    [Fact]
    public void Minutes_between_and_moments_after_say_the_same_of_any_minute()
    {
        var hours = Hours("Europe/Berlin", (DayOfWeek.Saturday, 10, 23), (DayOfWeek.Sunday, 0, 6), (DayOfWeek.Wednesday, 9, 10));
        var now = At("2026-03-27 17:00");
        for (var minutes = 1; minutes < 3000; minutes += 7)
            hours.Between(now, hours.After(now, minutes)!.Value).ShouldBe(minutes, 1e-6);
        var closed = hours.Closed(now, 7000);
        // Open and closed together are all the time there is.
        (closed.Sum(c => c.To - c.From) + hours.Between(now, now.AddMinutes(7000))).ShouldBe(7000, 1e-6);
        Hours("Europe/Berlin", (DayOfWeek.Monday, 9, 9)).After(now, 1).ShouldBeNull();
    }
}
