using Mendro.Core.Boards;
using Mendro.Core.Capacitors;
using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Lots;
using Mendro.Core.Methods;
using Mendro.Core.Profiles;
using Mendro.Core.Money;
using Mendro.Core.Proving;
using Mendro.Core.Scheduling;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>A piece of work of the day.</summary>
/// <param name="Task">It as a plan takes it.</param>
/// <param name="Number">Job, or null.</param>
/// <param name="Lane">What its lane is called.</param>
/// <param name="Words">What to do.</param>
/// <param name="Stage">Stage of the job in which it is done, or null.</param>
/// <param name="LeavesOpen">True when what is begun by it must not be left: hot, wet, half soldered.</param>
/// <param name="Ready">True when nothing has to end before it.</param>
/// <param name="FirstMinutes">Minutes of its first step alone: what can be done with so many and then left.</param>
/// <param name="FirstWords">What that step is.</param>
public sealed record DayItem(
    WorkTask Task,
    long? Number,
    string Lane,
    string Words,
    WorkStage? Stage,
    bool LeavesOpen,
    bool Ready,
    double FirstMinutes,
    string FirstWords
);

/// <summary>What is known of a job for its part of the day.</summary>
/// <param name="View">The job.</param>
/// <param name="Run">Method under way, or null.</param>
/// <param name="Stages">Capacitor stages to come, or none.</param>
/// <param name="DueMinutes">Open end of the promised day, minutes from now; null when nothing is promised.</param>
/// <param name="Earliest">Minute from now at which it can be worked on: a part comes; 0 for now.</param>
/// <param name="Worth">What it is worth to have it done a minute earlier.</param>
public sealed record DayJob(
    JobView View,
    RunSheet? Run,
    IReadOnlyList<RecapStage> Stages,
    double? DueMinutes,
    double Earliest,
    double Worth
)
{
    /// <summary>Drivers that its next move asks for.</summary>
    public IReadOnlyList<string> Drivers { get; init; } = [];

    /// <summary>Names of nets that were found broken and have no wire yet.</summary>
    public IReadOnlyList<string> Broken { get; init; } = [];
}

/// <summary>Makes the pieces of work of a day from what Mendro knows of each job.</summary>
/// <param name="factors">Minutes taken to minutes expected, by method; blank for all others.</param>
public sealed class DayWork(IReadOnlyDictionary<string, double> factors)
{
    /// <summary>Minutes of a hand-over (common practice, no source).</summary>
    public const double HandOverMinutes = 5;

    // Play that a unit is watched at before it goes (common practice, no source).
    private const double SoakMinutes = ProveDesk.UsualSoak;

    // Less is no piece of work of its own.
    private const double LeastRest = 2;

    private static readonly IReadOnlyList<string> Iron = ["iron"];

    // Longer work is laid down in between.
    private const double LongestPiece = 60;

    private readonly List<DayItem> _items = [];

    /// <summary>All pieces so far.</summary>
    public IReadOnlyList<DayItem> Items => _items;

