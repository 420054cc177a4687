using Mendro.Core.Stock;

namespace Mendro.Core.Tests.Stock;

/// <summary>What stands in for what, and files of stock and prices.</summary>
public sealed class StockTests
{
    private static StockSpec Cap(double micro, double volts, string size = "5x11") =>
        new($"{micro} u", StockSpec.Capacitor, micro * 1e-6, volts, Size: size, Mount: "through-hole");

    private static StockSpec Res(double ohms, double watts) => new($"{ohms} R", StockSpec.Resistor, ohms, Watts: watts);

    // Rules of the trade (common practice, no source): value within 20 %, volts the same or higher but not wildly.
    [Theory]
    [InlineData(22, 16, true)]
    [InlineData(22, 25, true)]
    [InlineData(18, 16, true)]
    [InlineData(22, 10, false)]
    [InlineData(22, 100, false)]
    [InlineData(33, 16, false)]
    public void A_capacitor_stands_in_within_its_tolerance_and_not_below_its_volts(double micro, double volts, bool fits) =>
        Substitute.Judge(Cap(22, 16), Cap(micro, volts)).Fits.ShouldBe(fits);

    [Theory]
    [InlineData(4700, 0.25, true, true)]
    [InlineData(4700, 0.5, true, false)]
    [InlineData(4900, 0.25, true, false)]
    [InlineData(4700, 0.125, false, false)]
    [InlineData(5600, 0.25, false, false)]
    public void A_resistor_stands_in_by_value_and_power(double ohms, double watts, bool fits, bool exact)
    {
        var judged = Substitute.Judge(Res(4700, 0.25), Res(ohms, watts));
        (judged.Fits, judged.Exact).ShouldBe((fits, exact));
    }

    [Fact]
    public void Others_go_by_name_or_pins_and_never_from_another_model_revision_or_colour()
    {
        var wanted = new StockSpec("Switch", "switch", Pins: "slide-3", Model: "harrow-quartet", Revision: "B");
        Substitute.Judge(wanted, wanted with { }).ShouldBe(new Substitute(true, true, ""));
        Substitute.Judge(wanted, wanted with { Name = "Slide switch" }).ShouldBe(new Substitute(true, false, "same pins, Slide switch"));
        Substitute.Judge(wanted, wanted with { Name = "Slide switch", Pins = "slide-5" }).Fits.ShouldBeFalse();
        Substitute.Judge(wanted, wanted with { Model = "tarn-leaflet" }).Why.ShouldBe("of another model");
        Substitute.Judge(wanted, wanted with { Revision = "A" }).Why.ShouldBe("of revision A");
        Substitute.Judge(wanted with { Colour = "grey" }, wanted with { Colour = "blue" }).Fits.ShouldBeFalse();
        Substitute.Judge(wanted, wanted with { Model = "", Revision = "" }).Fits.ShouldBeTrue();
    }

    [Fact]
    public void A_file_out_and_in_again_is_the_same()
    {
        StockLine[] lines =
        [
            new(Cap(22, 16), "C2", 18, 10, 0.14m, "ordered"),
            new(new StockSpec("=odd, name", "switch", Colour: "grey", Pins: "slide-3", Model: "harrow-quartet", Revision: "B"), "", 0, null, null, ""),
            new(Res(4700, 0.25), "C1", 35, null, 0.03m, "assortment"),
        ];
        StockFile.Read(StockFile.Write(lines), out var problems).ShouldBe(lines);
        problems.ShouldBeEmpty();
    }

    [Fact]
    public void Two_thousand_lines_tell_every_wrong_one_with_its_field()
    {
        var rows = Enumerable.Range(2, 2000).Select(n => n % 400 == 0 ? $"part {n},many" : $"part {n},{n}");
        StockFile.Read("name,count\n" + string.Join('\n', rows), out var problems).Count.ShouldBe(1995);
        problems.Count.ShouldBe(5);
        problems[0].ShouldBe("line 400: count: “many” is no number of 0 to 100000.");
        StockFile.Read("name,sort,value,count\nswitch,switch,22u,1\ncap,capacitor,twenty,1\n", out problems).ShouldBeEmpty();
        problems[0].ShouldStartWith("line 2: value: only");
        problems[1].ShouldStartWith("line 3: value: “twenty”");
        StockFile.Read("thing,count\nx,1\n", out problems).ShouldBeEmpty();
        problems.Single().ShouldStartWith("line 1");
    }

    [Fact]
    public void A_price_list_is_read_to_its_last_field()
    {
        PriceList.Read("number;part;price;from;available\nA-1;Fuse 1 A;0,20;;500\nA-1;Fuse 1 A;0,12;100;500\n", out var problems)
            .ShouldBe([new PriceLine("A-1", "Fuse 1 A", 0.20m, 1, 500), new PriceLine("A-1", "Fuse 1 A", 0.12m, 100, 500)]);
        problems.ShouldBeEmpty();
        PriceList.Read("part,price\nfuse,dear\nfuse,0.12345\n,1\n", out problems).ShouldBeEmpty();
        problems.Select(p => p[..15]).ShouldBe(["line 2: price: ", "line 3: price: ", "line 4: part: 1"]);
    }

    [Theory]
    [InlineData("""{"format":"mendro.prices/1","currency":"EUR","postage":1,"leadDays":2,"offers":[{"part":"a","price":1},{"part":"b"}]}""", "offers[1]")]
    [InlineData("""{"format":"mendro.prices/1","currency":"EUR","postage":1,"leadDays":2,"offers":[{"part":"a","price":-1}]}""", "offers[0].price")]
    [InlineData("""{"format":"mendro.prices/1","currency":"euro","postage":1,"leadDays":2,"offers":[]}""", "currency")]
    [InlineData("""{"format":"mendro.prices/1","currency":"EUR","leadDays":2,"offers":[]}""", "postage")]
    [InlineData("""{"currency":"EUR","postage":1,"leadDays":2,"offers":[]}""", "format")]
    [InlineData("""{"format":"mendro.prices/1","currency":"EUR","postage":1,"leadD""", "")]
    [InlineData("<html>closed</html>", "")]
    public void Half_an_answer_is_none(string answer, string place)
    {
        var read = PriceList.ReadAnswer(answer);
        read.IsOk.ShouldBeFalse();
        read.Problem!.ShouldContain(place);
    }
}
