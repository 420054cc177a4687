using Mendro.Core.Money;

namespace Mendro.Shop;

/// <summary>Gain of units that went, by model or sort of end.</summary>
/// <param name="Name">Model, or sort.</param>
/// <param name="Units">Units.</param>
/// <param name="Minutes">Minutes worked on them.</param>
/// <param name="Gain">Income less cost, of all their time here like the minutes.</param>
public sealed record GainLine(string Name, int Units, double Minutes, Amount Gain)
{
    /// <summary>The same an hour; null without work.</summary>
    public Amount? AnHour => Minutes > 0 ? (Gain * (decimal)(60 / Minutes)).Rounded() : null;
}

/// <summary>A unit that lies about.</summary>
/// <param name="Number">Number of its job.</param>
/// <param name="Name">What it is.</param>
/// <param name="Days">Days since it came in.</param>
/// <param name="Bound">Money bound in it: paid and parts are not told apart here.</param>
public sealed record AgeingUnit(long Number, string Name, int Days, Amount Bound);

/// <summary>The books of a month.</summary>
/// <param name="Month">Its first day.</param>
/// <param name="Entries">Entries, by day.</param>
/// <param name="Sums">Sums by account.</param>
/// <param name="ByModel">Gain by model, the best hour first.</param>
/// <param name="ByKind">Gain by what became of the units.</param>
/// <param name="LeftOut">Jobs in currencies without a rate.</param>
public sealed record MonthBooks(
    DateOnly Month,
    IReadOnlyList<BookEntry> Entries,
    IReadOnlyDictionary<Account, decimal> Sums,
    IReadOnlyList<GainLine> ByModel,
    IReadOnlyList<GainLine> ByKind,
    IReadOnlyList<long> LeftOut
)
{
    /// <summary>Income less cost.</summary>
    public decimal Gain => Entries.Sum(e => e.Gain);

    /// <summary>What of it is of no unit that went, or of such units in another time: postage, counted stock, parts in units that are still
    /// here, less what was booked of the units earlier or later.</summary>
    public decimal OfNoUnit => Gain - ByModel.Sum(l => l.Gain.Value);
}
