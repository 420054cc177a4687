using System.Globalization;
using Mendro.Core.Colours;
using Mendro.Core.Diagnosis;

namespace Mendro.Core.Jobs;

/// <summary>Yellowing measured in a picture.</summary>
/// <param name="Picture">Picture, by its hash.</param>
/// <param name="Inside">L, a and b of the inside.</param>
/// <param name="Outside">L, a and b of the outside.</param>
/// <param name="Card">True when a grey card was in it.</param>
/// <param name="DeltaE">Difference, CIEDE2000.</param>
[RecordKind("colour-measured")]
public sealed record ColourMeasured(string Picture, IReadOnlyList<double> Inside, IReadOnlyList<double> Outside, bool Card, double DeltaE)
    : RecordBody
{
    /// <summary>Of what was measured.</summary>
    public static ColourMeasured Of(string picture, Yellowing seen) =>
        new(picture, Three(seen.Inside), Three(seen.Outside), seen.WithCard, Math.Round(seen.DeltaE, 2));

    /// <inheritdoc/>
    public override string Subject => "shell";

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) =>
        string.Create(CultureInfo.InvariantCulture, $"Shell, outside against inside: ΔE {DeltaE:0.0}, {LabColour.Words(DeltaE)}")
        + (Card ? "" : " (no grey card)");

    /// <inheritdoc/>
    public override string Title(DeviceModel model, string words) => "Yellowing";

    /// <inheritdoc/>
    public override string Value(DeviceModel model) => string.Create(CultureInfo.InvariantCulture, $"ΔE {DeltaE:0.0}");

    private static double[] Three(LabColour lab) => [Math.Round(lab.L, 2), Math.Round(lab.A, 2), Math.Round(lab.B, 2)];
}
