using Mendro.Core.Dismantling;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;

namespace Mendro.Core.Diagnosis;

/// <summary>
/// Ranks what to do next by expected cost to the end: a check is worth it when the expected cost after its answers,
/// plus its own, is lower (Heckerman, Breese and Rommelse 1995). That theory assumes one fault; here one open complaint
/// is worked on at a time, in the order of <see cref="Goal"/>, until all of them work. The first step is weighed with the exact posterior over
/// several faults, the steps behind it with <see cref="LookAhead"/>. Above that stand the rules of the bench
/// (<see cref="BenchOrder"/>): what is known is cured, gentle comes before iron, and stopping is a move.
/// </summary>
public sealed partial class MoveAdvisor(BenchCosts costs)
{
    /// <summary>A check whose chance of either answer is below this tells too little to be listed.</summary>
    private const double TooSure = 0.004;

    /// <summary>A check that saves less than this share of its own minutes is not worth listing.</summary>
    private const double LeastSaving = 0.1;

    /// <summary>A check that touches less than this share of the blame is not listed: it could hardly help.</summary>
    private const double LeastBlame = 0.05;

    /// <summary>A repair with less chance than this is kept for the plan but not proposed.</summary>
    private const double LeastChance = 0.01;

    /// <summary>A check that would show something hardly more often than by bench error is not listed.</summary>
    private const double LeastOverLeak = 2.5;

    /// <summary>Trying a function whose failure is surer than this is no test.</summary>
    private const double SureToFail = 0.8;

    /// <summary>Blame on loose contacts that no press check reaches from which pressing the whole unit tells something.</summary>
    private const double LooseEnough = 0.4;

    /// <summary>A check comes before a repair only when it saves this share of its own minutes: the look-ahead is no more exact.</summary>
    private const double Margin = 0.3;

    /// <summary>Share of the blame from which a part needs no more looking at before it is treated.</summary>
    private const double Enclosed = 0.7;

    /// <summary>Share of the blame that a trial of another function must bear on.</summary>
    private const double Bears = 0.1;

    /// <summary>How many checks and repairs are looked at more than one step ahead.</summary>
    private const int Deeply = 8;

    /// <summary>What is taken apart is put together again: in the plan taking apart counts by this much more.</summary>
    private const double Closing = 1.7;

    /// <summary>Least loss by an uncured unit with which moves are ranked; whether they are worth it is asked of the true one.</summary>
    private const double LeastStake = 240;

    /// <summary>Share of the blame that no known fault takes from which a complaint waits for one that something explains.</summary>
    private const double NotExplained = 0.5;

    private readonly BenchCosts _ranking = costs with { UncuredMinutes = Math.Max(costs.UncuredMinutes, LeastStake) };

    /// <summary>Advice for a unit.</summary>
    /// <param name="diagnosis">Diagnosis of the unit.</param>
    /// <param name="state">How far the unit is apart now.</param>
    public Advice Advise(UnitDiagnosis diagnosis, AccessState state) => Advise(diagnosis, diagnosis.Case.Model.Disassembly.At(state));

    /// <summary>Advice for a unit of which the steps done are known.</summary>
    /// <param name="diagnosis">Diagnosis of the unit.</param>
    /// <param name="state">How far the unit is apart now.</param>
    public Advice Advise(UnitDiagnosis diagnosis, Apart state)
    {
        if (diagnosis.Target is not { } target)
            return new Advice(Untried(diagnosis), null);
        var advice = new BenchOrder(new Work(diagnosis, target, state, this), costs).Advice();
        var again = Again(diagnosis, state);
        if (again.Count > 0)
            advice = advice with { Moves = [.. again, .. advice.Moves.Where(m => !m.Ends && again.All(a => a.Id != m.Id))] };
        else if (advice.Moves is [{ Id: Move.AsideId }, ..] || diagnosis.Unexplained >= NotExplained && advice.Moves is [{ Ends: false, Known: false }, ..])
            advice = Elsewhere(diagnosis, target, state, advice);
        return advice with { Moves = Told(advice.Moves) };
    }

