using System.Net;
using System.Reflection;
using System.Text.RegularExpressions;
using Mendro.Core.Access;
using Mendro.Web.Access;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;

namespace Mendro.Web.Tests.Access;

/// <summary>Every page and every post, found by reflection, tried by every role and by nobody. What each may is written out here anew.</summary>
public sealed partial class EveryDoorTests(SignedShop shop) : IClassFixture<SignedShop>
{
    // Pages by which one comes in, and the error page.
    private static readonly string[] Way = ["/Error", "/Access/SignIn", "/Access/First", "/Access/Code", "/Access/Join"];

    // Pages that show costs or what they lead to.
    private static readonly string[] Costs =
    [
        "/Lots/", "/Bundle", "/Rounds", "/Offers/", "/Orders/", "/Stock/", "/Donors", "/Money/", "/Jobs/Sale", "/Jobs/CapacitorList", "/Day/Back",
    ];

    private static readonly string[] OfOwner = ["/Settings", "/Access/Accounts", "/Access/Programs"];

    private static readonly string[] SeenAtCounter =
    [
        "/Index", "/Intake", "/DoorWords", "/Calls", "/Owners/Show", "/Owners/Index", "/Labels", "/Calendar", "/CalendarFeed", "/Jobs/Index", "/Jobs/Intake",
        "/Jobs/HandOver", "/Jobs/Bill", "/Jobs/Owner", "/Jobs/Timeline", "/Jobs/Sheet", "/Jobs/Pictures", "/Jobs/Phone", "/Access/Me",
    ];

    // What only who speaks with owners sees.
    private static readonly string[] Owners = ["/Intake", "/Calls", "/Owners/Show", "/Owners/Index", "/Jobs/Owner", "/Jobs/Bill", "/Jobs/Phone"];

    private static readonly string[] CounterChanges =
    [
        "/Intake", "/DoorWords", "/Calls", "/Jobs/Index", "/Jobs/Intake", "/Jobs/HandOver", "/Jobs/Bill", "/Jobs/Owner", "/Jobs/Pictures", "/Labels",
        "/Jobs/Sheet",
        "/Jobs/Phone", "/Index Quick", "/Owners/Show Save", "/Owners/Show Merge", "/Owners/Show Part",
    ];

    private static readonly string[] OwnChanges = ["/Access/Me", "/Settings Theme", "/Jobs/Bar Here"];

    private static readonly string[] OwnerChanges = ["/Settings", "/Access/Accounts", "/Access/Programs", "/Owners/Show", "/Owners/Index", "/Money/Index",
        "/CalendarFeed"];

    [Fact]
    public void No_page_is_missing_in_the_table_of_rights() =>
        Doors().Select(d => d.Page).Distinct().Where(p => !PageRights.All.ContainsKey(p)).ShouldBeEmpty();

    [Fact]
    public void The_table_names_no_page_that_is_not_there() =>
        PageRights.All.Keys.Except(Doors().Select(d => d.Page), StringComparer.OrdinalIgnoreCase).ShouldBeEmpty();

    [Fact]
    public async Task Nobody_comes_to_anything_but_the_way_in()
    {
        using var nobody = shop.Browser();
        foreach (var door in Doors())
        {
            using var answer = await Try(nobody, door);
            if (Way.Contains(door.Page))
                answer.StatusCode.ShouldNotBe(HttpStatusCode.Unauthorized, door.ToString());
            else if (door.Posts)
                answer.StatusCode.ShouldBe(HttpStatusCode.Unauthorized, door.ToString());
            else
                answer.Headers.Location?.ToString().ShouldStartWith("/SignIn");
        }

        foreach (var path in (string[])["/Events", "/Pictures/abc", "/no-such-page", "/Jobs/4711/Find"])
            (await shop.Look(nobody, path)).ShouldBe(HttpStatusCode.Redirect, path);
        // How the shop is doing gets told to this machine, and to nobody who came through a proxy.
        (await shop.Look(nobody, "/health")).ShouldBe(HttpStatusCode.OK);
        nobody.DefaultRequestHeaders.Add("X-Forwarded-For", "203.0.113.9");
        (await shop.Look(nobody, "/health")).ShouldBe(HttpStatusCode.Redirect);
    }

