using System.Globalization;
using Mendro.Core.Quantities;

namespace Mendro.Core.Calculators;

/// <summary>What a calculator asks for under one name.</summary>
/// <param name="Name">Name, as the command line takes it.</param>
/// <param name="Label">Name, as a form shows it.</param>
/// <param name="Unit">Unit: V, A, Ω, F, Hz take prefixes, 1 is a bare number that takes them; empty for fractions and texts.</param>
/// <param name="Example">A value to begin with.</param>
public sealed record CalculatorKey(string Name, string Label, string Unit, string Example)
{
    /// <summary>Value taken when nothing is given; null when the key stays empty or is required.</summary>
    public string? Standard { get; init; }

    /// <summary>True when it may stay empty without a standard value.</summary>
    public bool Optional { get; init; }

    /// <summary>Lowest value; exclusive when <see cref="Above"/>.</summary>
    public double Low { get; init; } = double.NegativeInfinity;

    /// <summary>Highest value; exclusive when <see cref="Below"/>.</summary>
    public double High { get; init; } = double.PositiveInfinity;

    /// <summary>True when the lowest value itself is not allowed.</summary>
    public bool Above { get; init; }

    /// <summary>True when the highest value itself is not allowed.</summary>
    public bool Below { get; init; }

    /// <summary>True for whole numbers.</summary>
    public bool Whole { get; init; }

    /// <summary>True for a text, such as a printed code.</summary>
    public bool IsText { get; init; }

    /// <summary>The words to choose from, when it is a choice.</summary>
    public IReadOnlyList<string>? Choices { get; init; }

    /// <summary>A word of help.</summary>
    public string Help { get; init; } = "";

    /// <summary>Reads what was given.</summary>
    /// <returns>A string or a boxed double, or a message that names the key.</returns>
    public Outcome<object> Read(string given)
    {
        var text = given.Trim();
        if (text.Length > 100)
            return Fail("that is too long.");
        if (Choices is not null)
            return Choices.FirstOrDefault(c => c.Equals(text, StringComparison.OrdinalIgnoreCase)) is { } chosen
                ? Outcome<object>.Ok(chosen)
                : Fail($"“{text}” is not one of {string.Join(", ", Choices)}.");
        if (IsText)
            return Outcome<object>.Ok(text);
        if (QuantityText.Parse(text, Unit) is not { } value || !double.IsFinite(value))
            return Fail($"“{text}” is not a number{(Spaced.Length > 0 ? " in" + Spaced : "")}. Try {Example}.");
        if (Whole && Math.Abs(value - Math.Round(value)) > 0)
            return Fail($"“{text}” is not a whole number.");
        if (value < Low || (Above && value <= Low))
            return Fail($"must be {(Above ? "above" : "at least")} {Number(Low)}{Spaced}.");
        if (value > High || (Below && value >= High))
            return Fail($"must be {(Below ? "below" : "at most")} {Number(High)}{Spaced}.");
        return Outcome<object>.Ok(value);
    }

    private string Spaced => Unit is "" or "1" ? "" : " " + Unit;

    private Outcome<object> Fail(string problem) => Outcome<object>.Fail($"{Name}: {problem}");

    private static string Number(double value) => value.ToString("G9", CultureInfo.InvariantCulture);
}
