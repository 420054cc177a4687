using System.Net;
using AngleSharp.Dom;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Money;
using Mendro.Core.Profiles;
using Mendro.Storage;

namespace Mendro.Web.Tests;

/// <summary>Intake, by form and by the quick line, without script.</summary>
public sealed class IntakePagesTests : IDisposable
{
    // Its own for each test: these ask for what is in the shop as a whole.
    private readonly WebShop _shop = new();

    public void Dispose() => _shop.Dispose();

    [Fact]
    public async Task Intake_keeps_everything_and_starts_the_diagnosis()
    {
        var number = await _shop.TakeIn(
            "harrow-quartet",
            ("Form.Revision", "B"),
            ("Form.Serial", "HQ-9"),
            ("Form.OwnerContact", "0700"),
            ("Form.Accessories", "pouch"),
            ("Form.ValueWorking", "48,50"),
            ("Form.Marks", "corrosion-contacts"),
            ("Form.Marks", "swollen-cell"),
            ("Form.Result[power-light]", "fail"),
            ("Form.Look[power-light]", "nothing"),
            ("Form.Result[speaker]", "")
        );
        var view = _shop.View(number);
        view.Job.ShouldSatisfyAllConditions(
            j => j.Revision.ShouldBe("B"),
            j => j.Serial.ShouldBe("HQ-9"),
            j => j.CustomerName.ShouldBe("Ilka Dorn"),
            j => j.ValueWorking.ShouldBe(48.5m),
            j => j.Stage.ShouldBe(WorkStage.Find)
        );
        view.Records.Select(r => r.Subject).ShouldBe(["corrosion-contacts", "swollen-cell", "power-light"]);
        view.Diagnosis!.Target!.Id.ShouldBe("power-light");
        // The safety flag stops the hands on Find.
        (await _shop.Page($"/Jobs/{number}/Find"))
            .QuerySelector(".caution.stop")!
            .TextContent.ShouldContain("Swollen cell");
    }

    [Fact]
    public async Task An_incomplete_intake_says_what_is_missing_and_keeps_what_was_typed()
    {
        var before = _shop.UnitsKnown;
        using var response = await _shop.Post(
            "/Intake",
            ("Form.Profile", "harrow-quartet"),
            ("Form.Owner", "customer"),
            ("Form.OwnerName", ""),
            ("Form.Currency", "EURO"),
            ("Form.Claim", "kept words"),
            ("Form.ValueWorking", "lots"),
            ("Form.Result[picture]", "fail"),
            ("Form.Look[picture]", "flicker")
        );
        response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var page = await WebShop.Parse(response);
        page.QuerySelectorAll(".field-error")
            .Select(e => e.TextContent)
            .ShouldBe(
                ["Whose is it? Give a name, or choose shop stock.", "Three letters, such as EUR.", "“lots” is not an amount. Try 6.40."],
                ignoreOrder: true
            );
        page.QuerySelector("textarea[name='Form.Claim']")!.TextContent.ShouldBe("kept words");
        page.QuerySelector("input[name='Form.Result[picture]'][value=fail]")!.HasAttribute("checked").ShouldBeTrue();
        page.QuerySelector("select[name='Form.Look[picture]'] option[selected]")!.GetAttribute("value").ShouldBe("flicker");
        _shop.UnitsKnown.ShouldBe(before);
    }

    [Fact]
    public async Task The_part_of_intake_that_depends_on_the_model_follows_it()
    {
        var page = await _shop.Page("/Intake?handler=ByModel&Form.Profile=generic-disc-console&Form.UnitName=Korvel");
        page.QuerySelector("#fn-disc").ShouldNotBeNull();
        page.QuerySelector("input[name='Form.UnitName']")!.GetAttribute("value").ShouldBe("Korvel");
        page.QuerySelectorAll(".care .stop").ShouldContain(c => c.TextContent.Contains("Mains inside"));
    }

