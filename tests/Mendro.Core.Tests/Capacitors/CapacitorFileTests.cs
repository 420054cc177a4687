using CsCheck;
using Mendro.Core.Capacitors;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Capacitors;

/// <summary>Kits, drawers and lists as CSV; what to buy and what a kit lacks.</summary>
public class CapacitorFileTests
{
    private static IReadOnlyList<RecapPosition> Sextant(string revision = "A")
    {
        var profile = Shipped.Profile("dovrel-sextant");
        return RecapPositions.Of(profile, profile.Boards!, revision);
    }

    // IEC 60062 for printed codes; a bare number on an electrolytic is microfarads (common practice, no source).
    [Theory]
    [InlineData("22u", 22e-6)]
    [InlineData("4u7", 4.7e-6)]
    [InlineData("0,1 µF", 0.1e-6)]
    [InlineData("104", 100e-9)]
    [InlineData("225K", 2.2e-6)]
    [InlineData("220", 220e-6)]
    [InlineData("47", 47e-6)]
    [InlineData("2.2", 2.2e-6)]
    [InlineData("100MFD", 100e-6)]
    [InlineData("", null)]
    [InlineData("blue", null)]
    [InlineData("0", null)]
    public void A_value_is_read_as_it_is_printed_or_typed(string typed, double? farads)
    {
        if (farads is { } wanted)
            CapacitorFile.Farads(typed)!.Value.ShouldBe(wanted, wanted * 1e-9);
        else
            CapacitorFile.Farads(typed).ShouldBeNull();
    }

    [Fact]
    public void A_kit_is_read_with_its_sizes_and_what_is_wrong_is_told_by_line()
    {
        var kit = CapacitorFile.ReadParts(
            "Value;Volts;Size;Count;Polar;Celsius;Price\n100u;16;6.3x7;4;yes;105;0,12\n10u;16;5×7 mm;2;no;85;\n"
                + "x;16;5x7;1;;;\n10u;16;big;1;;;\n10u;;5x7;1;;;\n10u;16;5x7;-1;;;\n",
            CapacitorSource.Kit,
            out var problems
        );
        kit.Select(k => (k.Farads, k.Volts, k.DiameterMm, k.HeightMm, k.Count, k.Polar, k.Celsius, k.Price))
            .ShouldBe([(100e-6, 16, 6.3, 7, 4, true, 105, 0.12m), (10e-6, 16, 5, 7, 2, false, 85, null)]);
        problems.Select(p => p.Split(':')[0]).ShouldBe(["line 4", "line 5", "line 6", "line 7"]);
        CapacitorFile.ReadParts("a,b\n1,2\n", CapacitorSource.Kit, out problems).ShouldBeEmpty();
        problems.Single().ShouldContain("line 1: the columns must be value, volts");
    }

    [Fact]
    public void The_list_of_positions_comes_back_as_it_went()
    {
        var before = Sextant();
        var back = CapacitorFile.ReadList(CapacitorFile.WriteList(before), out var problems);
        problems.ShouldBeEmpty();
        static string Told(string board, BoardCapacitor c) =>
            FormattableString.Invariant(
                $"{board}|{c.Refdes}|{c.Section}|{c.Farads * 1e9:0}|{c.Volts}|{c.DiameterMm}|{c.HeightMm}|{c.Mount}|{c.Polar}"
            );
        back.SelectMany(b => (b.Capacitors ?? []).Select(c => Told(b.Name, c))).ShouldBe(before.Select(p => Told(p.Board.Name, p.Capacitor)));
        CapacitorFile.ReadList("refdes,value\nC1,10u\nC1,22u\n", out problems);
        problems.Single().ShouldBe("“C1” is there twice.");
    }

    // Every way in which parts can be lost, added up one by one.
    [Fact]
    public void Spares_are_the_fewest_that_are_enough_with_the_wanted_certainty() =>
        Gen.Select(Gen.Int[1, 9], Gen.Double[0.01, 0.3])
            .Sample(
                (needed, loss) =>
                {
                    double Enough(int spares)
                    {
                        var all = needed + spares;
                        return Enumerable
                            .Range(0, 1 << all)
                            .Select(way => System.Numerics.BitOperations.PopCount((uint)way))
                            .Where(lost => lost <= spares)
                            .Sum(lost => Math.Pow(loss, lost) * Math.Pow(1 - loss, all - lost));
                    }

                    var told = ShoppingList.Spares(needed, loss);
                    Enough(told).ShouldBeGreaterThanOrEqualTo(ShoppingList.Sure - 1e-9);
                    if (told > 0)
                        Enough(told - 1).ShouldBeLessThan(ShoppingList.Sure);
                },
                iter: 40
            );

