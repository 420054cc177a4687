using System.Globalization;
using Mendro.Core.Electrical;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;

namespace Mendro.Core.Readings;

/// <summary>Why a reading is good or bad, and whether it is a reason to stop.</summary>
/// <param name="Reason">One sentence, or empty.</param>
/// <param name="Stop">Caution id of the library, or null.</param>
/// <param name="Outcome">An outcome the limits alone would not give, or null.</param>
public sealed record Meaning(string Reason, string? Stop = null, ProbeOutcome? Outcome = null);

/// <summary>Says what a reading means. Rules and limits: common practice, no source, unless the limits name one.</summary>
public static class ReadingMeaning
{
    /// <summary>Meaning of a reading at a place.</summary>
    /// <param name="profile">Profile of the unit.</param>
    /// <param name="expected">What the probe should show.</param>
    /// <param name="reading">The reading.</param>
    /// <param name="cells">Volts of the cells one by one, when they were told.</param>
    /// <param name="limits">Limits of the bench.</param>
    public static Meaning Of(DeviceProfile profile, Expected expected, Reading reading, IReadOnlyList<double>? cells, BenchLimits limits)
    {
        if (reading.Jumps)
            return new("It changes under the probe: a cracked joint or a loose contact right there.");
        var meaning = OfPlace(profile, expected, reading, cells, limits);
        return meaning.Reason.Length > 0 ? meaning : meaning with { Reason = OfRange(expected.Probe, reading) };
    }

    // What people call a lithium cell that is no longer flat.
    private static readonly string[] SwollenWords = ["swollen", "swelling", "swells", "bulg", "puff", "bloated", "pillow"];

    /// <summary>Meaning of what was seen or felt: a swollen lithium cell is a reason to stop, whatever the meter says.</summary>
    /// <param name="profile">Profile of the unit.</param>
    /// <param name="probe">Where it was seen.</param>
    /// <param name="outcome">Verdict of the words.</param>
    /// <param name="words">The words.</param>
    public static Meaning OfSeen(DeviceProfile profile, Probe probe, ProbeOutcome outcome, string words)
    {
        var lithium = outcome == ProbeOutcome.Abnormal && probe.PartIds().Any(id => Is(profile.FindPart(id), PartRole.Lithium));
        return lithium && SwollenWords.Any(w => words.Contains(w, StringComparison.OrdinalIgnoreCase))
            ? new("Gas has formed in the cell: do not measure, charge or press it.", "lithium-swollen")
            : new("");
    }

    private static bool Is(Part? part, PartRole role) => part is not null && TradeLibrary.Shipped.Has(part.Kind, role);

    private static Meaning OfPlace(
        DeviceProfile profile,
        Expected expected,
        Reading reading,
        IReadOnlyList<double>? cells,
        BenchLimits limits
    )
    {
        var place = expected.Place;
        return place.Kind switch
        {
            PlaceKind.Pack when place.Pack is { } pack && reading.Value is { } volts => OfPack(
                pack,
                Is(place.Part, PartRole.Pack),
                volts,
                cells,
                limits
            ),
            PlaceKind.Adapter when reading.Value is { } volts => OfAdapter(profile, place, volts, limits),
            PlaceKind.Rail when reading.Value is { } volts => OfRail(place.Rail, volts, limits),
            PlaceKind.SaveCell when reading.Value is { } volts => new(SaveCellWords.Of(volts, limits.SaveCell)),
            PlaceKind.Contact or PlaceKind.Switch => OfContact(reading, limits),
            PlaceKind.RailToGround => OfGround(expected.Probe, reading, limits),
            PlaceKind.Junction => OfJunction(reading, limits),
            PlaceKind.Draw when reading.Value is { } amps => OfDraw(profile, amps),
            _ => new(""),
        };
    }

