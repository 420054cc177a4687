using System.Globalization;
using Mendro.Core.Electrical;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;

namespace Mendro.Core.Readings;

/// <summary>A reading judged against what the probe should show.</summary>
/// <param name="Reading">The reading as understood.</param>
/// <param name="Outcome">Verdict.</param>
/// <param name="Words">Verdict in words.</param>
/// <param name="Reason">Why, in a sentence; empty when there is nothing to add.</param>
/// <param name="Stop">Caution id when the reading is a reason to stop, or null.</param>
/// <param name="On">Position of the switch that was told with it, or null.</param>
/// <param name="Degree">How far it is off.</param>
public sealed record JudgedReading(
    Reading Reading,
    ProbeOutcome Outcome,
    string Words,
    string Reason = "",
    string? Stop = null,
    bool? On = null,
    ReadingDegree Degree = ReadingDegree.Untold
);

/// <summary>Turns what was typed at a probe into a verdict, or says why it cannot be one.</summary>
public static class ReadingJudge
{
    /// <summary>Unit of a bare number at this kind of probe.</summary>
    public static ReadingUnit AssumedUnit(ProbeKind kind) => TradeLibrary.Of(kind).Assumes;

    /// <summary>Judges what was typed, by the profile's limits or the rules of the trade, and says why.</summary>
    /// <param name="profile">Profile of the unit.</param>
    /// <param name="probe">Probe it was typed for.</param>
    /// <param name="text">What was typed; cells one by one with a slash, a switch's position in front.</param>
    public static Outcome<JudgedReading> Judge(DeviceProfile profile, Probe probe, string? text)
    {
        var expected = ExpectationRules.For(profile, probe);
        var judged = Weigh(profile, probe, expected, text);
        if (judged is not { IsOk: true, Value: { Outcome: ProbeOutcome.Abnormal, On: not false } off })
            return judged;
        return Outcome<JudgedReading>.Ok(off with { Degree = ReadingDegrees.Of(expected.Probe, off.Reading) });
    }

    private static Outcome<JudgedReading> Weigh(DeviceProfile profile, Probe probe, Expected expected, string? text)
    {
        var place = expected.Place;
        var cells = place is { Kind: PlaceKind.Pack, Pack: { } pack } ? CellReadings.Parse(text ?? "", pack.Cells) : null;
        if (cells is not null)
            text = FormattableString.Invariant($"{cells.Sum():0.####} V");
        if (probe.Kind == ProbeKind.Capacitance && EsrReading.Split(text ?? "") is var (value, ohms))
        {
            var farads = Weigh(profile, probe, expected, value);
            return farads.IsOk ? Outcome<JudgedReading>.Ok(WithEsr(farads.Value, ohms)) : farads;
        }

        if (place.Kind == PlaceKind.Switch && SwitchTable.Both(text ?? "") is var (conducting, resting))
            return InBoth(probe, conducting, resting);
        if (place.Kind == PlaceKind.Switch && SwitchTable.Split(text ?? "") is { On: { } on } told)
        {
            var inPosition = Judge(probe, told.Remainder);
            return inPosition.IsOk ? Outcome<JudgedReading>.Ok(Turned(inPosition.Value, on)) : inPosition;
        }

        var judged = Judge(expected.Probe, text, profile);
        if (!judged.IsOk)
            return judged;
        if (judged.Value.Reading.Unit == ReadingUnit.Word)
        {
            var seen = ReadingMeaning.OfSeen(profile, probe, judged.Value.Outcome, judged.Value.Reading.Word ?? "");
            return Outcome<JudgedReading>.Ok(judged.Value with { Reason = seen.Reason, Stop = seen.Stop });
        }

        // A DC adapter with its polarity reversed is a finding of its own, and a dangerous one.
        if (
            !(place.Kind == PlaceKind.Adapter && profile.Supply?.AdapterKind == "dc")
            && judged.Value.Reading is { Unit: ReadingUnit.Volts, Value: { } volts }
            && WrongSign(expected.Probe, volts) is { } turned
        )
            return Outcome<JudgedReading>.Fail(turned);
        var meaning = ReadingMeaning.Of(profile, expected, judged.Value.Reading, cells, BenchLimits.Shipped);
        var outcome = judged.Value.Outcome == ProbeOutcome.Normal && meaning.Outcome is { } worse ? worse : judged.Value.Outcome;
        return Outcome<JudgedReading>.Ok(
            judged.Value with
            {
                Outcome = outcome,
                Words = outcome == judged.Value.Outcome ? judged.Value.Words : "not as expected",
                Reason = meaning.Reason,
                Stop = meaning.Stop,
            }
        );
    }

