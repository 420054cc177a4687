namespace Mendro.Web.Tests;

/// <summary>What the browser needs ships with the application, and nothing points elsewhere.</summary>
public sealed class ShippedAssetsTests(DemoShop shop) : IClassFixture<DemoShop>
{
    [Theory]
    [InlineData("/css/site.css", "text/css")]
    [InlineData("/lib/htmx.min.js", "text/javascript")]
    [InlineData("/js/bench.js", "text/javascript")]
    [InlineData("/fonts/next-latin.woff2", "font/woff2")]
    [InlineData("/fonts/mono-latin.woff2", "font/woff2")]
    [InlineData("/favicon.svg", "image/svg+xml")]
    public async Task Files_are_served_by_the_application_itself(string path, string type)
    {
        using var response = await shop.Client.GetAsync(path, TestContext.Current.CancellationToken);
        response.EnsureSuccessStatusCode();
        response.Content.Headers.ContentType!.MediaType.ShouldBe(type);
    }

    /// <summary>The address of a style holds the hash of its content: it is kept for good (RFC 8246); what has one address for a day.</summary>
    [Fact]
    public async Task A_browser_asks_for_none_of_them_twice()
    {
        var page = await shop.Page("/");
        var style = page.QuerySelector("link[rel=stylesheet]")!.GetAttribute("href")!;
        style.ShouldContain("?v=");
        (await Kept(style)).ShouldBe("public, max-age=31536000, immutable");
        (await Kept("/fonts/next-latin.woff2")).ShouldBe("public, max-age=86400");
    }

    private async Task<string?> Kept(string path)
    {
        using var response = await shop.Client.GetAsync(path, TestContext.Current.CancellationToken);
        return response.Headers.TryGetValues("Cache-Control", out var told) ? string.Join(", ", told) : null;
    }

    [Fact]
    public async Task The_stylesheet_asks_for_nothing_from_outside()
    {
        var css = await shop.Client.GetStringAsync("/css/site.css", TestContext.Current.CancellationToken);
        css.ShouldNotContain("@import");
        var targets = System
            .Text.RegularExpressions.Regex.Matches(css, @"url\(([^)]+)\)")
            .Select(m => m.Groups[1].Value.Trim('"', '\''))
            .ToList();
        targets.ShouldContain("/fonts/next-latin.woff2");
        targets.ShouldAllBe(t => t.StartsWith('/'));
    }
}
