using Mendro.Core.Dismantling;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>
/// The order a good technician keeps, laid over the ranking by figures (common practice, no source): what is known to be broken
/// is cured now when it takes minutes, whatever else is wrong; a repair with iron waits for the short check that would confirm it;
/// to stop and to set aside are moves like others.
/// </summary>
internal sealed partial class BenchOrder(MoveAdvisor.Work work, BenchCosts costs)
{
    /// <summary>Chance from which a part counts as known to be broken.</summary>
    private const double AsGoodAsKnown = 0.9;

    /// <summary>Chance from which a part that only its looks tell on, and no eye, finger or meter, counts as known.</summary>
    private const double NearlyCertain = 0.96;

    /// <summary>Minutes up to which a known fault is cured at once, though the goal does not hang on it.</summary>
    private const double TakesMinutes = 15;

    /// <summary>A chance to cure below this is none.</summary>
    private const double NoRealChance = 0.15;

    /// <summary>A repair that helps less often than this is no cure.</summary>
    private const double NoCure = 0.3;

    /// <summary>A gentle repair that helps this often is thought of before a harsh one.</summary>
    private const double SomeCure = 0.12;

    /// <summary>A repair that helps this surely needs no closer look.</summary>
    private const double Sure = 0.36;

    /// <summary>A gentle repair comes before a harsh one unless that is twice as good for its cost.</summary>
    private const double NotTwice = 0.5;

    /// <summary>A check confirms a fault that it shows at least this often.</summary>
    private const double Confirms = 0.5;

    /// <summary>A repair that helps this surely needs no look before; a mode of a bad part that is this likely is the one.</summary>
    private const double AsGoodAsCured = 0.7;

    /// <summary>Share of the blame from which a part is looked at before the meter is taken.</summary>
    private const double HalfTheBlame = 0.5;

    /// <summary>Share of the blame of what was felt from which it is seen to first.</summary>
    private const double MostOfTheBlame = 0.6;

    /// <summary>Minutes by which the figures may speak against what the bench does first.</summary>
    private const double AsGood = 1;

    /// <summary>Times its own minutes that the trial with another piece may cost by the figures: it tells for good.</summary>
    private const double SwapMay = 3;

    /// <summary>Chance that such a look shows something.</summary>
    private const double Telling = 0.2;

    /// <summary>Chance that volts are off from which they are in doubt.</summary>
    private const double InDoubt = 0.025;

    /// <summary>Chance that what leads to a board or chip shows something from which it is looked at first.</summary>
    private const double Doubtful = 0.08;

    /// <summary>Chance of harm from which work is suspected when something is worse after it.</summary>
    private const double LeastHarm = 0.005;

    /// <summary>A look of at most this many minutes is quick.</summary>
    private const double QuickMinutes = 1.5;

    /// <summary>Share of the blame that a quick look must bear on.</summary>
    private const double Bears = 0.06;

    /// <summary>Minutes of taking apart before which the quick looks are due.</summary>
    private const double TakesApart = 2;

    /// <summary>Minutes from which a repair is no quick thing to try.</summary>
    private const double LongRepair = 8;

    private UnitDiagnosis Diagnosis => work.Diagnosis;

    private double Lost => Wreckage.Lost(Model, Diagnosis.Case.Events);

    private DeviceModel Model => work.Diagnosis.Case.Model;

    /// <summary>The advice.</summary>
    public Advice Advice()
    {
        var ranked = Lawful(work.Ranked());
        var known = Known(out var hopeless).Where(k => !IsDoneEnough(k.Move)).ToList();
        var first = Wreck() ?? (First(ranked, known) is { } due ? LookedAtFirst(due) ?? due : null);
        if (first is { Ends: true })
            return new Advice([first, .. ranked], work.Plan) { Lost = Lost };
        // What comes second is the best without the first, not the cheapest way round it.
        var moves = first is null ? ranked : [first, .. Lawful(work.Ranked(first.Id).Where(m => m.Id != first.Id))];
        foreach (var (move, at) in known.Where(k => k.Move.Id != first?.Id).Select((k, n) => (k.Move, n)))
        {
            moves.RemoveAll(m => m.Id == move.Id);
            moves.Insert(Math.Min(moves.Count, 1 + at), move);
        }

        Stop(moves, hopeless, known.Count > 0);
        return new Advice(moves, work.Plan) { Lost = Lost };
    }

