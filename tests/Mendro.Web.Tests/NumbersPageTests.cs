using Mendro.Core.Library;
using Mendro.Core.Sources;

namespace Mendro.Web.Tests;

/// <summary>“Why this number”: every figure of the library with its source.</summary>
public sealed class NumbersPageTests(WebShop shop) : IClassFixture<WebShop>
{
    private readonly WebShop _shop = shop;

    [Fact]
    public async Task A_search_finds_a_number_with_its_source_and_the_kinds_are_counted()
    {
        var page = await _shop.Page("/Numbers?q=mains-fuse");
        page.QuerySelectorAll(".numbers tbody tr").ShouldContain(r => r.TextContent.Contains("first weight") && r.TextContent.Contains("common practice"));
        var all = await _shop.Page("/Numbers");
        var numbers = LibraryNumbers.Of(_shop.Library).ToList();
        all.QuerySelector("nav[aria-label='Kinds of source'] b")!.TextContent.ShouldBe($"{numbers.Count}");
        all.QuerySelectorAll(".numbers tbody tr").Length.ShouldBe(100);
        var last = (numbers.Count + 99) / 100;
        var end = await _shop.Page($"/Numbers?page_={last + 7}");
        end.QuerySelectorAll(".numbers tbody tr").Length.ShouldBe(numbers.Count - (last - 1) * 100);
        var memory = await _shop.Page("/Numbers?source=FromMemory&q=replace-fuse");
        memory.QuerySelectorAll(".numbers tbody tr").ShouldAllBe(r => r.TextContent.Contains("value from memory"));
        (await _shop.Page("/Numbers?q=nothing+of+the+kind")).QuerySelector(".empty").ShouldNotBeNull();
    }

    [Fact]
    public async Task Methods_and_suspects_lead_to_it()
    {
        (await _shop.Page("/Methods/replace-fuse")).QuerySelector("a[href='/Numbers?q=replace-fuse']").ShouldNotBeNull();
        var number = await _shop.TakeIn("harrow-quartet", ("Form.Result[power-light]", "fail"));
        var link = (await _shop.Page($"/Jobs/{number}/Why")).QuerySelector(".reason a[href^='/Numbers?q=']")!;
        (await _shop.Page(link.GetAttribute("href")!)).QuerySelectorAll(".numbers tbody tr").Length.ShouldBeGreaterThan(0);
    }
}