    /// <summary>Two cures of one name say on what they are done: “replace all capacitors of the section: sound section”.</summary>
    private static IReadOnlyList<Move> Told(IReadOnlyList<Move> moves)
    {
        var twice = moves.Where(m => m.Repair is not null).GroupBy(m => m.Title).Where(g => g.Count() > 1).Select(g => g.Key).ToHashSet();
        return twice.Count == 0
            ? moves
            : [.. moves.Select(m => m.Repair is { } repair && twice.Contains(m.Title) ? Named(m, repair.Part) : m)];
    }

    private static Move Named(Move move, Part part) => move with { Title = $"{move.Title}: {MoveWords.Lower(part.Name)}" };

    /// <summary>Preparation as the plan counts it.</summary>
    internal static Reach Preparing(DeviceModel model) => new(model.Disassembly, Closing);

    /// <summary>Everything weighed for one unit at this moment.</summary>
    internal sealed partial class Work
    {
        private readonly MoveAdvisor _advisor;
        private readonly IReadOnlyList<RepairOption> _options;
        private readonly Reach _preparation;
        private readonly List<Weighed> _weighed;
        private readonly BlameShares _blame;
        private readonly bool _starts;
        private readonly bool _blank;
        private LookAhead? _ahead;
        private Dictionary<string, double> _expected = [];

        public Work(UnitDiagnosis diagnosis, DeviceFunction target, Apart state, MoveAdvisor advisor)
        {
            (Diagnosis, Target, State, _advisor) = (diagnosis, target, state, advisor);
            var unit = diagnosis.Case;
            var model = unit.Model;
            _blame = new BlameShares(unit, target);
            Shares = _blame.Of(diagnosis.Posterior.Fault, out _);
            _options = RepairOption.For(unit, Shares, advisor._ranking);
            _preparation = Preparing(model);
            Plan = RepairPlan.Make(Shares, _options, new Reach(model.Disassembly), state, advisor._ranking);
            var fresh = unit.FreshReadings();
            Answered = new AnsweredChecks(unit, fresh);
            (_starts, _blank) = (Goal.Starts(model, unit.Events), Goal.IsBlank(model, unit.Events));
            var blamed = Enumerable
                .Range(0, Shares.Length)
                .GroupBy(f => unit.Faults[f].Part.Id)
                .Where(g => g.Sum(f => Shares[f]) >= Enclosed)
                .Select(g => g.Key)
                .ToHashSet();
            _weighed = model
                .Profile.Probes.Where(p => !Answered.Has(p) && !OnlyAt(p, blamed))
                .Select(p => Check(diagnosis, p))
                .Concat(
                    model
                        .Profile.Functions.Where(f => CanBeTried(f) && Tells(f) >= Bears)
                        .Select(f => Trial(unit, f))
                )
                .Concat(Provocations(unit, target, Shares))
                .Concat(Swaps(unit, target))
                .Select(c => advisor.Weigh(diagnosis, _blame, Shares, _options, state, c))
                .OfType<Weighed>()
                .OrderBy(w => w.Expected - w.Minutes * 0.001)
                .ToList();
        }

        /// <summary>True for what was not tried yet, can be, and would be seen.</summary>
        private bool CanBeTried(DeviceFunction function) =>
            Diagnosis.Functions[function.Id] == FunctionState.NotTried
            && !Diagnosis.Case.Forbids(function)
            && Goal.CanBeTried(Diagnosis.Case.Model, function, Target, _starts)
            && !(_blank && Diagnosis.Case.Model.Library.FindFunctionKind(function.Kind)?.OnScreen == true);

