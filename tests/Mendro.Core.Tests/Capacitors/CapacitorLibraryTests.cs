using CsCheck;
using Mendro.Core.Capacitors;
using Mendro.Core.Electrical;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Capacitors;

/// <summary>Sizes, voltages and which part may go where.</summary>
public class CapacitorLibraryTests
{
    private static readonly CapacitorLibrary Library = CapacitorLibrary.Shipped;

    private static BoardCapacitor Position(bool polar = true, string? mount = "through-hole", string? section = null) =>
        new("C1", section, 100e-6, 16, Polar: polar, Mount: mount);

    private static CapacitorPart Part(
        double microfarads = 100,
        double volts = 16,
        bool polar = true,
        string mount = "through-hole",
        double celsius = 105,
        double? esr = null
    ) => new("p", microfarads / 1e6, volts, 5, 11, 10, mount, polar, celsius, esr);

    // IEC 60063: electrolytic capacitors come in E6 (most in E3).
    [Fact]
    public void Every_value_of_the_catalogue_is_of_the_series_E6() =>
        Library.Catalogue().ShouldAllBe(p => Math.Abs(PreferredSeries.E6.Around(p.Farads).Nearest / p.Farads - 1) < 1e-6);

    // ISO 3, R5: 1, 1.6, 2.5, 4, 6.3, 10 in every decade; 35, 50, 80, 200, 350, 450 V are sold besides (common practice, no source).
    [Fact]
    public void Every_voltage_is_on_the_ladder_and_the_ladder_is_of_ISO_3_but_for_the_steps_that_are_sold_besides()
    {
        var r5 = new[] { 1.0, 1.6, 2.5, 4, 6.3 }.SelectMany(v => new[] { v, v * 10, v * 100 }).ToList();
        Library.Ladder.Volts.Where(v => !r5.Any(r => Math.Abs(r - v) < 1e-9)).ShouldBe([35, 50, 80, 200, 350, 450]);
        Library.Catalogue().ShouldAllBe(p => Library.Ladder.Volts.Contains(p.Volts));
        (Library.Ladder.AtLeast(12), Library.Ladder.AtLeast(16), Library.Ladder.AtLeast(500)).ShouldBe((16, 16, null));
    }

    // Same value, voltage same or higher, bipolar kept bipolar; 105 °C preferred (common practice, no source).
    [Theory]
    [InlineData(100, 16, true, null)]
    [InlineData(100, 25, true, null)]
    [InlineData(82, 16, true, null)]
    [InlineData(68, 16, true, "68 µF for 100 µF")]
    [InlineData(100, 10, true, "10 V for 16 V")]
    [InlineData(100, 100, true, "100 V is far above 16 V")]
    [InlineData(100, 16, false, null)]
    public void A_part_goes_in_when_value_and_volts_fit(double microfarads, double volts, bool polar, string? problem) =>
        CapacitorMatch.Judge(Position(), Part(microfarads, volts, polar)).Problem.ShouldBe(problem);

    [Fact]
    public void A_bipolar_place_takes_no_polar_part_and_holes_no_surface_can()
    {
        CapacitorMatch.Judge(Position(polar: false), Part()).Problem.ShouldBe("the position wants a bipolar one");
        CapacitorMatch.Judge(Position(polar: false), Part(polar: false)).Problem.ShouldBeNull();
        CapacitorMatch.Judge(Position(), Part(mount: "surface")).Problem.ShouldNotBeNull();
        CapacitorMatch.Judge(Position(mount: "surface"), Part()).Problem.ShouldBeNull();
    }

    [Fact]
    public void In_a_supply_the_ESR_must_not_be_above_the_table()
    {
        var largest = BenchLimits.Shipped.LargestEsrOhms(100e-6);
        CapacitorMatch.Judge(Position(section: "supply"), Part(esr: largest * 1.1), largest).Problem!.ShouldStartWith("ESR");
        CapacitorMatch.Judge(Position(section: "supply"), Part(esr: largest * 0.9), largest).Problem.ShouldBeNull();
        CapacitorMatch.Judge(Position(section: "sound"), Part(esr: largest * 1.1), largest).Problem.ShouldBeNull();
    }

    [Fact]
    public void Ones_own_come_before_bought_ones_then_105_degrees_and_the_nearest_value()
    {
        var own = Part(celsius: 85) with { Id = "own", Source = CapacitorSource.Stock, Count = 2 };
        var near = Part(82) with { Id = "near" };
        var exact = Part() with { Id = "exact" };
        var none = Part() with { Id = "none", Source = CapacitorSource.Stock, Count = 0 };
        CapacitorMatch.Rank(Position(), [near, none, exact, own]).Select(m => m.Part.Id).ShouldBe(["own", "exact", "near"]);
    }

    [Fact]
    public void Every_position_of_the_demo_boards_finds_a_part_and_a_way_out()
    {
        var catalogue = Library.Catalogue();
        foreach (var profile in new[] { "dovrel-sextant", "harrow-quartet", "quillon-tripos", "pellin-atrium-cartridge" }.Select(Shipped.Profile))
        foreach (var revision in profile.Revisions)
        foreach (var position in RecapPositions.Of(profile, profile.Boards!, revision.Id))
        {
            CapacitorMatch.Rank(position.Capacitor, catalogue).ShouldNotBeEmpty($"{profile.Id} {revision.Id} {position.Key}");
            Library.RemovalOf(position.Capacitor).Steps.ShouldNotBeEmpty();
        }
    }

