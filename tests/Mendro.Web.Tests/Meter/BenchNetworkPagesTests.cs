using System.Net;
using System.Net.Sockets;

namespace Mendro.Web.Tests.Meter;

/// <summary>Nobody learns through a page what listens in the network, and no visit asks anything there.</summary>
public sealed class BenchNetworkPagesTests(WebShop shop) : IClassFixture<WebShop>
{
    [Fact]
    public async Task Of_what_else_listens_nothing_is_told_and_a_saved_address_is_not_asked_by_a_visit()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        var port = ((IPEndPoint)listener.LocalEndpoint).Port;
        using (var saved = await shop.SaveSettings(("Meter", $"127.0.0.1:{port}"), ("Supply", $"127.0.0.1:{port}")))
            saved.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var number = await shop.TakeIn();
        foreach (
            var path in (string[])
                ["/Settings", $"/Jobs/{number}/Find?select=probe:tp3", $"/Jobs/{number}/Supply", $"/Jobs/{number}/Contacts", "/"]
        )
            await shop.Page(path);
        listener.Pending().ShouldBeFalse();

        var asked = shop.Post("/Settings", "/Settings?handler=Test&which=meter", true, ("Meter", $"127.0.0.1:{port}"));
        using (var client = await listener.AcceptTcpClientAsync(TestContext.Current.CancellationToken))
            await client.GetStream().WriteAsync("220 secret.internal ESMTP\r\n"u8.ToArray(), TestContext.Current.CancellationToken);
        using var answer = await asked;
        var told = await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken);
        told.ShouldContain("no SCPI instrument");
        told.ShouldNotContain("secret");
    }

    [Fact]
    public async Task A_far_address_is_not_even_saved()
    {
        using var refused = await shop.SaveSettings(("Meter", "203.0.113.9:5025"));
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await WebShop.Parse(refused)).QuerySelector("[role=alert]")!.TextContent.ShouldContain("own network only");
    }
}
