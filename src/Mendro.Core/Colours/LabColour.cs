namespace Mendro.Core.Colours;

/// <summary>A colour as the eye orders it: CIELAB under D65.</summary>
/// <param name="L">Lightness, 0 black to 100 white.</param>
/// <param name="A">Green to red.</param>
/// <param name="B">Blue to yellow.</param>
public readonly record struct LabColour(double L, double A, double B)
{
    private const double Seventh = 6103515625; // 25⁷
    private const double WhiteX = 0.95047;
    private const double WhiteZ = 1.08883;

    /// <summary>Chroma.</summary>
    public double Chroma => Math.Sqrt(A * A + B * B);

    /// <summary>A colour of a picture (sRGB, IEC 61966-2-1).</summary>
    /// <param name="red">Red, 0 to 255.</param>
    /// <param name="green">Green, 0 to 255.</param>
    /// <param name="blue">Blue, 0 to 255.</param>
    public static LabColour FromSrgb(double red, double green, double blue)
    {
        var light = LinearLight.FromSrgb(red, green, blue);
        return FromLinear(light.Red, light.Green, light.Blue);
    }

    /// <summary>The same from linear light, 0 to 1 each.</summary>
    internal static LabColour FromLinear(double r, double g, double b)
    {
        static double F(double t) => t > 216.0 / 24389 ? Math.Cbrt(t) : (24389.0 / 27 * t + 16) / 116;

        var x = F((0.4124564 * r + 0.3575761 * g + 0.1804375 * b) / WhiteX);
        var y = F(0.2126729 * r + 0.7151522 * g + 0.0721750 * b);
        var z = F((0.0193339 * r + 0.1191920 * g + 0.9503041 * b) / WhiteZ);
        return new LabColour(116 * y - 16, 500 * (x - y), 200 * (y - z));
    }

    /// <summary>Colour difference CIEDE2000 (CIE 142-2001; Sharma, Wu and Dalal, Color Research and Application 30, 2005).</summary>
    public double DeltaE(LabColour other)
    {
        var mean7 = Math.Pow((Chroma + other.Chroma) / 2, 7);
        var g = 0.5 * (1 - Math.Sqrt(mean7 / (mean7 + Seventh)));
        var (one, two) = ((1 + g) * A, (1 + g) * other.A);
        var (c1, c2) = (Math.Sqrt(one * one + B * B), Math.Sqrt(two * two + other.B * other.B));
        var (h1, h2) = (Hue(one, B), Hue(two, other.B));
        var isGrey = c1 * c2 == 0;
        var turn = isGrey ? 0 : h2 - h1;
        if (turn > 180)
            turn -= 360;
        else if (turn < -180)
            turn += 360;
        var (dL, dC, dH) = (other.L - L, c2 - c1, 2 * Math.Sqrt(c1 * c2) * Sin(turn / 2));
        var (meanL, meanC) = ((L + other.L) / 2, (c1 + c2) / 2);
        var meanH =
            isGrey ? h1 + h2
            : Math.Abs(h1 - h2) <= 180 ? (h1 + h2) / 2
            : h1 + h2 < 360 ? (h1 + h2 + 360) / 2
            : (h1 + h2 - 360) / 2;
        var t = 1 - 0.17 * Cos(meanH - 30) + 0.24 * Cos(2 * meanH) + 0.32 * Cos(3 * meanH + 6) - 0.20 * Cos(4 * meanH - 63);
        var off = (meanL - 50) * (meanL - 50);
        var (sL, sC, sH) = (1 + 0.015 * off / Math.Sqrt(20 + off), 1 + 0.045 * meanC, 1 + 0.015 * meanC * t);
        var c7 = Math.Pow(meanC, 7);
        var twist = -Sin(60 * Math.Exp(-Math.Pow((meanH - 275) / 25, 2))) * 2 * Math.Sqrt(c7 / (c7 + Seventh));
        var (l, c, h) = (dL / sL, dC / sC, dH / sH);
        return Math.Sqrt(l * l + c * c + h * h + twist * c * h);
    }

    /// <summary>A difference in plain words (common practice, no source).</summary>
    public static string Words(double deltaE) =>
        deltaE switch
        {
            < 1 => "not to be seen",
            < 2 => "seen only side by side",
            < 5 => "seen at a second glance",
            < 10 => "seen at once",
            < 20 => "another shade",
            _ => "another colour",
        };

    private static double Hue(double a, double b)
    {
        if (a == 0 && b == 0)
            return 0;
        var degrees = Math.Atan2(b, a) * 180 / Math.PI;
        return degrees < 0 ? degrees + 360 : degrees;
    }

    private static double Sin(double degrees) => Math.Sin(degrees * Math.PI / 180);

    private static double Cos(double degrees) => Math.Cos(degrees * Math.PI / 180);
}
