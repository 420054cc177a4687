using System.Net;
using AngleSharp.Html.Dom;
using Mendro.Core.Jobs;
using Mendro.Shop;

namespace Mendro.Web.Tests;

/// <summary>The pages of Fix: run sheet, ladder, methods, pins, wiring, what is on a unit, modifications on the sheet.</summary>
public sealed class FixWorkPagesTests : IDisposable
{
    // Its own for each test: these ask for what is in the shop as a whole.
    private readonly WebShop _shop = new();

    public void Dispose() => _shop.Dispose();

    private async Task<string> Alert(string page, string address, params (string, string)[] fields)
    {
        using var answer = await _shop.Post(page, address, false, fields);
        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        return (await WebShop.Parse(answer)).QuerySelector("[role=alert]")!.TextContent;
    }

    [Fact]
    public async Task A_run_sheet_shows_one_step_with_its_setting_and_the_caution_of_that_step_alone()
    {
        var number = await _shop.TakeIn();
        var plan = await _shop.Page($"/Jobs/{number}/Run?part=switch&method=polish-switch");
        // The last but one are flux off, and dry.
        plan.QuerySelectorAll(".run-all li").Length.ShouldBe(9);
        using (
            var begun = await _shop.Post(
                $"/Jobs/{number}/Run?part=switch&method=polish-switch",
                $"/Jobs/{number}/Run?handler=Start",
                false,
                ("part", "switch"),
                ("method", "polish-switch")
            )
        )
            begun.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var sheet = await _shop.Page($"/Jobs/{number}/Run");
        sheet.QuerySelector(".run-say")!.TextContent.ShouldBe("Lift the switch off with flux.");
        sheet.QuerySelector(".run-setting b")!.TextContent.ShouldBe("350 °C");
        sheet.QuerySelectorAll(".run-now .caution b").Select(b => b.TextContent).ShouldBe(["Hot tip.", "Solder fumes and lead.", "Pads lift."]);
        // Fix says that it is under way.
        (await _shop.Page($"/Jobs/{number}/Fix?part=switch")).QuerySelector($"a[href='/Jobs/{number}/Run']")!.TextContent.ShouldContain("step");
        (await Alert($"/Jobs/{number}/Run", $"/Jobs/{number}/Run?handler=Next", ("step", "3"))).ShouldContain("done already");
    }

    [Theory]
    [InlineData("false", "comes off dark")]
    [InlineData("", null)]
    public async Task Fix_files_what_the_check_at_the_end_showed(string held, string? words)
    {
        var number = await _shop.TakeIn();
        var page = await _shop.Page($"/Jobs/{number}/Fix?part=slot&method=brush-connector");
        page.QuerySelectorAll("input[name='held-brush-connector']").Length.ShouldBe(3);
        using var logged = await _shop.Post(
            $"/Jobs/{number}/Fix?part=slot",
            ("part", "slot"),
            ("method", "brush-connector"),
            ("held-brush-connector", held),
            ("held-clean-connector", "true")
        );
        logged.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var view = _shop.View(number);
        var repair = view.All<RepairLogged>().Single().Body;
        repair.Method.Value.ShouldBe("brush-connector");
        // Where the model has a look at that part alone, the check is filed as that look.
        var look = view.Model.CheckProbe("slot", "brush-connector");
        var looks = view.All<ProbeReading>().Where(r => look is not null && r.Body.Probe == look.Id).Select(r => r.Body.Outcome).ToList();
        bool? told = look is null ? repair.Held : looks.Count == 0 ? null : looks[0] == Mendro.Core.Evidence.ProbeOutcome.Normal;
        told.ShouldBe(words is null ? null : false);
    }

    [Fact]
    public async Task A_stop_shows_its_card_and_the_next_button_is_off()
    {
        var number = await _shop.TakeIn();
        _shop.Service<RunDesk>().Log(number, new Mendro.Core.Methods.SequenceStep("bleach-1-10", "bare-plastic")).Done.ShouldNotBeNull();
        _shop.Service<RunDesk>().Start(number, "contacts", "acid-contacts").Done.ShouldNotBeNull();
        _shop.Service<RunDesk>().Next(number, 0, false).Done.ShouldNotBeNull();
        var sheet = await _shop.Page($"/Jobs/{number}/Run");
        sheet.QuerySelector(".run-stop")!.TextContent.ShouldContain("chlorine gas");
        ((IHtmlButtonElement)sheet.QuerySelector("#run-next button")!).IsDisabled.ShouldBeTrue();
        var on = await _shop.Page($"/Jobs/{number}/Materials");
        on.QuerySelectorAll(".plain-lines li").Length.ShouldBe(1);
        on.QuerySelectorAll(".caution").Length.ShouldBe(2);
    }

