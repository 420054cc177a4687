using System.Globalization;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;

namespace Mendro.Core.Readings;

/// <summary>Signatures as the bench writes them.</summary>
public static class SignatureWords
{
    /// <summary>Median and spread: <c>5.02 V ± 0.03 V</c>; <c>OL</c> when most good units are over range.</summary>
    public static string Of(Signature signature, ProbeKind kind) =>
        signature.Median is { } median
            ? Value(median, kind) + (signature.Spread > 0 ? " ± " + Value(TwoDigits(signature.Spread), kind) : "")
            : "OL";

    /// <summary>How far a reading is from the median: <c>3.2 spreads above</c>.</summary>
    public static string Away(double spreads) =>
        string.Create(CultureInfo.InvariantCulture, $"{Math.Abs(spreads):0.#} spreads {(spreads < 0 ? "below" : "above")}");

    /// <summary>A value in the unit of its kind of probe.</summary>
    public static string Value(double? value, ProbeKind kind) =>
        value is not { } v ? "OL"
        // A contact is told in hundredths of an ohm, not in milliohms.
        : kind == ProbeKind.Continuity && Math.Abs(v) < 10 ? string.Create(CultureInfo.InvariantCulture, $"{v:0.00} Ω")
        : Reading.Format(v, TradeLibrary.Of(kind).Shown);

    private static double TwoDigits(double value)
    {
        var scale = Math.Pow(10, Math.Floor(Math.Log10(value)) - 1);
        return Math.Round(value / scale) * scale;
    }
}
