using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Lots;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>What was answered to a unit in a round.</summary>
public enum RoundAnswer
{
    /// <summary>It works now, or what was looked at is good.</summary>
    Good,

    /// <summary>It still fails, or what was looked at is bad.</summary>
    Bad,
}

/// <summary>The next unit of a round.</summary>
/// <param name="Round">The round as it stands.</param>
/// <param name="Item">Unit and move.</param>
/// <param name="View">The unit.</param>
/// <param name="Left">Units after it in this round.</param>
public sealed record RoundStep(LotRound Round, RoundItem Item, JobView View, int Left);

/// <summary>What rounds are made over: a lot, or all that is on the bench.</summary>
/// <param name="Lot">Id of the lot; 0 for the whole shop.</param>
/// <param name="Name">Name of the lot; blank for the shop.</param>
/// <param name="Rounds">Rounds that can be made, the most promising first; one under way may be at its last unit.</param>
/// <param name="Views">Its units by their numbers.</param>
/// <param name="Doubt">Why the bench itself is in doubt, or null.</param>
/// <param name="Sum">What the lot comes to; null for the shop.</param>
public sealed record RoundScope(
    long Lot,
    string Name,
    IReadOnlyList<LotRound> Rounds,
    IReadOnlyDictionary<long, JobView> Views,
    BenchDoubt? Doubt,
    LotSum? Sum = null
)
{
    /// <summary>Units on the bench that are not worked out yet and so left out.</summary>
    public int Waiting { get; init; }

    /// <summary>Rounds worth beginning: for two units and more.</summary>
    public IReadOnlyList<LotRound> ToBegin { get; } = Rounds.Where(r => r.Items.Count > 1).ToList();
}

