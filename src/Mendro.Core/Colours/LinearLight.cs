namespace Mendro.Core.Colours;

/// <summary>Light of a place in a picture: linear, sRGB primaries, 0 to 1.</summary>
/// <param name="Red">Red.</param>
/// <param name="Green">Green.</param>
/// <param name="Blue">Blue.</param>
public readonly record struct LinearLight(double Red, double Green, double Blue)
{
    /// <summary>Share of light that a photographer's grey card gives back (18 %, usual for such cards).</summary>
    public const double GreyCard = 0.18;

    /// <summary>Undoes the coding of a picture (sRGB, IEC 61966-2-1).</summary>
    /// <param name="red">Red, 0 to 255.</param>
    /// <param name="green">Green, 0 to 255.</param>
    /// <param name="blue">Blue, 0 to 255.</param>
    public static LinearLight FromSrgb(double red, double green, double blue)
    {
        static double Linear(double v) => v / 255 is var c && c <= 0.04045 ? c / 12.92 : Math.Pow((c + 0.055) / 1.055, 2.4);
        return new LinearLight(Linear(red), Linear(green), Linear(blue));
    }

    /// <summary>The same place under a light in which a grey card would be grey: each colour is scaled for itself (von Kries).</summary>
    /// <param name="card">The card in the same picture.</param>
    public LinearLight Under(LinearLight card) =>
        new(Red * GreyCard / Least(card.Red), Green * GreyCard / Least(card.Green), Blue * GreyCard / Least(card.Blue));

    /// <summary>As the eye orders it.</summary>
    public LabColour Lab => LabColour.FromLinear(Red, Green, Blue);

    // A card in the dark would make everything endless.
    private static double Least(double light) => Math.Max(light, 0.001);
}
