using Mendro.Core.Jobs;
using Mendro.Core.Scheduling;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>Promises: the earliest honest day, and which of those given are in danger.</summary>
public sealed partial class DayDesk
{
    private const double FewWaits = 1;
    private const int JobsLookedAt = 1000;

    // What was learned changes slowly; it is not asked for anew at every line of a page.
    private static readonly TimeSpan Learns = TimeSpan.FromMinutes(1);

    private Learned? _learned;

    private sealed record Learned(DateTimeOffset At, IReadOnlyList<MinutesTruth> Truth, double Missing)
    {
        public double Sigma => Truth[^1].Sigma;
    }

    private Learned Known()
    {
        var now = time.GetUtcNow();
        if (_learned is { } known && now >= known.At && now - known.At < Learns)
            return known;
        var (withParts, waited) = past.PartWaits(JobsLookedAt, StageWords.Name(Shelf.WaitingPart));
        return _learned = new Learned(now, Truth(), Math.Min(1, (waited + FewWaits) / (withParts + 4 * FewWaits)));
    }

    /// <summary>Day by which new work is done with the shop's certainty, after all that is to be done now; null when it never is.</summary>
    /// <param name="zone">The shop's zone.</param>
    /// <param name="view">Its job, or null for a unit like those on the bench on the average.</param>
    public DateOnly? Honest(TimeZoneInfo zone, JobView? view)
    {
        var (now, terms) = (time.GetUtcNow(), Terms);
        var hours = new OpenHours(terms.Spans, zone);
        var (work, _, _) = Work(hours, now, zone);
        var lanes = Remaining(work.Items);
        var others = lanes.Where(l => l.Key != view?.Job.Number).ToList();
        var minutes = view is not null && lanes.TryGetValue(view.Job.Number, out var own) ? own
            : lanes.Count > 0 ? lanes.Values.Average()
            : 60;
        var drawn = PromiseDate.Drawn(
            others.Select(o => new WorkSpread(o.Value, Known().Sigma)).ToList(),
            Spread(view, minutes),
            terms.People,
            OpenADay(hours, now)
        );
        return hours.After(now, PromiseDate.At(drawn, terms.Certainty)) is { } done ? Day(done, zone) : null;
    }

    private IReadOnlyList<PromiseWatch> Watch(
        IReadOnlyList<JobView> views,
        IReadOnlyList<DayEntry> entries,
        OpenHours hours,
        DayTerms terms,
        DateTimeOffset now
    )
    {
        var left = Remaining(entries.Select(e => e.Item).ToList());
        var ends = entries.Where(e => e.Item.Number is not null).GroupBy(e => e.Item.Number!.Value).ToDictionary(g => g.Key, g => g.Max(e => e.End));
        var aDay = OpenADay(hours, now);
        return views
            .Where(v => v.Job.PromisedOn is not null && left.ContainsKey(v.Job.Number))
            .Select(v =>
            {
                var due = hours.Closing(now, v.Job.PromisedOn!.Value);
                var own = Spread(v, left[v.Job.Number]);
                // What ends before it in the plan goes before it.
                var before = left
                    .Where(o => o.Key != v.Job.Number && ends[o.Key] < ends[v.Job.Number])
                    .Select(o => new WorkSpread(o.Value, own.Sigma))
                    .ToList();
                var open = due is { } end ? hours.Between(now, end) : 0;
                var drawn = PromiseDate.Drawn(before, own, terms.People, aDay);
                var chance = due is null ? 0 : PromiseDate.Chance(drawn, open);
                var first = due is null ? 0 : PromiseDate.Chance(PromiseDate.Drawn([], own, 1, aDay), open);
                var honest = hours.After(now, PromiseDate.At(drawn, terms.Certainty));
                return new PromiseWatch(
                    v.Job,
                    due,
                    ends.TryGetValue(v.Job.Number, out var at) ? at : null,
                    chance,
                    first,
                    honest is { } day ? Day(day, hours.Zone) : null,
                    chance < terms.Certainty
                );
            })
            .OrderByDescending(w => w.InDanger)
            .ThenBy(w => w.Job.PromisedOn)
            .ToList();
    }

    private WorkSpread Spread(JobView? view, double minutes)
    {
        var wants = view?.Advice.Plan?.Steps.Where(s => s.Parts > 0).Sum(s => s.Cures) ?? 0;
        var lead = orderRows.Suppliers().Select(s => (double?)s.LeadDays).Min();
        // Most parts lie in a drawer: how many jobs had to wait is counted, and one in four assumed until there are some.
        var known = Known();
        return new WorkSpread(minutes, known.Sigma, lead ?? 0, lead is null ? 0 : Math.Clamp(wants, 0, 1) * known.Missing);
    }

    private static double OpenADay(OpenHours hours, DateTimeOffset now) => hours.Between(now, now.AddDays(7)) / 7;
}
