using System.Text.Json;
using Mendro.Core.Calculators;
using Mendro.Core.Diagnosis;

namespace Mendro.Core.Jobs;

/// <summary>A calculation filed for the record; no evidence by itself.</summary>
/// <param name="Calculator">Name of the calculator.</param>
/// <param name="Name">Its title.</param>
/// <param name="Text">Inputs and results in words.</param>
/// <param name="Inputs">Inputs by key, in the SI base units.</param>
/// <param name="Good">Its verdict; null for none.</param>
[RecordKind("calculation")]
public sealed record CalculationFiled(
    string Calculator,
    string Name,
    string Text,
    IReadOnlyDictionary<string, JsonElement> Inputs,
    bool? Good
) : RecordBody
{
    /// <inheritdoc/>
    public override string Subject => Calculator;

    /// <inheritdoc/>
    public override RecordSign Sign =>
        Good switch
        {
            true => RecordSign.Good,
            false => RecordSign.Bad,
            _ => RecordSign.Noted,
        };

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) => $"{Name}: {Text}";

    /// <inheritdoc/>
    public override string Title(DeviceModel model, string words) => Name;

    /// <inheritdoc/>
    public override string Small(DeviceModel model, BenchRecord record) => Text;
}