/// <summary>A round: the same move for one unit after the other, by single keys; over a lot, or over several lots and owners.</summary>
public sealed class RoundDesk(
    RepairDesk repairs,
    ReadingDesk readings,
    RoundStore rounds,
    JobStore jobs,
    LotStore lots,
    ForecastStore forecasts,
    BenchDesk bench,
    Ledger ledger
)
{
    private const int LooksBack = 60;

    /// <summary>All that is on the bench, whose ever it is. What was not worked out yet is left out; it is by the next look.</summary>
    public RoundScope Whole()
    {
        var apart = lots.AllApart();
        var on = jobs.Live().Where(j => j.Shelf == Shelf.None && !apart.Contains(j.Id)).ToList();
        var states = bench.States(on);
        return Whole(states.Where(s => s.View is not null).ToDictionary(s => s.Job.Number, s => s.View!)) with
        {
            Waiting = states.Count(s => s.View is null),
        };
    }

    private RoundScope Whole(Dictionary<long, JobView> views)
    {
        var open = views.Where(v => v.Value is { Problem: null, Advice.Moves: [{ Ends: false }, ..] } && !v.Value.Proof.Complete);
        var tried = forecasts.Newest(LooksBack).Where(f => f.Worked is not null).Select(f => new RepairTried(f.Number, f.Chance, f.Worked!.Value));
        return new RoundScope(0, "", LotDesk.RoundsOf(open.ToDictionary(v => v.Key, v => v.Value)), views, BenchDoubt.Of(tried.ToList()));
    }

    /// <summary>The next unit of a round after one of a number, as that unit stands now; null when the round is through.</summary>
    /// <param name="scope">What the round is over.</param>
    /// <param name="key">Round.</param>
    /// <param name="after">Number of the last unit; 0 to begin.</param>
    public RoundStep? Next(RoundScope scope, string key, long after)
    {
        var views = scope.Views.ToDictionary();
        while (true)
        {
            if (scope.Rounds.FirstOrDefault(r => r.Key == key) is not { } round)
                return null;
            var ahead = round.Items.Where(i => i.Number > after).ToList();
            if (ahead.Count == 0)
                return null;
            var shown = views[ahead[0].Number];
            var exact = bench.Open(shown.Job);
            // A lot is worked out anew at each look; over the whole shop only the unit that is next.
            if (scope.Lot != 0 || ReferenceEquals(exact.Advice, shown.Advice))
                return new RoundStep(round, ahead[0], shown, ahead.Count - 1);
            views[ahead[0].Number] = exact;
            scope = Whole(views);
        }
    }

    /// <summary>Rounds that were begun and left, with how many units are ahead in each; those that are through are none.</summary>
    public IReadOnlyList<(RoundUnderWay Round, int Ahead)> UnderWay(RoundScope scope) =>
        rounds
            .Of(scope.Lot)
            .Select(u => (u, Ahead: scope.Rounds.FirstOrDefault(r => r.Key == u.Key)?.Items.Count(i => i.Number > u.After) ?? 0))
            .Where(u => u.Ahead > 0)
            .ToList();

    /// <summary>Files what a move came to.</summary>
    /// <param name="scope">What the round is over, as it stands.</param>
    /// <param name="key">Round.</param>
    /// <param name="number">Unit.</param>
    /// <param name="answer">What came of it; null with a reading.</param>
    /// <param name="reading">What was typed, for a metered check.</param>
    /// <param name="cause">Failure mode that was seen before a repair, or null.</param>
    /// <param name="once">Key of the form.</param>
    /// <param name="look">What the failure looks like now, when it still fails; null when not told.</param>
    public Deed<Done> Answer(
        RoundScope scope,
        string key,
        long number,
        RoundAnswer? answer,
        string reading,
        string? cause,
        string? once = null,
        string? look = null
    )
    {
        if (Next(scope, key, number - 1) is not { } step || step.Item.Number != number)
            return Refusal.Missing;
        return ledger.Once<Done>(
            // Its own key stands with what is filed: this only keeps where the round is along with it.
            null,
            () =>
            {
                var filed = File(step, answer, reading, cause, once, look);
                if (filed.Done is null)
                    return filed;
                if (scope.Sum is { } sum)
                    lots.SaidOfEnd(scope.Lot, sum.Cured + sum.Failed, sum.End.Low, sum.End.High);
                if (step.Left > 0)
                    rounds.Save(scope.Lot, new RoundUnderWay(key, step.Round.Title, number));
                else
                    rounds.Forget(scope.Lot, key);
                return filed;
            }
        );
    }

    private Deed<Done> File(RoundStep step, RoundAnswer? answer, string reading, string? cause, string? once, string? look)
    {
        var (number, move) = (step.Item.Number, step.Item.Move);
        if (move.Repair is { } repair)
            return answer is { } worked
                ? repairs
                    .Log(new RepairOrder(number, repair.Part.Id, repair.Method.Id, cause, WorksNow: worked == RoundAnswer.Good, Look: look), once)
                    .Match<Deed<Done>>(done => new Done(done.Words), refusal => refusal)
                : Refusal.Invalid("Say whether it works now.");
        if (move.Probe is { } probe)
        {
            var facts = TradeLibrary.Of(probe.Kind);
            var text = reading.Length > 0 ? reading : answer is null ? "" : answer == RoundAnswer.Good ? facts.Good ?? "good" : facts.Bad;
            return text.Length == 0
                ? Refusal.Invalid("Type the reading.")
                : readings
                    .Read(new ReadingOrder(number, probe.Id, text), once)
                    .Match<Deed<Done>>(_ => new Done($"{probe.Name}: {text}"), refusal => refusal);
        }

        return move.Function is { } function && answer is { } passed
            ? readings
                .Try(new TrialOrder(number, function.Id, passed == RoundAnswer.Good, passed == RoundAnswer.Good ? null : look), once)
                .Match<Deed<Done>>(_ => new Done($"{function.Name}: {(passed == RoundAnswer.Good ? "works" : "fails")}"), refusal => refusal)
            : Refusal.Invalid("Say whether it works.");
    }

    /// <summary>What the failure may look like after a step that tries the unit: the looks of the function, as far as there are keys for
    /// them.</summary>
    public static IReadOnlyList<Look> Looks(RoundStep step) =>
        (step.Item.Move.Function ?? (step.Item.Move.Repair is null ? null : step.View.Diagnosis?.Target)) is { } function
            ? step.View.Model.LooksOf(function).Take(9).ToList()
            : [];

    /// <summary>Failure modes that a repair would confirm: the likeliest that it cures, as they are named.</summary>
    public static IReadOnlyList<(string Mode, string Words)> Causes(RoundStep step) =>
        step.Item.Move.Repair is { } repair
            ? (step.View.Diagnosis?.Suspects ?? [])
                .Where(s => s.Fault.Part.Id == repair.Part.Id)
                .OrderByDescending(s => s.Share)
                .Take(3)
                .Select(s => (s.Fault.Mode.Id, s.Fault.Words))
                .ToList()
            : [];
}
