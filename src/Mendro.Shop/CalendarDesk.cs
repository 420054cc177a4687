using Mendro.Core.Jobs;
using Mendro.Core.Quantities;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>The shop's calendar: what it tells others, and hours taken in from theirs.</summary>
public sealed class CalendarDesk(JobStore jobs, TimerDesk timers, OrderStore orders, DayStore store, DayDesk day, TimeProvider time)
{
    /// <summary>What the feed tells now: promises, timers that run, parts that are expected, units to be picked up.</summary>
    /// <param name="zone">The shop's zone.</param>
    public string Feed(TimeZoneInfo zone) => CalendarFile.Write(store.Feed(Items(zone)), zone);

    /// <summary>Takes fixed hours in from a calendar file; those that were there before take their new times.</summary>
    public Deed<Done> Import(string text, TimeZoneInfo zone, string? once = null)
    {
        var read = CalendarFile.Read(text, zone, time.GetUtcNow());
        return read.IsOk ? day.Add(read.Value, once) : Refusal.Invalid(read.Problem!);
    }

    private List<FeedItem> Items(TimeZoneInfo zone)
    {
        var today = DateOnly.FromDateTime(TimeZoneInfo.ConvertTime(time.GetUtcNow(), zone).DateTime);
        var items = new List<FeedItem>();
        void Whole(string uid, DateOnly date, string words)
        {
            var at = new DateTimeOffset(date.ToDateTime(TimeOnly.MinValue), TimeSpan.Zero);
            items.Add(
                new FeedItem
                {
                    Uid = uid + "@mendro",
                    Words = words,
                    FromAt = at,
                    ToAt = at.AddDays(1),
                    AllDay = true,
                }
            );
        }

        foreach (var job in jobs.Live())
        {
            if (job.PromisedOn is { } promised)
                Whole(FormattableString.Invariant($"promise-{job.Number}"), promised, $"{job.Tag}: promised, {job.Title}");
            // Whoever fetches it can do so from the day on which it was ready; it stands at today until it is gone.
            if (job.Shelf == Shelf.Ready && !job.ShopStock)
                Whole(FormattableString.Invariant($"pick-up-{job.Number}"), today, $"{job.Tag}: to be picked up, {job.Title}");
        }

        foreach (var order in orders.List(200, open: true))
            if (DayText.Read(order.ExpectedOn) is { } expected)
                Whole(FormattableString.Invariant($"order-{order.Id}"), expected, $"Parts from {order.Supplier}");
        foreach (var timer in timers.All().Where(t => t is { IsPaused: false }))
            items.Add(
                new FeedItem
                {
                    Uid = FormattableString.Invariant($"timer-{timer.Timer.Id}@mendro"),
                    Words = timer.Timer.Number is { } number ? FormattableString.Invariant($"{number}: {timer.Timer.Label}") : timer.Timer.Label,
                    FromAt = timer.Timer.EndsAt,
                    ToAt = timer.Timer.EndsAt.AddMinutes(5),
                }
            );
        return items;
    }
}