    [Fact]
    public void The_list_counts_all_units_takes_off_the_drawer_and_reads_back_as_a_kit_that_is_enough()
    {
        var positions = Sextant();
        var catalogue = CapacitorLibrary.Shipped.Catalogue();
        var chosen = positions.Select(p => (p, CapacitorMatch.Rank(p.Capacitor, catalogue)[0].Part)).ToList();
        var two = ShoppingList.Make(chosen, 2, 0.03, []);
        two.Sum(l => l.Needed).ShouldBe(46);
        two.Sum(l => l.Spares).ShouldBeGreaterThan(0);
        var kit = CapacitorFile.ReadParts(ShoppingList.Csv(two), CapacitorSource.Kit, out var problems);
        problems.ShouldBeEmpty();
        ShoppingList.Check(positions, kit).ShouldBeEmpty();
        ShoppingList.Make(chosen, 2, 0.03, kit).ShouldAllBe(l => l.ToBuy == 0);
    }

    [Fact]
    public void A_kit_is_told_what_it_lacks_position_by_position()
    {
        var sound = Sextant().Where(p => p.Board.Id == "sound").ToList();
        // C1 and C2 want 100 µF 6.3 V, C4 100 µF 10 V; C3 10 µF 16 V; C5 47 µF 10 V; C6 4.7 µF 25 V under 7.5 mm.
        var kit = CapacitorFile.ReadParts(
            "value,volts,size,count\n100u,10,6.3x7,2\n10u,10,4x7,1\n47u,16,10x12,1\n",
            CapacitorSource.Kit,
            out _
        );
        ShoppingList
            .Check(sound, kit)
            .ToDictionary(g => g.Position.Capacitor.Refdes, g => g.Reason)
            .ShouldBe(
                new Dictionary<string, string>
                {
                    ["C2"] = "missing: too few of it",
                    ["C3"] = "wrong volts: 10 V for 16 V",
                    ["C5"] = "too tall: 7.5 mm there",
                    ["C6"] = "missing",
                },
                ignoreOrder: true
            );
    }

    [Theory]
    [InlineData("dovrel-sextant")]
    [InlineData("harrow-quartet")]
    [InlineData("quillon-tripos")]
    [InlineData("pellin-atrium-cartridge")]
    public void Boards_written_as_text_are_read_back_the_same(string id)
    {
        var boards = Shipped.Profile(id).Boards!;
        var text = BoardText.Write(boards);
        var back = BoardText.Read(text, out var problems);
        problems.ShouldBeEmpty();
        BoardText.Write(back).ShouldBe(text);
        back.SelectMany(b => (b.Capacitors ?? []).Select(c => (b.Id, c.Refdes, c.Farads, c.Polar, c.Mount, c.Part)))
            .ShouldBe(boards.SelectMany(b => (b.Capacitors ?? []).Select(c => (b.Id, c.Refdes, c.Farads, c.Polar, c.Mount, c.Part))));
        back.SelectMany(b => (b.Points ?? []).Select(p => (b.Id, p))).ShouldBe(boards.SelectMany(b => (b.Points ?? []).Select(p => (b.Id, p))));
        back.SelectMany(b => (b.Nets ?? []).SelectMany(n => (n.Segments ?? []).Select(s => (b.Id, n.Id, n.Serves, n.Amps, s[0], s[1]))))
            .ShouldBe(
                boards.SelectMany(b => (b.Nets ?? []).SelectMany(n => (n.Segments ?? []).Select(s => (b.Id, n.Id, n.Serves, n.Amps, s[0], s[1]))))
            );
    }

    [Fact]
    public void What_cannot_be_read_of_a_board_is_told_by_line()
    {
        BoardText.Read("cap C1: 10u\nboard a: A; 0 0, 1 0, 1 1\nzone high: 0 0, 1 0, 1 1\ncap C2: supply; ten\nhello\n", out var problems);
        problems.Select(p => p.Place).ShouldBe(["boards, line 1", "boards, line 3", "boards, line 4", "boards, line 5"]);
    }
}
