using System.Globalization;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;

namespace Mendro.Core.Diagnosis;

/// <summary>The words in which checks are proposed.</summary>
public static class MoveWords
{
    /// <summary>Title of a check, starting with the verb.</summary>
    public static string CheckTitle(Probe probe) =>
        TradeLibrary.Of(probe.Kind).Title is { Length: > 0 } title
            ? string.Format(CultureInfo.InvariantCulture, title, Lower(probe.Name))
            : probe.Name;

    /// <summary>What a good unit answers.</summary>
    public static string GoodAnswer(Probe probe)
    {
        var facts = TradeLibrary.Of(probe.Kind);
        if (facts.ByEye)
            return probe.Expect.Text ?? "as it should be";
        if (facts.Good is { } good)
            return good;
        if (ToGround(probe))
            return "no beep";
        return probe.Kind == ProbeKind.Capacitance && probe.Expect is { Low: { } low, High: { } high }
            ? $"{Reading.Format(low, facts.Shown)} – {Reading.Format(high, facts.Shown)}"
            : Range(probe.Expect, facts.Shown);
    }

    /// <summary>What a faulty unit answers.</summary>
    public static string BadAnswer(Probe probe) => ToGround(probe) ? "beep, or a few ohms" : TradeLibrary.Of(probe.Kind).Bad;

    private static bool ToGround(Probe probe) => probe is { Kind: ProbeKind.Ohms, Rail: not null };

    /// <summary>Title of a provocation, starting with the verb.</summary>
    public static string ProvokeTitle(DeviceFunction function, Provocation how) =>
        how switch
        {
            Provocation.Pressed => $"Press and wiggle, watch: {Lower(function.Name)}",
            Provocation.Flexed => $"Flex the board, watch: {Lower(function.Name)}",
            _ => $"Let it warm up, watch: {Lower(function.Name)}",
        };

    /// <summary>Title of a trial with another piece in the place of a part.</summary>
    public static string SwapTitle(DeviceFunction function, Part part) => $"Try another {Lower(part.Name)}: {Lower(function.Name)}";

    /// <summary>Title of a trial of what failed before it was worked on.</summary>
    public static string AgainTitle(DeviceFunction function) => $"Try again: {Lower(function.Name)}";

    /// <summary>Why it is tried again.</summary>
    public const string AgainReason = "It failed before something was done that may have changed it; nobody has tried it since.";

    /// <summary>Why a swap comes now.</summary>
    public const string SwapReason = "One thing changed, nothing else: it blames or clears that piece.";

    /// <summary>Minutes a provocation takes: as long as the function takes to try, and warming up longer (common practice, no
    /// source).</summary>
    public static double ProvokeMinutes(DeviceFunction function, Provocation how) =>
        (how == Provocation.Warmed ? 5 : 0) + Math.Max(1, function.Minutes);

    /// <summary>Why a provocation comes now.</summary>
    public static string ProvokeReason(Provocation how) =>
        how == Provocation.Warmed
            ? "Tells what fails with heat from what is simply dead."
            : "Tells a loose contact or cracked joint from something solid.";

    /// <summary>Why the check comes now.</summary>
    public static string CheckReason(UnitDiagnosis diagnosis, Probe probe, double abnormal, double prepare, bool open)
    {
        var parts = new List<string>();
        if (probe.Kind == ProbeKind.Volts && diagnosis.Stretch is { LastGood: { } good } && Upstream(diagnosis, probe, good))
            parts.Add($"The supply is good up to “{Lower(good.Name)}”.");
        if (abnormal is > 0.3 and < 0.7)
            parts.Add("It splits what is left about in two.");
        else if (abnormal >= 0.7)
            parts.Add("It would very likely show the fault.");
        else
            parts.Add("If it is good, much is cleared.");
        if (prepare > 0)
            parts.Add(string.Create(CultureInfo.InvariantCulture, $"{prepare:0} min of it to take the unit apart."));
        else if (open && probe.State >= AccessState.Open)
            parts.Add("The case is already open.");
        return string.Join(" ", parts);
    }

    /// <summary>A range as the bench writes it, such as <c>4.75–5.25 V</c>.</summary>
    public static string Range(Expectation expect, string unit) =>
        (expect.Low, expect.High) switch
        {
            // A dash between two minus signs cannot be read.
            ({ } low, { } high) => low < 0 ? $"{Plain(low)} to {Plain(high)} {unit}" : $"{Plain(low)}–{Plain(high)} {unit}",
            ({ } low, null) => $"{Plain(low)} {unit} or more",
            (null, { } high) => $"{Plain(high)} {unit} or less",
            _ => expect.Text ?? "as it should be",
        };

    private static string Plain(double value) => NumberText.Write(value, "0.###");

    /// <summary>First letter in lower case, unless the word is an abbreviation.</summary>
    public static string Lower(string text) =>
        text.Length > 1 && char.IsUpper(text[0]) && !char.IsUpper(text[1]) && !char.IsDigit(text[1])
            ? char.ToLowerInvariant(text[0]) + text[1..]
            : text;

    private static bool Upstream(UnitDiagnosis diagnosis, Probe probe, Probe good) =>
        probe.At is { } at && good.At is { } before && diagnosis.Case.Model.Graph.Upstream(at, powerOnly: true).Contains(before);
}