    [Theory]
    [InlineData(ShopRole.Owner)]
    [InlineData(ShopRole.Technician)]
    [InlineData(ShopRole.Counter)]
    [InlineData(ShopRole.LookerOn)]
    public async Task A_role_comes_to_what_is_its_own_and_to_nothing_else(ShopRole role)
    {
        using var browser = await shop.In(role);
        var wrong = new List<string>();
        foreach (var door in Doors())
        {
            using var answer = await Try(browser, door);
            // A post without its token gets no further than 400; of rights it is told before that.
            var let = answer.StatusCode != HttpStatusCode.Forbidden;
            if (let != May(role, door) || answer.StatusCode == HttpStatusCode.Unauthorized)
                wrong.Add($"{door}: {(int)answer.StatusCode}");
            if (door.Posts && let && !Way.Contains(door.Page) && answer.StatusCode != HttpStatusCode.BadRequest)
                wrong.Add($"{door}: done without a token, {(int)answer.StatusCode}");
        }

        wrong.ShouldBeEmpty();
    }

    /// <summary>Of two handlers the framework takes the first: named twice, one could be asked about and the other be run.</summary>
    [Theory]
    [InlineData("?handler=Export&handler=x")]
    [InlineData("?handler=x&handler=Export")]
    [InlineData("?handler=export")]
    [InlineData("?HANDLER=Export")]
    [InlineData("?handler=%00Export")]
    public async Task A_handler_named_in_another_way_is_still_the_same(string query)
    {
        using var counter = await shop.In(ShopRole.Counter);
        var owner = shop.Jobs.Find(shop.Number)!.CustomerId;
        (await shop.Look(counter, $"/Owners/{owner}")).ShouldBe(HttpStatusCode.OK);
        (await shop.Look(counter, $"/Owners/{owner}{query}")).ShouldBe(HttpStatusCode.Forbidden);
    }

    /// <summary>A phone sees its job's pages without costs, adds a picture or a reading, and comes to nothing else.</summary>
    [Fact]
    public async Task A_phone_comes_to_its_one_job_and_adds_to_it()
    {
        using var phone = await Phone();
        string[] adds =
        [
            "/Jobs/Pictures Take", "/Jobs/Find Reading", "/Jobs/Find Function", "/Jobs/Compare Reading", "/Jobs/Bar Reading", "/Jobs/Bar Function",
            "/Jobs/Bar Here", "/Access/Me Out", "/Settings Theme",
        ];
        var wrong = new List<string>();
        foreach (var door in Doors().Where(d => !Way.Contains(d.Page)))
        {
            using var answer = await Try(phone, door);
            var may = door.Posts ? adds.Contains($"{door.Page} {door.Handler}")
                : door.Page == "/Access/Me" || (door.Page.StartsWith("/Jobs/", StringComparison.Ordinal) && door.Page != "/Jobs/Index"
                    && !Costs.Any(door.Page.StartsWith) && !Owners.Contains(door.Page));
            if ((answer.StatusCode != HttpStatusCode.Forbidden) != may)
                wrong.Add($"{door}: {(int)answer.StatusCode}");
        }

        wrong.ShouldBeEmpty();
        (await shop.Look(phone, $"/Jobs/{shop.Number + 1}/Find")).ShouldBe(HttpStatusCode.Forbidden);
        (await shop.Look(phone, "/Jobs")).ShouldBe(HttpStatusCode.Forbidden);
        (await shop.Look(phone, $"/Jobs/{shop.Number}/Find")).ShouldBe(HttpStatusCode.OK);
    }

    /// <summary>A phone may what its giver may, now: not what the giver could when the code was made.</summary>
    [Fact]
    public async Task A_phone_may_no_more_than_its_giver()
    {
        async Task<bool[]> May(HttpClient phone)
        {
            var let = new List<bool>();
            foreach (var page in (string[])["Pictures", "Find"])
                let.Add(await shop.Look(phone, $"/Jobs/{shop.Number}/{page}") == HttpStatusCode.OK);
            foreach (var post in (string[])["Pictures?handler=Take", "Bar?handler=Reading"])
            {
                using var request = new HttpRequestMessage(HttpMethod.Post, $"/Jobs/{shop.Number}/{post}") { Content = new FormUrlEncodedContent([]) };
                using var answer = await phone.SendAsync(request, TestContext.Current.CancellationToken);
                let.Add(answer.StatusCode != HttpStatusCode.Forbidden);
            }

            return [.. let];
        }

        var accounts = shop.Service<Mendro.Storage.AccountStore>();
        using (var counter = await Phone("Cleo Counter"))
            (await May(counter)).ShouldBe([true, false, true, false]);
        using var technician = await Phone("Ben Bench");
        (await May(technician)).ShouldBe([true, true, true, true]);
        var ben = accounts.Find("Ben Bench")!;
        accounts.SetRole(ben.Id, ShopRole.LookerOn);
        try
        {
            (await May(technician)).ShouldBe([true, true, false, false]);
        }
        finally
        {
            accounts.SetRole(ben.Id, ShopRole.Technician);
        }
    }

