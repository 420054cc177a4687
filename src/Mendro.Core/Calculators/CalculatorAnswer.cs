using Mendro.Core.Library;

namespace Mendro.Core.Calculators;

/// <summary>One result.</summary>
/// <param name="Name">Name, as the machine output has it.</param>
/// <param name="Label">Name, as a page shows it.</param>
/// <param name="Value">A double, a string or a list of strings.</param>
/// <param name="Unit">Unit of a number; SI base units are shown with a prefix.</param>
public sealed record CalculatorOutput(string Name, string Label, object Value, string Unit = "");

/// <summary>What a calculator answers.</summary>
/// <param name="Outputs">Results in order.</param>
/// <param name="Verdict">Verdict in a word or two, or null.</param>
/// <param name="Good">Whether the verdict is a good one; null when there is none or it is neither.</param>
/// <param name="Caution">Caution of the library to show, or null.</param>
/// <param name="Source">Where the figures of this very answer come from, when the calculator chooses among several; else null.</param>
public sealed record CalculatorAnswer(
    IReadOnlyList<CalculatorOutput> Outputs,
    string? Verdict = null,
    bool? Good = null,
    string? Caution = null,
    string? Source = null
)
{
    /// <summary>Number of an output.</summary>
    /// <exception cref="InvalidOperationException">There is no such number.</exception>
    public double Number(string name) => (double)Outputs.Single(o => o.Name == name).Value;
}

/// <summary>A calculator run on its inputs.</summary>
/// <param name="Calculator">Calculator.</param>
/// <param name="Inputs">Inputs as read, standard values among them: strings and doubles.</param>
/// <param name="Answer">Answer.</param>
public sealed record Calculation(Calculator Calculator, IReadOnlyDictionary<string, object> Inputs, CalculatorAnswer Answer)
{
    /// <summary>Source of formula and figures.</summary>
    public string Source => Answer.Source ?? Calculator.Source;
}