    private Move? First(List<Move> ranked, List<(Move Move, bool Owed)> known)
    {
        if (Moved() is { } moved)
            return moved;
        if (AfterWorse() is { } undo && !IsDoneEnough(undo))
            return undo;
        if (WhatAteIt() is { } leak)
            return leak;
        if (known.FirstOrDefault(k => k.Owed) is { Move: { } owed })
            // What only follows from how it looks is not proved: where a buzzer or an eye would tell at once, it is asked.
            return owed.Repair is not { } due ? owed
                : !work.Answered.Showed(due.Part.Id) && Confirming(due) is { } sure ? sure
                : AskedAgain(due) ?? owed;
        if (NamedBySwap(ranked) is { } named)
            return named;
        if (ranked.FirstOrDefault() is not { } best)
            return known.FirstOrDefault().Move;
        if (Felt(ranked, best) is { } felt)
            return felt.Repair is { } cure && Confirming(cure) is { } sooner ? sooner : GentleFirst(felt, ranked);
        if (Enclosed(best) is { } enclosed)
            return enclosed;
        best = GentleFirst(UndoableFirst(MostAtOnce(best), ranked), ranked);
        if (FromTheSource() is { } source)
            return source;
        best =
            SourceRead(best)
            ?? (best.Repair is { } repair ? Confirming(repair) ?? AskedAgain(repair) ?? SwapFirst(best, repair) : null)
            ?? MeterFirst(ranked, best)
            ?? best;
        return SuppliedFirst(best)
            ?? GlanceFirst(best)
            ?? GearFirst(best)
            ?? QuickFirst(best)
            ?? EyesFirst(best)
            ?? VoltsFirst(best)
            ?? MinutesFirst(best)
            ?? BeforeOpeningForVolts(best)
            ?? best;
    }

    /// <summary>Where a finger has found something that has most of the blame, that is seen to before any side issue.</summary>
    private Move? Felt(List<Move> ranked, Move best)
    {
        var felt = Diagnosis.Parts.Values.Where(v => work.Answered.Felt(v.Part.Id)).ToList();
        var parts = felt.Select(v => v.Part.Id).ToHashSet();
        bool Bears(Move move) => move.Repair is { } repair ? parts.Contains(repair.Part.Id) : move.Probe?.Spans?.Any(parts.Contains) == true;
        return felt.Sum(v => v.Share) < MostOfTheBlame ? null
            : Bears(best) ? best
            : ranked.FirstOrDefault(m => Bears(m) && m.ExpectedMinutes <= best.ExpectedMinutes + AsGood);
    }

    /// <summary>Worse after work: what was touched last is gone over first.</summary>
    private Move? AfterWorse()
    {
        if (SpoiltBy(r => !r.Claimed) is not ({ } repair, _) || Model.Profile.FindPart(repair.PartId) is not { } part)
            return null;
        if (Model.Library.MethodsFor("*").FirstOrDefault() is not { } undo)
            return null;
        var faults = Enumerable
            .Range(0, Diagnosis.Case.Faults.Count)
            .Where(f => Diagnosis.Case.Faults[f].Part.Id == part.Id && Diagnosis.Case.Faults[f].Mode.Id == EvidenceWeights.StepDamage)
            .ToList();
        var there = new double[Diagnosis.Case.Faults.Count];
        foreach (var fault in faults)
            there[fault] = 1.0 / faults.Count;
        return RepairOption.For(Diagnosis.Case, there, costs).FirstOrDefault(o => o.Method.Id == undo.Id) is { } option
            ? work.RepairOf(option)
            : null;
    }

