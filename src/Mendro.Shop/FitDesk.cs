using System.Collections.Concurrent;
using Mendro.Core.Capacitors;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;
using Mendro.Solver;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>A board whose capacitors are to be placed.</summary>
/// <param name="Board">Board, with the positions that are renewed.</param>
/// <param name="For">Mark of what it is made for.</param>
/// <param name="Choices">Parts by reference designator.</param>
public sealed record FitTask(Board Board, string For, IReadOnlyDictionary<string, IReadOnlyList<FitChoice>> Choices);

/// <summary>How far placing is.</summary>
/// <param name="Boards">Boards done.</param>
/// <param name="Of">Boards in all.</param>
/// <param name="Placed">Positions placed so far.</param>
/// <param name="Positions">Positions in all.</param>
/// <param name="Finished">True when it has ended.</param>
/// <param name="Problem">Why it ended before its time, or null.</param>
public sealed record FitProgress(int Boards, int Of, int Placed, int Positions, bool Finished, string? Problem);

/// <summary>Places capacitors in the background, one job at a time, with progress and a stop.</summary>
public sealed class FitDesk(CapacitorStore store) : IDisposable
{
    /// <summary>Degrees between two directions that are tried.</summary>
    public const double AngleStep = 15;

    /// <summary>Least distance of a lying body from its pads, mm: the bend of the legs.</summary>
    public const double BendMm = 1.5;

    /// <summary>Least distance between bodies, mm.</summary>
    public const double GapMm = 0.3;

    private static readonly TimeSpan LongestBoard = TimeSpan.FromSeconds(20);

    private readonly ConcurrentDictionary<JobId, Run> _runs = new();
    private readonly SemaphoreSlim _one = new(1, 1);
    private readonly CancellationTokenSource _closing = new();

    /// <summary>How far placing for a job is, or null when none was asked for.</summary>
    public FitProgress? Of(JobId job) => _runs.GetValueOrDefault(job)?.Now;

    /// <summary>The end of what is being placed for a job, to be waited for; ended already where nothing is.</summary>
    public Task Ended(JobId job) => _runs.GetValueOrDefault(job)?.Work ?? Task.CompletedTask;

    /// <summary>Begins to place; what was under way for the job is stopped.</summary>
    /// <returns>The work, to be waited for.</returns>
    public Task Start(JobId job, IReadOnlyList<FitTask> tasks)
    {
        if (_runs.TryGetValue(job, out var before))
            before.Stop.Cancel();
        var run = new Run(CancellationTokenSource.CreateLinkedTokenSource(_closing.Token))
        {
            Now = new FitProgress(0, tasks.Count, 0, tasks.Sum(t => t.Choices.Count), false, null),
        };
        _runs[job] = run;
        // The page's connection goes with its context, and is closed with the page: this work opens its own.
        using (ExecutionContext.SuppressFlow())
            return run.Work = Task.Run(() => WorkAsync(job, tasks, run));
    }

    /// <summary>Stops placing for a job; boards that are done stay so.</summary>
    public void Stop(JobId job) => _runs.GetValueOrDefault(job)?.Stop.Cancel();

    /// <inheritdoc/>
    public void Dispose()
    {
        _closing.Cancel();
        _closing.Dispose();
        _one.Dispose();
    }

    private async Task WorkAsync(JobId job, IReadOnlyList<FitTask> tasks, Run run)
    {
        try
        {
            await _one.WaitAsync(run.Stop.Token);
            try
            {
                foreach (var task in tasks)
                {
                    var before = run.Now.Placed;
                    var puzzle = new FitPuzzle(task.Board, task.Choices, AngleStep, BendMm, GapMm);
                    var plan = FitSolver.Solve(
                        puzzle,
                        LongestBoard,
                        run.Stop.Token,
                        filled => run.Now = run.Now with { Placed = before + filled }
                    );
                    run.Stop.Token.ThrowIfCancellationRequested();
                    store.SaveFit(job, new BoardFit(task.Board.Id, task.For, plan));
                    run.Now = run.Now with { Boards = run.Now.Boards + 1, Placed = before + plan.Placements.Count };
                }

                run.Now = run.Now with { Finished = true };
            }
            finally
            {
                _one.Release();
            }
        }
        catch (OperationCanceledException)
        {
            run.Now = run.Now with { Finished = true, Problem = "It was stopped; boards that were done are kept." };
        }
        catch (ShopBusyException)
        {
            run.Now = run.Now with { Finished = true, Problem = "The shop's file was busy: ask for it again." };
        }
    }

    private sealed class Run(CancellationTokenSource stop)
    {
        private volatile FitProgress _now = new(0, 0, 0, 0, false, null);

        public CancellationTokenSource Stop { get; } = stop;

        /// <summary>The work itself; set as it begins.</summary>
        public Task? Work { get; set; }

        public FitProgress Now
        {
            get => _now;
            set => _now = value;
        }
    }
}
