using System.Globalization;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;

namespace Mendro.Core.Readings;

/// <summary>The SCPI words for what a probe needs, and what comes back (SCPI-99; IEEE 488.2 number formats).</summary>
public static class MeterDialect
{
    /// <summary>A reply of this size or more is an overload, in SCPI 9.9E37.</summary>
    public const double Overload = 9.8e37;

    // Bench meters sound the buzzer up to about 10 Ω; above that it is a reading, not a beep.
    private const double BeepOhms = 10;

    /// <summary>The measuring function as a SCPI node, or null when no meter answers this kind of probe.</summary>
    public static string? Function(ProbeKind kind) => TradeLibrary.Of(kind).Meter;

    /// <summary>The measuring function at a probe: an AC adapter is measured in AC, everything behind a rectifier in DC.</summary>
    public static string? Function(DeviceProfile profile, Probe probe) =>
        probe.Kind == ProbeKind.Volts
        && profile.Supply?.AdapterKind == "ac"
        && profile.FindPart(probe.At ?? "") is { } part
        && TradeLibrary.Shipped.Has(part.Kind, PartRole.Adapter)
            ? "VOLT:AC"
            : Function(probe.Kind);

    /// <summary>Reads a reply to <c>READ?</c>.</summary>
    /// <param name="reply">One line.</param>
    /// <param name="kind">What the meter was set to.</param>
    /// <returns>The reading, or why the line is none.</returns>
    public static Outcome<Reading> Parse(string reply, ProbeKind kind)
    {
        // A list is a burst of readings; the last is the newest.
        var text = reply.Trim().Split(',')[^1].Trim();
        if (!double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out var value) || !double.IsFinite(value))
            return Outcome<Reading>.Fail($"The meter answered “{Shorten(reply)}”, which is no reading.");
        if (Math.Abs(value) >= Overload)
            return Outcome<Reading>.Ok(new Reading(ReadingUnit.OverRange, null));
        // A meter at the buzzer answers in ohms.
        var unit = TradeLibrary.Of(kind).Assumes;
        return Outcome<Reading>.Ok(new Reading(unit == ReadingUnit.Beep ? ReadingUnit.Ohms : unit, value));
    }

    /// <summary>The reading as it would be typed into the bar; unambiguous, so that it is judged like a typed one.</summary>
    public static string Typed(Reading reading, ProbeKind kind) =>
        reading switch
        {
            { Unit: ReadingUnit.OverRange } => "OL",
            { Unit: ReadingUnit.Ohms, Value: <= BeepOhms } when kind == ProbeKind.Continuity => string.Create(
                CultureInfo.InvariantCulture,
                $"{Math.Max(0, reading.Value!.Value):0.##} Ω"
            ),
            // Below a volt the last digit that means anything at a bench is the millivolt.
            { Unit: ReadingUnit.Volts, Value: { } v } when Math.Abs(v) < 1 => new Reading(ReadingUnit.Volts, Math.Round(v, 3)).ToString(),
            _ => reading.ToString(),
        };

    private static string Shorten(string text) => text.Length > 30 ? text[..30] + "…" : text;
}
