using System.Net;
using System.Text;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Money;
using Mendro.Core.Quantities;
using Mendro.Storage;

namespace Mendro.Web.Tests;

/// <summary>Missing, oversized and hostile input: refused or encoded, never run, never a stack trace.</summary>
public sealed class HostileInputTests(WebShop shop) : IClassFixture<WebShop>
{
    private const string Script = "<script>alert('x')</script>\"'><img src=x onerror=alert(1)>";
    private readonly WebShop _shop = shop;

    [Fact]
    public async Task Script_in_every_free_text_field_comes_back_encoded_on_every_page()
    {
        var number = await _shop.TakeIn(
            "generic-handheld",
            ("Form.UnitName", Script),
            ("Form.Serial", Script),
            ("Form.OwnerName", Script),
            ("Form.OwnerContact", Script),
            ("Form.Claim", Script),
            ("Form.Accessories", Script),
            ("Form.ConditionNote", Script),
            ("Form.Result[power-light]", "fail")
        );
        using (
            await _shop.Post(
                $"/Jobs/{number}/Find",
                $"/Jobs/{number}/Find?handler=Reading",
                false,
                ("probe", "contacts-eye"),
                ("text", "bad " + Script)
            )
        ) { }
        using (
            await _shop.Post(
                $"/Jobs/{number}/Fix?part=contacts",
                $"/Jobs/{number}/Fix",
                false,
                ("part", "contacts"),
                ("method", "wipe-contacts"),
                ("used", Script),
                ("note", Script)
            )
        ) { }
        using (
            await _shop.Post(
                $"/Jobs/{number}/HandOver",
                $"/Jobs/{number}/HandOver?handler=Shelf",
                false,
                ("shelf", "SetAside"),
                ("why", Script),
                ("next", Script)
            )
        ) { }
        using (await _shop.SaveSettings(("ShopName", Script))) { }
        using (await _shop.Post($"/Jobs/{number}/HandOver", ("end", "Returned"), ("reason", Script), ("note", Script))) { }
        _shop.Jobs.Find(number)!.StatedReason.ShouldBe(Script);

        string[] pages =
        [
            "/",
            "/Jobs?show=closed",
            $"/Jobs?q={Uri.EscapeDataString(Script)}",
            "/Intake?claim=" + Uri.EscapeDataString(Script),
            "/Settings",
            $"/Jobs/{number}/Intake",
            $"/Jobs/{number}/Find",
            $"/Jobs/{number}/Fix",
            $"/Jobs/{number}/Prove",
            $"/Jobs/{number}/HandOver",
            $"/Jobs/{number}/Sheet",
            $"/Jobs/{number}/Timeline",
        ];
        foreach (var path in pages)
        {
            var page = await _shop.Page(path);
            page.QuerySelectorAll("script:not([src]), img[src=x], [onerror]").ShouldBeEmpty(path);
        }

        // And it is the text itself that comes back, not a mangled one.
        (await _shop.Page($"/Jobs/{number}/Sheet"))
            .QuerySelector(".sheet-title")!
            .TextContent.ShouldBe(Script);
    }

