using System.Net;
using Mendro.Web.Live;

namespace Mendro.Web.Tests;

/// <summary>The stream of events: one a browser, only so many in all, and never for another site's page.</summary>
public sealed class EventStreamTests(WebShop shop) : IClassFixture<WebShop>
{
    private readonly WebShop _shop = shop;

    [Fact]
    public void One_browser_has_one_stream_and_in_all_there_are_only_so_many()
    {
        var streams = new EventStreams();
        var first = streams.Open("a")!;
        var second = streams.Open("a")!;
        streams.Count.ShouldBe(1);
        first.Reader.TryRead(out var told).ShouldBeTrue();
        told!.Name.ShouldBe("replaced");
        first.Reader.Completion.IsCompleted.ShouldBeTrue();
        // The first one's end does not end the second.
        streams.Close("a", first);
        streams.IsOpen("a").ShouldBeTrue();
        for (var n = 1; n < EventStreams.Most; n++)
            streams.Open("b" + n).ShouldNotBeNull();
        streams.Open("one too many").ShouldBeNull();
        // Who listens already may come again.
        streams.Open("a").ShouldNotBeNull();
        streams.Close("a", second);
        streams.Close("b1", streams.Open("b1")!);
        streams.Open("one more").ShouldNotBeNull();
    }

    [Fact]
    public void A_browser_that_does_not_read_loses_the_oldest_and_holds_nobody_up()
    {
        var streams = new EventStreams();
        var slow = streams.Open("slow")!;
        for (var n = 0; n < 10_000; n++)
            streams.SendAll("job", new { Number = n });
        slow.Reader.Count.ShouldBeLessThanOrEqualTo(64);
    }

    [Fact]
    public async Task Who_came_before_a_stream_was_open_is_told_as_it_opens()
    {
        var streams = new EventStreams();
        var presence = new Presence(streams, TimeProvider.System);
        await presence.StartAsync(TestContext.Current.CancellationToken);
        presence.Here("page 1", "ben", 142, "Ben Solder");
        presence.Here("page 2", "nora", 123, "Nora Weld");
        var nora = streams.Open("nora")!;
        nora.Reader.TryRead(out var told).ShouldBeTrue();
        told!.Name.ShouldBe("here");
        told.Data.ShouldContain("142");
        told.Data.ShouldContain("Ben Solder");
        nora.Reader.TryRead(out _).ShouldBeFalse();
        await presence.StopAsync(TestContext.Current.CancellationToken);
    }

    [Fact]
    public async Task Without_a_page_there_is_no_stream()
    {
        using var response = await _shop.Browser().GetAsync(EventEndpoint.Path, TestContext.Current.CancellationToken);
        response.StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }

    [Theory]
    [InlineData("cross-site", HttpStatusCode.Forbidden)]
    [InlineData("same-site", HttpStatusCode.Forbidden)]
    [InlineData("same-origin", HttpStatusCode.OK)]
    [InlineData("none", HttpStatusCode.OK)]
    public async Task Another_sites_page_gets_no_stream(string site, HttpStatusCode expected)
    {
        await _shop.Page("/");
        using var request = new HttpRequestMessage(HttpMethod.Get, EventEndpoint.Path);
        request.Headers.Add("Sec-Fetch-Site", site);
        using var response = await _shop.Client.SendAsync(
            request,
            HttpCompletionOption.ResponseHeadersRead,
            TestContext.Current.CancellationToken
        );
        response.StatusCode.ShouldBe(expected);
    }

    [Fact]
    public async Task What_is_done_to_a_job_is_told_with_the_page_that_did_it()
    {
        var number = await _shop.TakeIn("harrow-quartet", ("Form.Result[power-light]", "fail"));
        using var stream = await _shop.Client.GetAsync(
            EventEndpoint.Path,
            HttpCompletionOption.ResponseHeadersRead,
            TestContext.Current.CancellationToken
        );
        using var reader = new StreamReader(await stream.Content.ReadAsStreamAsync(TestContext.Current.CancellationToken));
        var token = (await _shop.Page("/")).QuerySelector("meta[name=mendro-token]")!.GetAttribute("content")!;
        using var request = new HttpRequestMessage(HttpMethod.Post, $"/Jobs/{number}/Find?handler=Reading")
        {
            Content = new FormUrlEncodedContent([KeyValuePair.Create("probe", "tp3"), KeyValuePair.Create("text", "6.2")]),
        };
        request.Headers.Add("X-Mendro-Antiforgery", token);
        request.Headers.Add(ShopNews.PageHeader, "mine");
        using var filed = await _shop.Client.SendAsync(request, TestContext.Current.CancellationToken);
        filed.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        string? line;
        do line = await reader.ReadLineAsync(TestContext.Current.CancellationToken);
        while (line?.StartsWith("data: {\"number\"", StringComparison.Ordinal) == false);
        line.ShouldBe($$"""data: {"number":{{number}},"by":"mine","who":""}""");
    }

    [Fact]
    public void An_account_has_eight_streams_and_the_oldest_ends_for_one_more()
    {
        var streams = new EventStreams();
        var all = Enumerable.Range(0, 8).Select(n => streams.Open($"tab{n}", account: 7)!).ToList();
        streams.Open("another's", account: 8).ShouldNotBeNull();
        streams.Open("tab8", account: 7).ShouldNotBeNull();
        streams.IsOpen("tab0").ShouldBeFalse();
        all[0].Reader.TryRead(out var told).ShouldBeTrue();
        told!.Name.ShouldBe("replaced");
        (streams.IsOpen("tab1"), streams.IsOpen("another's"), streams.Count).ShouldBe((true, true, 9));
        // In a shop of the house nobody is told from another.
        for (var n = 0; n < 20; n++)
            streams.Open($"house{n}").ShouldNotBeNull();
        streams.IsOpen("house0").ShouldBeTrue();
    }

    [Fact]
    public void A_phone_hears_of_its_own_job_only()
    {
        var streams = new EventStreams();
        var (phone, bench) = (streams.Open("phone", account: 7, job: 101)!, streams.Open("bench", account: 8)!);
        streams.SendAll("bench", new { });
        streams.SendAll("job", new { Number = 101 }, 101);
        streams.SendAll("job", new { Number = 102 }, 102);
        streams.SendEach("here", 102, _ => new { Number = 102 });
        streams.SendEach("here", 101, _ => new { Number = 101 });
        List<string> Heard(System.Threading.Channels.Channel<ServerEvent> of)
        {
            var heard = new List<string>();
            while (of.Reader.TryRead(out var told))
                heard.Add($"{told.Name} {told.Data}");
            return heard;
        }

        Heard(phone).ShouldBe(["job {\"number\":101}", "here {\"number\":101}"]);
        Heard(bench).Count.ShouldBe(5);
    }
}
