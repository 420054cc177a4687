using System.Collections.Concurrent;
using Mendro.Core.Jobs;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>A timer with what is left of it.</summary>
/// <param name="Timer">The timer.</param>
/// <param name="Left">Seconds left; 0 or less when it is due.</param>
public sealed record TimerLeft(BenchTimer Timer, double Left)
{
    /// <summary>True when its time is over.</summary>
    public bool IsDue => Left <= 0;

    /// <summary>True while it is paused.</summary>
    public bool IsPaused => Timer.PausedSeconds is not null;
}

/// <summary>
/// Timers of the bench, many at once over many jobs. They are kept as moments in UTC, so that neither a closed page nor a restart loses
/// one; while the shop runs they are measured by the machine's steady clock, so that setting the clock changes none.
/// </summary>
public sealed class TimerDesk(TimerStore timers, JobStore jobs, Ledger ledger, TimeProvider time)
{
    /// <summary>Longest timer, minutes: a week.</summary>
    public const double MostMinutes = 7 * 24 * 60;

    /// <summary>Longest label, characters.</summary>
    public const int LongestLabel = 60;

    /// <summary>Most timers at once.</summary>
    public const int MostTimers = 40;

    // A clock that was set is told from one that is merely slewed.
    private static readonly TimeSpan Tolerance = TimeSpan.FromSeconds(2);

    private readonly ConcurrentDictionary<long, (long Since, double Left)> _steady = new();

    /// <summary>All timers that were not stopped, the next due first, with what is left.</summary>
    public IReadOnlyList<TimerLeft> All() =>
        timers.Running().Select(t => new TimerLeft(t, Left(t))).OrderBy(t => t.IsPaused).ThenBy(t => t.Left).ToList();

    /// <summary>Starts a timer.</summary>
    /// <param name="number">Number of the job it belongs to, or null.</param>
    /// <param name="label">What it waits for.</param>
    /// <param name="minutes">Minutes.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> Start(long? number, string label, double minutes, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                var words = label.Trim();
                if (words.Length is 0 or > LongestLabel)
                    return Refusal.Invalid($"Say in up to {LongestLabel} characters what it waits for.");
                if (!(minutes > 0 && minutes <= MostMinutes))
                    return Refusal.Invalid("A timer runs from a moment to a week: give its minutes.");
                var job = number is { } tag ? jobs.Find(tag) : null;
                if (number is not null && job is null)
                    return Refusal.Missing;
                if (timers.Running().Count >= MostTimers)
                    return Refusal.Invalid($"{MostTimers} timers are running; stop one first.");
                Add(job, words, minutes);
                return new Done($"{words}: {minutes:0.#} min");
            }
        );

    /// <summary>A timer that was not stopped, or null.</summary>
    public TimerLeft? Find(long id) => timers.Find(id) is { } timer ? new TimerLeft(timer, Left(timer)) : null;

    /// <summary>Starts a timer inside another action.</summary>
    internal long Add(Job? job, string label, double minutes)
    {
        var id = timers.Add(
            new BenchTimer
            {
                JobId = job?.Id,
                Label = label,
                Seconds = minutes * 60,
                EndsAt = time.GetUtcNow().AddMinutes(minutes),
            }
        );
        _steady[id] = (time.GetTimestamp(), minutes * 60);
        return id;
    }

    /// <summary>Pauses a timer, or lets it run on.</summary>
    public Deed<Done> Pause(long id) =>
        ledger.Once<Done>(
            null,
            () =>
            {
                if (timers.Find(id) is not { } timer)
                    return Refusal.Missing;
                var left = Left(timer);
                var paused = timer.PausedSeconds is null;
                timers.Save(timer with { PausedSeconds = paused ? Math.Max(0, left) : null, EndsAt = time.GetUtcNow().AddSeconds(left) });
                _steady[id] = (time.GetTimestamp(), left);
                return new Done(paused ? $"{timer.Label} waits." : $"{timer.Label} runs on.");
            }
        );

    /// <summary>Stops a timer: it was due, or is not needed.</summary>
    public Deed<Done> Stop(long id) =>
        ledger.Once<Done>(
            null,
            () =>
            {
                if (timers.Find(id) is not { } timer)
                    return Refusal.Missing;
                StopWithin(id);
                return new Done($"{timer.Label} is done.");
            }
        );

    /// <summary>Stops a timer inside another action; one that was stopped already stays so.</summary>
    internal void StopWithin(long id)
    {
        timers.Stop(id, time.GetUtcNow());
        _steady.TryRemove(id, out _);
    }

    private double Left(BenchTimer timer)
    {
        if (timer.PausedSeconds is { } paused)
            return paused;
        var byClock = timer.Left(time.GetUtcNow());
        var anchor = _steady.GetOrAdd(timer.Id, _ => (time.GetTimestamp(), byClock));
        var left = anchor.Left - time.GetElapsedTime(anchor.Since).TotalSeconds;
        // The clock was set: the end moves along, so that a restart finds it where it belongs.
        if (Math.Abs(left - byClock) > Tolerance.TotalSeconds)
            timers.Save(timer with { EndsAt = time.GetUtcNow().AddSeconds(left) });
        return left;
    }
}