        /// <summary>Blame on the parts that a function shares with the goal and that nothing has cleared: no function that works, and none
        /// that fails in a way that shows them at work.</summary>
        private double Tells(DeviceFunction function)
        {
            var model = Diagnosis.Case.Model;
            var shared = model.Closure(function.Id).Where(model.Closure(Target.Id).Contains).ToHashSet();
            foreach (var works in model.Profile.Functions.Where(f => Diagnosis.Functions[f.Id] == FunctionState.Works))
                shared.ExceptWith(model.Closure(works.Id));
            foreach (var failed in Diagnosis.Case.Events.OfType<FunctionTried>().Where(t => !t.Passed))
                if (Diagnosis.Functions.GetValueOrDefault(failed.FunctionId) == FunctionState.Fails)
                    shared.ExceptWith(model.ShownBy(model.Profile.FindFunction(failed.FunctionId)!, failed.LookId));
            return Enumerable.Range(0, Shares.Length).Where(f => shared.Contains(Diagnosis.Case.Faults[f].Part.Id)).Sum(f => Shares[f]);
        }

        public UnitDiagnosis Diagnosis { get; }

        public DeviceFunction Target { get; }

        public Apart State { get; }

        public double[] Shares { get; }

        public RepairPlan Plan { get; }

        public AnsweredChecks Answered { get; }

        /// <summary>Moves for the goal, best first.</summary>
        /// <param name="without">A move that is left out, to see what is best without it.</param>
        public List<Move> Ranked(string? without = null)
        {
            var options = _options.Where(o => o.MoveId != without).ToList();
            var weighed = _weighed.Where(w => w.Check.Planned.Id != without).ToList();
            var single = new LookAhead(options, [], _preparation, _advisor._ranking);
            var ahead = new LookAhead(
                options,
                weighed
                    .Take(Deeply)
                    .Select(w =>
                        w.Check.Planned with
                        {
                            Optimism =
                                Math.Max(0, w.Expected - single.Flattered(w.Check.Planned, Shares, State))
                                + Margin * w.Check.Planned.Minutes,
                        }
                    )
                    .ToList(),
                _preparation,
                _advisor._ranking
            );
            if (without is null)
                _ahead = ahead;
            var moves = weighed
                .Select((w, n) => _advisor.CheckMove(Diagnosis, w, n < Deeply ? ahead : null, Shares, options, State))
                .OfType<Move>()
                .Select(m => (Move: m, Rank: m.ExpectedMinutes + Margin * (m.Minutes - m.PreparationMinutes)))
                .ToList();
            var proposed = options
                .Where(o => o.Chance >= LeastChance)
                .Select(o => (Option: o, Plan: RepairPlan.Make(Shares, options, _preparation, State, _advisor._ranking, o)))
                .OrderBy(x => x.Plan.ExpectedMinutes)
                .ToList();
            for (var n = 0; n < proposed.Count; n++)
            {
                var move = RepairOf(
                    proposed[n].Option,
                    proposed[n].Plan,
                    n < Deeply ? ahead.After(proposed[n].Option, Shares, State) : null
                );
                moves.Add((move, move.ExpectedMinutes));
            }

            var ranked = moves.OrderBy(m => m.Rank).ThenBy(m => m.Move.Minutes).Select(m => m.Move).ToList();
            if (without is null)
                _expected = ranked.ToDictionary(m => m.Id, m => m.ExpectedMinutes);
            // The figures told are those with everything at hand, whatever the order is taken from.
            return ranked.Select(m => m with { ExpectedMinutes = _expected.GetValueOrDefault(m.Id, m.ExpectedMinutes) }).ToList();
        }

        /// <summary>True when a look or a swap was made since the last work.</summary>
        public bool LookedAtThisStandstill =>
            Diagnosis.Case.Events.Reverse().TakeWhile(e => e is not RepairDone).Any(e => e is ProbeTaken or SwapTried);

