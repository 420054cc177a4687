using System.Globalization;
using Mendro.Core.Quantities;

namespace Mendro.Core.Money;

/// <summary>What one like it was sold for elsewhere.</summary>
/// <param name="Day">Day.</param>
/// <param name="Grade">Its condition.</param>
/// <param name="Price">Price.</param>
/// <param name="Words">What it was, up to 120 characters.</param>
public sealed record ComparablePrice(DateOnly Day, ConditionGrade Grade, Amount Price, string Words);

/// <summary>Prices of others as CSV: <c>date,condition,price,words</c>; the date as 2026-11-26.</summary>
public static class ComparableFile
{
    /// <summary>Most rows of a file.</summary>
    public const int MostRows = 2000;

    /// <summary>Longest words, characters.</summary>
    public const int LongestWords = 120;

    private static readonly string[] Columns = ["date", "condition", "price"];

    /// <summary>Writes them.</summary>
    public static string Write(IEnumerable<ComparablePrice> prices) =>
        CsvTable.Write(
            [.. Columns, "words"],
            prices.Select(p =>
                (IReadOnlyList<string>)
                    [
                        DayText.Write(p.Day),
                        p.Grade.Id,
                        p.Price.Value.ToString(CultureInfo.InvariantCulture),
                        SpreadsheetText.Write(p.Words),
                    ]
            )
        );

    /// <summary>Reads a file.</summary>
    /// <param name="text">The file.</param>
    /// <param name="currency">Currency of its prices.</param>
    /// <param name="today">Today; a later day is none of a sale.</param>
    /// <param name="problems">Every line that could not be read, with its number.</param>
    public static IReadOnlyList<ComparablePrice> Read(string text, Currency currency, DateOnly today, out IReadOnlyList<string> problems) =>
        CsvTable.Read(
            text,
            MostRows,
            columns => Columns.All(columns.Contains) ? null : $"the columns must be {string.Join(", ", Columns)}, and words if you like.",
            field => Line(field, currency, today),
            out problems
        );

    /// <summary>Reads one price.</summary>
    /// <param name="day">Day, as 2026-11-26.</param>
    /// <param name="condition">Grade, by id or name.</param>
    /// <param name="price">Price.</param>
    /// <param name="words">What it was.</param>
    /// <param name="currency">Currency.</param>
    /// <param name="today">Today.</param>
    public static Outcome<ComparablePrice> One(string day, string condition, string price, string words, Currency currency, DateOnly today)
    {
        if (DayText.Read(day.Trim()) is not { } on)
            return Outcome<ComparablePrice>.Fail($"“{day}” is no date such as 2026-11-26.");
        if (on > today)
            return Outcome<ComparablePrice>.Fail($"“{day}” is still to come.");
        if (ConditionGrade.Find(condition) is not { } grade)
            return Outcome<ComparablePrice>.Fail(
                $"“{condition}” is no condition; known: {string.Join(", ", ConditionGrade.All.Select(g => g.Id))}."
            );
        if (Amount.TryRead(price, currency, out var amount) is { } wrong)
            return Outcome<ComparablePrice>.Fail(wrong);
        if (amount is not { Value: > 0 } fetched)
            return Outcome<ComparablePrice>.Fail("the price is missing, or nothing.");
        return words.Length > LongestWords
            ? Outcome<ComparablePrice>.Fail($"the words take {LongestWords} characters.")
            : Outcome<ComparablePrice>.Ok(new ComparablePrice(on, grade, fetched, words.Trim()));
    }

    private static Outcome<ComparablePrice> Line(Func<string, string> field, Currency currency, DateOnly today) =>
        One(field("date"), field("condition"), field("price"), field("words"), currency, today);
}
