using System.Globalization;
using Mendro.Core.Lots;
using Mendro.Core.Diagnosis;

namespace Mendro.Shop;

/// <summary>What a lot says in a line: what to do first, and why.</summary>
public static class LotWords
{
    /// <summary>A round that takes in this part of the open units comes before any single one.</summary>
    private const double Most = 0.5;

    /// <summary>Sentences, the first thing first; none where there is nothing to choose.</summary>
    /// <param name="board">The lot.</param>
    /// <param name="pile">What is best among like units, or null.</param>
    public static IReadOnlyList<string> First(LotBoard board, PileMove? pile)
    {
        var open = board.Rows.Where(r => r.Item is { State: LotState.Open, Apart: false }).ToList();
        if (open.Count < 2)
            return [];
        var said = new List<string>();
        var round = board.ToBegin.Count > 0 ? board.ToBegin[0] : null;
        if (round is not null && round.Items.Count >= Math.Max(2, Most * open.Count))
        {
            var some = round.Items.Count == open.Count ? $"all {open.Count}" : $"{round.Items.Count} of them";
            said.Add($"{MoveWords.Lower(round.Title)} on {some}, in one round.");
        }

        if (pile is { Number: > 0 })
            said.Add(Words(pile));
        else if (pile is not null)
            said.Add("None of the like ones is worth the hour as it stands.");
        if (!board.Lot.IsBatch && board.Sum.PartsWorth is { } parts && open.Exists(r => r.Item.PartsMore > 0))
            said.Add(
                parts.Value > 0
                    ? $"Parts for what is open are worth buying up to {parts} in all."
                    : "Buy no more parts for it: they bring less than the hours."
            );
        return said;
    }

    private static string Words(PileMove pile)
    {
        static string Percent(double share) => (share * 100).ToString("0", CultureInfo.InvariantCulture) + " %";
        var helps = pile.Helps is { } other ? $"{other.Number} ({Percent(other.Before)} → {Percent(other.After)})" : null;
        return pile.Step == PileStep.Donate
            ? $"Keep {pile.Number} for parts: it brings more in {helps ?? "another"} than cured."
            : $"Of the like ones begin with {pile.Number}: {Percent(pile.Chance)}"
                + (helps is null ? "." : $"; should it fail, its parts help {helps}.");
    }
}