    private static Meaning OfPack(BatteryPack pack, bool atPack, double volts, IReadOnlyList<double>? cells, BenchLimits limits)
    {
        // Behind contacts, fuse and switch a low reading tells of the way there, not of the cells.
        var lithium = pack.Cell.Recharge is not null && atPack;
        if (volts < 0.1 * pack.Nominal)
            return lithium
                ? new(
                    "Nothing at the pack's plug: its protection may have opened. Measure the cell itself, behind the protection, before it is judged.",
                    "lithium-protection",
                    ProbeOutcome.Abnormal
                )
                : new("Nothing arrives here.");
        var lowest = cells?.Min() ?? volts / pack.Cells;
        var highest = cells?.Max() ?? volts / pack.Cells;
        if (cells is not null && BatteryPack.Spread(cells) is { } spread && lithium && spread > limits.UnbalancedVolts + 1e-9)
            return new(
                Inv($"The cells differ by {spread:0.##} V, more than {limits.UnbalancedVolts:0.##} V: unbalanced."),
                "lithium-unbalanced",
                ProbeOutcome.Abnormal
            );
        var state = pack.State(cells is null ? volts : lowest * pack.Cells);
        var words = Inv($"{pack.Cells} × {pack.Cell.Name}: {volts / pack.Cells:0.00} V a cell, {StateWords(state)}");
        if (cells is not null)
            words = Inv($"Lowest cell {lowest:0.00} V, highest {highest:0.00} V: {StateWords(state)}");
        if (lithium && lowest < pack.Cell.Recharge)
            return new(words + ": not to be charged again.", "lithium-low", ProbeOutcome.Abnormal);
        if (lithium && lowest < pack.Cell.Empty)
            return new(words + ": deeply empty, charged slowly at first.", "lithium-precharge", ProbeOutcome.Abnormal);
        if (lithium && lowest < pack.Cell.Low)
            return new(words + ": charge it under watch before it is judged.", null, ProbeOutcome.Abnormal);
        if (lithium && highest > pack.Cell.Fresh + 0.05)
            return new(
                Inv($"{highest:0.00} V in a cell is over {pack.Cell.Fresh:0.0} V: overcharged."),
                "lithium-over",
                ProbeOutcome.Abnormal
            );
        if (lithium && pack.Cells > 1 && cells is null)
            words += "; measure the cells one by one too (3.9 / 3.8)";
        if (highest > pack.Cell.Highest)
            return new(
                Inv(
                    $"Fresh, {pack.Cells} × {pack.Cell.Name} is {pack.Fresh:0.#} V at most: is an adapter or charger connected, or the meter in another range?"
                )
            );
        return new(words + ".");
    }

    private static Meaning OfAdapter(DeviceProfile profile, ProbePlace place, double volts, BenchLimits limits)
    {
        if (profile.Supply is not { AdapterVolts: { } wanted, AdapterKind: { } kind } supply)
            return new("");
        if (Math.Abs(volts) < 0.1 * wanted)
            return new("Nothing arrives here.");
        if (kind == "dc" && volts < 0)
            return new(
                $"The polarity is reversed; the unit wants {supply.Polarity ?? "the other way round"}.",
                "adapter-wrong",
                ProbeOutcome.Abnormal
            );
        var inAc = kind == "ac" && Is(place.Part, PartRole.Adapter);
        // Behind the rectifier of an AC adapter the peak is the measure, without load a good deal over the label.
        var most = kind == "ac" && !inAc ? Rectifier.At(wanted, 0, null).PeakVolts * 1.4 : wanted * 1.5;
        if (volts > most)
            return new(
                Inv($"{volts:0.#} V is far over what the unit was made for ({wanted:0.##} V {kind.ToUpperInvariant()})."),
                "adapter-wrong",
                ProbeOutcome.Abnormal
            );
        if (place.RegulatedRail is not { } rail)
            return new(Inv($"{wanted:0.##} V {kind.ToUpperInvariant()} adapter, {100 * (volts / wanted - 1):+0;−0;0} %."));
        var input = inAc ? Rectifier.At(volts, 0.7, null).PeakVolts : volts;
        var at = LinearRegulator.At(
            input,
            rail.Volts,
            supply.AdapterAmps ?? 0,
            limits.Regulator.DropoutVolts,
            limits.Regulator.ThetaOnSinkKelvinPerWatt,
            25,
            limits.Regulator
        );
        var headroom =
            at.HeadroomVolts < 0
                ? Inv($"Too little for the regulator: {rail.Volts:0.##} V needs {at.MinimumInputVolts:0.##} V")
                : Inv($"The regulator has {at.HeadroomVolts:0.#} V of headroom over {rail.Volts:0.##} V ")
                    + Inv($"and burns up to {at.Watts:0.#} W at {supply.AdapterAmps ?? 0:0.##} A, ")
                    + Inv($"{at.Watts * limits.Regulator.ThetaOnSinkKelvinPerWatt:0} K over the air on its heat sink");
        return new(
            (inAc ? Inv($"About {input:0.#} V behind the rectifier. ") : "") + headroom + ".",
            input > limits.Regulator.LargestInputVolts ? "adapter-wrong" : null,
            at.HeadroomVolts < 0 ? ProbeOutcome.Abnormal : null
        );
    }

