using Mendro.Core.Electrical;
using Mendro.Core.Profiles;

namespace Mendro.Core.Calculators;

/// <summary>Packs, regulators, adapters, dividers.</summary>
internal static class SupplyCalculators
{
    private const string Group = "Supply";

    private static readonly BenchLimits Limits = BenchLimits.Shipped;
    private static readonly IReadOnlyList<string> Kinds = ["ac", "dc"];
    private static readonly IReadOnlyList<string> Polarities = ["centre-negative", "centre-positive"];

    public static IReadOnlyList<Calculator> All { get; } =
    [
        new(
            "battery-pack",
            "Battery pack",
            Group,
            "cells × volts of one cell; full from half way between nominal and fresh",
            string.Join("; ", Limits.Cells.Select(c => c.Source).Distinct()),
            [
                new("cells", "Cells in series", "", "4")
                {
                    Whole = true,
                    Low = 1,
                    High = 100,
                },
                new("chemistry", "Chemistry", "", "alkaline") { Choices = Limits.Cells.Select(c => c.Chemistry).ToList() },
                new("measured", "Measured over all", "V", "5.6")
                {
                    Optional = true,
                    Low = 0,
                    High = 1000,
                },
            ],
            Pack
        ),
        new(
            "regulator",
            "Linear regulator",
            Group,
            "headroom = Vin − Vout − drop-out; P = (Vin − Vout) × I; Tj = Ta + P × θJA",
            Limits.Regulator.Source,
            [
                new("vin", "Input", "V", "9")
                {
                    Low = 0,
                    High = 1000,
                    Above = true,
                },
                new("vout", "Output", "V", "5")
                {
                    Low = 0,
                    High = 1000,
                    Above = true,
                    Standard = "5",
                },
                new("current", "Load", "A", "0.5") { Low = 0, High = 100 },
                new("dropout", "Drop-out", "V", "2")
                {
                    Low = 0,
                    High = 100,
                    Standard = "2",
                    Help = "2 V by data sheet; many ask for 3 V",
                },
                new("thetaJA", "Junction to air", "K/W", "65")
                {
                    Low = 0,
                    High = 1000,
                    Standard = "65",
                    Help = "65 bare TO-220; about 10 on the heat sink of a console",
                },
                new("ambient", "Air", "°C", "25")
                {
                    Low = -60,
                    High = 150,
                    Standard = "25",
                },
            ],
            Regulator
        ),
        new(
            "rectified",
            "AC adapter, rectified",
            Group,
            "peak = √2 × V − 2 × diode drop; ripple = I / (2 f C)",
            "textbook bridge rectifier",
            [
                new("acVolts", "AC volts", "V", "9")
                {
                    Low = 0,
                    High = 1000,
                    Above = true,
                },
                new("diodeDrop", "Drop of one diode", "V", "0.7")
                {
                    Low = 0,
                    High = 5,
                    Standard = "0.7",
                },
                new("current", "Load", "A", "0.5")
                {
                    Low = 0,
                    High = 100,
                    Optional = true,
                },
                new("farads", "Reservoir capacitor", "F", "2200u")
                {
                    Low = 0,
                    High = 10,
                    Above = true,
                    Optional = true,
                },
                new("hertz", "Mains frequency", "Hz", "50")
                {
                    Low = 0,
                    High = 1000,
                    Above = true,
                    Standard = "50",
                },
            ],
            Rectified
        ),
        new(
            "adapter",
            "Adapter",
            Group,
            "AC or DC, volts ±10 %, polarity, current; the worst point counts",
            "common practice",
            [
                new("kind", "It gives", "", "dc") { Choices = Kinds },
                new("volts", "Volts", "V", "9")
                {
                    Low = 0,
                    High = 1000,
                    Above = true,
                },
                new("amps", "It can give", "A", "0.85")
                {
                    Low = 0,
                    High = 1000,
                    Above = true,
                },
                new("polarity", "Its polarity", "", "centre-negative") { Choices = Polarities, Optional = true },
                new("needKind", "The unit wants", "", "dc") { Choices = Kinds },
                new("needVolts", "Volts wanted", "V", "9")
                {
                    Low = 0,
                    High = 1000,
                    Above = true,
                },
                new("needAmps", "Current needed", "A", "0.85") { Low = 0, High = 1000 },
                new("needPolarity", "Polarity wanted", "", "centre-negative") { Choices = [.. Polarities, "any"], Optional = true },
            ],
            Adapter
        ),
        new(
            "divider",
            "Voltage divider",
            Group,
            "V = Vin × R2 / (R1 + R2)",
            "Ohm's law",
            [
                new("vin", "Input", "V", "9") { Low = -1000, High = 1000 },
                new("r1", "Upper resistor", "Ω", "10k") { Low = 0, High = 1e12 },
                new("r2", "Lower resistor", "Ω", "4k7")
                {
                    Low = 0,
                    High = 1e12,
                    Above = true,
                },
            ],
            given =>
                Answer(
                    null,
                    null,
                    null,
                    new CalculatorOutput("volts", "Between them", given["vin"] * given["r2"] / (given["r1"] + given["r2"]), "V")
                )
        ),
        new(
            "led-resistor",
            "Resistor for an LED",
            Group,
            "R = (supply − forward) / I; P = (supply − forward) × I; preferred: next value up in E24",
            "Ohm's law; IEC 60063",
            [
                new("supply", "Supply", "V", "5")
                {
                    Low = 0,
                    High = 1000,
                    Above = true,
                },
                new("forward", "Forward volts of the LED", "V", "2") { Low = 0, High = 1000 },
                new("current", "Current", "A", "10m")
                {
                    Low = 0,
                    High = 10,
                    Above = true,
                },
            ],
            Led
        ),
    ];

