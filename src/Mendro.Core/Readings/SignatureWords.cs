using Mendro.Core.Profiles;
using Mendro.Core.Quantities;

namespace Mendro.Core.Readings;

/// <summary>Signatures as the bench writes them.</summary>
public static class SignatureWords
{
    /// <summary>Median and spread: <c>5.02 V ± 0.03 V</c>; <c>OL</c> when most good units are over range.</summary>
    public static string Of(Signature signature, ProbeKind kind) => signature.Median is { } median
        ? Value(median, kind) + (signature.Spread > 0 ? " ± " + Value(signature.Spread, kind) : "")
        : "OL";

    /// <summary>A value in the unit of its kind of probe.</summary>
    public static string Value(double? value, ProbeKind kind) => value is not { } v ? "OL" : Reading.Format(v, kind switch
    {
        ProbeKind.Volts or ProbeKind.Diode => "V",
        ProbeKind.Capacitance => "F",
        ProbeKind.Current => "A",
        _ => "Ω",
    });
}