    private static Meaning OfRail(Rail? rail, double volts, BenchLimits limits)
    {
        if (rail is null)
            return new(Math.Abs(volts) < 0.1 ? "Nothing arrives here." : "");
        if (Math.Abs(volts) < 0.1 * Math.Abs(rail.Volts))
            return new("Nothing arrives here.");
        var off = 100 * (volts / rail.Volts - 1);
        var within = Math.Abs(off) <= rail.Tolerance * 100 + 1e-9;
        var words = Inv(
            $"{off:+0.#;−0.#;±0} % of {Reading.Format(rail.Volts, "V")}, {(within ? "within" : "outside")} ±{rail.Tolerance * 100:0} %"
        );
        if (off > limits.RailStop * 100)
            return new(words + ".", "rail-over");
        return new(words + (within || off > 0 ? "." : "; unplug what hangs on it: does it rise?"));
    }

    private static Meaning OfContact(Reading reading, BenchLimits limits) =>
        reading switch
        {
            { Unit: ReadingUnit.Ohms, Value: { } ohms } when ohms <= limits.Contact.GoodOhms => new(
                Inv($"{ohms:0.##} Ω less the leads is a good contact.")
            ),
            { Unit: ReadingUnit.Ohms, Value: { } ohms } when ohms <= limits.Contact.DirtyOhms => new(
                Inv($"{ohms:0.##} Ω: subtract the leads; doubtful when more than {limits.Contact.GoodOhms:0} Ω is left.")
            ),
            { Unit: ReadingUnit.Ohms, Value: { } ohms } when ohms < 1000 => new(
                Inv($"{ohms:0.#} Ω: dirty or cracked, even if the buzzer sounds.")
            ),
            { Unit: ReadingUnit.Ohms } or { Unit: ReadingUnit.OverRange } or { Unit: ReadingUnit.Beep, Value: 0 } => new(
                "Open: it does not conduct."
            ),
            { Unit: ReadingUnit.Beep } => new("It conducts. If you had to press hard for the beep, type the ohms."),
            _ => new(""),
        };

    private static Meaning OfGround(Probe probe, Reading reading, BenchLimits limits)
    {
        if (reading.Unit == ReadingUnit.OverRange)
            return new("No short.");
        if (reading.Value is not { } ohms)
            return new("");
        if (reading.Unit == ReadingUnit.Beep && ohms > 0)
            return new("The buzzer sounds from supply to ground: a short.", "short");
        if (ohms < limits.ShortOhms)
            return new(Inv($"{ohms:0.##} Ω from supply to ground is a short."), "short");
        return probe.Expect.Low is { } low && ohms < low
            ? new(Inv($"{ohms:0.#} Ω is low: something leaks or a part pulls the rail down."))
            : new("Not shorted; kilo-ohms that rise while the capacitors charge are normal.");
    }

