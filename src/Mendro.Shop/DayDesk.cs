using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Methods;
using Mendro.Core.Money;
using Mendro.Core.Quantities;
using Mendro.Core.Scheduling;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>The bench day: what now, what meanwhile, what will be ready when.</summary>
public sealed partial class DayDesk(
    JobStore jobs,
    BenchDesk desk,
    RunDesk runs,
    RecapDesk recap,
    TraceDesk traces,
    TimerDesk timers,
    OrderDesk orders,
    OrderStore orderRows,
    ShelfStore shelves,
    OwnerDesk owners,
    DayStore store,
    DayPlanner planner,
    BenchRecordStore records,
    LookBackStore past,
    SettingsStore settings,
    TradeLibrary library,
    Ledger ledger,
    TimeProvider time
)
{
    private const string TermsKey = "bench-day";

    // Nobody looks further ahead; what begins later is not in the day.
    private const double HorizonMinutes = 4 * 24 * 60;

    private const int MostLearned = 2000;
    private const double OrderMinutes = 10;
    private const double CallMinutes = 5;

    private static readonly DateTimeOffset Never = DateTimeOffset.MaxValue;

    // A plan whose next piece should have begun so long ago is made anew.
    private const double SlipMinutes = 10;

    /// <summary>Who is there when, and what they share.</summary>
    public DayTerms Terms => DayTerms.Read(settings.Value(TermsKey));

    /// <summary>The shop's open hours.</summary>
    /// <param name="zone">Its zone.</param>
    public OpenHours Hours(TimeZoneInfo zone) => new(Terms.Spans, zone);

    /// <summary>Sets who is there when.</summary>
    public Deed<Done> Save(DayTerms terms, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (terms.Problem() is { } wrong)
                    return Refusal.Invalid(wrong);
                settings.SetValue(TermsKey, terms.Write());
                return new Done("Kept.");
            }
        );

    /// <summary>The day as it stands; a plan that does not hold any more is made anew behind it.</summary>
    /// <param name="zone">The shop's zone.</param>
    public DayBoard Board(TimeZoneInfo zone)
    {
        var (now, terms) = (time.GetUtcNow(), Terms);
        var hours = new OpenHours(terms.Spans, zone);
        var (work, views, waiting) = Work(hours, now, zone);
        var fixedHours = Fixed(now);
        var closed = Closed(hours, terms, now, fixedHours.Select(f => f.When).ToList());
        Away(work, closed, fixedHours);
        var load = new Workload(terms.People, terms.WorkPlaces, work.Items.Select(i => i.Task).ToList(), PlanGoal.Day) { Closed = closed };
        var words = work.Items.ToDictionary(i => i.Task.Id, i => i.Number is { } n ? FormattableString.Invariant($"{n} {i.Words}") : i.Words);
        var key = Key(load, terms, now, BenchOrder.Of(settings));
        var held = planner.Held;
        var stale = held is null || held.Key != key || Slipped(held, load, now);
        if (stale)
            planner.Ask(key, load, words, now);
        var at = held?.Tasks.ToDictionary(t => t.Id) ?? [];
        // Until the new plan is there what is new stands where the list would put it.
        var shown =
            held is not null && load.Tasks.All(t => at.ContainsKey(t.Id)) && !stale
                ? ListOrder.Of(load, load.Tasks.Select(t => t.Begun ?? (at[t.Id].Start - now).TotalMinutes).ToList(), held.Proved)
                : ListOrder.Plan(load, Enumerable.Range(0, load.Tasks.Count).OrderBy(n => at.GetValueOrDefault(load.Tasks[n].Id)?.Start ?? Never).ToList());
        var entries = work
            .Items.Zip(shown.Tasks)
            .Select(x => new DayEntry(x.First, now.AddMinutes(x.Second.Start), now.AddMinutes(x.Second.End), x.Second.Person))
            .OrderBy(e => e.Start)
            .ThenBy(e => e.Item.Task.Id, StringComparer.Ordinal)
            .ToList();
        // What moved stays to be read while the next plan is made; what is done meanwhile is no news.
        var changes = held?.Changes.Where(c => load.Tasks.Any(t => t.Id == c.Task.Id)).ToList() ?? [];
        return new DayBoard(now, terms, entries, changes, closed, Watch(views, entries, hours, terms, now), !stale, !stale && held!.Proved, waiting);
    }

    /// <summary>Pieces that fit into some minutes and leave nothing open that must not be left, the worthiest first.</summary>
    /// <param name="board">The day.</param>
    /// <param name="minutes">Minutes there are.</param>
    public static IReadOnlyList<DayEntry> Fitting(DayBoard board, double minutes) =>
        board
            .Entries.Where(e => e.Item is { Ready: true, LeavesOpen: false, Task: { Passive: false, Begun: null } } && e.Item.FirstMinutes <= minutes)
            .OrderBy(e => e.Item.Task.Due is { } due ? due : double.MaxValue)
            .ThenBy(e => e.Start)
            .ToList();

    /// <summary>What is to be seen to before one goes, and what goes on by itself.</summary>
    public IReadOnlyList<LeaveLine> Leaving()
    {
        var lines = new List<LeaveLine>();
        foreach (var (job, known, _) in desk.States(jobs.Live()))
        {
            if (known is not { } view || runs.Open(job, view.Profile) is not { } run || run.Run.Step == 0)
                continue;
            var before = run.Steps.Where(s => s.Index < run.Now.Index).SelectMany(s => s.Materials).ToList();
            var wet = before.FindLastIndex(m => m.Agent is not null) > before.FindLastIndex(m => m.Rinse == true);
            if (run.Now.Kind == RunStepKind.Wait && run.Timer is not null)
                continue;
            lines.Add(
                new LeaveLine(
                    wet ? $"{run.Part.Name}: {before.FindLast(m => m.Agent is not null)!.Agent} is on it. Rinse and dry it first."
                        : $"{run.Part.Name}: {run.Method.Name} is half done. Bring it to the next wait or give it up.",
                    job.Number,
                    GoesOn: false
                )
            );
        }

        foreach (var timer in timers.All().Where(t => !t.IsPaused && !t.IsDue))
        {
            var (charges, plays) = (Says(timer.Timer.Label, "charg"), Says(timer.Timer.Label, "play", "runs"));
            lines.Add(
                new LeaveLine(
                    charges ? $"{timer.Timer.Label}: take the pack off charge."
                        : plays ? $"{timer.Timer.Label}: switch the unit off."
                        : timer.Timer.Label,
                    timer.Timer.Number,
                    GoesOn: !charges && !plays
                )
            );
        }

        return lines;
    }

    /// <summary>How the expected minutes of methods turned out.</summary>
    public IReadOnlyList<MinutesTruth> Truth() =>
        MinutesTruth.Of(
            records
                .NewestRepairs(MostLearned)
                .Select(r => (r.Method, Expected: library.FindMethod(r.Method)?.Minutes ?? 0, r.Minutes))
                // Minutes that were left at the usual ones were not taken by the clock.
                .Where(r => Math.Abs(r.Expected - r.Minutes) > 1e-9)
                .Select(r => new WorkDone(r.Method, r.Expected, r.Minutes))
        );

    private static DateOnly Day(DateTimeOffset at, TimeZoneInfo zone) => DateOnly.FromDateTime(TimeZoneInfo.ConvertTime(at, zone).DateTime);

    private static bool Says(string label, params string[] words) => words.Any(w => label.Contains(w, StringComparison.OrdinalIgnoreCase));

    private static Dictionary<long, double> Remaining(IReadOnlyList<DayItem> items) =>
        items.Where(i => i.Number is not null && !i.Task.Passive).GroupBy(i => i.Number!.Value).ToDictionary(g => g.Key, g => g.Sum(i => i.Task.Minutes));

    /// <summary>Fixed hours, as far as the day goes.</summary>
    private List<(FixedHour Hour, Stretch When)> Fixed(DateTimeOffset now) =>
        store
            .FixedHours(now)
            .Select(h => (h, new Stretch(Math.Max(0, (h.FromAt - now).TotalMinutes), Math.Min(HorizonMinutes, (h.ToAt - now).TotalMinutes))))
            .Where(f => f.Item2.To > f.Item2.From)
            .ToList();

    /// <summary>Times at which nobody is there: the shop is shut, or as many fixed hours as there are people.</summary>
    private static List<Stretch> Closed(OpenHours hours, DayTerms terms, DateTimeOffset now, IReadOnlyList<Stretch> away)
    {
        var shut = hours.Closed(now, HorizonMinutes);
        var marks = shut.Concat(away).SelectMany(s => (double[])[s.From, s.To]).Distinct().Order().ToList();
        var closed = new List<Stretch>();
        for (var n = 0; n + 1 < marks.Count; n++)
        {
            var (from, to) = (marks[n], marks[n + 1]);
            if (!shut.Any(s => s.From < to && s.To > from) && away.Count(s => s.From < to && s.To > from) < terms.People)
                continue;
            if (closed.Count > 0 && closed[^1].To == from)
                closed[^1] = closed[^1] with { To = to };
            else
                closed.Add(new Stretch(from, to));
        }

        return closed;
    }

    /// <summary>Fixed hours at which others are still there: each takes a person.</summary>
    private static void Away(DayWork work, IReadOnlyList<Stretch> closed, IReadOnlyList<(FixedHour Hour, Stretch When)> fixedHours)
    {
        foreach (var (hour, when) in fixedHours)
        {
            var (from, to) = (when.From, when.To);
            var piece = 0;
            foreach (var shut in closed.Where(c => c.From < to && c.To > from).Append(new Stretch(to, to)))
            {
                if (shut.From > from)
                {
                    var id = FormattableString.Invariant($"hour.{hour.Id}.{++piece}");
                    work.Add(Task(id, shut.From - from) with { Begun = from, Worth = 0 }, "away", hour.Words);
                }

                from = Math.Max(from, shut.To);
            }
        }
    }

    private static bool Slipped(HeldPlan held, Workload load, DateTimeOffset now)
    {
        var open = load.Tasks.Where(t => t is { Begun: null, Passive: false }).Select(t => t.Id).ToHashSet();
        return held.Tasks.Any(t => open.Contains(t.Id) && (now - t.Start).TotalMinutes > SlipMinutes);
    }

    private static string Key(Workload load, DayTerms terms, DateTimeOffset now, BenchSort sort)
    {
        // To the minute: what is reckoned from now comes out a hair off each time.
        string At(double minutes) => Math.Round(now.ToUnixTimeMilliseconds() / 60_000.0 + minutes).ToString(CultureInfo.InvariantCulture);
        var tasks = load.Tasks.Select(t =>
        {
            var (minutes, due) = (t.Begun is null ? Math.Round(t.Minutes / 5) : 0, t.Due is { } until ? At(until) : "");
            return string.Create(
                CultureInfo.InvariantCulture,
                $"{t.Id} {minutes} {t.Passive} {t.Place} {string.Join(',', t.After)} {Math.Round(t.Worth, 1)} {due} {t.Begun is null}"
            );
        });
        var told = Encoding.UTF8.GetBytes(terms.Write() + sort + string.Join('\n', tasks));
        return Convert.ToHexString(SHA256.HashData(told))[..24];
    }
}
