using System.Collections.Concurrent;
using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Planning;
using Mendro.StandIns;

namespace Mendro.Shop;

/// <summary>A check that was tried on practice units.</summary>
/// <param name="Idea">The check.</param>
/// <param name="Gain">What it saved.</param>
public sealed record TriedIdea(ProbeIdea Idea, ProbeGain Gain);

/// <summary>How far a measurement is.</summary>
/// <param name="Done">Units worked on.</param>
/// <param name="Total">Units in all.</param>
/// <param name="Minutes">Mean minutes a unit as the model is; null until that is known.</param>
/// <param name="Tried">Checks tried so far, the most saving first.</param>
/// <param name="Finished">True when it has ended.</param>
/// <param name="Problem">Why it ended before its time, or null.</param>
public sealed record GainProgress(int Done, int Total, double? Minutes, IReadOnlyList<TriedIdea> Tried, bool Finished, string? Problem);

/// <summary>
/// Works on practice units of a model with and without one more check, in the background and one model at a time; what came of it is
/// kept while the model stays as it is.
/// </summary>
public sealed class ProbeGainDesk(ModelShelf models, TradeLibrary library) : IDisposable
{
    /// <summary>Practice units a check.</summary>
    public const int Units = 40;

    /// <summary>Checks that are tried: the most telling ones.</summary>
    public const int MostIdeas = 6;

    private const long Seed = 12;

    private readonly ConcurrentDictionary<(string, long), Run> _runs = new();
    private readonly SemaphoreSlim _one = new(1, 1);
    private readonly CancellationTokenSource _closing = new();

    /// <summary>How far the measurement of a model is, or null when none was asked for.</summary>
    public GainProgress? Of(string id, long version) => _runs.GetValueOrDefault((id, version))?.Now;

    /// <summary>Begins to measure a model, unless it was measured as it is.</summary>
    /// <returns>The measurement, to be waited for.</returns>
    public Task Start(string id, long version)
    {
        // Of a model that has changed nobody asks any more.
        foreach (var old in _runs.Keys.Where(k => k.Item1 == id && k.Item2 != version))
            if (_runs.TryRemove(old, out var gone))
                gone.Stop.Cancel();
        if (_runs.TryGetValue((id, version), out var before) && before.Now.Problem is not null)
            _runs.TryRemove((id, version), out _);
        return _runs
            .GetOrAdd(
                (id, version),
                key =>
                {
                    var run = new Run(CancellationTokenSource.CreateLinkedTokenSource(_closing.Token));
                    // The page's connection goes with its context, and is closed with the page: this work opens its own.
                    using (ExecutionContext.SuppressFlow())
                        run.Task = Task.Run(() => WorkAsync(key, run));
                    return run;
                }
            )
            .Task;
    }

    /// <summary>Stops the measurement of a model.</summary>
    public void Stop(string id, long version) => _runs.GetValueOrDefault((id, version))?.Stop.Cancel();

    /// <inheritdoc/>
    public void Dispose()
    {
        _closing.Cancel();
        _closing.Dispose();
        _one.Dispose();
    }

    private async Task WorkAsync((string Id, long Version) key, Run run)
    {
        try
        {
            await _one.WaitAsync(run.Stop.Token);
            try
            {
                Measure(models.Get(key.Id, key.Version), run);
            }
            finally
            {
                _one.Release();
            }
        }
        catch (OperationCanceledException)
        {
            run.Tell(now => now with { Finished = true, Problem = "It was stopped." });
        }
        catch (InvalidOperationException ex)
        {
            // Weights so small that no faulty unit turns up.
            run.Tell(now => now with { Finished = true, Problem = ex.Message });
        }
    }

    private void Measure(DeviceModel model, Run run)
    {
        var ideas = ProbeIdeas.For(model).Take(MostIdeas).ToList();
        run.Tell(now => now with { Total = Units * (ideas.Count + 1) });
        void Step() => run.Tell(now => now with { Done = now.Done + 1 });
        var without = ProbeGain.Work(model, Units, Seed, Step, run.Stop.Token);
        run.Tell(now => now with { Minutes = without.Average() });
        foreach (var idea in ideas)
        {
            var with = new DeviceModel(model.Profile with { Probes = [.. model.Profile.Probes, idea.Probe] }, library);
            var tried = new TriedIdea(idea, ProbeGain.Of(without, ProbeGain.Work(with, Units, Seed, Step, run.Stop.Token)));
            run.Tell(now => now with { Tried = [.. now.Tried.Append(tried).OrderByDescending(t => t.Gain.MinutesSaved)] });
        }

        run.Tell(now => now with { Finished = true });
    }

    private sealed class Run(CancellationTokenSource stop)
    {
        private readonly Lock _lock = new();

        public CancellationTokenSource Stop { get; } = stop;

        public Task Task { get; set; } = Task.CompletedTask;

        public GainProgress Now { get; private set; } = new(0, Units, null, [], false, null);

        public void Tell(Func<GainProgress, GainProgress> change)
        {
            lock (_lock)
                Now = change(Now);
        }
    }
}
