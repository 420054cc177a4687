using System.Globalization;

namespace Mendro.Core.Colours;

/// <summary>How far the outside of a shell has yellowed, by the inside that the sun never saw, in one picture.</summary>
/// <param name="Inside">The inside.</param>
/// <param name="Outside">The outside.</param>
/// <param name="WithCard">True when the light was put right by a grey card.</param>
public sealed record Yellowing(LabColour Inside, LabColour Outside, bool WithCard)
{
    /// <summary>Measures it.</summary>
    /// <param name="inside">Light of the inside.</param>
    /// <param name="outside">Light of the outside.</param>
    /// <param name="card">Light of a grey card in the same picture, or null.</param>
    public static Yellowing Of(LinearLight inside, LinearLight outside, LinearLight? card) =>
        card is { } grey ? new(inside.Under(grey).Lab, outside.Under(grey).Lab, true) : new(inside.Lab, outside.Lab, false);

    /// <summary>Difference, CIEDE2000.</summary>
    public double DeltaE => Inside.DeltaE(Outside);

    /// <summary>In plain words.</summary>
    public string Words =>
        string.Create(CultureInfo.InvariantCulture, $"ΔE {DeltaE:0.0} between inside and outside: {LabColour.Words(DeltaE)}")
        + (DeltaE < 1 ? ""
            : Outside.B - Inside.B > 1 ? ", the outside is yellower"
            : Outside.B - Inside.B < -1 ? ", the outside is bluer"
            : Outside.L < Inside.L ? ", the outside is darker"
            : ", the outside is lighter")
        + (WithCard ? "" : "; without a grey card the light of the lamp is in it");
}
