using System.Net;
using Mendro.Core.Jobs;
using Mendro.Shop;
using Mendro.Storage;

namespace Mendro.Web.Tests;

/// <summary>Owner, sale, parts, shelf and a person's data through the pages.</summary>
public sealed class HandOverPagesTests(WebShop shop) : IClassFixture<WebShop>
{
    private readonly WebShop _shop = shop;

    private async Task<string> Wrong(HttpResponseMessage answer)
    {
        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        return (await WebShop.Parse(answer)).QuerySelector(".notice.wrong")!.TextContent;
    }

    [Fact]
    public async Task A_quote_is_given_answered_and_told_on_fix_when_it_is_exceeded()
    {
        var number = await _shop.TakeIn();
        var at = $"/Jobs/{number}/Owner";
        using (var none = await _shop.Post(at, at + "?handler=Quote", false, ("low", "ten"), ("likely", "20"), ("high", "30"), ("works", "new switch")))
        {
            var page = await WebShop.Parse(none);
            none.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
            page.QuerySelector("input[name=low]")!.GetAttribute("value").ShouldBe("ten");
            page.QuerySelector("input[name=works]")!.GetAttribute("value").ShouldBe("new switch");
        }

        using (await _shop.Post(at, at + "?handler=Quote", false, ("low", "10"), ("likely", "12"), ("high", "15"), ("waits", "true"))) { }
        _shop.Jobs.Find(number)!.Shelf.ShouldBe(Shelf.WaitingOwner);
        (await _shop.Page($"/Jobs/{number}/Fix?part=switch")).QuerySelector(".caution")!.TextContent.ShouldContain("has not answered");
        using (await _shop.Post(at, at + "?handler=Answer", false, ("answer", "yes"), ("who", "Ilka Dorn"), ("upTo", "15"))) { }
        _shop.Jobs.Find(number)!.Shelf.ShouldBe(Shelf.None);
        _shop.Service<RepairDesk>().Log(new RepairOrder(number, "switch", "flush-switch", Minutes: 60)).Done.ShouldNotBeNull();
        (await _shop.Page($"/Jobs/{number}/Fix?part=switch")).QuerySelector(".caution")!.TextContent.ShouldContain("more than the owner agreed");
    }

    [Fact]
    public async Task A_part_that_was_changed_without_a_price_is_named_beside_the_sum()
    {
        var number = await _shop.TakeIn();
        async Task<string> Sum() =>
            string.Join("|", (await _shop.Page($"/Jobs/{number}/HandOver")).QuerySelectorAll("tr").Select(r => r.TextContent).Where(t => t.Contains("Parts")));
        _shop.Service<RepairDesk>().Log(new RepairOrder(number, "switch", "flush-switch", Minutes: 4)).Done.ShouldNotBeNull();
        (await Sum()).ShouldNotContain("not told", customMessage: "nothing was changed by a cleaning");
        _shop.Service<RepairDesk>().Log(new RepairOrder(number, "fuse", "replace-fuse", Minutes: 10)).Done.ShouldNotBeNull();
        (await Sum()).ShouldContain("Fuse usually €0.40");
        _shop.Service<RepairDesk>().Log(new RepairOrder(number, "speaker", "replace-speaker", Minutes: 10, Cost: 0)).Done.ShouldNotBeNull();
        (await Sum()).ShouldNotContain("Speaker usually", customMessage: "a part from a donor was told to cost nothing");
    }

    [Fact]
    public async Task Prices_come_from_a_file_all_or_none()
    {
        var number = await _shop.TakeIn();
        var at = $"/Jobs/{number}/Sale";
        async Task<HttpResponseMessage> File(string csv)
        {
            var token = (await _shop.Page(at)).QuerySelector("meta[name=mendro-token]")!.GetAttribute("content")!;
            using var content = new MultipartFormDataContent { { new StringContent(csv), "file", "prices.csv" } };
            using var request = new HttpRequestMessage(HttpMethod.Post, at + "?handler=File") { Content = content };
            request.Headers.Add("X-Mendro-Antiforgery", token);
            return await _shop.Client.SendAsync(request, TestContext.Current.CancellationToken);
        }

        using (var bad = await File("date,condition,price\n2025-10-01,good,40\n2025-10-02,shiny,4\n"))
            (await Wrong(bad)).ShouldContain("Nothing was taken");
        _shop.Service<SaleStore>().Others("harrow-quartet").ShouldBeEmpty();
        using (var good = await File("date,condition,price\n2025-10-01,good,40\n2025-10-02,worn,32\n"))
            good.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var page = await _shop.Page(at + "?grade=good");
        // Both are 40 for a good one.
        page.QuerySelector(".price-table")!.TextContent.ShouldContain("€40.00");
        page.QuerySelector("textarea.listing")!.TextContent.ShouldContain("Harrow Quartet");
    }

    [Fact]
    public async Task To_parts_names_the_hazards_and_what_is_ticked_is_in_stock()
    {
        using var own = new WebShop();
        var number = await own.TakeIn();
        var page = await own.Page($"/Jobs/{number}/HandOver");
        page.QuerySelector(".donates")!.TextContent.ShouldContain("Speaker");
        using (await own.Post($"/Jobs/{number}/HandOver", ("end", "Parts"), ("part", "speaker"), ("part", "panel"))) { }
        var stock = await own.Page("/Donors?kind=speaker");
        stock.QuerySelectorAll("main tbody tr").Length.ShouldBe(1);
        var id = stock.QuerySelector("input[name=id]")!.GetAttribute("value")!;
        using (await own.Post("/Donors", ("id", id), ("state", "taken"), ("words", "into 141"))) { }
        (await own.Page("/Donors?kind=speaker")).QuerySelectorAll("main tbody tr").ShouldBeEmpty();
        (await own.Page("/Donors?kind=speaker&all=true")).Body!.TextContent.ShouldContain("into 141");
    }