        /// <summary>Quick checks with the case as it is, those that bear on most blame a minute first.</summary>
        /// <param name="minutes">Most minutes.</param>
        /// <param name="bears">Least share of the blame.</param>
        public IEnumerable<Move> Quick(double minutes, double bears)
        {
            double Blame(Weighed w) =>
                w.Check.SwapOut is { } part ? BlameOn(Diagnosis.Case, Shares, part)
                : w.Check.Function is not null ? Math.Min(w.Present, 1 - w.Present)
                : w.Check.Planned.Shows.Sum(s => Shares[s.Fault] * s.P);
            return _weighed
                .Where(w => w.Check.Planned.Minutes <= minutes && w.Reached == State && w.Check.Provoke is null)
                .Select(w => (Weighed: w, Blame: Blame(w)))
                .Where(x => x.Blame >= bears)
                .OrderByDescending(x => x.Blame / x.Weighed.Check.Planned.Minutes)
                .Select(x => _advisor.CheckMove(Diagnosis, x.Weighed, _ahead, Shares, _options, State, anyway: true))
                .OfType<Move>();
        }

        /// <summary>A repair as a move.</summary>
        public Move RepairOf(RepairOption option, RepairPlan? plan = null, Ahead? ahead = null) =>
            _advisor.RepairMove(
                Diagnosis,
                Target,
                _blame,
                Shares,
                option,
                plan ?? RepairPlan.Make(Shares, [.. _options, option], _preparation, State, _advisor._ranking, option),
                ahead,
                State
            );

        /// <summary>A check as a move, though it may not pay by the figures alone; null when it can tell nothing.</summary>
        public Move? CheckAnyway(Probe probe)
        {
            var weighed = _advisor.Weigh(Diagnosis, _blame, Shares, _options, State, Check(Diagnosis, probe), anyway: true);
            return weighed is null ? null : _advisor.CheckMove(Diagnosis, weighed, null, Shares, _options, State, anyway: true);
        }

        /// <summary>Trials of what was not tried yet and would clear some part, though they may not pay by the figures alone.</summary>
        public IEnumerable<Move> TrialsAnyway(Func<DeviceFunction, bool> which) =>
            Diagnosis
                .Case.Model.Profile.Functions.Where(f => CanBeTried(f) && Tells(f) >= Bears && which(f))
                .Select(f => _advisor.Weigh(Diagnosis, _blame, Shares, _options, State, Trial(Diagnosis.Case, f), anyway: true))
                .OfType<Weighed>()
                .Select(w => _advisor.CheckMove(Diagnosis, w, null, Shares, _options, State, anyway: true))
                .OfType<Move>();

        /// <summary>Trials with another piece in the place of some parts, though they may not pay by the figures alone.</summary>
        public IEnumerable<Move> SwapsAnyway(Func<PartId, bool> which) =>
            Swaps(Diagnosis.Case, Target)
                .Where(c => c.SwapOut is { } part && which(part))
                .Select(c => _advisor.Weigh(Diagnosis, _blame, Shares, _options, State, c, anyway: true))
                .OfType<Weighed>()
                .Select(w => _advisor.CheckMove(Diagnosis, w, null, Shares, _options, State, anyway: true))
                .OfType<Move>();

        /// <summary>True for a look or a press at nothing but parts that are as good as found.</summary>
        private static bool OnlyAt(Probe probe, HashSet<PartId> parts) =>
            TradeLibrary.Of(probe.Kind).ByEye && probe.Spans is { Count: > 0 } spans && spans.All(parts.Contains);
    }

    private static List<Move> Untried(UnitDiagnosis diagnosis) =>
        diagnosis
            .Case.Model.Profile.Functions.Where(f => diagnosis.Functions[f.Id] == FunctionState.NotTried && !diagnosis.Case.Forbids(f))
            .OrderBy(f => diagnosis.Case.Model.Closure(f.Id).Count)
            .Select(f =>
                Plain(
                    f,
                    $"Try: {f.Name}",
                    diagnosis.Complaints.Count > 0
                        ? "Nothing fails any more; this was not tried yet."
                        : "Baseline first: what works clears everything it depends on."
                )
            )
            .ToList();
}