    [Theory]
    [InlineData("aluminium-square", "surface", "square")]
    [InlineData("aluminium", "surface", "surface")]
    [InlineData(null, null, "through-hole")]
    [InlineData("tantalum", "surface", "other")]
    public void How_it_comes_out_goes_by_technology_and_mount(string? technology, string? mount, string removal) =>
        Library.RemovalOf(new BoardCapacitor("C1", Technology: technology, Mount: mount)).Id.ShouldBe(removal);

    // A gamma-distributed rate and no Poisson event: its mean over the gamma density (Gelman et al., Bayesian Data Analysis, 2.6),
    // here integrated by Simpson's rule.
    [Fact]
    public void The_chance_of_another_failure_is_the_mean_over_the_gamma_rate() =>
        Gen.Select(Gen.Int[5, 40], Gen.Double[0, 1], Gen.Double[5, 40], Gen.Int[1, 30], Gen.Double[0, 10])
            .Sample(
                (count, share, age, remaining, years) =>
                {
                    var failed = (int)(share * count);
                    double Wear(double t) => Math.Pow(t / Library.Ageing.AtYears, Library.Ageing.Shape);
                    var (shape, rate) = (Library.Ageing.Failures + failed, Library.Ageing.Capacitors + count * Wear(age));
                    var ahead = remaining * (Wear(age + years) - Wear(age));
                    double Density(double x) => x <= 0 ? 0 : Math.Exp((shape - 1) * Math.Log(x) - rate * x);
                    double Integral(Func<double, double> f)
                    {
                        const int n = 4000;
                        var h = (shape / rate + 12 * Math.Sqrt(shape) / rate) / n;
                        return Enumerable.Range(0, n + 1).Sum(i => (i == 0 || i == n ? 1 : i % 2 == 1 ? 4 : 2) * f(i * h)) * h / 3;
                    }

                    var none = Integral(x => Density(x) * Math.Exp(-x * ahead)) / Integral(Density);
                    Library.Ageing.AnotherFails(count, failed, age, remaining, years).ShouldBe(1 - none, 2e-3);
                },
                iter: 200
            );

    [Fact]
    public void With_nothing_old_left_nothing_old_fails() => Library.Ageing.AnotherFails(23, 4, 30, 0, 5).ShouldBe(0);

    // Value from memory: of twenty-one old ones in a lit handheld, none of them looked at, at least every third unit loses one in five years.
    [Fact]
    public void Old_ones_that_nobody_looked_at_are_not_taken_for_sound()
    {
        var unseen = Library.Ageing.AnotherFails(0, 0, 30, 21, 5);
        unseen.ShouldBeInRange(0.33, 0.7);
        Library.Ageing.AnotherFails(21, 0, 30, 21, 5).ShouldBeLessThan(unseen);
        Library.Ageing.AnotherFails(21, 4, 30, 17, 5).ShouldBeGreaterThan(unseen);
        Library.Ageing.AnotherFails(0, 0, 15, 21, 5).ShouldBeLessThan(unseen / 1.5);
        var (low, high) = Library.Ageing.Spread(0, 0, 30, 21, 5);
        (low < unseen && unseen < high).ShouldBeTrue();
    }

    // With shape 1 the rate's quantiles are those of the exponential distribution: −ln(1 − q).
    [Fact]
    public void The_spread_is_that_of_the_rate()
    {
        var prior = new AgeingPrior(1, 12, 30, 1, "test");
        var ahead = 10 * 5 / 30.0 / 12;
        var (low, high) = prior.Spread(0, 0, 30, 10, 5);
        low.ShouldBe(1 - Math.Exp(Math.Log(0.9) * ahead), 0.002);
        high.ShouldBe(1 - Math.Exp(Math.Log(0.1) * ahead), 0.004);
    }

    // E6 of IEC 60063 from 0.47 to 2200 µF: what a board of that time carries is on the shelf of any trade.
    [Fact]
    public void The_catalogue_has_every_value_of_E6()
    {
        double[] decade = [1, 1.5, 2.2, 3.3, 4.7, 6.8];
        var wanted = new[] { 0.47, 0.68 }
            .Concat(Enumerable.Range(0, 4).SelectMany(e => decade.Select(d => d * Math.Pow(10, e))))
            .Where(v => v <= 2200.1);
        var has = Library.Catalogue().Where(p => p.Mount == "through-hole").Select(p => p.Farads * 1e6).ToList();
        foreach (var value in wanted)
            has.ShouldContain(v => Math.Abs(v / value - 1) < 0.01, $"{value} µF");
    }

    [Theory]
    [InlineData(820, 10, true)] // 680 µF lies within its tolerance
    [InlineData(0.47, 50, true)]
    [InlineData(68, 35, true)]
    [InlineData(4000, 16, false)]
    [InlineData(22, 400, false)]
    public void What_fits_nothing_says_why_and_what_comes_nearest(double microfarads, double volts, bool fits)
    {
        var position = new BoardCapacitor("C1", Farads: microfarads * 1e-6, Volts: volts, Mount: "through-hole");
        var parts = Library.Catalogue().ToList();
        CapacitorMatch.Rank(position, parts).Any().ShouldBe(fits);
        if (fits)
            return;
        var said = NothingFits.Say(position, parts);
        said.ShouldStartWith("nothing fits: ");
        said.ShouldContain("nearest");
        if (microfarads == 4000)
            said.ShouldContain("two in parallel where there is room: 2200 µF");
    }
}
