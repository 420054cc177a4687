using Mendro.Core.Readings;
using static Mendro.Web.Drawing.Svg;

namespace Mendro.Web.Drawing;

/// <summary>Where a reading stands among the good units: a strip of spreads about their median.</summary>
internal static class SignatureStrip
{
    private const double End = 6;

    /// <summary>Draws it; what lies beyond six spreads stands at the end as an arrow.</summary>
    /// <param name="spreads">Spreads away from the median, with sign.</param>
    public static string Draw(double spreads)
    {
        static double X(double away) => 80 + away / End * 70;
        var at = X(Math.Clamp(spreads, -End, End));
        var svg = new Svg(160, 22, $"{SignatureWords.Away(spreads)} the median of good units, alike up to {Signature.LineInSpreads:0}")
            .Path("M4 11H156", "strip-line")
            .Box(X(-Signature.LineInSpreads), 5, X(Signature.LineInSpreads) - X(-Signature.LineInSpreads), 12, "strip-alike")
            .Path($"M{At(X(0))} 2v18", "strip-line");
        var bad = Math.Abs(spreads) > Signature.LineInSpreads ? " bad" : "";
        return (
            Math.Abs(spreads) <= End
                ? svg.Dot(at, 11, 5, "strip-dot" + bad)
                : svg.Path(spreads < 0 ? $"M{At(at - 6)} 11l11 -7v14z" : $"M{At(at + 6)} 11l-11 -7v14z", "strip-dot" + bad)
        ).ToString();
    }
}
