using Mendro.Core.Jobs;
using Mendro.Storage;
using Microsoft.Extensions.Logging;

namespace Mendro.Shop;

/// <summary>
/// Works the bench out again behind the answers, whenever something was written: the newest units first, then what confirmed
/// causes mean for the other units. A page takes what there is and marks what is not yet fresh.
/// </summary>
public sealed partial class BenchRefresher : IDisposable
{
    private readonly JobStore _jobs;
    private readonly BenchDesk _desk;
    private readonly SecondLookDesk _looks;
    private readonly ShopDatabase _database;
    private readonly ILogger<BenchRefresher> _log;
    private readonly SemaphoreSlim _bell = new(1);
    private readonly Lock _lock = new();
    private readonly List<(long Asked, bool Everything, TaskCompletionSource Done)> _waiting = [];
    private readonly HashSet<JobId> _failed = [];
    private long _asked = 1;

    /// <summary>Begins to hear what is written.</summary>
    public BenchRefresher(JobStore jobs, BenchDesk desk, SecondLookDesk looks, ShopDatabase database, ILogger<BenchRefresher> log)
    {
        (_jobs, _desk, _looks, _database, _log) = (jobs, desk, looks, database, log);
        _database.Committed += Ask;
    }

    /// <summary>The bench has been worked out again, or part of it.</summary>
    public event Action? Refreshed;

    /// <summary>Says that something may have changed.</summary>
    public void Ask()
    {
        lock (_lock)
        {
            _asked++;
            if (_bell.CurrentCount == 0)
                _bell.Release();
        }
    }

    /// <summary>Waits until the bench is worked out as it stands now.</summary>
    /// <param name="most">Longest wait.</param>
    /// <param name="everything">True to wait for what confirmed causes mean for other units too.</param>
    /// <returns>False when it took longer.</returns>
    public async Task<bool> Caught(TimeSpan most, bool everything = false)
    {
        var done = new TaskCompletionSource(TaskCreationOptions.RunContinuationsAsynchronously);
        lock (_lock)
            _waiting.Add((_asked, everything, done));
        Ask();
        return await Task.WhenAny(done.Task, Task.Delay(most)) == done.Task;
    }

    /// <summary>Works until it is stopped.</summary>
    public async Task RunAsync(CancellationToken stop)
    {
        while (true)
        {
            await _bell.WaitAsync(stop);
            try
            {
                while (Step())
                    stop.ThrowIfCancellationRequested();
            }
            catch (Exception ex) when (ex is not OperationCanceledException)
            {
                // The database may be locked by another program; what is missed now is done with the next change.
                NotRefreshed(ex);
            }
        }
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        _database.Committed -= Ask;
        _bell.Dispose();
    }

    /// <summary>One unit, or one cause: in between it is looked again at what is newest.</summary>
    /// <returns>False when nothing is left.</returns>
    private bool Step()
    {
        using var one = _database.OneConnection();
        var asked = Interlocked.Read(ref _asked);
        var bench = _jobs.Live().Where(j => j.Shelf == Shelf.None).ToList();
        if (_desk.States(bench).FirstOrDefault(s => !s.Fresh && !_failed.Contains(s.Job.Id)) is { } stale)
        {
            Work(stale.Job);
            return true;
        }

        Tell(asked, everything: false);
        _failed.Clear();
        if (_looks.WeighNext())
            return true;
        Tell(asked, everything: true);
        return false;
    }

    private void Work(Job job)
    {
        try
        {
            _desk.Open(job);
        }
        catch (Exception ex) when (ex is not OutOfMemoryException)
        {
            // One unit that cannot be worked out must not keep the others waiting.
            _failed.Add(job.Id);
            NotWorkedOut(job.Number, ex);
        }

        Refreshed?.Invoke();
    }

    private void Tell(long asked, bool everything)
    {
        lock (_lock)
        {
            foreach (var (_, _, done) in _waiting.Where(w => w.Asked <= asked && (everything || !w.Everything)))
                done.TrySetResult();
            _waiting.RemoveAll(w => w.Done.Task.IsCompleted);
        }
    }

    [LoggerMessage(LogLevel.Error, "Job {Number} could not be worked out")]
    private partial void NotWorkedOut(long number, Exception ex);

    [LoggerMessage(LogLevel.Warning, "The bench could not be worked out again")]
    private partial void NotRefreshed(Exception ex);
}