    /// <summary>Worse after work, with iron or without: the plugs, ribbons and wires on its way that were moved for it are looked at and
    /// pushed before the work itself is gone over.</summary>
    private Move? Moved()
    {
        if (SpoiltBy(_ => true) is not ({ } repair, { } spoilt))
            return null;
        var ways = spoilt.SelectMany(f => Model.Closure(f.Id)).Except(Working).Where(p => KindOf(p)?.Has(PartRole.Moved) == true).ToHashSet();
        var since = Diagnosis.Case.Events.SkipWhile(e => e != repair).OfType<ProbeTaken>().Select(t => t.ProbeId).ToHashSet();
        return Model
            .Profile.Probes.Where(p => p.Minutes <= QuickMinutes && TradeLibrary.Of(p.Kind).ByEye && !since.Contains(p.Id))
            .Where(p => p.Spans is { Count: > 0 } spans && spans.All(ways.Contains))
            .Where(p => Model.Disassembly.Minutes(work.State, Model.Disassembly.Goal(p)) < TakesApart)
            .OrderBy(p => p.Minutes)
            .Select(work.CheckAnyway)
            .FirstOrDefault(m => m is { Outcomes: [{ Probability: >= MayShow }, ..] });
    }

    /// <summary>The last work after which something gets less far than before it, and what; or null.</summary>
    private (RepairDone By, List<DeviceFunction> Spoilt)? SpoiltBy(Func<RepairDone, bool> whose)
    {
        var events = Diagnosis.Case.Events;
        var (at, repair) = events
            .Select((e, n) => (n, Repair: e as RepairDone))
            .LastOrDefault(x => x.Repair is { } done && whose(done) && Model.Library.FindMethod(done.MethodId) is { Harm: >= LeastHarm });
        if (repair is null || events.Skip(at + 1).OfType<RepairDone>().Any())
            return null;
        var spoilt = Model.Profile.Functions.Where(function =>
        {
            FunctionTried? Tried(IEnumerable<BenchEvent> some) => some.OfType<FunctionTried>().LastOrDefault(t => t.FunctionId == function.Id);
            var (before, after) = (Tried(events.Take(at)), Tried(events.Skip(at)));
            return before is not null
                && after is { Passed: false }
                && (before.Passed || Steps(function, after.LookId) < Steps(function, before.LookId));
        });
        return spoilt.ToList() is { Count: > 0 } worse ? (repair, worse) : null;
    }

    /// <summary>How far a function gets with a look: those of its kind go from nothing at all to what all but works.</summary>
    private int? Steps(DeviceFunction function, string? look) =>
        Model.Library.FindFunctionKind(function.Kind)?.Looks.Select((l, n) => (l.Id, n)).Where(l => l.Id == look).Select(l => (int?)l.n).FirstOrDefault();

    /// <summary>Parts known to be broken with the repair each is owed: what goes on eating first, then the shortest.</summary>
    /// <param name="hopeless">Known faults on the way of the goal that nothing cures.</param>
    private List<(Move Move, bool Owed)> Known(out List<PartVerdict> hopeless)
    {
        var unit = Diagnosis.Case;
        HashSet<int> Way(DeviceFunction function) =>
            unit.LinksOf(Model.FunctionFails(function)).Where(l => l.P >= NoCure).Select(l => l.Fault).ToHashSet();
        var onTheWay = Way(work.Target);
        // What is proved bad on the way of any complaint is owed, whichever is looked at.
        var onAnyWay = Diagnosis.Complaints.Where(c => c.Open).SelectMany(c => Way(c.Function)).ToHashSet();
        var found = new List<(Move Move, bool Owed)>();
        var eating = new HashSet<string>();
        hopeless = [];
        foreach (var verdict in Diagnosis.Parts.Values.Where(v => v.Posterior >= (work.Answered.Showed(v.Part.Id) ? AsGoodAsKnown : NearlyCertain)))
        {
            var faults = Model.FaultsOf(verdict.Part.Id);
            var there = There(verdict.Part.Id);
            if (there.Sum() <= 0)
                continue;
            var options = OptionsAt(verdict.Part.Id, there);
            var inGoal = faults.Sum(f => onTheWay.Contains(f) ? there[f] : 0) >= 0.5;
            var best = options.Any(o => o.Chance >= NoCure) ? Gentlest(options.Where(o => o.Chance >= SomeCure).ToList()) : null;
            if (best is null)
            {
                if (inGoal && options.All(o => Untreated(o) < NoCure))
                    hopeless.Add(verdict);
                continue;
            }

            // That the part is bad is known, but not how: there the figures and a look go before.
            if (best.Chance < Sure && options.Any(o => o.Chance >= Sure))
            {
                var surely = options.Where(o => o.Chance >= AsGoodAsCured).ToList();
                if (there.Max() < AsGoodAsCured || Gentlest(surely) is not { } sure)
                    continue;
                // A cleaning that is left for just this, and worth its minutes, comes before a new part.
                var lead = Array.IndexOf(there, there.Max());
                if (best.Method.Harshness > 0 || Ratio(best) < Ratio(sure) || best.Cures.All(c => c.Fault != lead))
                    best = sure;
            }

            best = options.Where(o => IsWorthTrying(o, best)).MaxBy(Ratio) ?? best;

            var move = work.RepairOf(best) with { Known = true, Shown = work.Answered.Showed(verdict.Part.Id) };
            var showed = work.Answered.Showed(verdict.Part.Id);
            if (showed && GoesOnEating(verdict.Part, there))
                eating.Add(move.Id);
            var owed = inGoal || showed && (eating.Contains(move.Id) || faults.Sum(f => onAnyWay.Contains(f) ? there[f] : 0) >= 0.5);
            found.Add((move, owed || move.Minutes <= TakesMinutes));
        }

        return found.OrderByDescending(k => k.Owed).ThenByDescending(k => eating.Contains(k.Move.Id)).ThenBy(k => k.Move.Minutes).ToList();
    }

