using CsCheck;
using Mendro.Core.Methods;

namespace Mendro.Core.Tests.Methods;

/// <summary>Agents against surfaces, and against each other in the order in which they are put on.</summary>
public class MaterialCheckTests
{
    private static readonly MaterialLibrary Library = MaterialLibrary.Shipped;

    private static SequenceStep On(string agent, string surface = "bare-plastic", double? minutes = null) => new(agent, surface, minutes);

    private static SequenceStep Rinse { get; } = new(Rinse: true);

    private static SequenceStep Power { get; } = new(Power: true);

    private static SequenceStep Heat { get; } = new(Heat: 350);

    private static SequenceStep Dry(double minutes) => new(Dry: minutes);

    private static string[] Rules(params SequenceStep[] steps) =>
        [.. MaterialCheck.Of(steps, Library).Stops.Select(s => $"{s.Index}:{s.Rule}")];

    /// <summary>Agents and surfaces that benches ask for.</summary>
    [Fact]
    public void Every_agent_says_something_of_every_surface_with_a_reason_where_it_is_not_safe()
    {
        Library.Format.ShouldBe("mendro.materials/1");
        string[] agents =
        [
            "isopropyl-99",
            "isopropyl-91",
            "isopropyl-70",
            "vinegar",
            "lime-remover",
            "bicarbonate",
            "contact-cleaner",
            "metal-polish",
            "glass-fibre-pen",
            "eraser",
            "penetrant",
            "abrasive-paper",
            "bleach-1-10",
            "peroxide-gel",
            "ammonia-cleaner",
            "dish-soap",
            "water",
            "flux",
            "toothpaste",
            "silicone-grease",
            "lithium-grease",
            "machine-oil",
            "cleaning-petrol",
            "solvent-glue",
            "instant-glue",
            "epoxy",
        ];
        string[] surfaces =
        [
            "plated-contacts",
            "battery-contacts",
            "copper",
            "solder",
            "board",
            "bare-plastic",
            "clear-plastic",
            "printed-logo",
            "paper-label",
            "rubber",
            "metal-shield",
            "lens",
            "ribbon-joint",
            "rails",
        ];
        Library.Agents.Select(a => a.Id).ShouldBe(agents, ignoreOrder: true);
        Library.Surfaces.Select(s => s.Id).ShouldBe(surfaces, ignoreOrder: true);
        foreach (var agent in Library.Agents)
        {
            agent.Surfaces.Keys.ShouldBe(surfaces, ignoreOrder: true, agent.Id);
            agent.Surfaces.Values.ShouldAllBe(r => r.Verdict == MaterialVerdict.Safe == (r.Reason == null));
            agent.Source.ShouldNotBeNullOrEmpty();
        }
    }

    // What the trade says of its own harm (common practice, no source).
    [Theory]
    [InlineData("isopropyl-99", "printed-logo", MaterialVerdict.Never)]
    [InlineData("isopropyl-91", "paper-label", MaterialVerdict.TestFirst)]
    [InlineData("isopropyl-99", "plated-contacts", MaterialVerdict.Safe)]
    [InlineData("ammonia-cleaner", "clear-plastic", MaterialVerdict.Never)]
    [InlineData("bleach-1-10", "bare-plastic", MaterialVerdict.Safe)]
    [InlineData("bleach-1-10", "copper", MaterialVerdict.Never)]
    [InlineData("bleach-1-10", "metal-shield", MaterialVerdict.Never)]
    [InlineData("silicone-grease", "lens", MaterialVerdict.Never)]
    [InlineData("silicone-grease", "rails", MaterialVerdict.Safe)]
    [InlineData("contact-cleaner", "rubber", MaterialVerdict.TestFirst)]
    [InlineData("abrasive-paper", "plated-contacts", MaterialVerdict.TestFirst)]
    [InlineData("eraser", "plated-contacts", MaterialVerdict.Safe)]
    [InlineData("vinegar", "battery-contacts", MaterialVerdict.Safe)]
    [InlineData("water", "paper-label", MaterialVerdict.Never)]
    [InlineData("toothpaste", "clear-plastic", MaterialVerdict.TestFirst)]
    public void An_agent_and_a_surface(string agent, string surface, MaterialVerdict verdict) =>
        MaterialCheck.Of([On(agent, surface)], Library).Steps.Single().Verdict.ShouldBe(verdict);

    [Fact]
    public void Polish_left_on_too_long_is_said()
    {
        MaterialCheck.Of([On("metal-polish", "copper", 5)], Library).Steps.Single().Verdict.ShouldBe(MaterialVerdict.Safe);
        var long_ = MaterialCheck.Of([On("metal-polish", "copper", 9)], Library).Steps.Single();
        (long_.Verdict, long_.Reasons.Single()).ShouldBe((MaterialVerdict.TestFirst, "leave it 5 min at most"));
    }

