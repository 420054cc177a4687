namespace Mendro.Shop.Tests;

/// <summary>The calendar: what it tells others, what it takes in.</summary>
public sealed class CalendarDeskTests : BenchDay
{
    [Fact]
    public void The_feed_keeps_its_ids_counts_changes_and_calls_off_what_is_gone()
    {
        var number = _shop.TakeIn(fails: "power-light");
        Promise(number, "2026-12-04");
        _shop.Timers.Start(number, "soak", 30).Done.ShouldNotBeNull();
        var first = Read(Calendar.Feed(Berlin));
        first.Select(e => (e.Uid, e.Sequence, e.Status)).ShouldBe([($"timer-1@mendro", 0, "CONFIRMED"), ($"promise-{number}@mendro", 0, "CONFIRMED")]);
        // The timer ends at half past eight by UTC, by the wall clock in Berlin an hour later.
        first[0].Start!.TzId.ShouldBe("Europe/Berlin");
        first[0].Start!.Value.ShouldBe(new DateTime(2026, 11, 30, 9, 30, 0));
        first[0].Start!.AsUtc.ShouldBe(new DateTime(2026, 11, 30, 8, 30, 0));
        first[1].Start!.HasTime.ShouldBeFalse();
        Calendar.Feed(Berlin).ShouldBe(Calendar.Feed(Berlin));
        Promise(number, "2026-12-07");
        var changed = Read(Calendar.Feed(Berlin)).Single(e => e.Uid == $"promise-{number}@mendro");
        (changed.Sequence, changed.Start!.Value.Day).ShouldBe((1, 7));
        Promise(number, "");
        var gone = Read(Calendar.Feed(Berlin)).Single(e => e.Uid == $"promise-{number}@mendro");
        (gone.Sequence, gone.Status).ShouldBe((2, "CANCELLED"));
        Promise(number, "2026-12-08");
        var back = Read(Calendar.Feed(Berlin)).Single(e => e.Uid == $"promise-{number}@mendro");
        (back.Sequence, back.Status).ShouldBe((3, "CONFIRMED"));
    }

    private static List<Ical.Net.CalendarComponents.CalendarEvent> Read(string text) =>
        Ical.Net.Calendar.Load(text)!.Events.OrderBy(e => e.Start!.Value).ToList();

    // Written by hand after RFC 5545: one meeting in Berlin time, one of the wall clock each Tuesday, one called off, one long ago.
    private const string Hand = """
        BEGIN:VCALENDAR
        VERSION:2.0
        PRODID:-//hand//EN
        BEGIN:VTIMEZONE
        TZID:Europe/Berlin
        BEGIN:STANDARD
        DTSTART:19701025T030000
        RRULE:FREQ=YEARLY;BYMONTH=10;BYDAY=-1SU
        TZOFFSETFROM:+0200
        TZOFFSETTO:+0100
        END:STANDARD
        BEGIN:DAYLIGHT
        DTSTART:19700329T020000
        RRULE:FREQ=YEARLY;BYMONTH=3;BYDAY=-1SU
        TZOFFSETFROM:+0100
        TZOFFSETTO:+0200
        END:DAYLIGHT
        END:VTIMEZONE
        BEGIN:VEVENT
        UID:a
        DTSTAMP:20261101T000000Z
        DTSTART;TZID=Europe/Berlin:20261201T140000
        DTEND;TZID=Europe/Berlin:20261201T153000
        SUMMARY:Supplier\, visits
        END:VEVENT
        BEGIN:VEVENT
        UID:b
        DTSTAMP:20261101T000000Z
        DTSTART:20261103T080000
        DURATION:PT1H
        RRULE:FREQ=WEEKLY;COUNT=6
        SUMMARY:Market
        END:VEVENT
        BEGIN:VEVENT
        UID:c
        DTSTAMP:20261101T000000Z
        DTSTART:20261202T080000Z
        DTEND:20261202T090000Z
        STATUS:CANCELLED
        SUMMARY:Off
        END:VEVENT
        BEGIN:VEVENT
        UID:d
        DTSTAMP:20261101T000000Z
        DTSTART;VALUE=DATE:20261204
        SUMMARY:Fair
        END:VEVENT
        END:VCALENDAR
        """;

    [Fact]
    public void Hours_of_another_calendar_are_read_each_time_they_come_and_taken_in_again_move()
    {
        Calendar.Import(Hand.ReplaceLineEndings("\r\n"), Berlin).Done.ShouldNotBeNull().Words.ShouldBe("4 hours are in the plan.");
        (string, DateTimeOffset, DateTimeOffset)[] expected =
        [
            // Six Tuesdays from the third of November: the first and the eighth of December are still to come.
            ("Market", At(8, 0, 1), At(9, 0, 1)),
            ("Supplier, visits", At(14, 0, 1), At(15, 30, 1)),
            ("Fair", At(0, 0, 4), At(0, 0, 5)),
            ("Market", At(8, 0, 8), At(9, 0, 8)),
        ];
        _store.FixedHours(_shop.Time.GetUtcNow()).Select(h => (h.Words, h.FromAt, h.ToAt)).ShouldBe(expected);
        Calendar.Import(Hand.ReplaceLineEndings("\r\n").Replace("20261201T140000", "20261201T133000"), Berlin).Done.ShouldNotBeNull();
        var moved = _store.FixedHours(_shop.Time.GetUtcNow());
        moved.Count.ShouldBe(4);
        moved.Single(h => h.Uid == "a").FromAt.ShouldBe(At(13, 30, 1));
    }

    [Theory]
    [InlineData("hello")]
    [InlineData("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nEND:VCALENDAR")]
    [InlineData("BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nDTSTART:not-a-date\r\nEND:VEVENT\r\nEND:VCALENDAR")]
    [InlineData("BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nUID:x\r\nDTSTART:20261201T080000Z\r\nDURATION:PT1M\r\nRRULE:FREQ=MINUTELY\r\nEND:VEVENT\r\nEND:VCALENDAR")]
    public void A_calendar_that_cannot_be_read_is_refused(string text) => Calendar.Import(text, Berlin).Refusal.ShouldNotBeNull().Problem.ShouldNotBeEmpty();
}
