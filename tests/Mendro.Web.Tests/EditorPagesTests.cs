using System.Net;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Storage;
using Mendro.Web.Profiles;

namespace Mendro.Web.Tests;

/// <summary>The profile editor and import.</summary>
public sealed class EditorPagesTests(WebShop shop) : IClassFixture<WebShop>
{
    private readonly WebShop _shop = shop;

    public static TheoryData<string> Profiles => [.. TradeLibrary.Shipped.Profiles.Select(p => p.Id)];

    [Theory]
    [MemberData(nameof(Profiles))]
    public void Every_shipped_profile_survives_the_editor(string id)
    {
        var profile = TradeLibrary.Shipped.Profiles.Single(p => p.Id == id);
        var reader = new ProfileFormReader(TradeLibrary.Shipped);
        var read = reader.Read(ProfileForm.From(profile, 1, existing: true), profile);
        reader.Problems.ShouldBeEmpty();
        ProfileJson.Write(read).ShouldBe(ProfileJson.Write(profile));
    }

    [Fact]
    public async Task A_model_is_made_from_a_generic_one_and_problems_are_listed_plainly()
    {
        List<(string, string)> Fields(string feeds) =>
            [
                ("Form.Base", "generic-handheld@1"),
                ("Form.Existing", "False"),
                ("Form.Name", "Sparrow"),
                ("Form.Maker", "Ostra"),
                ("Form.Kind", "handheld"),
                ("Form.Feeds", feeds),
                ("Form.Parts[0].Name", "Cells"),
                ("Form.Parts[0].Kind", "cells"),
                ("Form.Parts[1].Name", "Main board"),
                ("Form.Parts[1].Kind", "logic"),
                ("Form.Parts[1].Id", "main"),
                ("Form.Functions[0].Name", "Start-up"),
                ("Form.Functions[0].Kind", "start-up"),
                ("Form.Functions[0].Needs", "main"),
                ("Form.Probes[0].Name", "Cells, loaded"),
                ("Form.Probes[0].Kind", "volts"),
                ("Form.Probes[0].At", "cells"),
                ("Form.Probes[0].Low", "2,2"),
                ("Form.Probes[0].High", "3.3"),
            ];
        using var preview = await _shop.Post(
            "/Models/Edit?from=generic-handheld",
            "/Models/Edit?handler=Preview",
            true,
            [.. Fields("power: cells > engine"), ("Form.Probes[1].Name", "Nothing"), ("Form.Probes[1].Kind", "look")]
        );
        var shown = await WebShop.Parse(preview);
        var problems = shown.QuerySelector(".problems")!.TextContent;
        problems.ShouldContain("there is no part “engine”");
        problems.ShouldContain("probe “Nothing”");
        problems.ShouldContain("no function needs “Cells”");
        shown.QuerySelector("svg.map").ShouldNotBeNull();

        using var refused = await _shop.Post(
            "/Models/Edit?from=generic-handheld",
            "/Models/Edit?handler=Save",
            false,
            [.. Fields("power: cells > main\npower: main > cells")]
        );
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await WebShop.Parse(refused)).QuerySelector(".problems")!.TextContent.ShouldContain("circle");