    /// <summary>A capacitor may hold its value and be dried out all the same: its series resistance tells.</summary>
    private static JudgedReading WithEsr(JudgedReading judged, double ohms)
    {
        if (judged.Reading is not { Unit: ReadingUnit.Farads, Value: > 0 and var farads })
            return judged;
        var most = BenchLimits.Shipped.LargestEsrOhms(farads);
        var told = string.Create(CultureInfo.InvariantCulture, $"ESR {ohms:0.###} Ω, at most {most:0.##} Ω at that value");
        return ohms <= most
            ? judged with { Reason = judged.Reason.Length > 0 ? $"{judged.Reason} {told}." : $"{told}." }
            : judged with { Outcome = ProbeOutcome.Abnormal, Words = "not as expected", Reason = $"{told}: dried out." };
    }

    // The reading kept is the one that is off; a switch that is good in both keeps what it shows when on.
    private static Outcome<JudgedReading> InBoth(Probe probe, string on, string off)
    {
        var (conducting, resting) = (Judge(probe, on), Judge(probe, off));
        if (!conducting.IsOk || !resting.IsOk)
            return conducting.IsOk ? resting : conducting;
        var (first, second) = (Turned(conducting.Value, true), Turned(resting.Value, false));
        return Outcome<JudgedReading>.Ok(
            first.Outcome != ProbeOutcome.Normal ? first
            : second.Outcome != ProbeOutcome.Normal ? second
            : first with { Words = "as expected on and off", Reason = "Right in both positions." }
        );
    }

    /// <summary>A switch off must not conduct where it does when on.</summary>
    private static JudgedReading Turned(JudgedReading judged, bool on)
    {
        if (judged.Outcome == ProbeOutcome.Jumps)
            return judged with { On = on };
        var conducts = judged.Reading is { Unit: ReadingUnit.Beep, Value: > 0 } or { Unit: ReadingUnit.Ohms };
        var good = on ? judged.Outcome == ProbeOutcome.Normal : !conducts;
        var where = on ? "switched on, common – on contact" : "switched off, common – on contact";
        return judged with
        {
            On = on,
            Outcome = good ? ProbeOutcome.Normal : ProbeOutcome.Abnormal,
            Words =
                good ? $"as expected {(on ? "on" : "off")}"
                : on ? "does not conduct when on"
                : "conducts though off",
            Reason =
                good ? $"Right for {where}."
                : on ? "Dirty or worn: flush and cycle it, then measure again."
                : "Stuck, bridged or the wrong pair of contacts.",
        };
    }

    /// <summary>Judges what was typed by the limits of the probe alone.</summary>
    /// <param name="probe">Probe it was typed for.</param>
    /// <param name="text">What was typed.</param>
    /// <param name="profile">Profile of the unit, whose parts say what words there tell of a fault; null when only limits count.</param>
    public static Outcome<JudgedReading> Judge(Probe probe, string? text, DeviceProfile? profile = null)
    {
        var parsed = ReadingParser.Parse(text, AssumedUnit(probe.Kind));
        if (!parsed.IsOk)
        {
            // A capacitor without a printed limit in the profile may be judged in words.
            var said = SeenVerdict.Of(probe, text ?? "", profile);
            return said is { } word && probe.Kind == ProbeKind.Capacitance
                ? Ok(new Reading(ReadingUnit.Word, null, text!.Trim()), word, probe)
                : Outcome<JudgedReading>.Fail(parsed.Problem!);
        }

        var reading = parsed.Value;
        if (reading.Jumps)
            return Outcome<JudgedReading>.Ok(
                new JudgedReading(reading, ProbeOutcome.Jumps, "jumps: a cracked joint or loose contact right there")
            );
        if (TradeLibrary.Of(probe.Kind).ByEye)
        {
            return SeenVerdict.Of(probe, reading.Word ?? "", profile) is { } said
                ? Ok(reading, said, probe)
                : Outcome<JudgedReading>.Fail(SeenVerdict.Problem(reading.Word ?? ""));
        }

        return probe.Kind == ProbeKind.Continuity ? Continuity(probe, reading) : Metered(probe, reading);
    }

