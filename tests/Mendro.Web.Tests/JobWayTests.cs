using System.Net;
using AngleSharp.Dom;
using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Money;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Storage;

namespace Mendro.Web.Tests;

/// <summary>The way of a job through the posts, without script.</summary>
public sealed class JobWayTests(WebShop shop) : IClassFixture<WebShop>
{
    private readonly WebShop _shop = shop;

    [Fact]
    public async Task Readings_move_the_map_and_are_corrected_withdrawn_and_brought_back()
    {
        var number = await Dead();
        var find = $"/Jobs/{number}/Find";
        await Read(number, "tp3", "6.21 V");
        await Read(number, "tp4", "0,02");
        var view = _shop.View(number);
        view.Diagnosis!.Suspects[0].Fault.Part.Id.ShouldBe("switch");
        view.Access.ShouldBe(AccessState.Open);
        (await _shop.Page(find)).QuerySelector(".map .stretch-words").ShouldNotBeNull();

        var wrong = view.Records[^1].Id;
        using (
            var response = await _shop.Post(
                find,
                $"{find}?handler=Reading",
                false,
                ("probe", "tp4"),
                ("text", "6.2"),
                ("correct", $"{wrong}")
            )
        )
            response.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        _shop.View(number).Diagnosis!.Parts["switch"].State.ShouldBe(PartState.Proved);

        // Undo takes the correction back, and the reading that was typed first holds again.
        using (await _shop.Post(find, $"{find}?handler=Undo", false)) { }
        _shop.View(number).Records[^1].Id.ShouldBe(wrong);
        _shop.View(number).Diagnosis!.Suspects[0].Fault.Part.Id.ShouldBe("switch");
        // A second undo takes that one back too, and with it the opening of the case.
        using (await _shop.Post(find, $"{find}?handler=Undo", false)) { }
        _shop.View(number).Records.Select(r => r.Subject).ShouldBe(["power-light", "tp3"]);
        using (await _shop.Post(find, $"{find}?handler=Undo", false)) { }
        _shop.View(number).Access.ShouldBe(AccessState.Closed);
        using (await _shop.Post(find, $"{find}?handler=Restore&id={_shop.Records.LastWithdrawn(_shop.Jobs.Find(number)!.Id)!.Id}", false))
        { }
        _shop.View(number).Access.ShouldBe(AccessState.Open);
        var gone = _shop.Records.Find(wrong)!;
        (await _shop.Page(find)).QuerySelector(".know")!.ParentElement!.TextContent.ShouldContain("bring back");
        using (await _shop.Post(find, $"{find}?handler=Restore&id={gone.Id}", false)) { }
        _shop.View(number).Records.Count.ShouldBe(3);
    }

    [Fact]
    public async Task A_swap_sends_the_board_alone_and_a_refused_reading_keeps_what_was_typed()
    {
        var number = await Dead();
        var find = $"/Jobs/{number}/Find";
        using (var good = await _shop.Post(find, $"{find}?handler=Reading", true, ("probe", "tp1"), ("text", "6.2")))
        {
            var board = await WebShop.Parse(good);
            board.QuerySelector("#find-board").ShouldNotBeNull();
            board.QuerySelector("header").ShouldBeNull();
            board.QuerySelector("#worth")!.HasAttribute("hx-swap-oob").ShouldBeTrue();
        }

        using var refused = await _shop.Post(find, $"{find}?handler=Reading", true, ("probe", "tp3"), ("text", "4k7 ohm"));
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var bar = (await WebShop.Parse(refused)).QuerySelector(".reading-bar")!;
        bar.QuerySelector("input.entry")!.GetAttribute("value").ShouldBe("4k7 ohm");
        bar.TextContent.ShouldContain("wants volts");
        _shop.View(number).Records.Count.ShouldBe(2);
    }

    [Fact]
    public async Task While_typing_the_verdict_is_said()
    {
        var number = await Dead();
        var verdict = await _shop.Page($"/Jobs/{number}/Find?handler=Judge&probe=tp5&text=4,6");
        verdict.Body!.TextContent.ShouldContain("4.6 V: low");
        (await _shop.Page($"/Jobs/{number}/Find?handler=Judge&probe=tp5&text=xx"))
            .QuerySelector("b.bad")!
            .TextContent.ShouldContain("not a reading");
    }

    [Fact]
    public async Task A_repair_is_logged_with_cause_minutes_cost_and_what_the_unit_does_now()
    {
        var number = await Dead();
        using var response = await _shop.Post(
            $"/Jobs/{number}/Fix?part=switch",
            $"/Jobs/{number}/Fix",
            false,
            ("part", "switch"),
            ("method", "flush-switch"),
            ("cause", "dirty"),
            ("minutes", "6,5"),
            ("cost", "0.20"),
            ("used", "cleaner"),
            ("note", "black water"),
            ("now", "pass")
        );
        response.Headers.Location!.ToString().ShouldBe($"/Jobs/{number}/Prove");
        var view = _shop.View(number);
        view.Records.Skip(1).Select(r => r.Body.Key).ShouldBe(["cause", "repair", "function"]);
        view.Records[2]
            .ShouldSatisfyAllConditions(
                r => r.Minutes.ShouldBe(6.5),
                r => r.Cost.ShouldBe(0.20m),
                r => r.Body.ShouldBe(new RepairLogged("switch", "flush-switch", "cleaner"))
            );
        (view.Job.Stage, view.Access).ShouldBe((WorkStage.Fix, AccessState.Open));
        view.Diagnosis!.Target.ShouldBeNull();
    }