        using var kept = await _shop.Post(
            "/Models/Edit?from=generic-handheld",
            "/Models/Edit?handler=Save",
            false,
            [.. Fields("power: cells > main")]
        );
        kept.Headers.Location!.ToString().ShouldBe("/Models/ostra-sparrow");
        var made = _shop.Service<ProfileStore>().Latest("ostra-sparrow")!.Value.Profile;
        made.FullName.ShouldBe("Ostra Sparrow");
        made.Probes[0].Expect.ShouldBe(new Expectation(2.2, 3.3, "V"));
        (await _shop.TakeIn("ostra-sparrow", ("Form.Result[start-up]", "fail"))).ShouldBeGreaterThan(0);
    }

    [Fact]
    public async Task Import_names_the_place_and_versions_can_be_taken_back()
    {
        var json = TradeLibrary.ReadText("Profiles/harrow-duet.json");
        using var bad = await _shop.Post(
            "/Models/Import",
            ("text", json.Replace("\"kind\": \"fuse\"", "\"kind\": 7", StringComparison.Ordinal))
        );
        bad.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var refused = await WebShop.Parse(bad);
        refused.QuerySelector(".problems")!.TextContent.ShouldContain("parts[2].kind");
        refused.QuerySelector("textarea")!.TextContent.ShouldContain("harrow-duet");

        // It is here already: the difference is shown, and nothing is taken unseen.
        var named = json.Replace("\"name\": \"Duet Colour\"", "\"name\": \"Duet Colour II\"", StringComparison.Ordinal);
        using (var asked = await _shop.Post("/Models/Import", ("text", named)))
        {
            asked.StatusCode.ShouldBe(HttpStatusCode.OK);
            var shown = await WebShop.Parse(asked);
            var row = shown.QuerySelectorAll(".differences tbody tr").ShouldHaveSingleItem();
            row.TextContent.ShouldContain("Duet Colour II");
            row.QuerySelector("input[name=take]")!.HasAttribute("checked").ShouldBeFalse();
        }

        _shop.Service<ProfileStore>().Latest("harrow-duet")!.Value.Version.ShouldBe(1);
        using var good = await _shop.Post("/Models/Import", ("text", named), ("chosen", "true"), ("take", "name"));
        good.Headers.Location!.ToString().ShouldBe("/Models/harrow-duet");
        var store = _shop.Service<ProfileStore>();
        store.Latest("harrow-duet")!.Value.Profile.Name.ShouldBe("Duet Colour II");
        using var back = await _shop.Post("/Models/harrow-duet", "/Models/harrow-duet?handler=Revert&version=1", false);
        back.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (store.Latest("harrow-duet")!.Value is var now ? (now.Version, now.Profile.Name) : default).ShouldBe((3, "Duet Colour"));
        // What is exported can be imported.
        using var export = await _shop.Client.GetAsync("/Models/harrow-duet?handler=Json", TestContext.Current.CancellationToken);
        ProfileSchema
            .Import(await export.Content.ReadAsStringAsync(TestContext.Current.CancellationToken), TradeLibrary.Shipped, out var problems)
            .ShouldNotBeNull();
        problems.ShouldBeEmpty();
    }

    [Fact]
    public async Task A_model_taught_elsewhere_is_taken_in_item_by_item()
    {
        // Both shops have the model; one has taught it a part and a limit, the other a revision.
        var mine = TradeLibrary.Shipped.Profiles.Single(p => p.Id == "harrow-quartet");
        static DeviceProfile Teach(DeviceProfile profile, string line) =>
            Mendro.Core.Planning.Teaching.Read(profile, TradeLibrary.Shipped, line).Value!.Profile!;
        var theirs = Teach(Teach(mine, "part Choke behind switch as trace"), "limit tp3 6 to 6.4 V");
        _shop.Service<ProfileStore>().Save(Teach(mine, "revision C: coil stands free"));
        using var asked = await _shop.Post("/Models/Import", ("text", ProfileJson.Write(theirs)));
        var boxes = (await WebShop.Parse(asked))
            .QuerySelectorAll("input[name=take]")
            .ToDictionary(b => b.GetAttribute("value")!, b => b.HasAttribute("checked"));
        // What is only theirs is ticked; what would change or take away one's own is not.
        (boxes["part choke"], boxes["probe tp3"], boxes["revision C"]).ShouldBe((true, false, false));

        // A part without its feeds leaves the model apart: refused, and nothing changes.
        using (
            var half = await _shop.Post(
                "/Models/Import",
                ("text", ProfileJson.Write(theirs)),
                ("chosen", "true"),
                ("take", "feed switch > choke (Power)")
            )
        )
            half.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        string[] taken = ["part choke", "feed switch > choke (Power)", "feed choke > psu (Power)", "feed switch > psu (Power)"];
        using var done = await _shop.Post(
            "/Models/Import",
            [("text", ProfileJson.Write(theirs)), ("chosen", "true"), .. taken.Select(t => ("take", t))]
        );
        done.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var merged = _shop.Service<ProfileStore>().Latest("harrow-quartet")!.Value.Profile;
        merged.FindPart("choke").ShouldNotBeNull();
        merged.Revisions.ShouldContain(r => r.Id == "C");
        merged.FindProbe("tp3")!.Expect.High.ShouldBe(7.2);
        merged.Feeds.ShouldNotContain(f => f.From == "switch" && f.To == "psu");
    }

    [Fact]
    public async Task A_unit_is_taught_on_its_page_and_a_line_that_fits_nowhere_says_why_and_stays()
    {
        var number = await _shop.TakeIn();
        using var wrong = await _shop.Post($"/Jobs/{number}/Teach", ("line", "part <Coil> behind nowhere"));
        wrong.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var refused = await WebShop.Parse(wrong);
        refused.QuerySelector("input[name=line]")!.GetAttribute("value").ShouldBe("part <Coil> behind nowhere");
        refused.QuerySelector("[role=alert]")!.TextContent.ShouldContain("nowhere");
        using var taught = await _shop.Post($"/Jobs/{number}/Teach", ("line", "part Coil behind switch"));
        taught.Headers.Location!.ToString().ShouldBe($"/Jobs/{number}/Find");
        (await _shop.Page($"/Jobs/{number}/Find")).QuerySelector(".map")!.TextContent.ShouldContain("Coil");
        (await _shop.Page($"/Jobs/{number}/Teach")).Body!.TextContent.ShouldContain("part Coil");
        using var back = await _shop.Post($"/Jobs/{number}/Teach", $"/Jobs/{number}/Teach?handler=Back", false);
        back.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await _shop.Page($"/Jobs/{number}/Find")).QuerySelector(".map")!.TextContent.ShouldNotContain("Coil");
        using var nothing = await _shop.Post($"/Jobs/{number}/Teach", $"/Jobs/{number}/Teach?handler=Back", false);
        nothing.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await WebShop.Parse(nothing)).QuerySelector("[role=alert]")!.TextContent.ShouldContain("Nothing was taught");
    }
}
