using System.Net;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Storage;
using Mendro.Web.Profiles;

namespace Mendro.Web.Tests;

/// <summary>The profile editor and import.</summary>
public sealed class EditorPagesTests : IDisposable
{
    private readonly WebShop _shop = new();

    public static TheoryData<string> Profiles => [.. TradeLibrary.Shipped.Profiles.Select(p => p.Id)];

    public void Dispose() => _shop.Dispose();

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

        using var good = await _shop.Post(
            "/Models/Import",
            ("text", json.Replace("\"name\": \"Duet Colour\"", "\"name\": \"Duet Colour II\"", StringComparison.Ordinal))
        );
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
}
