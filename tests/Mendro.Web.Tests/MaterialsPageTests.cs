namespace Mendro.Web.Tests;

/// <summary>The material check as a page: steps added one by one, stops told at their step, taken off again.</summary>
public sealed class MaterialsPageTests(WebShop shop) : IClassFixture<WebShop>
{
    private readonly WebShop _shop = shop;

    [Fact]
    public async Task A_dangerous_step_stops_at_its_place_until_it_is_rinsed_and_dried()
    {
        var begun = "/Materials?s=bleach-1-10@bare-plastic&agent=vinegar&surface=battery-contacts&act=put";
        var page = await _shop.Page(begun);
        var lines = page.QuerySelectorAll(".sequence > li");
        lines
            .Select(l => l.QuerySelector("b")!.TextContent)
            .ShouldBe(["Bleach, 1 part to 10 of water on bare plastic", "Household vinegar on battery contacts"]);
        lines[0].QuerySelector(".notice").ShouldBeNull();
        lines[1].QuerySelector(".notice")!.TextContent.ShouldContain("chlorine gas");
        // The sequence goes on with what was chosen.
        page.QuerySelectorAll("input[name=s]")
            .Select(i => i.GetAttribute("value"))
            .ShouldBe(["bleach-1-10@bare-plastic", "vinegar@battery-contacts"]);
        var lifted = await _shop.Page("/Materials?s=bleach-1-10@bare-plastic&s=rinse&s=dry:30&s=vinegar@battery-contacts");
        lifted.QuerySelectorAll(".sequence .notice").ShouldBeEmpty();
        lifted
            .QuerySelector(".materials section a.btn.quiet")!
            .GetAttribute("href")
            .ShouldBe("/Materials?s=bleach-1-10%40bare-plastic&s=rinse&s=dry%3A30");
    }

    [Theory]
    [InlineData("act=put&agent=&surface=copper", "Choose an agent")]
    [InlineData("act=dry&figure=long", "How many minutes")]
    [InlineData("act=heat&figure=9999", "How many minutes")]
    [InlineData("act=dry&figure=-3", "How many minutes")]
    public async Task What_is_no_step_says_so_and_keeps_the_sequence(string query, string words)
    {
        var page = await _shop.Page($"/Materials?s=rinse&{query}");
        page.QuerySelector("[role=alert]")!.TextContent.ShouldContain(words);
        page.QuerySelectorAll(".sequence > li").Length.ShouldBe(1);
    }

    [Fact]
    public async Task Nonsense_in_the_address_is_left_out_and_a_decimal_comma_is_understood()
    {
        var page = await _shop.Page("/Materials?s=lemonade@copper&s=power:9&s=dry:x&s=rinse&act=dry&figure=2,5");
        page.QuerySelectorAll(".sequence > li b").Select(b => b.TextContent).ShouldBe(["Rinse", "Dry, 2.5 min"]);
        page.QuerySelectorAll(".matrix tbody tr").Length.ShouldBe(26);
    }
}
