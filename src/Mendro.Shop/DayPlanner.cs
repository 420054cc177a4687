using System.Text.Json;
using Mendro.Core.Scheduling;
using Mendro.Solver;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>The plan that holds, at moments of UTC.</summary>
/// <param name="Key">Mark of what it was made for.</param>
/// <param name="Tasks">Its tasks.</param>
/// <param name="Changes">What moved when it was made.</param>
/// <param name="Proved">True when no plan is better.</param>
/// <param name="ChangedAt">When that moved, UTC.</param>
public sealed record HeldPlan(string Key, IReadOnlyList<TimedTask> Tasks, IReadOnlyList<PlanChange> Changes, bool Proved, DateTimeOffset ChangedAt = default);

/// <summary>Plans in the background, one plan at a time; until a new one is there the old one holds.</summary>
public sealed class DayPlanner(SettingsStore settings) : IDisposable
{
    private const string Kept = "day-plan";

    // A plan that is better by less is not worth moving things about.
    private const double WorthMoving = 0.01;

    private static readonly TimeSpan ToRead = TimeSpan.FromMinutes(15);
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(1.6);

    private readonly Lock _lock = new();
    private readonly CancellationTokenSource _closing = new();
    private bool _closed;
    private HeldPlan? _held;
    private Wanted? _wanted;
    private bool _running;
    private Task _work = Task.CompletedTask;

    /// <summary>The plan that holds, or null before the first.</summary>
    public HeldPlan? Held
    {
        get
        {
            lock (_lock)
                return _held ??= Read();
        }
    }

    /// <summary>The planning that is under way.</summary>
    public Task Work
    {
        get
        {
            lock (_lock)
                return _work;
        }
    }

    /// <summary>Asks for a plan; the last that was asked for is made.</summary>
    /// <param name="key">Mark of what it is made for.</param>
    /// <param name="load">Workload, minutes from <paramref name="now"/>.</param>
    /// <param name="words">What each task is.</param>
    /// <param name="now">Now, UTC.</param>
    public void Ask(string key, Workload load, IReadOnlyDictionary<string, string> words, DateTimeOffset now)
    {
        lock (_lock)
        {
            if (_wanted?.Key == key)
                return;
            _wanted = new Wanted(key, load, words, now);
            if (_running)
                return;
            _running = true;
            // The page's connection goes with its context, and is closed with the page: this work opens its own.
            using (ExecutionContext.SuppressFlow())
                _work = Task.Run(Run);
        }
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        if (_closed)
            return;
        _closed = true;
        _closing.Cancel();
        _closing.Dispose();
    }

    private void Run()
    {
        while (true)
        {
            Wanted task;
            HeldPlan? before;
            lock (_lock)
                (task, before) = (_wanted!, _held);
            HeldPlan? made = null;
            try
            {
                made = Make(task.Key, task.Load, task.Words, task.Now, before);
                settings.SetValue(Kept, JsonSerializer.Serialize(made with { Changes = [] }));
            }
            catch (Exception ex) when (ex is ShopBusyException or ObjectDisposedException or OperationCanceledException)
            {
                // The old plan holds; the next look asks again.
                made = null;
            }

            lock (_lock)
            {
                _held = made ?? _held;
                if (made is not null && _wanted != task)
                    continue;
                (_wanted, _running) = (null, false);
                return;
            }
        }
    }

    private sealed record Wanted(string Key, Workload Load, IReadOnlyDictionary<string, string> Words, DateTimeOffset Now);

    private HeldPlan Make(string key, Workload load, IReadOnlyDictionary<string, string> words, DateTimeOffset now, HeldPlan? before)
    {
        var starts = before?.Tasks.ToDictionary(t => t.Id, t => (t.Start - now).TotalMinutes);
        var plan = DaySolver.Solve(load, Longest, starts, _closing.Token);
        _closing.Token.ThrowIfCancellationRequested();
        if (starts is not null)
        {
            // Little is moved for little.
            var order = Enumerable.Range(0, load.Tasks.Count).OrderBy(n => starts.GetValueOrDefault(load.Tasks[n].Id, plan.Tasks[n].Start)).ToList();
            var stays = ListOrder.Plan(load, order);
            // What is late whatever is done weighs on both alike.
            var sunk = load.Tasks.Sum(t => t.Weight * load.PromiseWorth * t.Late(t.Minutes));
            if (load.Value(stays) - load.Value(plan) <= (load.Value(plan) - sunk) * WorthMoving)
                plan = stays with { Optimal = plan.Optimal && load.Value(stays) <= load.Value(plan) };
        }

        var tasks = load
            .Tasks.Zip(plan.Tasks)
            .Select(t => new TimedTask(
                t.First.Id,
                words[t.First.Id],
                now.AddMinutes(t.Second.Start),
                now.AddMinutes(t.Second.End),
                t.First.Place,
                !t.First.Passive,
                t.First.Due is { } due ? now.AddMinutes(due) : null
            ))
            .ToList();
        // What only waits because the hour went by is no news.
        var slid = before?.Tasks.Where(t => t.Start <= now).Select(t => t.Id).ToHashSet() ?? [];
        var changes = before is null ? [] : PlanChange.Between(before.Tasks, tasks).Where(c => !slid.Contains(c.Task.Id)).ToList();
        // What moved stays to be read for a while, also when nothing else does since, or a better plan was found a moment later.
        if (before is null || now - before.ChangedAt >= ToRead)
            return new HeldPlan(key, tasks, changes, plan.Optimal, now);
        var there = tasks.ToDictionary(t => t.Id);
        var kept = before.Changes.Where(c => there.ContainsKey(c.Task.Id)).Select(c => c.CameIn ? c with { Task = there[c.Task.Id] } : c).ToList();
        var news = PlanChange.Over(kept, changes);
        return new HeldPlan(key, tasks, news, plan.Optimal, changes.Count == 0 ? before.ChangedAt : now);
    }

    private HeldPlan? Read()
    {
        try
        {
            return settings.Value(Kept) is { Length: > 0 } json ? JsonSerializer.Deserialize<HeldPlan>(json) : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }
}
