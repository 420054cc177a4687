using System.Net;

namespace Mendro.Web.Tests;

/// <summary>Timers in the pages: the strip everywhere, started, paused and stopped.</summary>
public sealed class TimersPageTests(WebShop shop) : IClassFixture<WebShop>
{
    private readonly WebShop _shop = shop;

    [Fact]
    public async Task A_timer_stands_in_the_strip_of_every_page_until_it_is_done()
    {
        var number = await _shop.TakeIn();
        (await _shop.Page("/Jobs")).QuerySelectorAll("#timers .timer").ShouldBeEmpty();
        using (var started = await _shop.Post("/Timers", ("label", "vinegar on the springs"), ("minutes", "15,5"), ("job", $"{number}")))
            started.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        foreach (var path in (string[])["/", "/Jobs", $"/Jobs/{number}/Find", "/Settings"])
        {
            var timer = (await _shop.Page(path)).QuerySelector("#timers .timer").ShouldNotBeNull(path);
            timer.QuerySelector(".label")!.TextContent.ShouldBe("vinegar on the springs");
            timer.QuerySelector(".left")!.TextContent.ShouldStartWith("15:");
            timer.QuerySelector("a")!.GetAttribute("href").ShouldBe($"/Jobs/{number}");
        }

        var id = (await _shop.Page("/Timers")).QuerySelector("#timers [name=id]")!.GetAttribute("value")!;
        using (var paused = await _shop.Post("/Timers", "/Timers?handler=Pause", true, ("id", id)))
            (await WebShop.Parse(paused)).QuerySelector(".timer.paused").ShouldNotBeNull();
        using (var done = await _shop.Post("/Timers", "/Timers?handler=Stop", true, ("id", id)))
            (await WebShop.Parse(done)).QuerySelector(".timer").ShouldBeNull();
        using var gone = await _shop.Post("/Timers", "/Timers?handler=Stop", true, ("id", id));
        gone.StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_bad_timer_is_refused_and_what_was_typed_stays()
    {
        using var refused = await _shop.Post("/Timers", ("label", "drying"), ("minutes", "soon"));
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var page = await WebShop.Parse(refused);
        page.QuerySelector("[role=alert]")!.TextContent.ShouldContain("minutes");
        page.QuerySelector("input[name=label]")!.GetAttribute("value").ShouldBe("drying");
        page.QuerySelector("input[name=minutes]")!.GetAttribute("value").ShouldBe("soon");
    }

    [Theory]
    [InlineData(725, "12:05")]
    [InlineData(3720, "1:02:00")]
    [InlineData(0.2, "0:01")]
    [InlineData(0, "+0:00")]
    [InlineData(-40.4, "+0:40")]
    public void What_is_left_is_shown_as_a_clock_does(double seconds, string shown) => TimersText.Left(seconds).ShouldBe(shown);
}
