using System.Net;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.AspNetCore.Routing;

namespace Mendro.Web.Tests;

/// <summary>A post that no page answers, with a handler nobody knows or with none: the page, or a plain refusal, and never an error.</summary>
public sealed class UnknownHandlerTests(WebShop shop) : IClassFixture<WebShop>
{
    [Fact]
    public async Task Nothing_breaks_and_nothing_is_done()
    {
        var plain = await shop.TakeIn("generic-console");
        var number = await shop.TakeIn();
        var token = (await shop.Page("/Settings")).QuerySelector("meta[name=mendro-token]")!.GetAttribute("content")!;
        var routes = shop.Service<EndpointDataSource>()
            .Endpoints.OfType<RouteEndpoint>()
            .Where(e => e.Metadata.GetMetadata<PageActionDescriptor>() is not null)
            .Select(e => e.RoutePattern.RawText!)
            .Distinct()
            .ToList();
        routes.Count.ShouldBeGreaterThan(60);
        var (wrong, before) = (new List<string>(), shop.Records.Of(shop.Jobs.Find(number)!.Id).Count);
        foreach (var route in routes)
        foreach (var job in (long[])[number, plain])
        foreach (var handler in (string[])["", "?handler=NoSuchThing", "?handler=Undo", "?a%01=1&A=2", "?handler="])
        {
            string Told(string name) => name == "number" ? $"{job}" : "1";
            var path = "/" + System.Text.RegularExpressions.Regex.Replace(route, @"\{(\w+)[^}]*\}", m => Told(m.Groups[1].Value)) + handler;
            foreach (var posts in (bool[])[true, false])
            {
                using var request = new HttpRequestMessage(posts ? HttpMethod.Post : HttpMethod.Get, path);
                if (posts)
                {
                    request.Content = new FormUrlEncodedContent([]);
                    request.Headers.Add("X-Mendro-Antiforgery", token);
                }

                using var answer = await shop.Client.SendAsync(request, TestContext.Current.CancellationToken);
                if ((int)answer.StatusCode >= 500)
                    wrong.Add($"{request.Method} {path}: {(int)answer.StatusCode}");
                if (!answer.Headers.Contains("Content-Security-Policy"))
                    wrong.Add($"{request.Method} {path}: no headers");
            }
        }

        wrong.ShouldBeEmpty();
        shop.Records.Of(shop.Jobs.Find(number)!.Id).Count.ShouldBe(before);
    }
}
