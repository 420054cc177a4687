using System.Net;
using AngleSharp.Html.Dom;
using Mendro.Core.Access;
using Mendro.Shop;
using Mendro.Storage;
using OtpNet;

namespace Mendro.Web.Tests.Access;

/// <summary>The second factor by the pages: set up, asked for, lost, demanded.</summary>
public sealed class SecondFactorPagesTests : IDisposable
{
    private readonly SignedShop _shop = new();

    public void Dispose() => _shop.Dispose();

    private static string Code(string secret, int steps = 0) => new Totp(Base32Encoding.ToBytes(secret)).ComputeTotp(DateTime.UtcNow.AddSeconds(30 * steps));

    private static string Field(IHtmlDocument page, string name) => page.QuerySelector($"input[name={name}]")!.GetAttribute("value")!;

    /// <summary>Sets it up as one does with a phone.</summary>
    private async Task<(string Secret, List<string> Recovery)> SetUp(HttpClient browser)
    {
        using var begun = await _shop.Send(browser, "/Me", "/Me?handler=Second");
        var page = await WebShop.Parse(begun);
        page.QuerySelector("svg.qr").ShouldNotBeNull();
        var (secret, carried) = (page.QuerySelector("form .mono.break")!.TextContent.Trim(), Field(page, "carried"));
        carried.ShouldNotContain(secret);
        using (var wrong = await _shop.Send(browser, "/Me", "/Me?handler=SecondSet", ("carried", carried), ("code", "000000")))
            wrong.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        // The code of the step before leaves that of now to sign in with.
        using var done = await _shop.Send(browser, "/Me", "/Me?handler=SecondSet", ("carried", carried), ("code", Code(secret, -1)));
        var codes = (await WebShop.Parse(done)).QuerySelectorAll("ul.mono li").Select(l => l.TextContent.Trim()).ToList();
        codes.Count.ShouldBe(10);
        return (secret, codes);
    }

    private async Task<string> PasswordShown(HttpClient browser, string name)
    {
        using var answer = await _shop.TrySignIn(browser, name, SignedShop.Word);
        answer.StatusCode.ShouldBe(HttpStatusCode.OK);
        answer.Headers.TryGetValues("Set-Cookie", out var cookies);
        (cookies ?? []).ShouldAllBe(c => !c.Contains(Mendro.Web.Access.ShopDoor.Cookie + ".", StringComparison.Ordinal));
        return Field(await WebShop.Parse(answer), "word");
    }

    private async Task<HttpStatusCode> Second(HttpClient browser, string word, string code)
    {
        using var answer = await _shop.Send(browser, "/SignIn", "/SignIn?handler=Second", ("word", word), ("code", code));
        return answer.StatusCode;
    }

    [Fact]
    public async Task The_password_alone_does_not_let_in_any_more_and_each_code_does_once()
    {
        using var ben = await _shop.In(ShopRole.Technician);
        var (secret, recovery) = await SetUp(ben);
        // The secret lies in the database as the shop's keys protect it.
        _shop.Service<AccountStore>().Find("Ben Bench")!.SecondSecret!.ShouldNotContain(secret);

        using var browser = _shop.Browser();
        var word = await PasswordShown(browser, "Ben Bench");
        (await _shop.Look(browser, "/Jobs")).ShouldBe(HttpStatusCode.Redirect);
        (await Second(browser, word, "123456")).ShouldBe(HttpStatusCode.UnprocessableEntity);
        var now = Code(secret);
        (await Second(browser, word, now)).ShouldBe(HttpStatusCode.Redirect);
        (await _shop.Look(browser, "/Jobs")).ShouldBe(HttpStatusCode.OK);
        // The word and the code were used.
        using var other = _shop.Browser();
        (await Second(other, word, now)).ShouldBe(HttpStatusCode.UnprocessableEntity);
        var again = await PasswordShown(other, "Ben Bench");
        (await Second(other, again, now)).ShouldBe(HttpStatusCode.UnprocessableEntity);
        // Without the phone by a recovery code, in any spelling, once.
        (await Second(other, again, recovery[3].ToLowerInvariant().Replace("-", " "))).ShouldBe(HttpStatusCode.Redirect);
        using var third = _shop.Browser();
        (await Second(third, await PasswordShown(third, "Ben Bench"), recovery[3])).ShouldBe(HttpStatusCode.UnprocessableEntity);
        _shop.Service<SecondFactorDesk>().RecoveryLeft(_shop.Service<AccountStore>().Find("Ben Bench")!.Id).ShouldBe(9);
    }

    [Fact]
    public async Task It_is_taken_away_by_the_password_or_by_an_owner()
    {
        using var ben = await _shop.In(ShopRole.Technician);
        await SetUp(ben);
        using (var wrong = await _shop.Send(ben, "/Me", "/Me?handler=SecondOff", ("password", "not it")))
            wrong.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        using (var off = await _shop.Send(ben, "/Me", "/Me?handler=SecondOff", ("password", SignedShop.Word)))
            off.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await _shop.In(ShopRole.Technician)).Dispose();
        await SetUp(ben);
        using var ann = await _shop.In(ShopRole.Owner);
        var id = _shop.Service<AccountStore>().Find("Ben Bench")!.Id;
        using (var taken = await _shop.Send(ann, "/Accounts", $"/Accounts?handler=Second&id={id}"))
            taken.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await _shop.In(ShopRole.Technician)).Dispose();
    }

    [Fact]
    public async Task Guesses_at_the_code_are_few()
    {
        using var ben = await _shop.In(ShopRole.Technician);
        var (secret, _) = await SetUp(ben);
        var desk = _shop.Service<SignInDesk>();
        var from = new Visitor("", "10.0.0.9");
        var word = desk.SignIn("Ben Bench", SignedShop.Word, from).Owes!;
        for (var n = 0; n < 5; n++)
            desk.SignInSecond(word, $"00000{n}", from).Secret.ShouldBeNull();
        // Shut for the right one too, for a while.
        desk.SignInSecond(word, Code(secret), from).Problem!.ShouldContain("Too many wrong codes");
    }

    [Fact]
    public async Task Demanded_of_owners_it_is_set_up_before_anything_else_in_a_shop_on_a_network()
    {
        using var ann = await _shop.In(ShopRole.Owner);
        using (var kept = await _shop.Send(ann, "/Accounts", "/Accounts?handler=Demand", ("demanded", "true")))
            kept.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        // This shop answers its own machine only: nothing is asked.
        (await _shop.Look(ann, "/Jobs")).ShouldBe(HttpStatusCode.OK);
        var door = _shop.Service<Mendro.Web.Access.ShopDoor>();
        var owner = new SignedIn { Role = ShopRole.Owner, Name = "Ann Owner" };
        door.Lacks(owner).ShouldBeFalse();
        var network = new Mendro.Web.Access.ShopDoor(
            _shop.Service<ServeOptions>() with { Host = IPAddress.Any },
            _shop.Desk,
            _shop.Service<SignInDesk>(),
            _shop.Service<SecondFactorDesk>()
        );
        network.Lacks(owner).ShouldBeTrue();
        network.Lacks(owner with { HasSecond = true }).ShouldBeFalse();
        network.Lacks(owner with { Role = ShopRole.Technician }).ShouldBeFalse();
    }
}