    private static Outcome<CalculatorAnswer> Pack(CalculatorInputs given)
    {
        var cell = Limits.Cell(given.Text("chemistry"))!;
        var pack = new BatteryPack((int)given["cells"], cell);
        var outputs = new List<CalculatorOutput>
        {
            new("nominal", "Nominal", pack.Nominal, "V"),
            new("fresh", "Fresh", pack.Fresh, "V"),
            new("low", "Weak below", pack.Low, "V"),
            new("empty", "Empty below", pack.Empty, "V"),
        };
        if (given.Maybe("measured") is not { } volts)
            return Outcome<CalculatorAnswer>.Ok(new CalculatorAnswer(outputs, Source: cell.Source));
        var state = pack.State(volts);
        outputs.Add(new("perCell", "Per cell", volts / pack.Cells, "V"));
        outputs.Add(new("state", "State", state.ToString().ToLowerInvariant()));
        return Outcome<CalculatorAnswer>.Ok(
            new CalculatorAnswer(
                outputs,
                state.ToString().ToLowerInvariant(),
                state is PackState.Full or PackState.Good,
                cell.Recharge is { } floor && volts / pack.Cells < floor ? "lithium-low" : null,
                cell.Source
            )
        );
    }

    private static Outcome<CalculatorAnswer> Regulator(CalculatorInputs given)
    {
        var at = LinearRegulator.At(
            given["vin"],
            given["vout"],
            given["current"],
            given["dropout"],
            given["thetaJA"],
            given["ambient"],
            Limits.Regulator
        );
        return Answer(
            at.Verdict,
            at.Verdict == "fits",
            at.Verdict == "over the maximum" ? "adapter-wrong" : null,
            new("headroom", "Headroom", at.HeadroomVolts, "V"),
            new("minimumInput", "Least input", at.MinimumInputVolts, "V"),
            new("watts", "Heat", at.Watts, "W"),
            new("junctionCelsius", "Junction", at.JunctionCelsius, "°C")
        );
    }

    private static Outcome<CalculatorAnswer> Rectified(CalculatorInputs given)
    {
        var (amps, farads) = (given.Maybe("current"), given.Maybe("farads"));
        if (amps is null != farads is null)
            return Outcome<CalculatorAnswer>.Fail($"{(amps is null ? "current" : "farads")}: the ripple needs both current and farads.");
        var at = Rectifier.At(given["acVolts"], given["diodeDrop"], amps is { } a && farads is { } c ? (a, c, given["hertz"]) : null);
        var outputs = new List<CalculatorOutput> { new("peakVolts", "Peak", at.PeakVolts, "V") };
        if (at.RippleVolts is { } ripple)
            outputs.AddRange([new("rippleVolts", "Ripple", ripple, "V"), new("lowestVolts", "Lowest", at.PeakVolts - ripple, "V")]);
        return Outcome<CalculatorAnswer>.Ok(new CalculatorAnswer(outputs));
    }

    private static Outcome<CalculatorAnswer> Adapter(CalculatorInputs given)
    {
        foreach (var (kind, polarity) in new[] { ("kind", "polarity"), ("needKind", "needPolarity") })
            if (given.Text(kind) == "dc" && given.Text("kind") == given.Text("needKind") && given.MaybeText(polarity) is null)
                return Outcome<CalculatorAnswer>.Fail($"{polarity}: is missing. DC has a polarity: {string.Join(" or ", Polarities)}.");
        var fit = AdapterFit.Judge(
            new AdapterRating(given.Text("kind"), given["volts"], given["amps"], given.MaybeText("polarity")),
            new AdapterRating(given.Text("needKind"), given["needVolts"], given["needAmps"], given.MaybeText("needPolarity"))
        );
        return Answer(
            fit.Verdict.ToString().ToLowerInvariant(),
            fit.Verdict == AdapterVerdict.Fits,
            fit.Verdict == AdapterVerdict.Dangerous ? "adapter-wrong" : null,
            new CalculatorOutput("reasons", "Reasons", fit.Reasons)
        );
    }

    private static Outcome<CalculatorAnswer> Led(CalculatorInputs given)
    {
        var over = given["supply"] - given["forward"];
        if (over <= 0)
            return Outcome<CalculatorAnswer>.Fail("forward: must be below the supply, or the LED stays dark.");
        var ohms = over / given["current"];
        return Answer(
            null,
            null,
            null,
            new("ohms", "Resistor", ohms, "Ω"),
            new("watts", "Heat", over * given["current"], "W"),
            new("preferred", "Next in E24", PreferredSeries.E24.Around(ohms).Above, "Ω")
        );
    }

    private static Outcome<CalculatorAnswer> Answer(string? verdict, bool? good, string? caution, params CalculatorOutput[] outputs) =>
        Outcome<CalculatorAnswer>.Ok(
            new CalculatorAnswer(
                verdict is null ? outputs : [.. outputs, new CalculatorOutput("verdict", "Verdict", verdict)],
                verdict,
                good,
                caution
            )
        );
}