    private static Meaning OfJunction(Reading reading, BenchLimits limits) =>
        reading switch
        {
            { Unit: ReadingUnit.OverRange } => new("Open junction, or the tips are the wrong way round."),
            { Value: { } drop } when drop < 0.05 => new("No drop at all: a short.", "short"),
            { Value: { } drop } when drop < limits.Diode.Low => new(
                Inv(
                    $"{drop:0.00} V is low for a junction ({limits.Diode.Low:0.0}–{limits.Diode.High:0.0} V): something beside it conducts."
                )
            ),
            { Value: { } drop } when drop > limits.Diode.High => new(
                Inv($"{drop:0.00} V is high for a junction ({limits.Diode.Low:0.0}–{limits.Diode.High:0.0} V).")
            ),
            _ => new("A normal junction."),
        };

    /// <summary>Meaning of the current a unit draws, amperes.</summary>
    public static Meaning OfDraw(DeviceProfile profile, double amps)
    {
        if (amps < 0.001)
            return new("Nothing is drawn: the supply does not get in, or the unit is off.");
        if (profile.Supply is not { AdapterAmps: { } rated, AdapterVolts: < 50 })
            return new("");
        if (amps > 2 * rated)
            return new(
                Inv($"{amps:0.##} A is more than twice the {rated:0.##} A it was made for: a short."),
                "short",
                ProbeOutcome.Abnormal
            );
        return amps > rated
            ? new(Inv($"More than the {rated:0.##} A it was made for: something pulls too much."))
            : new(Inv($"{100 * amps / rated:0} % of the {rated:0.##} A it was made for."));
    }

    /// <summary>
    /// Meaning of a supply that stands at its current limit. A low first limit stops a sound unit as well; what tells a
    /// short is that volts over amperes is far below what the unit was made for. Electronics are no resistor, so the line
    /// is drawn at half (common practice, no source).
    /// </summary>
    /// <param name="plan">How the unit is to be fed.</param>
    /// <param name="volts">Volts left at the terminals.</param>
    /// <param name="amps">Current, at the limit.</param>
    public static Meaning OfLimited(SupplyPlan plan, double volts, double amps)
    {
        var ohms = amps > 0 ? volts / amps : 0;
        var words = Inv(
            $"The limit of {Reading.Format(amps, "A")} holds at {volts:0.##} V, as with {Reading.Format(Math.Round(ohms, 1), "Ω")}: "
        );
        var isShort = plan.Volts is { } wanted ? ohms < 0.5 * wanted / plan.RatedAmps : volts < 1;
        if (isShort)
            return new(words + "a short, or far too heavy a load.", "short");
        return new(
            words
                + (
                    amps < plan.RatedAmps
                        ? $"no short; the unit wants more than the limit lets through. Raise it to {Reading.Format(plan.LimitAmps, "A")}."
                        : "more than it was made for."
                )
        );
    }

    /// <summary>Where nothing more is known of a place, the range itself is the reason.</summary>
    private static string OfRange(Probe probe, Reading reading)
    {
        if (reading.Unit == ReadingUnit.OverRange)
            return probe.Expect.High is null ? "Open, as it may be." : "Open: it does not conduct.";
        if (reading.Value is not { } value)
            return "";
        var unit = TradeLibrary.Of(probe.Kind).Shown;
        var (dry, leaky) =
            probe.Kind == ProbeKind.Capacitance ? (": dried out", ": it leaks, or others beside it are measured along") : ("", "");
        if (probe.Expect.Low is { } low && value < low)
            return $"Below {Reading.Format(low, unit)}{dry}.";
        if (probe.Expect.High is { } high && value > high)
            return $"Above {Reading.Format(high, unit)}{leaky}.";
        return "Within what is expected there.";
    }

    private static string StateWords(PackState state) =>
        state switch
        {
            PackState.Full => "full",
            PackState.Good => "good",
            PackState.Low => "weak",
            _ => "empty",
        };

    private static string Inv(FormattableString text) => text.ToString(CultureInfo.InvariantCulture);
}
