namespace Mendro.Core.Scheduling;

/// <summary>What a plan is to be best at.</summary>
public enum PlanGoal
{
    /// <summary>The last thing ends as early as can be.</summary>
    Makespan,

    /// <summary>The weighted sum of minutes past due is least.</summary>
    Tardiness,

    /// <summary>A day at the bench: promises first, then worth, then little setting-up.</summary>
    Day,
}

/// <summary>A thing to be done.</summary>
/// <param name="Id">Id, unique in its workload.</param>
/// <param name="Job">Job that it belongs to; blank for none.</param>
/// <param name="Minutes">Minutes that it takes, 0 or more.</param>
/// <param name="Passive">True when it goes on by itself: it takes no person, only its place.</param>
/// <param name="Place">Place that it takes, or null for none.</param>
/// <param name="After">Ids of what must have ended before it begins.</param>
/// <param name="Due">Minute from now by which it should have ended, or null.</param>
/// <param name="Weight">Weight of each minute past that, 0 or more.</param>
public sealed record WorkTask(
    string Id,
    string Job,
    double Minutes,
    bool Passive,
    string? Place,
    IReadOnlyList<string> After,
    double? Due,
    double Weight
)
{
    /// <summary>First minute at which it may begin: a part comes, an owner answers.</summary>
    public double Earliest { get; init; }

    /// <summary>Minute at which it begins whatever the plan: it has begun, or the hour is fixed. Null for any.</summary>
    public double? Begun { get; init; }

    /// <summary>True when it goes on by itself but not while nobody is there: a pack on charge.</summary>
    public bool Attended { get; init; }

    /// <summary>What has to be set up for it: the iron hot, a driver, the console that tests it. What shares one lies close together.</summary>
    public IReadOnlyList<string> Setups { get; init; } = [];

    /// <summary>Worth of having it done a minute earlier, for <see cref="PlanGoal.Day"/>.</summary>
    public double Worth { get; init; }

    /// <summary>Minutes past due when it ends at a minute.</summary>
    public double Late(double end) => Due is { } due ? Math.Max(0, end - due) : 0;
}

/// <summary>A place at the bench, or a shared thing.</summary>
/// <param name="Id">Id.</param>
/// <param name="Count">How many things it takes at once, 0 or more.</param>
public sealed record WorkPlace(string Id, int Count);

/// <summary>A stretch of time from a minute on and before another, counted from now.</summary>
public readonly record struct Stretch(double From, double To);

/// <summary>People, places and what is to be done.</summary>
/// <param name="People">People at the bench, all alike.</param>
/// <param name="Places">Places.</param>
/// <param name="Tasks">Tasks.</param>
/// <param name="Goal">Goal.</param>
public sealed record Workload(int People, IReadOnlyList<WorkPlace> Places, IReadOnlyList<WorkTask> Tasks, PlanGoal Goal)
{
    /// <summary>When nobody is there; one after another, none meeting the next.</summary>
    public IReadOnlyList<Stretch> Closed { get; init; } = [];

    // A promise counts more than what it is worth to be early; standing set up a tenth of that.
    private const double PromiseFirst = 1000;
    private const double SetupShare = 0.1;

    private readonly int[][] _setups = Shared(Tasks);

    /// <summary>Tasks that share something which has to be set up, each by its place in the list: one row for each such thing.</summary>
    public IReadOnlyList<IReadOnlyList<int>> SharedSetups => _setups;

    /// <summary>What a minute of standing set up weighs for <see cref="PlanGoal.Day"/>.</summary>
    public double SetupWorth { get; } = Tasks.Count == 0 ? 0 : SetupShare * Tasks.Average(t => t.Worth);

    /// <summary>What a minute past a promise weighs against one of worth.</summary>
    public double PromiseWorth => Goal == PlanGoal.Day ? PromiseFirst : 1;

    /// <summary>What a plan comes to by the goal; less is better.</summary>
    /// <param name="starts">Start of each task, in their order.</param>
    public double Objective(IReadOnlyList<double> starts)
    {
        double last = 0,
            late = 0;
        for (var n = 0; n < Tasks.Count; n++)
        {
            var end = starts[n] + Tasks[n].Minutes;
            last = Math.Max(last, end);
            late += Tasks[n].Weight * Tasks[n].Late(end);
        }

        return Goal == PlanGoal.Makespan ? last : late;
    }

    /// <summary>The same of a plan of it.</summary>
    public double Value(WorkPlan plan) => Value(plan.Tasks.Select(t => t.Start).ToList());

    /// <summary>What a plan comes to with all that the goal weighs: for a day also what is worth to be early, and standing set up.</summary>
    /// <param name="starts">Start of each task, in their order.</param>
    public double Value(IReadOnlyList<double> starts)
    {
        var value = Objective(starts);
        if (Goal != PlanGoal.Day)
            return value;
        value *= PromiseFirst;
        for (var n = 0; n < Tasks.Count; n++)
            value += Tasks[n].Worth * starts[n];
        foreach (var setup in _setups)
        {
            var (from, to) = (double.MaxValue, 0.0);
            foreach (var n in setup)
                (from, to) = (Math.Min(from, starts[n]), Math.Max(to, starts[n] + Tasks[n].Minutes));
            value += SetupWorth * (to - from);
        }

        return value;
    }

    private static int[][] Shared(IReadOnlyList<WorkTask> tasks) =>
        tasks
            .SelectMany((t, n) => t.Setups.Distinct().Select(s => (Setup: s, At: n)))
            .GroupBy(x => x.Setup, x => x.At)
            .Where(g => g.Count() > 1)
            .Select(g => g.ToArray())
            .ToArray();
}

/// <summary>When a task is done.</summary>
/// <param name="Id">Task.</param>
/// <param name="Start">Minute from now at which it begins.</param>
/// <param name="End">Minute at which it ends.</param>
/// <param name="Person">Number of the person who does it, from 1; null for a passive one.</param>
public sealed record PlannedTask(string Id, double Start, double End, int? Person);

/// <summary>A plan.</summary>
/// <param name="Tasks">Tasks, in the order of the workload.</param>
/// <param name="Objective">What it comes to by the goal.</param>
/// <param name="Optimal">True when it is proved that no plan is better.</param>
public sealed record WorkPlan(IReadOnlyList<PlannedTask> Tasks, double Objective, bool Optimal);
