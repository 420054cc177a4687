namespace Mendro.Core.Calculators;

/// <summary>The inputs of a calculator, read and within their ranges.</summary>
public sealed class CalculatorInputs(IReadOnlyDictionary<string, object> values)
{
    /// <summary>A number that is required or has a standard value.</summary>
    public double this[string name] => (double)values[name];

    /// <summary>A number that may be missing.</summary>
    public double? Maybe(string name) => values.TryGetValue(name, out var value) ? (double)value : null;

    /// <summary>A text or choice.</summary>
    public string Text(string name) => (string)values[name];

    /// <summary>A text or choice that may be missing.</summary>
    public string? MaybeText(string name) => values.TryGetValue(name, out var value) ? (string)value : null;
}
