using Mendro.Core.Money;

namespace Mendro.Core.Lots;

/// <summary>How a price is spread over the items of a lot.</summary>
public enum SpreadWay
{
    /// <summary>The same for each.</summary>
    Equal,

    /// <summary>By what each would be worth when it works.</summary>
    Worth,

    /// <summary>By what each weighs in the shop's eyes.</summary>
    Weight,
}

/// <summary>Spreads a price so that the shares add up to the last cent.</summary>
public static class PriceSpread
{
    /// <summary>
    /// Shares in proportion to weights. What is lost by rounding down goes to those that lost most by it, the first of equals (largest
    /// remainders, Hamilton's method of apportionment).
    /// </summary>
    /// <param name="price">Price, 0 or more, as it can be paid.</param>
    /// <param name="weights">Weight of each, 0 or more; all 0 count as equal.</param>
    public static IReadOnlyList<Amount> Of(Amount price, IReadOnlyList<decimal> weights)
    {
        if (weights.Count == 0)
            return [];
        var all = weights.Sum();
        var told = all > 0 ? weights : weights.Select(_ => 1m).ToList();
        var sum = all > 0 ? all : weights.Count;
        var unit = 1m;
        for (var n = 0; n < price.Currency.MinorUnits; n++)
            unit /= 10;
        var exact = told.Select(w => price.Value * w / sum).ToList();
        var shares = exact.Select(e => Math.Floor(e / unit) * unit).ToList();
        var left = (int)Math.Round((price.Value - shares.Sum()) / unit);
        foreach (var n in Enumerable.Range(0, shares.Count).OrderByDescending(n => exact[n] - shares[n]).ThenBy(n => n).Take(left))
            shares[n] += unit;
        return shares.Select(s => new Amount(s, price.Currency)).ToList();
    }
}