    [Theory]
    [InlineData("minutes", "soon", "not a number of minutes")]
    [InlineData("minutes", "99999", "not a number of minutes")]
    [InlineData("cost", "a lot", "not an amount")]
    [InlineData("method", "replace-fuse", "Choose the method")]
    public async Task A_wrong_repair_entry_is_refused_and_kept(string field, string value, string message)
    {
        var number = await Dead();
        var fields = new List<(string, string)> { ("part", "switch"), ("method", "flush-switch"), ("note", "kept note") };
        fields.RemoveAll(f => f.Item1 == field);
        using var response = await _shop.Post($"/Jobs/{number}/Fix?part=switch", $"/Jobs/{number}/Fix", false, [.. fields, (field, value)]);
        response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var page = await WebShop.Parse(response);
        page.QuerySelector(".notice.wrong")!.TextContent.ShouldContain(message);
        page.QuerySelector("input[name=note]")!.GetAttribute("value").ShouldBe("kept note");
        _shop.View(number).Records.Count.ShouldBe(1);
    }

    [Fact]
    public async Task Nothing_is_handed_over_with_a_failure_unless_the_reason_is_stated()
    {
        var number = await Dead();
        using (var barred = await _shop.Post($"/Jobs/{number}/HandOver", ("end", "Returned"), ("note", "kept")))
        {
            barred.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
            var page = await WebShop.Parse(barred);
            page.QuerySelector(".notice.wrong")!.TextContent.ShouldContain("Still failing: Power light");
            page.QuerySelector("textarea[name=note]")!.TextContent.ShouldBe("kept");
        }

        using (var sent = await _shop.Post($"/Jobs/{number}/HandOver", ("end", "Returned"), ("reason", "owner declined")))
            sent.Headers.Location!.ToString().ShouldBe($"/Jobs/{number}/Sheet");
        var sheet = await _shop.Page($"/Jobs/{number}/Sheet");
        sheet.QuerySelector(".sheet")!.TextContent.ShouldContain("Still wrong");
        sheet.QuerySelector(".sheet")!.TextContent.ShouldContain("owner declined");
        // A closed job takes no more entries until it is reopened.
        using (await _shop.Post($"/Jobs/{number}/Find", $"/Jobs/{number}/Find?handler=Reading", true, ("probe", "tp1"), ("text", "6"))) { }
        _shop.View(number).Records.Count.ShouldBe(1);
        using (await _shop.Post($"/Jobs/{number}/Timeline", $"/Jobs/{number}/Timeline?handler=Reopen", false)) { }
        _shop.Jobs.Find(number)!.ClosedAt.ShouldBeNull();
    }

    [Fact]
    public async Task A_proved_job_becomes_ready_and_goes_to_sale_with_a_price()
    {
        var number = await _shop.TakeIn("pellin-atrium-cartridge", ("Form.Owner", "shop"), ("Form.Paid", "2"), ("Form.Lot", "9"));
        foreach (var function in _shop.View(number).Profile.Functions)
            using (
                await _shop.Post(
                    $"/Jobs/{number}/Prove",
                    $"/Jobs/{number}/Prove?handler=Result",
                    true,
                    ("function", function.Id),
                    ("result", "pass")
                )
            ) { }
        _shop.Jobs.Find(number)!.Shelf.ShouldBe(Shelf.Ready);
        using (var unpriced = await _shop.Post($"/Jobs/{number}/HandOver", ("end", "ForSale")))
            unpriced.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        using (var unowned = await _shop.Post($"/Jobs/{number}/HandOver", ("end", "Returned")))
            unowned.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        using (var sold = await _shop.Post($"/Jobs/{number}/HandOver", ("end", "ForSale"), ("asking", "16,00")))
            sold.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        _shop.Jobs.Find(number)!.ShouldSatisfyAllConditions(j => j.Ending.ShouldBe(JobEnd.ForSale), j => j.Asking.ShouldBe(16m));
    }

    [Fact]
    public async Task A_repair_obliges_to_prove_again()
    {
        var number = await _shop.TakeIn("pellin-atrium-cartridge");
        foreach (var function in _shop.View(number).Profile.Functions)
            using (
                await _shop.Post(
                    $"/Jobs/{number}/Prove",
                    $"/Jobs/{number}/Prove?handler=Result",
                    false,
                    ("function", function.Id),
                    ("result", "pass")
                )
            ) { }
        using (
            await _shop.Post(
                $"/Jobs/{number}/Fix?part=cell",
                $"/Jobs/{number}/Fix",
                false,
                ("part", "cell"),
                ("method", "replace-save-cell")
            )
        ) { }
        using var barred = await _shop.Post($"/Jobs/{number}/HandOver", ("end", "Returned"));
        (await WebShop.Parse(barred)).QuerySelector(".notice.wrong")!.TextContent.ShouldContain("Not proved since the last repair");
    }

