using System.Net;
using Mendro.Core.Profiles;

namespace Mendro.Web.Tests;

/// <summary>Taking a unit apart in the pages: only as far as needed, the screw map, refusals, the way back.</summary>
public sealed class ApartPagesTests(WebShop shop) : IClassFixture<WebShop>
{
    private readonly WebShop _shop = shop;

    private async Task<HttpResponseMessage> Do(long number, string handler, params (string, string)[] fields) =>
        await _shop.Post($"/Jobs/{number}/Apart", $"/Jobs/{number}/Apart?handler={handler}&to=main", false, fields);

    [Fact]
    public async Task A_unit_is_opened_by_the_screw_map_tested_before_the_screws_and_closed()
    {
        var number = await _shop.TakeIn();
        var page = await _shop.Page($"/Jobs/{number}/Apart?to=main");
        page.QuerySelectorAll(".apart-steps li b")
            .Select(b => b.TextContent)
            .ShouldBe(["Cells out", "Back shell off", "Board out of the shell"]);
        page.Body!.TextContent.ShouldContain("tri-wing 1.5");
        page.QuerySelectorAll(".screws .screw").Length.ShouldBe(12);
        page.QuerySelectorAll(".screws .hole").Length.ShouldBe(1);
        page.QuerySelectorAll(".screws .cover").Length.ShouldBe(2);
        // What holds is said.
        using (var early = await Do(number, "Take", ("step", "board")))
        {
            early.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
            (await WebShop.Parse(early)).QuerySelector("[role=alert]")!.TextContent.ShouldContain("First “Back shell off”");
        }

        using (var bay = await Do(number, "Take", ("step", "bay")))
            bay.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        using (var back = await Do(number, "Take", ("step", "back"), ("odd[s3]", "missing"), ("odd[s4]", "")))
            back.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        _shop.View(number).Access.ShouldBe(AccessState.Open);
        using (var board = await Do(number, "Take", ("step", "board")))
            board.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        page = await _shop.Page($"/Jobs/{number}/Apart?to=main");
        page.Body!.TextContent.ShouldContain("11 out, 10 in the tray");
        page.Body!.TextContent.ShouldContain("Test before the screws");
        page.Body!.TextContent.ShouldContain("s3 missing");
        page.QuerySelectorAll(".screws .out").Length.ShouldBe(11);

        using (var unticked = await Do(number, "Back", ("step", "board")))
            (await WebShop.Parse(unticked)).QuerySelector("[role=alert]")!.TextContent.ShouldContain("Plug in and tick first");
        using (var skipped = await Do(number, "Back", ("step", "back")))
            (await WebShop.Parse(skipped)).QuerySelector("[role=alert]")!.TextContent.ShouldContain("still off");
        foreach (var step in (string[])["board", "back", "bay"])
            using (var closed = await Do(number, "Back", ("step", step), ("cables", "true")))
                closed.StatusCode.ShouldBe(HttpStatusCode.Redirect, step);
        _shop.View(number).Access.ShouldBe(AccessState.Closed);
        (await _shop.Page($"/Jobs/{number}/Apart?to=main")).QuerySelectorAll(".screws .out").ShouldBeEmpty();
        using var gone = await Do(number, "Back", ("step", "board"));
        gone.StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task The_case_does_not_close_over_what_was_put_on_for_a_while_unasked()
    {
        var number = await _shop.TakeIn();
        foreach (var step in (string[])["bay", "back"])
            using (var taken = await Do(number, "Take", ("step", step)))
                taken.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        using (var blank = await Do(number, "Temporary", ("what", " ")))
            blank.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        foreach (var what in (string[])["supply leads at C3", "tape over the window"])
            using (var on = await Do(number, "Temporary", ("what", what)))
                on.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        using (var off = await Do(number, "Temporary", ("what", "tape over the window"), ("off", "true")))
            off.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        using (var asked = await Do(number, "Back", ("step", "back")))
            (await WebShop.Parse(asked)).QuerySelector("[role=alert]")!.TextContent.ShouldContain("Still on it: supply leads at C3.");
        _shop.View(number).Access.ShouldBe(AccessState.Open);
        using (var stays = await Do(number, "Back", ("step", "back"), ("over", "true")))
            stays.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        // It is still on the list, with the case closed.
        (await _shop.Page($"/Jobs/{number}/Apart"))
            .QuerySelectorAll(".plain-lines li")
            .Single()
            .TextContent.ShouldContain("supply leads at C3");
    }

    [Fact]
    public async Task A_model_without_steps_says_how_they_get_there_and_what_is_free_is_reached_now()
    {
        var generic = await _shop.TakeIn("generic-handheld");
        (await _shop.Page($"/Jobs/{generic}/Apart")).QuerySelector(".empty")!.TextContent.ShouldContain("no steps yet");
        var number = await _shop.TakeIn();
        (await _shop.Page($"/Jobs/{number}/Apart?to=cells")).QuerySelector("#way")!.TextContent.ShouldContain("can be reached now");
        (await _shop.Page("/Jobs/99999/Apart", HttpStatusCode.NotFound)).ShouldNotBeNull();
    }

    [Fact]
    public async Task What_is_typical_is_confirmed_in_one_press_or_counted_in_a_line()
    {
        var number = await _shop.TakeIn("bramble tray", ("Form.Build", "build-console-front-loading"));
        var page = await _shop.Page($"/Jobs/{number}/Apart?to=inlet");
        page.QuerySelector("#way")!.TextContent.ShouldStartWith("To Supply socket");
        page.QuerySelector("input[name=counted]").ShouldNotBeNull();
        using (var odd = await Do(number, "Confirm", ("counted", "some")))
        {
            odd.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
            (await WebShop.Parse(odd)).QuerySelector("input[name=counted]")!.GetAttribute("value").ShouldBe("some");
        }

        using (var told = await Do(number, "Confirm", ("counted", "bottom: 4 security 4.5, 3 cross 1")))
            told.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        page = await _shop.Page($"/Jobs/{number}/Apart");
        page.QuerySelector("input[name=counted]").ShouldBeNull();
        page.QuerySelector("[aria-labelledby=screws]")!.TextContent.ShouldContain("No place yet");

        using (var contacts = await _shop.Post($"/Jobs/{number}/Contacts", $"/Jobs/{number}/Contacts?handler=Confirm", false, ("counted", "")))
            contacts.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await _shop.Page($"/Jobs/{number}/Contacts")).QuerySelector("input[name=counted]").ShouldBeNull();
    }

    [Fact]
    public async Task Where_work_on_a_part_wants_the_board_out_it_is_not_reached_before()
    {
        var number = await _shop.TakeIn("bramble lift", ("Form.Build", "build-console-front-loading"));
        var page = await _shop.Page($"/Jobs/{number}/Apart?to=connector&state=BoardOut");
        page.QuerySelector("#way")!.TextContent.ShouldStartWith("To Cartridge connector");
        page.QuerySelectorAll(".apart-steps li b").Length.ShouldBeGreaterThan(1);
        // Its gentlest work is done closed, and that is said in other words.
        page = await _shop.Page($"/Jobs/{number}/Apart?to=connector");
        page.QuerySelector("#way")!.TextContent.ShouldContain("gentlest work needs nothing taken off");
    }
}
