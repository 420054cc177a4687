namespace Mendro.Core.Electrical;

/// <summary>What an AC adapter gives behind a bridge and a reservoir capacitor.</summary>
/// <param name="PeakVolts">Peak: √2 × V less two diode drops, volts.</param>
/// <param name="RippleVolts">Ripple of full-wave rectification: I / (2 f C), volts; null without a load.</param>
public sealed record Rectifier(double PeakVolts, double? RippleVolts)
{
    /// <summary>Computes a bridge rectifier.</summary>
    /// <param name="acVolts">AC volts, r.m.s.</param>
    /// <param name="diodeDropVolts">Drop of one diode, volts.</param>
    /// <param name="load">Load in amperes, reservoir in farads and mains frequency in hertz; or null.</param>
    public static Rectifier At(double acVolts, double diodeDropVolts, (double Amps, double Farads, double Hertz)? load) =>
        new(Math.Max(0, Math.Sqrt(2) * acVolts - 2 * diodeDropVolts), load is { } l ? l.Amps / (2 * l.Hertz * l.Farads) : null);
}
