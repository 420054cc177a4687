using Mendro.Core.Capacitors;
using Mendro.Core.Jobs;
using Mendro.Core.Quantities;
using Mendro.Core.Scheduling;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>Where the work of the day comes from, and what a technician adds.</summary>
public sealed partial class DayDesk
{
    /// <summary>Longest words of an own task, characters.</summary>
    public const int LongestWords = 120;

    /// <summary>Most minutes of an own task.</summary>
    public const double MostMinutes = 7 * 24 * 60;

    private const int MostHours = 500;

    // Work takes longer than expected at times: what is promised soon is not left to the last hour.
    private const double PromiseNear = 2 * 24 * 60;
    private const double PromiseSooner = 5;

    /// <summary>Own tasks that are not done.</summary>
    public IReadOnlyList<OwnTask> OwnTasks() => store.OwnTasks();

    /// <summary>Fixed hours to come.</summary>
    public IReadOnlyList<FixedHour> FixedHours() => store.FixedHours(time.GetUtcNow());

    /// <summary>Adds an own task.</summary>
    public Deed<Done> Add(OwnTask task, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (task.Words.Length is 0 or > LongestWords || !PlainText.IsPlain(task.Words))
                    return Refusal.Invalid($"Say what it is, in up to {LongestWords} characters.");
                if (task.Minutes is not (> 0 and <= MostMinutes))
                    return Refusal.Invalid($"It takes 1 to {MostMinutes:0} minutes.");
                if (task.Place.Length > 0 && DayTerms.Known.All(k => k.Id != task.Place))
                    return Refusal.Invalid("Choose a place of the list, or none.");
                if (task.Due.Length > 0 && DayText.Read(task.Due) is null)
                    return Refusal.Invalid("A day is such as 2026-11-30.");
                store.Add(task);
                return new Done($"{task.Words}: in the plan.");
            }
        );

    /// <summary>An own task was done, or was not after all.</summary>
    public Deed<Done> Finish(long id, bool done, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (store.FindTask(id) is not { } task)
                    return Refusal.Missing;
                store.SetDone(id, done);
                return new Done($"{task.Words}: {(done ? "done" : "to be done again")}.");
            }
        );

    /// <summary>Takes an own task away, or brings it back.</summary>
    public Deed<Done> RemoveTask(long id, bool back, string? once = null) => ledger.Once(once, () => store.SetTaskDeleted(id, !back));

    /// <summary>Adds fixed hours at which one person is away.</summary>
    public Deed<Done> Add(IReadOnlyList<FixedHour> hours, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (hours.Count is 0 or > MostHours)
                    return Refusal.Invalid($"1 to {MostHours} hours at a time.");
                foreach (var hour in hours)
                    if (hour.Words.Length > LongestWords || hour.ToAt <= hour.FromAt || hour.ToAt - hour.FromAt > TimeSpan.FromDays(31))
                        return Refusal.Invalid($"{hour.Words}: it ends after it begins, within a month.");
                store.Add(hours);
                return new Done(hours.Count == 1 ? "In the plan." : $"{hours.Count} hours are in the plan.");
            }
        );

    /// <summary>Takes a fixed hour away, or brings it back.</summary>
    public Deed<Done> RemoveHour(long id, bool back, string? once = null) => ledger.Once(once, () => store.SetHourDeleted(id, !back));

    /// <summary>All that is to be done, job by job.</summary>
    private (DayWork Work, IReadOnlyList<JobView> Views, int Waiting) Work(OpenHours hours, DateTimeOffset now, TimeZoneInfo zone)
    {
        var work = new DayWork(Known().Truth.ToDictionary(t => t.Method, t => t.Factor));
        var (coming, sort) = (Coming(), BenchOrder.Of(settings));
        var live = jobs.Live().Where(j => j.Shelf == Shelf.None || (j.Shelf == Shelf.Ready && j.ShopStock) || coming.ContainsKey(j.Number));
        var states = desk.States(live.ToList());
        // Units on the bench are worked out behind the pages; those on shelves are few, and are looked at here.
        var views = states
            .Select(s => s.View ?? (s.Job.Shelf == Shelf.None ? null : desk.Open(s.Job)))
            .OfType<JobView>()
            .Where(v => v.Problem is null)
            .OrderBy(v => v.Job.Number)
            .ToList();
        var perHour = settings.Get().PerHour;
        var rounds = Rounds(work, views.Where(v => v.Job.Shelf == Shelf.None).ToList());
        foreach (var view in views)
        {
            var due = Due(view.Job.PromisedOn, hours, now);
            work.Add(
                new DayJob(
                    view,
                    runs.Open(view.Job, view.Profile),
                    Stages(view),
                    due,
                    coming.TryGetValue(view.Job.Number, out var day) ? Math.Max(0, (Opening(hours, now, day, zone) - now).TotalMinutes) : 0,
                    NextLine.WorthOf(view, sort, perHour, now) * (due < PromiseNear ? PromiseSooner : 1)
                )
                {
                    Drivers = MeanwhileDesk.Needed(view),
                    Broken = Broken(view),
                },
                rounds.GetValueOrDefault(view.Job.Number)
            );
        }

        Shop(work, hours, now);
        return (work, views, states.Count(s => s.View is null && s.Job.Shelf == Shelf.None));
    }

    /// <summary>Jobs that wait for a part that is on its way, with the day on which it is expected.</summary>
    private Dictionary<long, DateOnly> Coming()
    {
        var lines = orderRows
            .List(200, open: true)
            .SelectMany(o => o.Lines.Where(l => l.ToCome > 0).Select(l => (l.Part, Day: DayText.Read(o.ExpectedOn))))
            .Where(l => l.Day is not null)
            .ToLookup(l => l.Part.ToUpperInvariant(), l => l.Day!.Value);
        return shelves
            .All()
            .Where(w => w.Part.Length > 0 && lines.Contains(w.Part.ToUpperInvariant()))
            .ToDictionary(w => w.Number, w => lines[w.Part.ToUpperInvariant()].Min());
    }

    private static DateTimeOffset Opening(OpenHours hours, DateTimeOffset now, DateOnly day, TimeZoneInfo zone) =>
        hours.Open(now).Where(s => Day(s.To, zone) >= day).Select(s => s.From).FirstOrDefault(now);

    /// <summary>Minutes until the last open moment of a day; below nothing when the day is over.</summary>
    private static double? Due(DateOnly? day, OpenHours hours, DateTimeOffset now) =>
        day is not { } due ? null
        : hours.Closing(now, due) is { } closing ? (closing - now).TotalMinutes
        : (new DateTimeOffset(due.ToDateTime(TimeOnly.MinValue), TimeSpan.Zero) - now).TotalMinutes;

    /// <summary>Nets that beeps have shown to be broken; without any beep there is nothing to look up.</summary>
    private IReadOnlyList<string> Broken(JobView view) =>
        view.All<LineBeeped>().Any() && traces.Open(view) is { } sheet ? sheet.Nets.Where(n => n.IsBroken).Select(n => n.Net.Name).ToList() : [];

    private IReadOnlyList<RecapStage> Stages(JobView view) =>
        view.Job.Stage == WorkStage.Fix && view.Profile.Boards is { Count: > 0 } && recap.Open(view) is { HasBegun: true } sheet
            ? sheet.Stages.Where(s => !s.Positions.All(sheet.IsIn)).ToList()
            : [];

    /// <summary>Rounds of two units and more over each lot; which job is in which.</summary>
    private static Dictionary<long, string> Rounds(DayWork work, IReadOnlyList<JobView> views)
    {
        var inRound = new Dictionary<long, string>();
        foreach (var lot in views.Where(v => v.Job.Lot.Length > 0).GroupBy(v => v.Job.Lot))
        {
            var open = lot.Where(v => v.Advice.Moves is [{ Ends: false }, ..] && v.Worth is { GoOn: true }).ToDictionary(v => v.Job.Number);
            foreach (var round in LotDesk.RoundsOf(open))
            {
                // One with its best move only: what it does not gain it need not wait for.
                var own = round.Items.Where(i => i.IsBest && !inRound.ContainsKey(i.Number)).ToList();
                if (own.Count < 2)
                    continue;
                var id = $"round.{lot.Key}.{round.Key}";
                work.Add(round with { Items = own, Minutes = round.SetUpMinutes + own.Sum(i => i.Move.Minutes) }, lot.Key, id);
                foreach (var item in own)
                    inRound[item.Number] = id;
            }
        }

        return inRound;
    }

    private void Shop(DayWork work, OpenHours hours, DateTimeOffset now)
    {
        if (orders.Wanted() is { Count: > 0 } wanted)
            work.Add(Task("orders", OrderMinutes), "shop", $"order {wanted.Count} {(wanted.Count == 1 ? "sort" : "sorts")} of parts");
        foreach (var call in owners.Due().Take(20))
            work.Add(Task($"call.{call.Job.Number}", CallMinutes), "calls", $"{call.Job.Tag}: {call.Why}");
        foreach (var own in store.OwnTasks())
            work.Add(
                Task($"own.{own.Id}", own.Minutes) with
                {
                    Passive = own.Passive,
                    Place = own.Place.Length > 0 ? own.Place : null,
                    Due = Due(DayText.Read(own.Due), hours, now),
                },
                "own",
                own.Words
            );
        // The wait of a method under way is in its chain already.
        var waits = work.Items.Where(i => i.Task.Begun is not null).Select(i => i.Number).ToHashSet();
        foreach (var timer in timers.All().Where(t => t is { IsPaused: false, IsDue: false } && (t.Timer.Number is not { } n || !waits.Contains(n))))
        {
            var minutes = timer.Timer.Seconds / 60;
            work.Add(
                Task($"timer.{timer.Timer.Id}", minutes) with
                {
                    Passive = true,
                    Begun = timer.Left / 60 - minutes,
                },
                timer.Timer.Number is { } number ? FormattableString.Invariant($"{number}") : "timers",
                timer.Timer.Label
            );
        }
    }

    private static WorkTask Task(string id, double minutes) => new(id, "", Math.Round(minutes, 2), false, null, [], null, 1) { Worth = 1 };
}
