using System.Globalization;
using Mendro.Core.Diagnosis;
using Mendro.Core.Methods;

namespace Mendro.Core.Jobs;

/// <summary>Something was put on the unit, or it was rinsed or dried.</summary>
/// <param name="Done">What; heat and power are not filed.</param>
/// <param name="On">Part that was treated, or null.</param>
[RecordKind("material")]
public sealed record MaterialUsed(SequenceStep Done, string? On = null) : RecordBody
{
    /// <inheritdoc/>
    public override string Subject => On ?? "";

    /// <inheritdoc/>
    public override RecordSign Sign => RecordSign.Done;

    /// <summary>A step of a sequence in words.</summary>
    public static string Words(SequenceStep step)
    {
        var library = MaterialLibrary.Shipped;
        return step switch
        {
            { Agent: { } agent } =>
                $"{library.FindAgent(agent)?.Name ?? agent} on {library.FindSurface(step.Surface)?.Name ?? step.Surface ?? "?"}",
            { Rinse: true } => "Rinse",
            { Dry: { } minutes, Enough: true } => string.Create(CultureInfo.InvariantCulture, $"Dry after {minutes:0.#} min, judged enough"),
            { Dry: { } minutes } => string.Create(CultureInfo.InvariantCulture, $"Dry, {minutes:0.#} min"),
            { Heat: { } celsius } => string.Create(CultureInfo.InvariantCulture, $"Heat, {celsius:0} °C"),
            _ => "Power on",
        };
    }

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) =>
        Words(Done) + (model.Profile.Parts.FirstOrDefault(p => p.Id == On) is { } part ? $" ({MoveWords.Lower(part.Name)})" : "");
}
