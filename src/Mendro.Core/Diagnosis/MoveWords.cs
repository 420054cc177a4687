using System.Globalization;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;

namespace Mendro.Core.Diagnosis;

/// <summary>The words in which checks are proposed.</summary>
public static class MoveWords
{
    /// <summary>Title of a check, starting with the verb.</summary>
    public static string CheckTitle(Probe probe) => probe.Kind switch
    {
        ProbeKind.Volts => $"Measure: {Lower(probe.Name)}",
        ProbeKind.Ohms or ProbeKind.Diode or ProbeKind.Capacitance or ProbeKind.Current => $"Measure: {Lower(probe.Name)}",
        ProbeKind.Continuity => $"Beep: {Lower(probe.Name)}",
        ProbeKind.Look => $"Look: {Lower(probe.Name)}",
        _ => probe.Name,
    };

    /// <summary>What a good unit answers.</summary>
    public static string GoodAnswer(Probe probe) => probe.Kind switch
    {
        ProbeKind.Volts or ProbeKind.Current => Range(probe.Expect, probe.Kind == ProbeKind.Volts ? "V" : "A"),
        ProbeKind.Continuity => "beep",
        ProbeKind.Ohms when probe.Rail is not null => "no beep",
        ProbeKind.Ohms => Range(probe.Expect, "Ω"),
        ProbeKind.Diode => Range(probe.Expect, "V"),
        ProbeKind.Capacitance when probe.Expect is { Low: { } low, High: { } high } => $"{Reading.Format(low, "F")} – {Reading.Format(high, "F")}",
        _ => probe.Expect.Text ?? "as it should be",
    };

    /// <summary>What a faulty unit answers.</summary>
    public static string BadAnswer(Probe probe) => probe.Kind switch
    {
        ProbeKind.Volts => "missing or off",
        ProbeKind.Current => "too much or none",
        ProbeKind.Continuity => "no beep",
        ProbeKind.Ohms when probe.Rail is not null => "beep, or a few ohms",
        ProbeKind.Ohms or ProbeKind.Diode or ProbeKind.Capacitance => "out of range",
        ProbeKind.Press => "it changes",
        _ => "not so",
    };

    /// <summary>Title of a provocation, starting with the verb.</summary>
    public static string ProvokeTitle(DeviceFunction function, Provocation how) => how switch
    {
        Provocation.Pressed => $"Press and wiggle, watch: {Lower(function.Name)}",
        Provocation.Flexed => $"Flex the board, watch: {Lower(function.Name)}",
        _ => $"Let it warm up, watch: {Lower(function.Name)}",
    };

    /// <summary>Minutes a provocation takes: as long as the function takes to try, and warming up longer (common practice, no source).</summary>
    public static double ProvokeMinutes(DeviceFunction function, Provocation how) => (how == Provocation.Warmed ? 5 : 0) + Math.Max(1, function.Minutes);

    /// <summary>Why a provocation comes now.</summary>
    public static string ProvokeReason(Provocation how) => how == Provocation.Warmed
        ? "Tells what fails with heat from what is simply dead."
        : "Tells a loose contact or cracked joint from something solid.";

    /// <summary>Why the check comes now.</summary>
    public static string CheckReason(UnitDiagnosis diagnosis, Probe probe, double abnormal, double prepare, AccessState state)
    {
        var parts = new List<string>();
        if (probe.Kind == ProbeKind.Volts && diagnosis.Stretch is { LastGood: { } good } && Upstream(diagnosis, probe, good))
            parts.Add($"The supply is good up to “{Lower(good.Name)}”.");
        if (abnormal is > 0.3 and < 0.7) parts.Add("It splits what is left about in two.");
        else if (abnormal >= 0.7) parts.Add("It would very likely show the fault.");
        else parts.Add("If it is good, much is cleared.");
        if (prepare > 0) parts.Add(string.Create(CultureInfo.InvariantCulture, $"{prepare:0} min of it to take the unit apart."));
        else if (state >= AccessState.Open && probe.State >= AccessState.Open) parts.Add("The case is already open.");
        return string.Join(" ", parts);
    }

    /// <summary>A range as the bench writes it, such as <c>4.75–5.25 V</c>.</summary>
    public static string Range(Expectation expect, string unit) => (expect.Low, expect.High) switch
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
            ? char.ToLowerInvariant(text[0]) + text[1..] : text;

    private static bool Upstream(UnitDiagnosis diagnosis, Probe probe, Probe good) =>
        probe.At is not null && good.At is not null && diagnosis.Case.Model.Graph.Upstream(probe.At, powerOnly: true).Contains(good.At);
}