    [Fact]
    public async Task A_named_part_brings_its_jobs_back_with_one_press()
    {
        var number = await _shop.TakeIn();
        var at = $"/Jobs/{number}/HandOver";
        using (var bad = await _shop.Post(at, at + "?handler=Shelf", false, ("shelf", "WaitingPart"), ("why", "cone"), ("until", "soon")))
            (await Wrong(bad)).ShouldContain("2026-12-01");
        using (await _shop.Post(at, at + "?handler=Shelf", false, ("shelf", "WaitingPart"), ("why", "cone"), ("partName", "speaker 28 mm"))) { }
        (await _shop.Page("/Calls")).Body!.TextContent.ShouldContain("speaker 28 mm");
        using (await _shop.Post("/Calls", "/Calls?handler=Came", false, ("part", "speaker 28 mm"))) { }
        _shop.Jobs.Find(number)!.Shelf.ShouldBe(Shelf.None);
    }

    [Fact]
    public async Task A_person_gets_a_file_and_is_taken_out_after_typing_the_name()
    {
        var number = await _shop.TakeIn("harrow-quartet", ("Form.OwnerName", "Paula Kern"));
        var id = _shop.Jobs.Find(number)!.CustomerId!.Value;
        var name = _shop.Jobs.Find(number)!.CustomerName!;
        using (var file = await _shop.Client.GetAsync($"/Owners/{id}?handler=Export", TestContext.Current.CancellationToken))
            file.Content.Headers.ContentDisposition!.FileName.ShouldBe($"owner-{id}.json");
        using (await _shop.Post($"/Jobs/{number}/HandOver", ("end", "Returned"), ("reason", "declined"), ("to", name))) { }
        using (var bad = await _shop.Post($"/Owners/{id}", $"/Owners/{id}?handler=Erase", false, ("name", "x")))
            (await Wrong(bad)).ShouldContain("exactly");
        using (await _shop.Post($"/Owners/{id}", $"/Owners/{id}?handler=Erase", false, ("name", name))) { }
        (await _shop.Page($"/Jobs/{number}/Timeline")).Body!.TextContent.ShouldNotContain(name);
        (await _shop.Page($"/Jobs/{number}/Sheet")).Body!.TextContent.ShouldContain("Erased owner");
        (await _shop.Page("/Owners/4711", HttpStatusCode.NotFound)).QuerySelector("h1").ShouldNotBeNull();
    }

    [Fact]
    public async Task What_stays_failing_is_kept_with_its_reason_on_prove_and_told_on_hand_over()
    {
        var number = await _shop.TakeIn();
        var at = $"/Jobs/{number}/Prove";
        foreach (var id in _shop.View(number).Profile.Functions.Select(f => f.Id.Value))
            using (await _shop.Post(at, at + "?handler=Result", false, ("item", $"function:{id}"), ("result", id == "speaker" ? "fail" : "pass"))) { }
        using (await _shop.Post(at, at + "?handler=Keep", false, ("item", "function:speaker"), ("reason", "WaitingPart"), ("words", "cone on order"))) { }
        (await _shop.Page(at)).Body!.TextContent.ShouldContain("Done but for the speaker (waiting for a part: cone on order)");
        var handOver = await _shop.Page($"/Jobs/{number}/HandOver");
        handOver.QuerySelector("input[name=reason]").ShouldBeNull();
        handOver.Body!.TextContent.ShouldContain("Done but for the speaker");
        using (var bad = await _shop.Post(at, at + "?handler=Soak", false, ("function", "picture"), ("minutes", "never")))
            (await Wrong(bad)).ShouldContain("give its minutes");
        using (await _shop.Post(at, at + "?handler=Soak", false, ("function", "picture"), ("minutes", "20"))) { }
        (await _shop.Page(at)).QuerySelector(".soak")!.TextContent.ShouldContain("20 min");
    }

    [Fact]
    public async Task The_last_calls_stand_in_one_place_and_each_is_one_press()
    {
        var number = await _shop.TakeIn();
        foreach (var function in _shop.View(number).Profile.Functions)
            _shop.Service<ReadingDesk>().Try(new TrialOrder(number, function.Id, true, Proving: true)).Done.ShouldNotBeNull();
        var page = await _shop.Page($"/Jobs/{number}/HandOver");
        page.QuerySelector(".last-calls")!.TextContent.ShouldContain("Ilka Dorn was not told yet");
        page.QuerySelectorAll(".last-calls [data-key]").Select(b => b.GetAttribute("data-key")).ShouldBe(["t", "p", "g"]);
        foreach (var call in (string[])["Told", "Paid"])
            using (var made = await _shop.Post($"/Jobs/{number}/HandOver", $"/Jobs/{number}/HandOver?handler={call}", false))
                made.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        page = await _shop.Page($"/Jobs/{number}/HandOver");
        page.QuerySelector(".last-calls")!.TextContent.ShouldContain("Told that it is ready");
        page.QuerySelector(".last-calls")!.TextContent.ShouldContain("Nothing is due");
        page.QuerySelectorAll(".last-calls [data-key]").Select(b => b.GetAttribute("data-key")).ShouldBe(["g"]);
        // Nothing is paid twice by a second press.
        using var again = await _shop.Post($"/Jobs/{number}/HandOver", $"/Jobs/{number}/HandOver?handler=Paid", false);
        again.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }
}
