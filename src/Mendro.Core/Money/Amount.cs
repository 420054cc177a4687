using System.Globalization;
using Mendro.Core.Quantities;

namespace Mendro.Core.Money;

/// <summary>An amount of money; never a binary float, and never without its currency.</summary>
/// <param name="Value">Amount in the currency's main unit.</param>
/// <param name="Currency">Currency.</param>
public readonly record struct Amount(decimal Value, Currency Currency)
{
    private const decimal Most = 1_000_000;

    /// <summary>An amount in a currency by its code.</summary>
    public Amount(decimal value, string code)
        : this(value, new Currency(code)) { }

    /// <summary>Nothing, in a currency.</summary>
    public static Amount None(Currency currency) => new(0, currency);

    /// <summary>The amount as it can be paid: half away from zero, by the minor units of ISO 4217.</summary>
    public Amount Rounded() => this with { Value = Currency.Round(Value) };

    /// <summary>Adds amounts of one currency.</summary>
    /// <exception cref="InvalidOperationException">The currencies differ: nothing here knows a rate of exchange.</exception>
    public static Amount operator +(Amount one, Amount other) =>
        one.Currency == other.Currency
            ? one with
            {
                Value = one.Value + other.Value,
            }
            : throw new InvalidOperationException($"{one.Currency} and {other.Currency} cannot be added.");

    /// <summary>Takes a share or a multiple, not rounded.</summary>
    public static Amount operator *(Amount amount, decimal by) => amount with { Value = amount.Value * by };

    /// <summary>The amount as the bench writes it, such as <c>€6.40</c> or <c>12.00 PLN</c>; a minus stands before the sign.</summary>
    public override string ToString()
    {
        var rounded = Currency.Round(Value);
        var digits = Math.Abs(rounded).ToString("F" + Currency.MinorUnits, CultureInfo.InvariantCulture);
        var written = Currency.Sign is { } sign ? sign + digits : $"{digits} {Currency.Code}";
        return rounded < 0 ? "−" + written : written;
    }

    /// <summary>Reads an amount with decimal point or comma.</summary>
    /// <param name="text">What was typed; blank gives null with no problem.</param>
    /// <param name="currency">Currency; says how many digits may stand after the point.</param>
    /// <param name="amount">The amount, 0 to a million, or null.</param>
    /// <returns>Null when understood, else why not.</returns>
    public static string? TryRead(string? text, Currency currency, out Amount? amount)
    {
        amount = null;
        var typed = (text ?? "").Trim().TrimStart('€', '£', '$', '¥').Trim();
        if (typed.Length == 0)
            return null;
        if (NumberText.ReadDecimal(typed) is not { } value)
            return $"“{text}” is not an amount. Try {(currency.MinorUnits == 0 ? "640" : "6.40")}.";
        if (value > Most)
            return "That is more than a million; is it right?";
        if (currency.Round(value) != value)
        {
            return currency.MinorUnits == 0
                ? $"{currency.Code} has no digits after the point."
                : $"At most {(currency.MinorUnits == 2 ? "two" : currency.MinorUnits.ToString(CultureInfo.InvariantCulture))} digits after the point.";
        }

        amount = new Amount(value, currency);
        return null;
    }

    /// <summary>Reads several amounts of a form.</summary>
    /// <param name="texts">What was typed.</param>
    /// <param name="currency">Currency.</param>
    /// <param name="values">The amounts in the same order; null for a blank one.</param>
    /// <returns>Null when all are understood, else why the first of the others is not.</returns>
    public static string? TryRead(IReadOnlyList<string?> texts, Currency currency, out IReadOnlyList<decimal?> values)
    {
        var read = new List<decimal?>();
        values = read;
        foreach (var text in texts)
        {
            if (TryRead(text, currency, out var amount) is { } wrong)
                return wrong;
            read.Add(amount?.Value);
        }

        return null;
    }
}
