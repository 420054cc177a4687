using System.Text.Json;
using MathNet.Numerics.Distributions;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Capacitors;

/// <summary>A series of capacitors as the trade sells them, without a maker.</summary>
/// <param name="Id">Id.</param>
/// <param name="Name">Name.</param>
/// <param name="Mount">through-hole or surface.</param>
/// <param name="Polar">False for bipolar ones.</param>
/// <param name="Celsius">Highest temperature, °C.</param>
/// <param name="LeadMm">Legs that can be bent, mm.</param>
/// <param name="Price">Usual price of one, in the shop's currency.</param>
/// <param name="Rows">Microfarads, volts, diameter and height in mm.</param>
/// <param name="Source">Where the sizes come from.</param>
public sealed record CapacitorSeries(
    string Id,
    string Name,
    string Mount,
    bool Polar,
    double Celsius,
    double LeadMm,
    decimal Price,
    IReadOnlyList<IReadOnlyList<double>> Rows,
    string Source
);

/// <summary>Rated voltages that are sold.</summary>
/// <param name="Volts">Steps, volts.</param>
/// <param name="Source">Where they come from.</param>
public sealed record VoltageLadder(IReadOnlyList<double> Volts, string Source)
{
    /// <summary>Lowest step that is not below a voltage; null above the ladder.</summary>
    public double? AtLeast(double volts) => Volts.Where(v => v >= volts - 1e-9).Cast<double?>().FirstOrDefault();
}

/// <summary>Methods that count for capacitors replaced, in the order in which they are asked.</summary>
/// <param name="Section">For all of a section.</param>
/// <param name="Single">For some of it.</param>
public sealed record RecapMethods(IReadOnlyList<string> Section, IReadOnlyList<string> Single);

/// <summary>How often old capacitors fail, before a shop's own boards speak. They wear out: the older, the sooner.</summary>
/// <param name="Failures">Failures among so many.</param>
/// <param name="Capacitors">Capacitors.</param>
/// <param name="AtYears">Age up to which they were counted, years.</param>
/// <param name="Shape">Shape of the Weibull law: 1 for chance alone, above 1 for wear.</param>
/// <param name="Source">Where this comes from.</param>
public sealed record AgeingPrior(double Failures, double Capacitors, double AtYears, double Shape, string Source)
{
    /// <summary>
    /// Chance that at least one more fails. Failures up to an age t are Poisson with mean λ (t/T)^β a capacitor (Weibull's law: IEC 61649);
    /// λ is known as a gamma distribution, so that no failure has a negative binomial's chance (Gelman et al., Bayesian Data Analysis,
    /// 2.6). What nobody looked at speaks neither for nor against.
    /// </summary>
    /// <param name="looked">Capacitors measured or looked at.</param>
    /// <param name="failed">Of these failed, 0 to <paramref name="looked"/>.</param>
    /// <param name="ageYears">Age, years, above 0.</param>
    /// <param name="remaining">Old ones that stay in.</param>
    /// <param name="years">Time ahead, years, 0 or more.</param>
    public double AnotherFails(int looked, int failed, double ageYears, int remaining, double years) =>
        1 - Math.Pow(Rate(looked, ageYears) / (Rate(looked, ageYears) + Ahead(ageYears, remaining, years)), Failures + failed);

    /// <summary>Between which chances it lies with eight in ten: the rate itself is not well known.</summary>
    public (double Low, double High) Spread(int looked, int failed, double ageYears, int remaining, double years)
    {
        var (shape, rate, ahead) = (Failures + failed, Rate(looked, ageYears), Ahead(ageYears, remaining, years));
        double Chance(double quantile) => 1 - Math.Exp(-Gamma.InvCDF(shape, rate, quantile) * ahead);
        return (Chance(0.1), Chance(0.9));
    }

    private double Rate(int looked, double ageYears) => Capacitors + looked * Wear(ageYears);

    private double Ahead(double ageYears, int remaining, double years) => remaining * (Wear(ageYears + years) - Wear(ageYears));

    private double Wear(double years) => Math.Pow(years / AtYears, Shape);
}

/// <summary>How a sort of capacitor is taken out.</summary>
/// <param name="Id">Id.</param>
/// <param name="Name">Name.</param>
/// <param name="Technology">Technology it is for; null for any.</param>
/// <param name="Mount">Mount it is for; null for any.</param>
/// <param name="Minutes">Minutes each.</param>
/// <param name="Steps">Steps.</param>
/// <param name="Cautions">Caution ids.</param>
/// <param name="Source">Where this comes from.</param>
public sealed record CapacitorRemoval(
    string Id,
    string Name,
    string? Technology,
    string? Mount,
    double Minutes,
    IReadOnlyList<string> Steps,
    IReadOnlyList<string> Cautions,
    string Source
);

/// <summary>What the trade knows of capacitors: sizes, voltages, how they come out, how they age.</summary>
/// <param name="Ladder">Rated voltages.</param>
/// <param name="Series">Series that are sold.</param>
/// <param name="Methods">Methods of the library that count for them.</param>
/// <param name="MinutesEach">Minutes to replace one.</param>
/// <param name="FaultChance">Chance that one is put in badly.</param>
/// <param name="LossChance">Chance that a new one is lost or spoilt on the way.</param>
/// <param name="Ageing">How often old ones fail.</param>
/// <param name="Removal">How they come out; the first that fits.</param>
public sealed record CapacitorLibrary(
    VoltageLadder Ladder,
    IReadOnlyList<CapacitorSeries> Series,
    RecapMethods Methods,
    double MinutesEach,
    double FaultChance,
    double LossChance,
    AgeingPrior Ageing,
    IReadOnlyList<CapacitorRemoval> Removal
)
{
    private static readonly Lazy<CapacitorLibrary> LazyShipped = new(() =>
        JsonSerializer.Deserialize<CapacitorLibrary>(TradeLibrary.ReadText("capacitors.json"), ProfileJson.Options)
        ?? throw new InvalidOperationException("capacitors.json is empty.")
    );

    /// <summary>The library that ships.</summary>
    public static CapacitorLibrary Shipped => LazyShipped.Value;

    /// <summary>The catalogue: every size of every series as a part that may be bought.</summary>
    public IReadOnlyList<CapacitorPart> Catalogue() =>
        Series
            .SelectMany(s =>
                s.Rows.Select(row => new CapacitorPart(
                    FormattableString.Invariant($"{s.Id}-{row[0]}u-{row[1]}v-{row[2]}x{row[3]}"),
                    row[0] / 1e6,
                    row[1],
                    row[2],
                    row[3],
                    s.LeadMm,
                    s.Mount,
                    s.Polar,
                    s.Celsius,
                    Price: s.Price,
                    Source: CapacitorSource.Catalogue
                ))
            )
            .ToList();

    /// <summary>How a position's old part comes out.</summary>
    public CapacitorRemoval RemovalOf(BoardCapacitor position) =>
        Removal.First(r =>
            (r.Technology is null || (position.Technology ?? "aluminium") == r.Technology)
            && (r.Mount is null || (position.Mount ?? "through-hole") == r.Mount)
        );
}