    /// <summary>A phone of one job stays there: another number as a field, in a query or both files nothing elsewhere.</summary>
    [Fact]
    public async Task What_the_address_says_is_not_said_otherwise_by_a_field_or_a_query()
    {
        using var phone = await Phone();
        var other = await TakenInForStock();
        var records = shop.Service<Mendro.Storage.BenchRecordStore>();
        int Filed(long number) => records.Of(shop.Jobs.Find(number)!.Id).Count;
        var (own, theirs) = (Filed(shop.Number), Filed(other));
        (string, string)[] fields =
        [
            ("Number", $"{other}"), ("number", $"{other}"), ("Id", $"{other}"), ("probe", "tp3"), ("text", "6.2 V"), ("reading", "6.2 V"),
        ];
        foreach (var query in (string[])["", $"&number={other}", $"&Number={other}&number={other}"])
        foreach (var handler in (string[])["Reading", "Function", "Here"])
        {
            var page = $"/Jobs/{shop.Number}/Bar";
            using var answer = await shop.Send(phone, $"/Jobs/{shop.Number}/Find", $"{page}?handler={handler}{query}", fields);
        }

        Filed(other).ShouldBe(theirs);
        Filed(shop.Number).ShouldBeGreaterThanOrEqualTo(own);
        // The order in which values are looked for: the address first, whatever page it is.
        var options = shop.Service<Microsoft.Extensions.Options.IOptions<Microsoft.AspNetCore.Mvc.MvcOptions>>().Value;
        options.ValueProviderFactories[0].ShouldBeOfType<Microsoft.AspNetCore.Mvc.ModelBinding.RouteValueProviderFactory>();
    }

    /// <summary>What things cost and bring is on no page that a counter or a looker-on comes to.</summary>
    [Theory]
    [InlineData(ShopRole.Counter)]
    [InlineData(ShopRole.LookerOn)]
    public async Task No_page_shows_costs_to_who_may_not_see_them(ShopRole role)
    {
        var stock = await TakenInForStock();
        using var browser = await shop.In(role);
        var shown = new List<string>();
        // What a calculator is given, and what an owner pays, is no cost of the shop.
        string[] other = ["/Calculators/Index", "/Jobs/Owner", "/Jobs/Bill"];
        foreach (var door in Doors().Where(d => !d.Posts && May(role, d) && !other.Contains(d.Page)))
        foreach (var number in (long[])[shop.Number, stock])
        {
            using var answer = await browser.GetAsync(door.Address(number), TestContext.Current.CancellationToken);
            if (answer.Content.Headers.ContentType?.MediaType != "text/html")
                continue;
            var page = await WebShop.Parse(answer);
            // What an owner has to pay is taken at the counter.
            if (role == ShopRole.Counter)
                page.QuerySelector(".last-calls")?.Remove();
            var text = page.Body!.TextContent;
            shown.AddRange(Money().Matches(text).Select(m => $"{door}: {text[Math.Max(0, m.Index - 30)..Math.Min(text.Length, m.Index + 30)]}"));
        }

        shown.Distinct().ShouldBeEmpty();
    }

    private async Task<long> TakenInForStock()
    {
        using var owner = await shop.In(ShopRole.Owner);
        using var answer = await shop.Send(
            owner,
            "/Intake",
            "/Intake",
            ("Form.Profile", "harrow-quartet"), ("Form.Owner", "shop"), ("Form.Currency", "EUR"), ("Form.Paid", "17.31"), ("Form.Claim", "no light"),
            ("Form.ValueWorking", "93.17"), ("Form.ValueAsIs", "21.71")
        );
        var number = long.Parse(answer.Headers.Location!.ToString().Split('/')[2], System.Globalization.CultureInfo.InvariantCulture);
        var fix = $"/Jobs/{number}/Fix";
        using var repaired = await shop.Send(owner, fix, fix, ("part", "switch"), ("method", "flush-switch"), ("minutes", "5"), ("cost", "21.71"));
        repaired.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        return number;
    }