    [Fact]
    public async Task Intake_begins_without_a_model_and_takes_none_for_it()
    {
        var before = _shop.UnitsKnown;
        var page = await _shop.Page("/Intake");
        page.QuerySelector("#model")!.GetAttribute("value").ShouldBeNullOrEmpty();
        page.QuerySelector(".baseline").ShouldBeNull();
        page.QuerySelectorAll("#models option")
            .Length.ShouldBe(TradeLibrary.Shipped.Profiles.Count + TradeLibrary.Shipped.Archetypes.Count);

        foreach (var (typed, says) in ((string, string)[])[("", "Choose a model"), ("zeppelin", "new here"), ("quillon", "Which one")])
        {
            using var response = await _shop.Post(
                "/Intake",
                ("Form.Profile", typed),
                ("Form.Owner", "shop"),
                ("Form.Currency", "EUR"),
                ("Form.Claim", "kept words")
            );
            response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
            var refused = await WebShop.Parse(response);
            refused.QuerySelectorAll(".field-error").ShouldHaveSingleItem().TextContent.ShouldContain(says);
            (refused.QuerySelector("#model")!.GetAttribute("value") ?? "").ShouldBe(typed);
            refused.QuerySelector("textarea[name='Form.Claim']")!.TextContent.ShouldBe("kept words");
        }
        _shop.UnitsKnown.ShouldBe(before);
    }

    [Fact]
    public async Task A_model_is_found_by_a_word_and_the_next_of_the_same_keeps_model_and_lot()
    {
        using var response = await _shop.Post(
            "/Intake",
            ("Form.Profile", "minnow"),
            ("Form.Owner", "shop"),
            ("Form.Lot", "attic & cellar"),
            ("Form.Claim", "dead"),
            ("Form.Currency", "EUR"),
            ("then", "next")
        );
        _shop.Database.AllJobs()[0].ProfileId.ShouldBe("quillon-minnow");
        var page = await _shop.Page(response.Headers.Location!.ToString());
        page.QuerySelector("#model")!.GetAttribute("value").ShouldBe("Quillon Minnow");
        page.QuerySelector("input[name='Form.Lot']")!.GetAttribute("value").ShouldBe("attic & cellar");
        page.QuerySelector("input[name='Form.Owner'][value=shop]")!.HasAttribute("checked").ShouldBeTrue();
        page.QuerySelector("textarea[name='Form.Claim']")!.TextContent.ShouldBeEmpty();
        page.QuerySelector("#fn-picture").ShouldNotBeNull();
    }

    [Fact]
    public async Task The_quick_line_shows_how_it_understood_and_files_just_that()
    {
        var before = _shop.UnitsKnown;
        const string line = "leaflet charges but nothing when switched on";
        var heard = await _shop.Page("/?handler=Heard&line=" + Uri.EscapeDataString(line));
        heard.QuerySelector("#heard-as option")!.TextContent.ShouldBe("Tarn Leaflet");
        heard
            .QuerySelectorAll("#heard .chip")
            .Select(l => $"{l.QuerySelector("span")!.TextContent}: {l.QuerySelector("option[selected]")!.TextContent}")
            .ShouldBe(["Charging: ✓ works", "Power light: ✕ nothing at all"]);
        _shop.UnitsKnown.ShouldBe(before);

        using var response = await _shop.Post("/", "/?handler=Quick", false, ("line", line));
        _shop
            .View(_shop.Database.AllJobs()[0].Number)
            .Records.Select(r => r.Body)
            .ShouldBe([new FunctionTrial("charging", true), new FunctionTrial("power-light", false, "nothing")], ignoreOrder: true);
    }

    [Fact]
    public async Task The_quick_line_asks_where_it_is_not_sure()
    {
        var heard = await _shop.Page("/?handler=Heard&line=quartet%20lines");
        heard.QuerySelectorAll("#heard li").ShouldBeEmpty();
        heard.QuerySelector("#heard .doubt")!.TextContent.ShouldContain("Not sure of “lines”");
        (await _shop.Page("/?handler=Heard&line=zeppelin"))
            .QuerySelector("#heard")!
            .Words()
            .ShouldContain("The shop does not know zeppelin yet.");
        (await _shop.Page("/?handler=Heard&line=")).QuerySelector("#heard")!.TextContent.Trim().ShouldBeEmpty();
    }

    [Fact]
    public async Task The_quick_line_takes_a_unit_in_with_its_symptom()
    {
        using var response = await _shop.Post("/", "/?handler=Quick", false, ("line", "quartet no light"));
        response.Headers.Location!.ToString().ShouldBe("/Jobs/101/Find");
        var view = _shop.View(101);
        view.Job.ShopStock.ShouldBeTrue();
        view.Records.ShouldHaveSingleItem()
            .ShouldSatisfyAllConditions(
                r => r.Subject.ShouldBe("power-light"),
                r => r.Body.ShouldBe(new FunctionTrial("power-light", false, "nothing"))
            );
    }