    /// <summary>Adds the pieces of a job, up to its hand-over.</summary>
    /// <param name="job">The job.</param>
    /// <param name="round">Id of the round that its next move is made in, or null for by itself.</param>
    public void Add(DayJob job, string? round = null)
    {
        var chain = new Chain(this, job);
        if (job.View.Proof.Complete)
        {
            chain.End("hand over", HandOverMinutes, WorkStage.HandOver);
            return;
        }

        if (job.Run is { } run)
            UnderWay(chain, run);
        else if (job.Stages.Count > 0)
            foreach (var stage in job.Stages)
                chain.Put(
                    $"stage {stage.Number}: {string.Join(", ", stage.Sections)}",
                    Math.Max(1, stage.Positions.Count * CapacitorLibrary.Shipped.MinutesEach),
                    "fumes",
                    WorkStage.Fix,
                    setups: Iron,
                    leavesOpen: true
                );
        else if (job.Broken.Count > 0)
            // A wire each, at the least: which ends they have is planned over the board.
            foreach (var net in job.Broken)
                chain.Put($"wire for {net}", TraceLibrary.Shipped.Minutes.Wire, "fumes", WorkStage.Fix, setups: Iron, leavesOpen: true);
        else if (job.View.Advice.Moves is [var move, ..] && job.View.Diagnosis?.Target is not null)
        {
            if (move.Ends || job.View.Worth is not { GoOn: true })
            {
                chain.End("decide: to parts, or set aside", HandOverMinutes, WorkStage.HandOver);
                return;
            }

            Next(chain, job, move, round);
        }

        var tests = job.View.Proof.Unproved.Sum(l => l.Function.Minutes);
        if (job.View.Advice.Moves.Count > 0 || tests > 0)
            chain.Put(
                "try everything",
                Math.Max(1, tests > 0 ? tests : job.View.Profile.Functions.Sum(f => f.Minutes)),
                Console(job),
                WorkStage.Prove,
                setups: InConsole(job)
            );
        chain.Put($"play for {SoakMinutes:0} minutes", SoakMinutes, Console(job), WorkStage.Prove, passive: true, attended: true, setups: InConsole(job));
        chain.End("hand over", HandOverMinutes, WorkStage.HandOver);
    }

    /// <summary>Adds a round: the same for several units in turn.</summary>
    public void Add(LotRound round, string lot, string id) =>
        _items.Add(
            new DayItem(
                new WorkTask(id, $"lot {lot}", Math.Max(1, round.Minutes), false, Place(round.Stations), [], null, 0)
                {
                    Setups = Setups(round.Stations),
                },
                null,
                $"lot {lot}",
                $"round of {round.Items.Count}: {round.Title}",
                null,
                LeavesOpen: false,
                Ready: true,
                Math.Max(1, round.Minutes),
                round.Title
            )
        );

    /// <summary>Adds a task of the shop itself.</summary>
    public void Add(WorkTask task, string lane, string words) =>
        _items.Add(new DayItem(task, null, lane, words, null, LeavesOpen: false, Ready: true, task.Minutes, words));

    private void UnderWay(Chain chain, RunSheet run)
    {
        foreach (var step in run.Steps.Where(s => s.Index >= run.Now.Index))
        {
            var on = step.Index == run.Now.Index;
            if (step.Kind == RunStepKind.Wait)
            {
                var minutes = on && run.Timer is { } timer ? Math.Max(0, timer.Left / 60) : step.Wait!.Minutes;
                chain.Put(
                    $"{run.Part.Name}: {step.Say}",
                    minutes,
                    Bath(step.Wait!.Kind),
                    WorkStage.Fix,
                    passive: true,
                    attended: step.Wait!.Kind is WaitKind.Charge or WaitKind.Boil or WaitKind.Play,
                    begun: on && run.Timer is { IsPaused: false } ? 0 : null
                );
            }
            else if (step.Kind == RunStepKind.Work)
                chain.Put(
                    $"{run.Part.Name}: {step.Say}",
                    Math.Max(1, step.Minutes * Factor(run.Method.Id.Value) - (on ? run.StepSeconds / 60 : 0)),
                    step.Heat is null ? null : "fumes",
                    WorkStage.Fix,
                    setups: step.Heat is null ? [] : Iron,
                    leavesOpen: true
                );
        }
    }

    private void Next(Chain chain, DayJob job, Move move, string? round)
    {
        var stations = BenchStation.For(move);
        var factor = move.Repair is { } known ? Factor(known.Method.Id.Value) : Factor("");
        if (round is not null)
            chain.After(round);
        else
            chain.Put(
                move.Title,
                Math.Max(1, move.Minutes * factor),
                Place(stations),
                move.Repair is null ? WorkStage.Find : WorkStage.Fix,
                setups: [.. Setups(stations), .. job.Drivers.Select(d => "driver " + d)],
                leavesOpen: move.Repair is { Method: var method } && LeavesOpen(method)
            );
        if (move.Repair is { Method: var soaked } && RunPlan.Waits(soaked).Least is > 0 and var wait)
            chain.Put($"{soaked.Name}: waits", wait, null, WorkStage.Fix, passive: true);
        var rest = ((move.Outlook?.WorkMinutes ?? 0) - move.Minutes) * Factor("");
        var pieces = Math.Ceiling(rest / LongestPiece);
        for (var n = 0; n < pieces && rest >= LeastRest; n++)
            chain.Put("what follows, to be expected", rest / pieces, null, WorkStage.Fix);
    }

