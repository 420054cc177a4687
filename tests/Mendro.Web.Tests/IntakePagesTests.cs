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
        _shop.Database.AllJobs().ShouldBeEmpty();
    }

    [Fact]
    public async Task The_part_of_intake_that_depends_on_the_model_follows_it()
    {
        var page = await _shop.Page("/Intake?handler=ByModel&Form.Profile=generic-disc-console&Form.UnitName=Korvel");
        page.QuerySelector("#fn-disc").ShouldNotBeNull();
        page.QuerySelector("input[name='Form.UnitName']")!.GetAttribute("value").ShouldBe("Korvel");
        page.QuerySelectorAll(".caution.stop").ShouldContain(c => c.TextContent.Contains("Mains inside"));
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

        using var unknown = await _shop.Post("/", "/?handler=Quick", false, ("line", "zeppelin no lift"));
        unknown.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var page = await WebShop.Parse(unknown);
        page.QuerySelector("input[name=line]")!.GetAttribute("value").ShouldBe("zeppelin no lift");
        page.QuerySelector("[role=alert]")!.TextContent.ShouldContain("zeppelin");
    }
}
