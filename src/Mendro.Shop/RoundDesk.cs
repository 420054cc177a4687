using Mendro.Core.Library;
using Mendro.Core.Lots;

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

/// <summary>A round over a lot: the same move for one unit after the other, by single keys.</summary>
public sealed class RoundDesk(RepairDesk repairs, ReadingDesk readings)
{
    /// <summary>The next unit of a round after one of a number; null when it is through.</summary>
    /// <param name="board">The lot.</param>
    /// <param name="key">Round.</param>
    /// <param name="after">Number of the last unit; 0 to begin.</param>
    public static RoundStep? Next(LotBoard board, string key, long after)
    {
        if (board.Rounds.FirstOrDefault(r => r.Key == key) is not { } round)
            return null;
        var ahead = round.Items.Where(i => i.Number > after).ToList();
        return ahead.Count == 0 ? null : new RoundStep(round, ahead[0], board.Rows.First(r => r.Item.Number == ahead[0].Number).View, ahead.Count - 1);
    }

    /// <summary>Files what a move came to.</summary>
    /// <param name="board">The lot as it stands.</param>
    /// <param name="key">Round.</param>
    /// <param name="number">Unit.</param>
    /// <param name="answer">What came of it; null with a reading.</param>
    /// <param name="reading">What was typed, for a metered check.</param>
    /// <param name="cause">Failure mode that was seen before a repair, or null.</param>
    /// <param name="once">Key of the form.</param>
    /// <param name="look">What the failure looks like now, when it still fails; null when not told.</param>
    public Deed<Done> Answer(
        LotBoard board,
        string key,
        long number,
        RoundAnswer? answer,
        string reading,
        string? cause,
        string? once = null,
        string? look = null
    )
    {
        if (Next(board, key, number - 1) is not { } step || step.Item.Number != number)
            return Refusal.Missing;
        var (move, view) = (step.Item.Move, step.View);
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
