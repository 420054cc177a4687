using Mendro.Core.Money;

namespace Mendro.Core.Stock;

/// <summary>Parts that came at one price and are still there.</summary>
/// <param name="Count">How many, above nothing.</param>
/// <param name="Value">What they cost together.</param>
public sealed record StockLayer(int Count, decimal Value);

/// <summary>
/// What the parts of a bin cost: first in, first out (IAS 2, paragraph 27). Shares of a layer are rounded to the smallest coin and what is
/// left keeps the rest, so that all that went in comes out again to the cent.
/// </summary>
public static class StockLayers
{
    /// <summary>Layers that are left after movements in their order.</summary>
    /// <param name="moves">Change and, for what came, its value; of what went the value is not asked.</param>
    /// <param name="currency">Currency.</param>
    public static IReadOnlyList<StockLayer> Left(IEnumerable<(int Change, decimal Value)> moves, Currency currency)
    {
        var left = new List<StockLayer>();
        foreach (var (change, value) in moves)
            if (change > 0)
                left.Add(new StockLayer(change, value));
            else
                left = [.. Take(left, -change, currency).Left];
        return left;
    }

    /// <summary>Takes parts out, the oldest first. What is not there costs nothing.</summary>
    /// <returns>What they cost, and what is left.</returns>
    public static (decimal Cost, IReadOnlyList<StockLayer> Left) Take(IReadOnlyList<StockLayer> layers, int count, Currency currency)
    {
        var (cost, left) = (0m, new List<StockLayer>());
        foreach (var layer in layers)
        {
            var taken = Math.Min(count, layer.Count);
            count -= taken;
            var share = taken == layer.Count ? layer.Value : currency.Round(layer.Value * taken / layer.Count);
            cost += share;
            if (taken < layer.Count)
                left.Add(new StockLayer(layer.Count - taken, layer.Value - share));
        }

        return (cost, left);
    }
}
