using System.Net;
using Mendro.Core.Access;
using Mendro.Shop;

namespace Mendro.Web.Tests.Access;

/// <summary>A shop with an account of each role, and a unit taken in.</summary>
public sealed class SignedShop : WebShop
{
    public const string Word = "four words that do not belong";

    public SignedShop()
        : base(demo: false)
    {
        Number = TakeIn().GetAwaiter().GetResult();
        Desk.MakeFirst("Ann Owner", Word).Done.ShouldNotBeNull();
        foreach (var (role, name) in Others)
        {
            var given = Desk.Add("Ann Owner", name, role).Done!;
            Service<SignInDesk>().SetWithCode(given.Code, Word, new Visitor("", "")).Session.ShouldNotBeNull();
        }
    }

    public static IReadOnlyList<(ShopRole Role, string Name)> Others { get; } =
        [(ShopRole.Technician, "Ben Bench"), (ShopRole.Counter, "Cleo Counter"), (ShopRole.LookerOn, "Leo Looker")];

    public static string NameOf(ShopRole role) => role == ShopRole.Owner ? "Ann Owner" : Others.Single(o => o.Role == role).Name;

    /// <summary>Number of the unit.</summary>
    public long Number { get; }

    public AccountDesk Desk => Service<AccountDesk>();

    /// <summary>A browser in which somebody is signed in.</summary>
    public async Task<HttpClient> In(ShopRole role)
    {
        var browser = Browser();
        using var answer = await TrySignIn(browser, NameOf(role), Word);
        answer.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        return browser;
    }

    public Task<HttpResponseMessage> TrySignIn(HttpClient browser, string name, string password) =>
        Send(browser, "/SignIn", "/SignIn", ("name", name), ("password", password));

    /// <summary>Loads a page of a browser, takes its token and posts.</summary>
    public async Task<HttpResponseMessage> Send(HttpClient browser, string page, string path, params (string Name, string Value)[] fields)
    {
        using var shown = await browser.GetAsync(page, TestContext.Current.CancellationToken);
        var token = (await Parse(shown)).QuerySelector("meta[name=mendro-token]")!.GetAttribute("content")!;
        using var request = new HttpRequestMessage(HttpMethod.Post, path)
        {
            Content = new FormUrlEncodedContent(fields.Select(f => KeyValuePair.Create(f.Name, f.Value))),
        };
        request.Headers.Add("X-Mendro-Antiforgery", token);
        return await browser.SendAsync(request, TestContext.Current.CancellationToken);
    }

    /// <summary>What a browser is answered to a look.</summary>
    public async Task<HttpStatusCode> Look(HttpClient browser, string path)
    {
        using var answer = await browser.GetAsync(path, TestContext.Current.CancellationToken);
        return answer.StatusCode;
    }
}
