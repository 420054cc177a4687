using AngleSharp.Dom;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Shop;
using Mendro.Storage;

namespace Mendro.Web.Tests;

/// <summary>The hazards of a unit on its pages: at every method, reading and step inside, for each kind of hazard that a build has.</summary>
public sealed class HazardPagesTests(WebShop shop) : IClassFixture<WebShop>
{
    private readonly WebShop _shop = shop;

    // Between them they have every hazard that a model can bring.
    public static TheoryData<string> Builds { get; } =
        new(
            "build-console-internal-supply",
            "build-disc-console-lid",
            "build-handheld-six-cell-tube",
            "build-handheld-clone-pack",
            "build-console-three-rails",
            "build-cartridge-save-cell",
            "build-adapter-dc"
        );

    [Fact]
    public void Between_them_they_have_every_hazard() =>
        Builds
            .Select(b => TradeLibrary.Shipped.Archetypes.First(p => p.Id == b.Data))
            .SelectMany(p => UnitHazards.Of(p, TradeLibrary.Shipped).At(AccessState.Open, p.Parts))
            .Select(c => c.Id)
            .Distinct()
            .ShouldBe(
                TradeLibrary
                    .Shipped.Archetypes.SelectMany(p => UnitHazards.Of(p, TradeLibrary.Shipped).At(AccessState.Open, p.Parts))
                    .Select(c => c.Id)
                    .Distinct(),
                ignoreOrder: true
            );

    [Theory]
    [MemberData(nameof(Builds))]
    public async Task Every_method_and_every_check_shows_them(string build)
    {
        var number = await _shop.TakeIn(build);
        var view = _shop.View(number);
        var hazards = view.Hazards;
        foreach (var part in view.Profile.Parts)
        {
            var page = await _shop.Page($"/Jobs/{number}/Fix?part={part.Id}");
            foreach (var method in page.QuerySelectorAll(".method"))
            {
                var id = method.QuerySelector("input[name=method]")!.GetAttribute("value")!;
                Shown(method).ShouldBe(Titles(hazards.At(_shop.Library.FindMethod(id)!, part)), $"{part.Id}: {id}");
            }
        }

        foreach (var probe in view.Profile.Probes)
        {
            var page = await _shop.Page($"/Jobs/{number}/Find?select=probe:{probe.Id}");
            var bar = page.QuerySelector(".reading-bar")!;
            Shown(bar).ShouldBe(Titles(hazards.At(probe, view.Profile)), probe.Id.Value);
        }

        var apart = await _shop.Page($"/Jobs/{number}/Apart?to=board");
        foreach (var step in apart.QuerySelectorAll(".apart-steps li"))
            foreach (var hazard in hazards.Inside)
                step.TextContent.ShouldContain(hazard.Text);
        // Above every page of the unit they stand in a line.
        foreach (var stage in (string[])["Intake", "Find", "Fix", "Prove", "HandOver"])
            (await _shop.Page($"/Jobs/{number}/{stage}")).QuerySelector(".hazards summary")?.TextContent.ShouldContain(hazards.Inside[0].Title);
    }

    [Fact]
    public async Task A_run_sheet_in_a_mains_unit_begins_with_the_reservoir_and_shows_the_hazards_at_each_step()
    {
        var number = await _shop.TakeIn("build-disc-console-lid");
        _shop.Service<RunDesk>().Start(number, "drive", "clean-lens").Done.ShouldNotBeNull();
        var page = await _shop.Page($"/Jobs/{number}/Run");
        page.QuerySelector("#now")!.TextContent.ShouldContain("reservoir");
        page.QuerySelector(".run-now")!.TextContent.ShouldContain("Mains inside");
        _shop.Service<RunDesk>().Next(number, 0, false).Done.ShouldNotBeNull();
        page = await _shop.Page($"/Jobs/{number}/Run");
        page.QuerySelector("#now")!.TextContent.ShouldContain("unplugged");
        page.QuerySelector(".run-now")!.TextContent.ShouldContain("Mains inside");
        page.QuerySelector(".run-now")!.TextContent.ShouldContain("Laser");
    }

    [Fact]
    public async Task An_imported_unit_is_stopped_before_it_is_plugged_in()
    {
        var form = await _shop.Page("/Intake?handler=ByModel&Form.Profile=build-console-internal-supply");
        form.QuerySelectorAll("select[name='Form.Marks'] option").Select(o => o.TextContent.Trim()).ShouldBe(
            ["not read yet", "100 V: not into this wall", "110 to 127 V: not into this wall", "220 to 240 V", "100 to 240 V"]
        );
        var number = await _shop.TakeIn("build-console-internal-supply", ("Form.Marks", "plate-100"));
        var find = await _shop.Page($"/Jobs/{number}/Find");
        find.QuerySelector(".noted .caution.stop")!.TextContent.ShouldContain("step-down transformer 230 to 100 V, at least 75 VA");
        // Another wall, another answer.
        using (await _shop.SaveSettings(("Wall", "100"))) { }
        (await _shop.Page($"/Jobs/{number}/Find")).QuerySelector(".noted").ShouldBeNull();
        using (await _shop.SaveSettings(("Wall", "400")))
            _shop.Service<SettingsStore>().Get().WallVolts.ShouldBe(100);
        using (await _shop.SaveSettings(("Wall", "230"))) { }
        (await _shop.Page("/Intake?handler=ByModel&Form.Profile=build-handheld-four-cell-grey"))
            .QuerySelector("select[name='Form.Marks']")
            .ShouldBeNull();
    }

    private static List<string> Shown(IElement within) =>
        within.QuerySelectorAll(".care li b").Select(b => b.TextContent.TrimEnd('.')).Order().ToList();

    private static List<string> Titles(IEnumerable<Caution> cautions) => cautions.Select(c => c.Title).Order().ToList();
}
