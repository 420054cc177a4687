using System.Globalization;
using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;

namespace Mendro.Core.Jobs;

/// <summary>What a unit drew from the bench supply; no evidence by itself.</summary>
/// <param name="Volts">Volts at the terminals.</param>
/// <param name="Amps">Amperes drawn.</param>
/// <param name="LimitAmps">Current limit, amperes.</param>
/// <param name="Meaning">What that means, in a sentence.</param>
/// <param name="Caution">Caution that it calls for, or null.</param>
[RecordKind("draw")]
public sealed record SupplyDraw(double Volts, double Amps, double LimitAmps, string Meaning, string? Caution) : RecordBody
{
    /// <inheritdoc/>
    public override string Subject => "";

    /// <inheritdoc/>
    public override RecordSign Sign => Caution is null ? RecordSign.Noted : RecordSign.Bad;

    /// <inheritdoc/>
    public override string UsualNote => Meaning;

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) =>
        string.Create(CultureInfo.InvariantCulture, $"Draw: {Reading.Format(Amps, "A")} at {Volts:0.##} V, limit {LimitAmps:0.###} A");

    /// <inheritdoc/>
    public override string Title(DeviceModel model, string words) => "Draw from the bench supply";

    /// <inheritdoc/>
    public override string Value(DeviceModel model) => Reading.Format(Amps, "A");

    /// <inheritdoc/>
    public override string Small(DeviceModel model, BenchRecord record) =>
        string.Create(CultureInfo.InvariantCulture, $"at {Volts:0.##} V, limit {LimitAmps:0.###} A");
}
