using System.Globalization;

namespace Mendro.Core.Electrical;

/// <summary>An adapter: what it gives, or what a unit asks for.</summary>
/// <param name="Kind">ac or dc.</param>
/// <param name="Volts">Volts.</param>
/// <param name="Amps">Amperes: what it can give, or what is needed.</param>
/// <param name="Polarity">centre-negative or centre-positive, of DC; a unit may also want any.</param>
public sealed record AdapterRating(string Kind, double Volts, double Amps, string? Polarity);

/// <summary>How bad it would be to plug an adapter in.</summary>
public enum AdapterVerdict
{
    /// <summary>All four fit.</summary>
    Fits,

    /// <summary>Harmless, but it gives too little.</summary>
    Weak,

    /// <summary>Not the right one: it would not work, or not well.</summary>
    Wrong,

    /// <summary>It can destroy the unit.</summary>
    Dangerous,
}

/// <summary>Whether an adapter fits a unit. AC or DC, volts, polarity and current are each judged; the worst counts.</summary>
/// <param name="Verdict">Verdict.</param>
/// <param name="Reasons">One sentence a point.</param>
public sealed record AdapterFit(AdapterVerdict Verdict, IReadOnlyList<string> Reasons)
{
    /// <summary>Judges an adapter. Within ±10 % volts fit; more than 20 % over is dangerous, less than 75 % will not run (common
    /// practice, no source).</summary>
    public static AdapterFit Judge(AdapterRating has, AdapterRating needs)
    {
        var reasons = new List<string>();
        var worst = AdapterVerdict.Fits;
        void Say(AdapterVerdict verdict, string reason)
        {
            worst = verdict > worst ? verdict : worst;
            reasons.Add(reason);
        }

        var inv = CultureInfo.InvariantCulture;
        if (has.Kind != needs.Kind)
        {
            if (has.Kind == "ac")
                Say(AdapterVerdict.Dangerous, "It gives AC and the unit wants DC: every other half-wave is reversed.");
            else
                Say(AdapterVerdict.Wrong, "It gives DC and the unit wants AC: supplies made from both half-waves stay away.");
        }
        else if (has.Kind == "dc")
        {
            if (needs.Polarity == "any")
                reasons.Add("The unit takes either polarity.");
            else if (has.Polarity != needs.Polarity)
                Say(AdapterVerdict.Dangerous, $"The polarity is reversed: {has.Polarity}, the unit wants {needs.Polarity}.");
            else
                reasons.Add($"The polarity fits: {has.Polarity}.");
        }

        var ratio = has.Volts / needs.Volts;
        var volts = string.Create(inv, $"{has.Volts:0.##} V where {needs.Volts:0.##} V is wanted");
        if (ratio > 1.2 + 1e-9)
            Say(AdapterVerdict.Dangerous, $"Far too high: {volts}.");
        else if (ratio > 1.1 + 1e-9)
            Say(AdapterVerdict.Wrong, $"Too high: {volts}; the regulator has to burn the rest.");
        else if (ratio < 0.75 - 1e-9)
            Say(AdapterVerdict.Wrong, $"Far too low: {volts}; it will not run.");
        else if (ratio < 0.9 - 1e-9)
            Say(AdapterVerdict.Weak, $"Too low: {volts}; it may drop out under load.");
        else
            reasons.Add($"The volts fit: {volts}.");
        var amps = string.Create(inv, $"{has.Amps:0.###} A where {needs.Amps:0.###} A is needed");
        if (has.Amps < needs.Amps - 1e-9)
            Say(AdapterVerdict.Weak, $"Too little current: {amps}; it sags, hums or overheats.");
        else
            reasons.Add($"The current is enough: {amps}.");
        return new AdapterFit(worst, reasons);
    }
}
