using System.Globalization;

namespace Mendro.Core.Money;

/// <summary>An amount of money in a currency.</summary>
/// <param name="Amount">Amount; never a binary float.</param>
/// <param name="Currency">ISO 4217 code, three capital letters.</param>
public readonly record struct Price(decimal Amount, string Currency)
{
    /// <summary>Currencies offered in pick lists; any three-letter code is accepted.</summary>
    public static IReadOnlyList<string> Common { get; } = ["EUR", "GBP", "USD", "JPY", "CHF", "SEK", "PLN", "CZK", "CAD", "AUD"];

    /// <summary>The amount as the bench writes it, such as <c>€6.40</c> or <c>12.00 PLN</c>.</summary>
    public override string ToString()
    {
        var digits = Currency == "JPY" ? "0" : "0.00";
        var amount = Amount.ToString(digits, CultureInfo.InvariantCulture);
        return Currency switch
        {
            "EUR" => "€" + amount,
            "GBP" => "£" + amount,
            "USD" => "$" + amount,
            "JPY" => "¥" + amount,
            _ => $"{amount} {Currency}",
        };
    }

    /// <summary>Parses an amount with decimal point or comma.</summary>
    /// <param name="text">What was typed; blank gives null with no problem.</param>
    /// <param name="amount">The amount, or null.</param>
    /// <returns>Null when understood, else why not.</returns>
    public static string? TryAmount(string? text, out decimal? amount)
    {
        amount = null;
        var typed = (text ?? "").Trim().TrimStart('€', '£', '$', '¥').Trim();
        if (typed.Length == 0) return null;
        if (!decimal.TryParse(typed.Replace(',', '.'), NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var value))
            return $"“{text}” is not an amount. Try 6.40.";
        if (value > 1_000_000) return "That is more than a million; is it right?";
        if (decimal.Round(value, 2) != value) return "At most two digits after the point.";
        amount = value;
        return null;
    }

    /// <summary>True for three capital letters.</summary>
    public static bool IsCurrency(string? code) => code is { Length: 3 } && code.All(char.IsAsciiLetterUpper);
}