    /// <summary>
    /// Every ordered pair of agents: only what makes poison stops, in either order, and nothing else does. The table is by classes, from
    /// what poison centres and makers print on bottles: bleach with nothing but water; peroxide with no acid and no ketone.
    /// </summary>
    [Fact]
    public void Every_ordered_pair_of_agents()
    {
        string[] acids = ["vinegar", "lime-remover"];
        string[] alcohols = ["isopropyl-99", "isopropyl-91", "isopropyl-70"];
        // Solvent cements for plastics are mostly butanone and acetone.
        string[] ketones = ["solvent-glue"];
        string? Poison(string a, string b)
        {
            bool Are(string[] some, string one) => a == one && some.Contains(b) || b == one && some.Contains(a);
            return Are(acids, "bleach-1-10") ? "chlorine"
                : Are(alcohols, "bleach-1-10") ? "chloroform"
                : Are(["ammonia-cleaner"], "bleach-1-10") ? "chloramine"
                : Are(["peroxide-gel"], "bleach-1-10") ? "bleach-peroxide"
                : Are(ketones, "bleach-1-10") ? "bleach-solvent"
                : Are(acids, "peroxide-gel") ? "peracid"
                : Are(ketones, "peroxide-gel") ? "organic-peroxide"
                : null;
        }

        foreach (var a in Library.Agents)
        foreach (var b in Library.Agents)
        {
            var poison = Poison(a.Id, b.Id);
            var dusty = b.Grease && a.Sheds;
            string[] expected =
                poison is not null ? [$"1:{poison}"]
                : dusty ? ["1:shedding"]
                : [];
            // On another surface of the same unit it is the same room and the same run-off.
            Rules(On(a.Id), On(b.Id, "rails")).ShouldBe(expected, $"{a.Id} then {b.Id}");
            // Rinsed off and dried, nothing is left to meet; rinsed only, what poisons is still there.
            Rules(On(a.Id), Rinse, Dry(60), On(b.Id)).ShouldBeEmpty($"{a.Id}, rinse, dry, {b.Id}");
            Rules(On(a.Id), Rinse, On(b.Id)).ShouldBe(poison is null ? [] : [$"2:{poison}"], $"{a.Id}, rinse, {b.Id}");
        }
    }

    // Flash point of isopropyl alcohol 12 °C, closed cup (common safety data sheets; value from memory): below any room, any iron.
    [Theory]
    [InlineData("isopropyl-99")]
    [InlineData("isopropyl-91")]
    [InlineData("isopropyl-70")]
    [InlineData("contact-cleaner")]
    [InlineData("penetrant")]
    [InlineData("cleaning-petrol")]
    [InlineData("solvent-glue")]
    public void Vapour_that_burns_dries_away_before_heat_and_power(string agent)
    {
        Rules(On(agent), Heat).ShouldContain("1:flammable-heat");
        Rules(On(agent), Power).ShouldContain("1:flammable-power");
        Rules(On(agent), Dry(60), Heat, Power).ShouldNotContain(r => r.Contains("flammable", StringComparison.Ordinal));
        // Drying adds up.
        var half = Library.FindAgent(agent)!.DryMinutes / 2;
        Rules(On(agent), Dry(half), Dry(half), Heat).ShouldNotContain("3:flammable-heat");
        Rules(On(agent), Dry(0.5), Heat).ShouldContain("2:flammable-heat");
    }

    [Fact]
    public void Water_dries_before_power_and_a_rinse_is_water_too()
    {
        Rules(On("water"), Power).ShouldBe(["1:wet-power"]);
        Rules(On("water"), Dry(60), Power).ShouldBeEmpty();
        Rules(Rinse, Power).ShouldBe(["1:wet-power"]);
        Rules(Rinse, Dry(60), Power).ShouldBeEmpty();
        // Alcohol that is a third water leaves it.
        Rules(On("isopropyl-70"), Dry(4), Power).ShouldBe(["2:flammable-power", "2:wet-power"]);
        // Wetted again it is wet again.
        Rules(Rinse, Dry(60), Rinse, Power).ShouldBe(["3:wet-power"]);
    }