    [Fact]
    public async Task A_shelf_wants_a_reason_and_shows_it_on_the_bench()
    {
        var number = await Dead();
        using (
            var silent = await _shop.Post(
                $"/Jobs/{number}/HandOver",
                $"/Jobs/{number}/HandOver?handler=Shelf",
                false,
                ("shelf", "WaitingPart")
            )
        )
            silent.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        using (
            await _shop.Post(
                $"/Jobs/{number}/HandOver",
                $"/Jobs/{number}/HandOver?handler=Shelf",
                false,
                ("shelf", "WaitingPart"),
                ("why", "switch on order"),
                ("next", "fit it")
            )
        ) { }
        (await _shop.Page("/")).QuerySelector("#shelf-WaitingPart")!.ParentElement!.TextContent.ShouldContain("switch on order");
    }

    [Fact]
    public async Task A_unit_comes_down_from_its_shelf_and_is_closed_up_again()
    {
        var number = await Dead();
        await Read(number, "tp3", "6.2");
        _shop.View(number).Access.ShouldBe(AccessState.Open);
        using (await _shop.Post($"/Jobs/{number}/Fix", $"/Jobs/{number}/Fix?handler=CloseUp", false)) { }
        _shop.View(number).Access.ShouldBe(AccessState.Closed);
        using (
            await _shop.Post(
                $"/Jobs/{number}/HandOver",
                $"/Jobs/{number}/HandOver?handler=Shelf",
                false,
                ("shelf", "SetAside"),
                ("why", "later")
            )
        ) { }
        using (await _shop.Post($"/Jobs/{number}/Find", $"/Jobs/{number}/Timeline?handler=Bench", false)) { }
        _shop.Jobs.Find(number)!.Shelf.ShouldBe(Shelf.None);
    }

    [Fact]
    public async Task Intake_can_be_corrected_and_a_job_deleted_and_brought_back()
    {
        var number = await Dead();
        using (
            await _shop.Post(
                $"/Jobs/{number}/Intake",
                ("Form.Owner", "shop"),
                ("Form.Paid", "5"),
                ("Form.Currency", "gbp"),
                ("Form.Revision", "A"),
                ("Form.Marks", "rattle")
            )
        ) { }
        var view = _shop.View(number);
        view.Job.ShouldSatisfyAllConditions(
            j => j.ShopStock.ShouldBeTrue(),
            j => j.Currency.ShouldBe("GBP"),
            j => j.Paid.ShouldBe(5m),
            j => j.Revision.ShouldBe("A")
        );
        view.Records.ShouldContain(r => r.Body is MarkNoted && r.Subject == "rattle");
        using (await _shop.Post($"/Jobs/{number}/Intake", $"/Jobs/{number}/Timeline?handler=Delete", false)) { }
        (await _shop.Page("/Jobs?show=deleted")).QuerySelectorAll("td .tag").ShouldHaveSingleItem().TextContent.ShouldContain($"{number}");
        _shop.Jobs.Live().ShouldNotContain(j => j.Number == number);
        using (await _shop.Post($"/Jobs/{number}/Timeline", $"/Jobs/{number}/Timeline?handler=Restore", false)) { }
        _shop.Jobs.Live().ShouldContain(j => j.Number == number);
    }

    [Fact]
    public async Task Settings_change_the_advice_and_refuse_nonsense()
    {
        using (var bad = await _shop.Post("/Settings", ("ShopName", ""), ("Currency", "X"), ("Rate", "-1"), ("Originality", "7")))
            bad.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        using (
            await _shop.Post(
                "/Settings",
                ("ShopName", "Lamp Yard"),
                ("Currency", "SEK"),
                ("Rate", "400"),
                ("Originality", "180"),
                ("Strength", "3,5"),
                ("LookMinutes", "30"),
                ("LookPercent", "55")
            )
        ) { }
        _shop.Service<SettingsStore>().Get().ShouldBe(new ShopSettings("Lamp Yard", "SEK", 400, 180, 3.5, 30, 0.55));
        using var themed = await _shop.Post("/Settings", "/Settings?handler=Theme", false, ("theme", "dark"));
        themed.Headers.GetValues("Set-Cookie").ShouldContain(c => c.Contains("mendro.theme=dark") && c.Contains("httponly"));
    }

    private Task<long> Dead() =>
        _shop.TakeIn("harrow-quartet", ("Form.Result[power-light]", "fail"), ("Form.Look[power-light]", "nothing"));

    private async Task Read(long number, string probe, string text)
    {
        using var response = await _shop.Post(
            $"/Jobs/{number}/Find",
            $"/Jobs/{number}/Find?handler=Reading",
            false,
            ("probe", probe),
            ("text", text)
        );
        response.StatusCode.ShouldBe(HttpStatusCode.Redirect);
    }
}