    /// <summary>Chances of the ways a part may have failed, where it has failed; zeros where it cannot have.</summary>
    private double[] There(PartId part)
    {
        var there = new double[Diagnosis.Case.Faults.Count];
        foreach (var fault in Model.FaultsOf(part))
            there[fault] = Diagnosis.Posterior.Fault(Diagnosis.Case.UncuredPiece(fault));
        var sum = there.Sum();
        return sum <= 0 ? there : [.. there.Select(t => t / sum)];
    }

    /// <summary>What may be done at a part that has failed, with the chance that it cures the part.</summary>
    private List<RepairOption> OptionsAt(PartId part, double[] there) =>
        RepairOption.For(Diagnosis.Case, there, costs).Where(o => o.Part.Id == part).ToList();

    /// <summary>Of some repairs the one with the best chance for its cost, what is taken apart counted; a gentle one before a harsh one
    /// that is not twice as good.</summary>
    private RepairOption? Gentlest(IReadOnlyList<RepairOption> options)
    {
        var best = options.Select(Ratio).DefaultIfEmpty(0).Max();
        return options
            .Where(o => Ratio(o) >= best * NotTwice)
            .OrderBy(o => o.Method.Harshness)
            .ThenByDescending(Ratio)
            .FirstOrDefault();
    }

    /// <summary>Gentle before heavy at the same part: half the minutes and a fifth of the chance, such as a joint flowed again before a new
    /// socket.</summary>
    private bool IsWorthTrying(RepairOption gentle, RepairOption heavy) =>
        gentle.Method.Harshness < heavy.Method.Harshness
        && gentle.Method.Minutes <= heavy.Method.Minutes / 2
        && gentle.Chance >= heavy.Chance * GentleShare
        && Diagnosis.Case.GradeOf(gentle.Part.Id) != SeenGrade.Heavy
        && !Diagnosis.Case.Events.Any(e => e is RepairDone { Claimed: false } r && r.PartId == gentle.Part.Id && r.MethodId == gentle.Method.Id);

    private double Ratio(RepairOption option) => option.Chance / (option.CostMinutes + Preparing(option));

    /// <summary>How surely a repair would help if it had not been done yet.</summary>
    private double Untreated(RepairOption option) =>
        option
            .Cures.Select(c =>
                EvidenceWeights.Success(option.Method, Diagnosis.Case.Faults[c.Fault], 0)
                * Diagnosis.Posterior.Fault(Diagnosis.Case.UncuredPiece(c.Fault))
            )
            .DefaultIfEmpty(0)
            .Max();

    private double Preparing(RepairOption option) => MoveAdvisor.Preparing(Model).Minutes(work.State, option.Goal);
}
