using System.Net;
using System.Text.Json;
using Mendro.Core.Money;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Instruments;
using Mendro.Shop.Demo;
using Mendro.Storage;
using Mendro.Web.Live;

namespace Mendro.Web.Tests.Meter;

/// <summary>The meter in the pages: server-sent events from the stand-in over TCP, settings, and the bench supply.</summary>
/// <remarks>One demo for all: there is one meter, and the tests of a class run one after the other.</remarks>
public class LiveTests(LiveTests.MeterDemo shop) : IClassFixture<LiveTests.MeterDemo>
{
    [Fact]
    public async Task The_stand_in_hand_touches_the_selected_point_and_the_value_is_accepted_once_it_stands()
    {
        var events = await Until(123, "tp3", e => e.State == "accepted");
        events[^1].Good.ShouldBe(true);
        events[^1].Words.ShouldBe("as expected");
        events[^1].Typed!.ShouldEndWith(" V");
        // The hand was on its way first, so that the old point could not answer.
        events[0].State.ShouldBeOneOf("open", "moving");
        var dead = await Until(123, "tp4", e => e.State == "accepted");
        dead[^1].Good.ShouldBe(false);
        dead[^1].Words.ShouldBeOneOf("missing", "low");
    }

    [Fact]
    public async Task A_pulled_cable_is_said_and_the_reading_comes_back()
    {
        await Until(123, "tp3", e => e.State == "moving");
        shop.Service<StandInHand>().CutLinks();
        var lost = await shop.Service<BenchMeter>()
            .ReadAsync("VOLT:DC", Mendro.Core.Profiles.ProbeKind.Volts, TestContext.Current.CancellationToken);
        lost.Problem!.ShouldContain("link");
        // Whether the tips were lifted while the link was gone cannot be known: the value stands, but may have to wait for a lift.
        (await Until(123, "tp3", e => e.State is "accepted" or "held"))[^1]
            .Good.ShouldBe(true);
    }

    [Fact]
    public async Task A_contact_is_measured_like_any_contact()
    {
        var events = await Until(142, "slot:4", e => e.State == "accepted");
        events[^1].Typed!.ShouldEndWith("Ω");
        events[^1].Good.ShouldBe(true);
    }

    [Theory]
    [InlineData(123, "nowhere", "false", HttpStatusCode.NotFound)]
    [InlineData(123, "contacts-eye", "false", HttpStatusCode.NotFound)]
    [InlineData(142, "slot:999", "true", HttpStatusCode.NotFound)]
    [InlineData(142, "slot:x:y", "true", HttpStatusCode.NotFound)]
    [InlineData(123, "", "false", HttpStatusCode.NotFound)]
    public async Task What_no_meter_answers_is_not_found(long job, string point, string contact, HttpStatusCode expected)
    {
        using var response = await Meter(job, ("act", "take"), ("point", point), ("contact", contact));
        response.StatusCode.ShouldBe(expected);
    }

    [Fact]
    public async Task The_settings_ask_an_instrument_who_it_is()
    {
        var meter = shop.Service<SettingsStore>().Get().Meter!.ToString();
        using var good = await shop.Post("/Settings", "/Settings?handler=Test&which=meter", true, ("Meter", meter));
        (await good.Content.ReadAsStringAsync(TestContext.Current.CancellationToken)).ShouldContain("A SCPI instrument answers there.");
        using var nobody = await shop.Post("/Settings", "/Settings?handler=Test&which=supply", true, ("Supply", "127.0.0.1:1"));
        (await nobody.Content.ReadAsStringAsync(TestContext.Current.CancellationToken)).ShouldContain("Is the instrument on");
        using var nonsense = await shop.Post("/Settings", "/Settings?handler=Test&which=meter", true, ("Meter", "no where"));
        (await nonsense.Content.ReadAsStringAsync(TestContext.Current.CancellationToken)).ShouldContain("is no address");
    }