    [Fact]
    public async Task A_name_nobody_knows_asks_for_its_build_and_becomes_the_shops_own_model()
    {
        using var shop = new WebShop(demo: false, models: false);
        // An empty shop says what to do first, and has no invented model.
        var empty = await shop.Page("/");
        empty.QuerySelectorAll(".first-hour li").Length.ShouldBe(3);
        (await shop.Page("/Models")).Body!.TextContent.ShouldNotContain("Quartet");

        using var unknown = await shop.Post("/", "/?handler=Quick", false, ("line", "zorbo <3000>, four cells, no light"));
        var asked = await shop.Page(unknown.Headers.Location!.ToString());
        asked.QuerySelector("#model")!.GetAttribute("value").ShouldBe("zorbo <3000>");
        asked.QuerySelector("textarea[name='Form.Claim']")!.TextContent.ShouldBe("zorbo <3000>, four cells, no light");
        // What was said puts the nearest first, each with its drawing; the questions leave fewer.
        var builds = asked.QuerySelectorAll("button.build");
        builds[0].GetAttribute("value").ShouldBe("build-handheld-four-cell-grey");
        builds.Length.ShouldBe(TradeLibrary.Shipped.Archetypes.Count);
        builds.ShouldAllBe(b => b.QuerySelector("svg") != null);
        var fewer = await shop.Page("/Intake?handler=ByModel&Form.Profile=zorbo&Form.Fed=lithium&Form.Takes=disc&Form.Gives=own-screen");
        fewer.QuerySelectorAll("button.build").Select(b => b.GetAttribute("value")).ShouldBe(["build-handheld-drive"]);

        // The build chosen, what was said is filled in.
        var chosen = await shop.Page(
            "/Intake?handler=ByModel&Form.Profile=zorbo&Form.Claim=zorbo%2C+no+light&Form.Build=build-handheld-four-cell-grey"
        );
        chosen.QuerySelector("input[name='Form.Result[power-light]'][checked]")!.GetAttribute("value").ShouldBe("fail");
        chosen.QuerySelector(".new-model")!.TextContent.ShouldContain("zorbo is new");

        async Task<string> TakeIn() =>
            (
                await shop.Post(
                    "/Intake",
                    ("Form.Profile", "zorbo <3000>"),
                    ("Form.Build", "build-handheld-four-cell-grey"),
                    ("Form.Owner", "shop"),
                    ("Form.Currency", "EUR"),
                    ("Form.Claim", "zorbo <3000>, three cells, no light"),
                    ("Form.Result[power-light]", "fail"),
                    ("Form.Look[power-light]", "nothing")
                )
            ).Headers.Location!.ToString();
        (await TakeIn()).ShouldBe("/Jobs/101/Find");
        var job = shop.View(101);
        (job.Job.ProfileId, job.Profile.FullName, job.Profile.Build).ShouldBe(
            ("zorbo-3000", "zorbo <3000>", "build-handheld-four-cell-grey")
        );
        job.Profile.Supply!.Cells.ShouldBe(3);
        // Advice at once, from the first minute on.
        (await shop.Page("/Jobs/101/Find"))
            .QuerySelectorAll(".moves li, .move")
            .ShouldNotBeEmpty();

        // The second of the same is found by a part of its name, and needs no build.
        using (var again = await shop.Post("/", "/?handler=Quick", false, ("line", "zorbo dead")))
            again.Headers.Location!.ToString().ShouldBe("/Jobs/102/Find");
        shop.View(102).Job.ProfileId.ShouldBe("zorbo-3000");
        (await TakeIn()).ShouldBe("/Jobs/103/Find");
        shop.View(103).Job.ProfileId.ShouldBe("zorbo-3000");
        (await shop.Page("/")).QuerySelector(".first-hour").ShouldBeNull();
    }

    [Fact]
    public async Task What_was_heard_is_on_the_form_though_nothing_of_the_build_causes_it_and_words_of_the_build_are_no_doubt()
    {
        var page = await _shop.Page(
            "/Intake?Form.Profile=Corvel+Brick&Form.Build=build-console-front-loading&claim=Corvel+Brick,+front+loader,+light+blinks,+no+sound"
        );
        page.QuerySelector("select[name='Form.Look[power-light]'] option[selected]")!.GetAttribute("value").ShouldBe("blinks");
        page.QuerySelector("select[name='Form.Look[sound]'] option[selected]")!.GetAttribute("value").ShouldBe("nothing");
        page.Body!.TextContent.ShouldNotContain("Not sure of");
    }
}