    private static Outcome<JudgedReading> Continuity(Probe probe, Reading reading) =>
        reading.Unit switch
        {
            ReadingUnit.Beep => Ok(reading, reading.Value > 0, probe),
            ReadingUnit.OverRange => Ok(reading, false, probe),
            ReadingUnit.Ohms => Ok(reading, reading.Value <= BenchLimits.Shipped.Contact.DirtyOhms, probe),
            _ => Outcome<JudgedReading>.Fail("This probe wants the buzzer: beep, no beep, or ohms."),
        };

    private static Outcome<JudgedReading> Metered(Probe probe, Reading reading)
    {
        var wanted = AssumedUnit(probe.Kind);
        if (wanted == ReadingUnit.Ohms && reading.Unit == ReadingUnit.Beep)
            reading = reading with
            {
                Unit = reading.Value > 0 ? ReadingUnit.Ohms : ReadingUnit.OverRange,
                Value = reading.Value > 0 ? 0 : null,
            };
        if (reading.Unit == ReadingUnit.OverRange)
        {
            return wanted is ReadingUnit.Ohms or ReadingUnit.DiodeVolts
                ? Ok(reading, probe.Expect.High is null && probe.Expect.Low is not null, probe)
                : Outcome<JudgedReading>.Fail($"OL is no reading in {Name(wanted)}. Is the meter in the right mode?");
        }

        if (reading.Unit != wanted || reading.Value is not { } value)
            return Outcome<JudgedReading>.Fail($"This probe wants {Name(wanted)}; that was {Name(reading.Unit)}.");
        if (probe.Expect is { Low: null, High: null })
            return Outcome<JudgedReading>.Fail("The profile has no limits here. Say ok or bad.");
        var good = value >= (probe.Expect.Low ?? double.MinValue) && value <= (probe.Expect.High ?? double.MaxValue);
        return Ok(reading, good, probe);
    }

    /// <summary>
    /// Swapped tips are far more common than a reversed supply, and a reading filed with the wrong sign would speak
    /// against sound parts: so it is not taken.
    /// </summary>
    private static string? WrongSign(Probe probe, double volts)
    {
        var (low, high) = (probe.Expect.Low ?? double.MinValue, probe.Expect.High ?? double.MaxValue);
        var sign =
            low > 0 ? 1
            : high < 0 ? -1
            : 0;
        if (volts * sign >= 0 || IsMissing(probe, volts))
            return null;
        return $"{(volts < 0 ? "Minus" : "Plus")} where {(sign > 0 ? "plus" : "minus")} is expected: swap the tips. If they "
            + $"were right, the supply is reversed: switch nothing on.";
    }

    private static bool IsMissing(Probe probe, double volts) =>
        Math.Abs(volts) < 0.1 * Math.Abs(probe.Expect.Low ?? probe.Expect.High ?? 0);

    private static Outcome<JudgedReading> Ok(Reading reading, bool good, Probe probe) =>
        Outcome<JudgedReading>.Ok(
            new JudgedReading(reading, good ? ProbeOutcome.Normal : ProbeOutcome.Abnormal, good ? "as expected" : Wrong(reading, probe))
        );

    private static string Wrong(Reading reading, Probe probe)
    {
        if (reading.Value is not { } value || probe.Kind is ProbeKind.Continuity)
            return "not as expected";
        if (probe.Kind == ProbeKind.Volts && IsMissing(probe, value))
            return "missing";
        // Of a negative rail the bench says low when it is too near to zero.
        return (value < (probe.Expect.Low ?? double.MinValue)) ^ probe.Expect.High < 0 ? "low" : "high";
    }

    private static string Name(ReadingUnit unit) =>
        unit switch
        {
            ReadingUnit.Volts => "volts",
            ReadingUnit.Ohms => "ohms",
            ReadingUnit.Farads => "farads",
            ReadingUnit.Amps => "amperes",
            ReadingUnit.DiodeVolts => "a diode drop",
            ReadingUnit.Beep => "the buzzer",
            ReadingUnit.OverRange => "over range",
            _ => "a word",
        };
}