    [Fact]
    public async Task A_wrong_address_is_refused_and_kept_in_the_field()
    {
        using var empty = new WebShop();
        using var response = await empty.SaveSettings(("Meter", "me ter"));
        response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await WebShop.Parse(response)).QuerySelector("input[name=Meter]")!.GetAttribute("value").ShouldBe("me ter");
    }

    [Fact]
    public async Task The_supply_feeds_a_unit_within_its_limits_and_tells_what_the_draw_means()
    {
        // Job 142 has a worn switch: nothing gets in.
        using (var set = await shop.Post("/Jobs/142/Supply", "/Jobs/142/Supply?handler=Set", false, ("volts", "6"), ("limit", "75 mA")))
            set.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        using (
            var on = await shop.Post(
                "/Jobs/142/Supply",
                "/Jobs/142/Supply?handler=Switch",
                false,
                ("on", "true"),
                ("volts", "6"),
                ("limit", "75 mA")
            )
        )
            on.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await SupplyOf(142)).QuerySelector("#supply-state")!.TextContent.ShouldContain("Nothing is drawn");
        using (var file = await shop.Post("/Jobs/142/Supply", "/Jobs/142/Supply?handler=File"))
            file.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        shop.View(142).Records[^1].Words.ShouldStartWith("Draw: ");

        using var slip = await shop.Post("/Jobs/142/Supply", "/Jobs/142/Supply?handler=Set", false, ("volts", "60"), ("limit", "0.1"));
        slip.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        using var comma = await shop.Post("/Jobs/142/Supply", "/Jobs/142/Supply?handler=Set", false, ("volts", "12"), ("limit", "0.1"));
        var refusal = await WebShop.Parse(comma);
        refusal.QuerySelector("[role=alert]")!.TextContent.ShouldContain("far over the 6 V");
        refusal.QuerySelector("[name=volts]")!.GetAttribute("value").ShouldBe("12");
        refusal.QuerySelector("[data-key=o]")!.TextContent.ShouldContain("Output off");
    }

    [Fact]
    public async Task A_unit_with_a_short_is_not_fed_without_saying_so_and_then_the_limit_holds()
    {
        shop.Service<StandInTruthStore>().Hide(shop.Jobs.Find(138)!.Id, ["main.short"]);
        using (await shop.Post("/Jobs/138/Find", "/Jobs/138/Find?handler=Reading", true, ("probe", "rail-ohms"), ("text", "1.6"))) { }
        using (
            var refused = await shop.Post(
                "/Jobs/138/Supply",
                "/Jobs/138/Supply?handler=Switch",
                false,
                ("on", "true"),
                ("volts", "6"),
                ("limit", "0.075")
            )
        )
            refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        using (
            var sure = await shop.Post(
                "/Jobs/138/Supply",
                "/Jobs/138/Supply?handler=Switch",
                false,
                ("on", "true"),
                ("sure", "true"),
                ("volts", "6"),
                ("limit", "0.075")
            )
        )
            sure.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var page = await SupplyOf(138);
        page.QuerySelector("#supply-state")!.TextContent.ShouldContain("The limit of 75 mA holds");
        page.QuerySelector("#supply-state .caution.stop")!.TextContent.ShouldContain("Short on the supply");
    }

    // A supply left at the volts of another unit must not reach this one.
    [Fact]
    public async Task Switching_on_sets_what_stands_in_the_fields_first()
    {
        var supply = shop.Service<BenchSupply>();
        await supply.SwitchAsync(false, TestContext.Current.CancellationToken);
        await supply.SetAsync(20, 2, TestContext.Current.CancellationToken);
        var page = await SupplyOf(142);
        page.QuerySelector("[name=volts]")!.GetAttribute("value").ShouldBe("6");
        page.QuerySelector("[name=limit]")!.GetAttribute("value").ShouldBe("0.075");
        using (var bare = await shop.Post("/Jobs/142/Supply", "/Jobs/142/Supply?handler=Switch", false, ("on", "true")))
            bare.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await supply.ReadAsync(TestContext.Current.CancellationToken)).On.ShouldBeFalse();
        using (
            await shop.Post(
                "/Jobs/142/Supply",
                "/Jobs/142/Supply?handler=Switch",
                false,
                ("on", "true"),
                ("volts", "5,8"),
                ("limit", "80 mA")
            )
        ) { }
        var state = await supply.ReadAsync(TestContext.Current.CancellationToken);
        (state.On, state.SetVolts, state.LimitAmps).ShouldBe((true, 5.8, 0.08));

        await supply.SetAsync(12, 0.1, TestContext.Current.CancellationToken);
        (await SupplyOf(142)).QuerySelector("#supply-state [role=alert]")!.Words().ShouldContain("The output is on at 12 V");
        using (await shop.Post("/Jobs/142/Supply", "/Jobs/142/Supply?handler=Switch", false, ("on", "false"))) { }
        (await supply.ReadAsync(TestContext.Current.CancellationToken)).On.ShouldBeFalse();
    }

    [Fact]
    public async Task Without_a_supply_the_page_says_what_to_set_by_hand()
    {
        using var empty = new WebShop();
        var number = await empty.TakeIn();
        (await empty.Page($"/Jobs/{number}/Supply")).QuerySelector(".empty")!.Words().ShouldContain("6 V, first with a limit of 75 mA");
    }

    private Task<HttpResponseMessage> Meter(long job, params (string, string)[] fields) =>
        shop.Post($"/Jobs/{job}/Find", $"/Jobs/{job}/Bar?handler=Meter", false, [("page", shop.MeterPage), .. fields]);

    /// <summary>The page as its script completes it: the supply is asked with a post.</summary>
    private async Task<AngleSharp.Html.Dom.IHtmlDocument> SupplyOf(long job)
    {
        using var asked = await shop.Post($"/Jobs/{job}/Supply", $"/Jobs/{job}/Supply?handler=State");
        asked.StatusCode.ShouldBe(HttpStatusCode.OK);
        return await WebShop.Parse(asked);
    }

    private sealed record Told(string Page, string Point, LiveReading Reading);

    private async Task<List<LiveReading>> Until(long job, string point, Func<LiveReading, bool> done)
    {
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(TestContext.Current.CancellationToken);
        limit.CancelAfter(TimeSpan.FromSeconds(60));
        await shop.Page("/");
        using var response = await shop.Client.GetAsync("/Events", HttpCompletionOption.ResponseHeadersRead, limit.Token);
        response.Content.Headers.ContentType!.MediaType.ShouldBe("text/event-stream");
        using (var left = await Meter(job, ("act", "leave")))
            left.StatusCode.ShouldBe(HttpStatusCode.NoContent);
        shop.MeterPage = Guid.NewGuid().ToString("N");
        using (var taken = await Meter(job, ("act", "take"), ("point", point), ("contact", point.Contains(':') ? "true" : "false")))
            taken.StatusCode.ShouldBe(HttpStatusCode.NoContent);
        using var reader = new StreamReader(await response.Content.ReadAsStreamAsync(limit.Token));
        var events = new List<LiveReading>();
        try
        {
            while (await reader.ReadLineAsync(limit.Token) is { } line)
            {
                if (!line.StartsWith("data: ", StringComparison.Ordinal))
                    continue;
                // Other news come on the same stream.
                if (JsonSerializer.Deserialize<Told>(line[6..], JsonSerializerOptions.Web) is not { Reading: { } now } told)
                    continue;
                // What was still on its way for the point before is passed over, as the page does.
                if (told.Page != shop.MeterPage)
                    continue;
                told.Point.ShouldBe(point);
                events.Add(now);
                if (done(events[^1]))
                    return events;
            }
        }
        catch (OperationCanceledException)
        {
            // Too late; what came is told below.
        }

        throw new InvalidOperationException($"It never came: {events.Count} events, the last {string.Join(" · ", events.TakeLast(5))}");
    }

    /// <summary>The demo with its stand-in instruments.</summary>
    public sealed class MeterDemo() : WebShop(demo: true)
    {
        /// <summary>The page that has the meter. Every touch is a page of its own: what the one before was still told is not taken
        /// for its answer.</summary>
        public string MeterPage { get; set; } = "none";
    }
}