    [Theory]
    [InlineData("Run?part=nothing&method=flush-switch")]
    [InlineData("Run?part=fuse&method=flush-switch")]
    [InlineData("Ladder?part=psu")]
    [InlineData("Wiring?part=nothing")]
    public async Task What_does_not_go_together_is_not_found(string page)
    {
        var number = await _shop.TakeIn();
        using var answer = await _shop.Client.GetAsync($"/Jobs/{number}/{page}", TestContext.Current.CancellationToken);
        answer.StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_method_is_copied_changed_and_offered_on_fix()
    {
        using (
            var saved = await _shop.Post(
                "/Methods/flush-switch",
                "/Methods/flush-switch",
                false,
                ("Form.Name", "Flush twice, our way"),
                ("Form.Minutes", "6,5"),
                ("Form.PartsCost", "0.30"),
                ("Form.Steps", "Flood it. | put contact-cleaner on plated-contacts | care alcohol-fire\nLet it dry. | wait dry 5-10"),
                ("Form.Cures", "power-switch dirty 0.8"),
                ("Form.Check", "Measure across it.")
            )
        )
            saved.Headers.Location!.ToString().ShouldBe("/Methods/own-flush-switch-1");
        var number = await _shop.TakeIn();
        (await _shop.Page($"/Jobs/{number}/Fix?part=switch")).Body!.TextContent.ShouldContain("Flush twice, our way");
        (await Alert("/Methods/flush-switch", "/Methods/flush-switch", ("Form.Name", "x"), ("Form.Minutes", "soon"))).ShouldContain("soon");
        (string, string)[] nap = [("Form.Name", "x"), ("Form.Minutes", "3"), ("Form.PartsCost", "1"), ("Form.Steps", "a | nap")];
        (await Alert("/Methods/flush-switch", "/Methods/flush-switch", nap)).ShouldContain("nap");
    }

    [Fact]
    public async Task The_usual_way_is_marked_on_fix()
    {
        using (
            await _shop.Post("/Methods?kind=power-switch", "/Methods?kind=power-switch&handler=Usual", false, ("method", "polish-switch"))
        ) { }
        var number = await _shop.TakeIn();
        (await _shop.Page($"/Jobs/{number}/Fix?part=switch"))
            .QuerySelectorAll(".method")
            .Single(m => m.TextContent.Contains("our way"))
            .TextContent.ShouldContain("Open the switch and polish");
    }

    [Theory]
    [InlineData("/Pins?package=dip-28&pin=15", "right side, 1st from the bottom")]
    [InlineData("/Pins?package=dip-28&pin=99", "legs 1 to 28")]
    [InlineData("/Pins?package=teapot", "Say the package as")]
    [InlineData("/Pins?model=pellin-atrium&at=auth&pin=4", "Leg 4 of 16")]
    [InlineData("/Pins?model=pellin-atrium&at=auth&pin=4", "P1: 26 mm left; U1 U2: 60 mm left")]
    [InlineData("/Pins?model=pellin-atrium&at=connector&pin=3", "place 2: A0")]
    public async Task A_leg_or_contact_is_found(string address, string words)
    {
        var page = await _shop.Page(address);
        page.Body!.TextContent.ShouldContain(words);
        page.QuerySelectorAll(".pins svg").Length.ShouldBe(2);
        page.QuerySelectorAll(".pins .pin.lit").Length.ShouldBe(2);
    }

    [Fact]
    public async Task A_wiring_table_tells_a_contact_that_is_used_twice()
    {
        var number = await _shop.TakeIn();
        using (
            await _shop.Post(
                $"/Jobs/{number}/Wiring?part=slot",
                $"/Jobs/{number}/Wiring?part=slot",
                false,
                ("Rows[0].Old", "1"),
                ("Rows[0].New", "2"),
                ("Rows[0].Beeps", "yes"),
                ("Rows[1].Old", "2"),
                ("Rows[1].New", "2")
            )
        ) { }
        var page = await _shop.Page($"/Jobs/{number}/Wiring?part=slot");
        page.QuerySelector(".notice.wrong")!.TextContent.ShouldContain("new contact 2 is used 2 times");
        page.QuerySelector("[name='Rows[0].New']")!.GetAttribute("value").ShouldBe("2");
        (await Alert($"/Jobs/{number}/Wiring?part=slot", $"/Jobs/{number}/Wiring?part=slot", ("Rows[0].Old", "1"))).ShouldContain("to a new one");
    }

    [Fact]
    public async Task A_modification_stays_with_the_unit_and_is_told_on_the_sheet_of_its_next_job()
    {
        var (first, second) = (await _shop.TakeIn(), await _shop.TakeIn());
        var jobs = _shop.Service<Mendro.Storage.JobStore>();
        foreach (var number in (long[])[first, second])
            jobs.SaveIntake(jobs.Find(number)! with { Serial = "Q-77" }, null, "");
        var runs = _shop.Service<RunDesk>();
        runs.Start(first, "", "modern-panel").Done.ShouldNotBeNull();
        for (var step = 0; step < 6; step++)
            runs.Next(first, step, true).Refusal.ShouldBeNull();
        runs.Finish(first, true, null, "", "in a bag inside the case").Done.ShouldNotBeNull();
        var sheet = await _shop.Page($"/Jobs/{second}/Sheet");
        sheet.Body!.TextContent.ShouldContain("Fit a modern panel");
        sheet.Body!.TextContent.ShouldContain("in a bag inside the case");
        // It is no evidence: nothing of the network knows a panel kit.
        _shop.View(first).All<OtherWork>().Single().Body.ToEvent(1).ShouldBeNull();
    }
}