    private async Task<HttpClient> Phone(string giver = "Ann Owner")
    {
        var desk = shop.Service<Mendro.Shop.SignInDesk>();
        var ann = shop.Service<Mendro.Storage.AccountStore>().Find(giver)!;
        var code = desk.PhoneCode(new Mendro.Storage.SignedIn { AccountId = ann.Id, Name = ann.Name }, shop.Number).Code;
        var phone = shop.Browser();
        using var joined = await shop.Send(phone, $"/Join/{code}", $"/Join/{code}");
        joined.Headers.Location!.ToString().ShouldBe($"/Jobs/{shop.Number}/Pictures");
        return phone;
    }

    private static bool May(ShopRole role, Door door)
    {
        if (Way.Contains(door.Page) || role == ShopRole.Owner)
            return true;
        var named = $"{door.Page} {door.Handler}";
        if (!door.Posts)
        {
            if (OfOwner.Contains(door.Page) || named is "/Owners/Show Export" or "/Owners/Show Elsewhere")
                return false;
            return role switch
            {
                ShopRole.Counter => SeenAtCounter.Contains(door.Page),
                ShopRole.LookerOn => !Costs.Any(door.Page.StartsWith) && !Owners.Contains(door.Page),
                _ => true,
            };
        }

        if (OwnChanges.Contains(door.Page) || OwnChanges.Contains(named))
            return true;
        return role switch
        {
            ShopRole.Technician => !OwnerChanges.Contains(door.Page) || CounterChanges.Contains(named),
            ShopRole.Counter => CounterChanges.Contains(door.Page) || CounterChanges.Contains(named),
            _ => false,
        };
    }

    private sealed record Door(string Page, string Route, bool Posts, string Handler, long Number)
    {
        public string Address(long number) =>
            "/" + Parameter().Replace(Route, m => m.Groups[1].Value switch
            {
                "number" => $"{number}",
                "id" => "1",
                _ => m.Value.Contains('?') ? "" : "1",
            }) + (Handler.Length > 0 ? $"?handler={Handler}" : "");

        public override string ToString() => $"{(Posts ? "POST" : "GET")} {Page} {Handler}";
    }

    private IReadOnlyList<Door> Doors() =>
        shop.Service<EndpointDataSource>()
            .Endpoints.OfType<RouteEndpoint>()
            .Select(e => (Page: e.Metadata.GetMetadata<PageActionDescriptor>(), e.RoutePattern.RawText))
            .Where(e => e.Page is not null)
            .DistinctBy(e => e.Page!.ViewEnginePath)
            .SelectMany(e => Handlers(e.Page!).Select(h => new Door(e.Page!.ViewEnginePath, e.RawText!, h.Posts, h.Handler, shop.Number)))
            .ToList();

    private static IEnumerable<(bool Posts, string Handler)> Handlers(PageActionDescriptor page)
    {
        var at = page.ViewEnginePath.Trim('/').Split('/');
        var name = at[^1] + "Model";
        var space = "Mendro.Web.Pages" + (at.Length > 1 ? "." + at[0] : "");
        var model = typeof(Program).Assembly.GetTypes().SingleOrDefault(t => t.Namespace == space && t.Name == name);
        // A page without a model of its own is only looked at.
        if (model is null)
            return [(false, "")];
        return model
            .GetMethods(BindingFlags.Public | BindingFlags.Instance)
            .Select(m => HandlerName().Match(m.Name))
            .Where(m => m.Success)
            .Select(m => (m.Groups[1].Value == "Post", m.Groups[2].Value))
            .Append((false, ""))
            .Distinct();
    }

    private static async Task<HttpResponseMessage> Try(HttpClient browser, Door door)
    {
        using var request = new HttpRequestMessage(door.Posts ? HttpMethod.Post : HttpMethod.Get, door.Address(door.Number));
        if (door.Posts)
            request.Content = new FormUrlEncodedContent([]);
        return await browser.SendAsync(request, TestContext.Current.CancellationToken);
    }

    [GeneratedRegex(@"\{(\w+)[^}]*\}")]
    private static partial Regex Parameter();

    [GeneratedRegex("^On(Get|Post)(.*?)(Async)?$")]
    private static partial Regex HandlerName();

    [GeneratedRegex(@"\d[.,]\d\d (EUR|€)|(EUR|€) ?\d|17[.,]31|93[.,]17|21[.,]71")]
    private static partial Regex Money();
}
