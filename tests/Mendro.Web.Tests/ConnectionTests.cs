using Mendro.Storage;

namespace Mendro.Web.Tests;

/// <summary>A page is one connection: whatever it asks of the stores joins the one the request has opened.</summary>
public sealed class ConnectionTests(LoneShop shop) : IClassFixture<LoneShop>
{
    private readonly WebShop _shop = shop;

    [Theory]
    [InlineData("Find")]
    [InlineData("Prove")]
    [InlineData("Fix")]
    [InlineData("HandOver")]
    public async Task A_page_opens_one(string page)
    {
        var number = await _shop.TakeIn("harrow-quartet", ("Form.Result[power-light]", "fail"));
        await _shop.Page($"/Jobs/{number}/{page}");
        var database = _shop.Service<ShopDatabase>();
        var before = database.Opened;
        await _shop.Page($"/Jobs/{number}/{page}");
        (database.Opened - before).ShouldBe(1);
    }

    [Fact]
    public async Task A_reading_and_the_board_it_changes_are_one()
    {
        var number = await _shop.TakeIn("harrow-quartet", ("Form.Result[power-light]", "fail"));
        var database = _shop.Service<ShopDatabase>();
        var before = database.Opened;
        using var filed = await _shop.Post(
            $"/Jobs/{number}/Find",
            $"/Jobs/{number}/Find?handler=Reading",
            true,
            ("probe", "tp3"),
            ("text", "6.21")
        );
        filed.IsSuccessStatusCode.ShouldBeTrue();
        // One for the page whose form was sent, one for the sending.
        (database.Opened - before).ShouldBe(2);
    }
}