    private static bool LeavesOpen(Method method) => method.Steps.Any(s => s.Heat is not null || s.Agent is not null || s.Wait is not null);

    private double Factor(string method) => factors.GetValueOrDefault(method, factors.GetValueOrDefault("", 1));

    private static string? Console(DayJob job) => job.View.Profile.Kind is DeviceKind.Cartridge or DeviceKind.Controller ? "console" : null;

    private static string? Bath(WaitKind kind) => kind is WaitKind.Soak or WaitKind.Boil ? "bath" : null;

    private static string? Place(IReadOnlyList<BenchStation> stations) =>
        stations.Any(s => s.Id == "air") ? "air"
        : stations.Any(s => s.Id == "iron") ? "fumes"
        : stations.Any(s => s.Id == "magnifier") ? "microscope"
        : null;

    private static IReadOnlyList<string> Setups(IReadOnlyList<BenchStation> stations) => stations.Select(s => s.Id).ToList();

    // What is tried in a console wants one of its own family: units of one model share it.
    private static IReadOnlyList<string> InConsole(DayJob job) => Console(job) is null ? [] : [$"console for {job.View.Job.ProfileId}"];

    /// <summary>The pieces of one job, each after the one before.</summary>
    private sealed class Chain(DayWork work, DayJob job)
    {
        private readonly string _lane = FormattableString.Invariant($"{job.View.Job.Number} {job.View.Job.Title}");
        private string? _last;
        private int _count;
        private bool _joins;

        public void After(string id) => _last = id;

        public void Put(
            string words,
            double minutes,
            string? place,
            WorkStage stage,
            bool passive = false,
            bool attended = false,
            IReadOnlyList<string>? setups = null,
            bool leavesOpen = false,
            double? begun = null,
            bool last = false
        )
        {
            if (!passive && !last && TryJoin(minutes, place, setups ?? []))
                return;
            var id = $"{job.View.Job.Number}.{++_count}";
            work._items.Add(
                new DayItem(
                    new WorkTask(id, job.View.Job.Tag, Math.Round(minutes, 1), passive, place, _last is null ? [] : [_last], last ? job.DueMinutes : null, 1)
                    {
                        Earliest = _last is null ? Math.Round(job.Earliest) : 0,
                        Attended = attended,
                        Setups = setups ?? [],
                        Begun = begun,
                        Worth = last ? job.Worth : 0,
                    },
                    job.View.Job.Number,
                    _lane,
                    words,
                    stage,
                    leavesOpen,
                    _last is null && job.Earliest <= 0,
                    Math.Round(minutes, 1),
                    words
                )
            );
            (_last, _joins) = (id, !passive);
        }

        /// <summary>Lengthens the piece before by what hands go on with: nobody takes up another unit between two steps of one.</summary>
        private bool TryJoin(double minutes, string? place, IReadOnlyList<string> setups)
        {
            if (!_joins || work._items[^1] is not { Task: { Begun: null } task } before || task.Minutes + minutes > LongestPiece)
                return false;
            if (place is not null && task.Place is not null && place != task.Place)
                return false;
            work._items[^1] = before with
            {
                Words = before.Words.EndsWith(" …", StringComparison.Ordinal) ? before.Words : before.Words + " …",
                Task = task with { Minutes = Math.Round(task.Minutes + minutes, 1), Place = task.Place ?? place, Setups = task.Setups.Union(setups).ToList() },
            };
            return true;
        }

        public void End(string words, double minutes, WorkStage stage) => Put(words, minutes, null, stage, last: true);
    }
}