    [Fact]
    public void What_keeps_eating_comes_off_before_heat_and_power()
    {
        Rules(On("metal-polish", "copper"), Dry(60), Power).ShouldBe(["2:residue"]);
        // All of it with alcohol, on that very place.
        Rules(On("metal-polish", "copper"), On("isopropyl-99", "copper"), Dry(60), Power).ShouldBeEmpty();
        Rules(On("metal-polish", "copper"), On("isopropyl-99", "rails"), Dry(60), Power).ShouldBe(["3:residue"]);
        Rules(On("vinegar", "battery-contacts"), On("isopropyl-99", "battery-contacts"), Dry(60), Power).ShouldBe(["3:residue"]);
        // Acid, bicarbonate, alcohol, dry: as the trade does it.
        Rules(
                On("vinegar", "battery-contacts", 15),
                On("bicarbonate", "battery-contacts"),
                Rinse,
                On("isopropyl-99", "battery-contacts"),
                Dry(60),
                Heat,
                Power
            )
            .ShouldBeEmpty();
        // A salt does not go off with alcohol, toothpaste neither; silicone wants a hydrocarbon.
        Rules(On("bicarbonate", "battery-contacts"), On("isopropyl-99", "battery-contacts"), Dry(60), Power).ShouldBe(["3:residue"]);
        Rules(On("toothpaste", "clear-plastic"), On("isopropyl-99", "clear-plastic"), Dry(60), Power).ShouldBe(["3:residue"]);
        foreach (var greased in (string[])["isopropyl-99", "isopropyl-91", "isopropyl-70", "contact-cleaner"])
            Library.FindAgent(greased)!.Removes!.ShouldNotContain("silicone-grease");
        Library.FindAgent("cleaning-petrol")!.Removes!.ShouldContain("silicone-grease");
        Rules(On("lime-remover", "battery-contacts"), Rinse, Dry(60), Power).ShouldBeEmpty();
    }

    [Fact]
    public void Dust_that_conducts_comes_off_before_power_and_grease()
    {
        Rules(On("glass-fibre-pen", "copper"), Power).ShouldBe(["1:shedding"]);
        Rules(On("abrasive-paper", "battery-contacts"), Power).ShouldBe(["1:shedding"]);
        Rules(On("glass-fibre-pen", "copper"), On("isopropyl-99", "copper"), Dry(60), Power).ShouldBeEmpty();
        Rules(On("eraser", "plated-contacts"), On("isopropyl-99", "plated-contacts"), Dry(60), Power).ShouldBeEmpty();
    }

    private static readonly Gen<SequenceStep> AnyStep = Gen.OneOf(
        Gen.Select(Gen.Int[0, Library.Agents.Count - 1], Gen.Int[0, Library.Surfaces.Count - 1])
            .Select((a, s) => On(Library.Agents[a].Id, Library.Surfaces[s].Id)),
        Gen.Const(Rinse),
        Gen.Double[0.1, 60].Select(Dry),
        Gen.Const(Heat),
        Gen.Const(Power)
    );

    [Fact]
    public void Whatever_was_done_a_rinse_and_a_day_of_drying_lift_every_stop_and_what_is_added_before_lifts_none() =>
        AnyStep
            .Array[0, 12]
            .Sample(steps =>
            {
                SequenceStep[] after = [On("bleach-1-10"), Rinse, Dry(1440), On("vinegar"), Rinse, Dry(1440), Heat, Power];
                Rules([.. steps, Rinse, Dry(1440), .. after])
                    .ShouldNotContain(r => int.Parse(r.Split(':')[0], System.Globalization.CultureInfo.InvariantCulture) >= steps.Length);
                // A stop stays when the unit is heated once more in between.
                var stopped = Rules([.. steps, Power])
                    .Where(r => r.StartsWith($"{steps.Length}:", StringComparison.Ordinal))
                    .Select(r => r.Split(':')[1]);
                var later = Rules([.. steps, Heat, Power])
                    .Where(r => r.StartsWith($"{steps.Length + 1}:", StringComparison.Ordinal))
                    .Select(r => r.Split(':')[1]);
                later.ShouldBe(stopped);
            });

    [Theory]
    [InlineData("""{"steps":[{"agent":"lemonade","surface":"copper"}]}""", "steps[0].agent")]
    [InlineData("""{"steps":[{"agent":"water","surface":"wood"}]}""", "steps[0].surface")]
    [InlineData("""{"steps":[{"agent":"water"}]}""", "steps[0].surface")]
    [InlineData("""{"steps":[{"rinse":true},{}]}""", "steps[1]")]
    [InlineData("""{"steps":[{"rinse":true,"power":true}]}""", "steps[0]")]
    [InlineData("""{"steps":[{"dry":-1}]}""", "steps[0].dry")]
    [InlineData("""{"steps":[null]}""", "steps[0]")]
    [InlineData("""{"format":"mendro.profile/1","steps":[]}""", "format")]
    [InlineData("""{}""", "steps")]
    [InlineData("""[]""", "the file")]
    public void What_cannot_be_read_says_where(string json, string place) =>
        MaterialSequence.Read(json, Library).Problem.ShouldNotBeNull().ShouldStartWith(place);
}