    [Theory]
    [InlineData("/Intake")]
    [InlineData("/?handler=Quick")]
    [InlineData("/Settings")]
    [InlineData("/Jobs/101/Find?handler=Reading")]
    [InlineData("/Jobs/101/Timeline?handler=Delete")]
    public async Task A_post_without_the_token_is_refused(string path)
    {
        await _shop.TakeIn();
        var before = _shop.Jobs.Live().Count;
        using var response = await _shop.Client.PostAsync(path, new FormUrlEncodedContent([]), TestContext.Current.CancellationToken);
        response.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await WebShop.Parse(response)).QuerySelector("h1")!.TextContent.ShouldBe("That request could not be taken");
        _shop.Jobs.Live().Count.ShouldBe(before);
    }

    [Theory]
    [InlineData("Sec-Fetch-Site", "cross-site", HttpStatusCode.Forbidden)]
    [InlineData("Sec-Fetch-Site", "same-site", HttpStatusCode.Forbidden)]
    [InlineData("Origin", "http://evil.example", HttpStatusCode.Forbidden)]
    [InlineData("Origin", "null", HttpStatusCode.Forbidden)]
    [InlineData("Origin", "http://localhost:81", HttpStatusCode.Forbidden)]
    [InlineData("Origin", "http://localhost", HttpStatusCode.Redirect)]
    [InlineData("Sec-Fetch-Site", "same-origin", HttpStatusCode.Redirect)]
    public async Task A_write_asked_for_by_another_sites_page_is_refused_even_with_the_token(
        string header,
        string value,
        HttpStatusCode expected
    )
    {
        var before = _shop.Jobs.Live().Count;
        var token = (await _shop.Page("/")).QuerySelector("meta[name=mendro-token]")!.GetAttribute("content")!;
        using var request = new HttpRequestMessage(HttpMethod.Post, "/?handler=Quick")
        {
            Content = new FormUrlEncodedContent([KeyValuePair.Create("line", "quartet no light")]),
        };
        request.Headers.Add("X-Mendro-Antiforgery", token);
        request.Headers.Add(header, value);
        using var response = await _shop.Client.SendAsync(request, TestContext.Current.CancellationToken);
        response.StatusCode.ShouldBe(expected);
        _shop.Jobs.Live().Count.ShouldBe(before + (expected == HttpStatusCode.Redirect ? 1 : 0));
    }

    [Theory]
    [InlineData("Form.Claim", 2001)]
    [InlineData("Form.OwnerName", 121)]
    [InlineData("Form.Serial", 5000)]
    public async Task Oversized_fields_are_refused_with_a_word(string field, int length)
    {
        using var response = await _shop.Post(
            "/Intake",
            ("Form.Profile", "harrow-quartet"),
            ("Form.Owner", "customer"),
            ("Form.Currency", "EUR"),
            ("Form.OwnerName", field == "Form.OwnerName" ? new string('x', length) : "A"),
            (field == "Form.OwnerName" ? "x" : field, new string('x', length))
        );
        response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await WebShop.Parse(response)).QuerySelectorAll(".field-error").ShouldContain(e => e.TextContent.Contains("At most"));
    }

    [Theory]
    [InlineData("Reading", "probe", "none", HttpStatusCode.NotFound)]
    [InlineData("Function", "function", "none", HttpStatusCode.NotFound)]
    [InlineData("Withdraw", "id", "987654", HttpStatusCode.NotFound)]
    [InlineData("Restore", "id", "987654", HttpStatusCode.NotFound)]
    [InlineData("Withdraw", "id", "not-a-number", HttpStatusCode.NotFound)]
    public async Task Ids_that_do_not_exist_are_not_found(string handler, string field, string value, HttpStatusCode expected)
    {
        var number = await _shop.TakeIn();
        using var response = await _shop.Post(
            $"/Jobs/{number}/Find",
            $"/Jobs/{number}/Find?handler={handler}",
            false,
            (field, value),
            ("result", "pass"),
            ("text", "5")
        );
        response.StatusCode.ShouldBe(expected);
    }

    [Fact]
    public async Task Unknown_profiles_results_and_marks_are_not_taken()
    {
        using var response = await _shop.Post("/Intake", ("Form.Profile", "nothing"), ("Form.Owner", "shop"), ("Form.Currency", "EUR"));
        response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var number = await _shop.TakeIn(
            "harrow-quartet",
            ("Form.Marks", "no-such-mark"),
            ("Form.Result[power-light]", "maybe"),
            ("Form.Result[ghost]", "fail"),
            ("Form.Look[power-light]", "ghost")
        );
        _shop.View(number).Records.ShouldBeEmpty();
    }
}
