using System.Net;
using Dapper;
using Mendro.Core.Access;
using Mendro.Shop;
using Mendro.Storage;
using Mendro.Web.Access;

namespace Mendro.Web.Tests.Access;

/// <summary>Signing in and what attacks it: guessing, fixed, stale and stolen cookies, codes used twice.</summary>
public sealed class SignInTests(SignedShop shop) : IClassFixture<SignedShop>
{
    [Fact]
    public async Task A_wrong_password_and_a_name_that_is_not_there_are_answered_alike()
    {
        using var browser = shop.Browser();
        var said = new List<string>();
        foreach (var (name, word) in new[] { ("Ben Bench", "wrong words altogether"), ("Nobody Here", "wrong words altogether") })
        {
            using var answer = await shop.TrySignIn(browser, name, word);
            answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
            answer.Headers.TryGetValues("Set-Cookie", out var cookies);
            (cookies ?? []).ShouldNotContain(c => c.StartsWith($"mendro.{ShopDoor.Cookie}.", StringComparison.Ordinal));
            said.Add((await WebShop.Parse(answer)).QuerySelector(".notice.wrong")!.TextContent);
        }

        said.Distinct().ShouldHaveSingleItem();
        shop.Service<GuessGuard>().Right("Ben Bench");
    }

    [Fact]
    public void Guessing_shuts_the_name_and_then_the_right_password_too()
    {
        var desk = shop.Service<SignInDesk>();
        for (var n = 0; n < GuessGuard.MostByName; n++)
            desk.SignIn("Leo Looker", "guess " + n, new Visitor("", $"10.1.0.{n}")).Secret.ShouldBeNull();
        var right = desk.SignIn("Leo Looker", SignedShop.Word, new Visitor("", "10.1.0.99"));
        right.Secret.ShouldBeNull();
        right.Problem!.ShouldContain("Too many");
        shop.Service<GuessGuard>().Right("Leo Looker");
        desk.SignIn("leo looker", SignedShop.Word, new Visitor("", "10.1.0.99")).Secret.ShouldNotBeNull();
    }

    /// <summary>Session fixation: whatever a browser brings along, signing in gives a secret of its own, and the one before ends.</summary>
    [Fact]
    public async Task Signing_in_gives_a_new_session_and_ends_the_one_before()
    {
        using var browser = await shop.In(ShopRole.Technician);
        var first = await Cookie(browser);
        using (var answer = await shop.TrySignIn(browser, "Ben Bench", SignedShop.Word))
            answer.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var second = await Cookie(browser);
        second.ShouldNotBe(first);
        (await With(first)).ShouldBe(HttpStatusCode.Redirect);
        (await With(second)).ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task A_cookie_taken_along_is_worth_nothing_once_its_owner_signed_out()
    {
        using var browser = await shop.In(ShopRole.Technician);
        var stolen = await Cookie(browser);
        (await With(stolen)).ShouldBe(HttpStatusCode.OK);
        using (var answer = await shop.Send(browser, "/Me", "/Me?handler=Out"))
            answer.Headers.Location!.ToString().ShouldBe("/SignIn");
        (await With(stolen)).ShouldBe(HttpStatusCode.Redirect);
    }

    [Fact]
    public async Task A_cookie_made_up_or_changed_is_worth_nothing()
    {
        using var browser = await shop.In(ShopRole.Owner);
        var cookie = await Cookie(browser);
        (await With(cookie[..^6] + "AAAAAA")).ShouldBe(HttpStatusCode.Redirect);
        (await With("sid=1")).ShouldBe(HttpStatusCode.Redirect);
    }

    [Fact]
    public async Task Another_password_ends_all_other_sessions()
    {
        using var here = await shop.In(ShopRole.Technician);
        using var there = await shop.In(ShopRole.Technician);
        using (
            var answer = await shop.Send(here, "/Me", "/Me?handler=Password", ("before", "not it at all"), ("password", "another four words here"))
        )
            answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await shop.Look(there, "/Me")).ShouldBe(HttpStatusCode.OK);
        foreach (var (before, after) in new[] { (SignedShop.Word, "another four words here"), ("another four words here", SignedShop.Word) })
            using (var answer = await shop.Send(here, "/Me", "/Me?handler=Password", ("before", before), ("password", after)))
                answer.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await shop.Look(here, "/Me")).ShouldBe(HttpStatusCode.OK);
        (await shop.Look(there, "/Me")).ShouldBe(HttpStatusCode.Redirect);
    }

    [Fact]
    public async Task A_session_is_listed_and_ended_by_its_owner_and_by_nobody_else()
    {
        using var ben = await shop.In(ShopRole.Technician);
        using var other = await shop.In(ShopRole.Technician);
        using var cleo = await shop.In(ShopRole.Counter);
        var id = shop.Service<SignInDesk>().SessionsOf(shop.Service<AccountStore>().Find("Ben Bench")!.Id).Max(s => s.Id);
        using (var answer = await shop.Send(cleo, "/Me", $"/Me?handler=End&session={id}"))
            answer.StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await shop.Look(other, "/Me")).ShouldBe(HttpStatusCode.OK);
        using (var answer = await shop.Send(ben, "/Me", $"/Me?handler=End&session={id}"))
            answer.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await shop.Look(other, "/Me")).ShouldBe(HttpStatusCode.Redirect);
    }

    [Fact]
    public async Task A_session_that_is_too_old_or_too_long_unused_is_over()
    {
        using var browser = await shop.In(ShopRole.Counter);
        var desk = shop.Service<SignInDesk>();
        var account = shop.Service<AccountStore>().Find("Cleo Counter")!.Id;
        var id = desk.SessionsOf(account).Max(s => s.Id);
        void Set(string column, TimeSpan ago)
        {
            using var connection = shop.Database.Open();
            connection.Execute($"UPDATE sessions SET {column} = @at WHERE id = @id", new { id, at = DateTimeOffset.UtcNow - ago });
        }

        Set("seen_at", SignInDesk.Idle - TimeSpan.FromMinutes(5));
        (await shop.Look(browser, "/Me")).ShouldBe(HttpStatusCode.OK);
        Set("seen_at", SignInDesk.Idle + TimeSpan.FromMinutes(5));
        (await shop.Look(browser, "/Me")).ShouldBe(HttpStatusCode.Redirect);
        Set("seen_at", TimeSpan.Zero);
        Set("ends_at", TimeSpan.FromSeconds(1));
        (await shop.Look(browser, "/Me")).ShouldBe(HttpStatusCode.Redirect);
    }

    [Fact]
    public async Task A_role_taken_away_counts_at_once_and_a_closed_account_is_out_at_once()
    {
        shop.Desk.Add("Ann Owner", "Tess Trial", ShopRole.Technician).Done.ShouldNotBeNull();
        var tess = shop.Service<AccountStore>().Find("Tess Trial")!;
        shop.Service<SignInDesk>().SetWithCode(shop.Desk.Recover("", "Tess Trial").Done!.Code, SignedShop.Word, new Visitor("", ""));
        using var browser = shop.Browser();
        using (await shop.TrySignIn(browser, "Tess Trial", SignedShop.Word)) { }
        (await shop.Look(browser, "/Stock")).ShouldBe(HttpStatusCode.OK);
        shop.Desk.SetRole("Ann Owner", tess.Id, ShopRole.Counter).Done.ShouldNotBeNull();
        (await shop.Look(browser, "/Stock")).ShouldBe(HttpStatusCode.Forbidden);
        shop.Desk.SetClosed("Ann Owner", tess.Id, true).Done.ShouldNotBeNull();
        (await shop.Look(browser, "/")).ShouldBe(HttpStatusCode.Redirect);
        shop.Desk.Add("Ann Owner", "tess trial", ShopRole.Owner).Refusal!.Problem.ShouldContain("stays one person's");
    }

    [Fact]
    public void The_last_owner_stays()
    {
        var ann = shop.Service<AccountStore>().Find("Ann Owner")!;
        shop.Desk.SetRole("Ann Owner", ann.Id, ShopRole.Technician).Refusal.ShouldNotBeNull();
        shop.Desk.SetClosed("Ann Owner", ann.Id, true).Refusal.ShouldNotBeNull();
        shop.Desk.MakeFirst("Eve Early", SignedShop.Word).Refusal.ShouldNotBeNull();
    }

    [Fact]
    public void A_code_works_once_and_the_one_before_it_not_at_all()
    {
        var desk = shop.Service<SignInDesk>();
        var from = new Visitor("", "10.2.0.1");
        var (old, code) = (shop.Desk.Recover("", "Ben Bench").Done!.Code, shop.Desk.Recover("", "Ben Bench").Done!.Code);
        desk.SetWithCode(old, SignedShop.Word, from).Secret.ShouldBeNull();
        desk.SetWithCode(code, "short", from).Problem!.ShouldContain("at least");
        desk.SetWithCode(code.ToLowerInvariant(), SignedShop.Word, from).Secret.ShouldNotBeNull();
        desk.SetWithCode(code, SignedShop.Word, from).Secret.ShouldBeNull();
    }

    [Fact]
    public void Of_many_phones_that_read_one_code_at_once_one_joins()
    {
        var desk = shop.Service<SignInDesk>();
        var ann = shop.Service<AccountStore>().Find("Ann Owner")!;
        var code = desk.PhoneCode(new SignedIn { AccountId = ann.Id, Name = ann.Name }, shop.Number).Code;
        var joined = new int[8];
        Parallel.For(0, joined.Length, n => joined[n] = desk.Join(code, new Visitor("", $"10.3.0.{n}")).Secret is null ? 0 : 1);
        joined.Sum().ShouldBe(1);
    }

    [Fact]
    public async Task One_is_led_back_to_where_one_wanted_to_go_and_never_to_another_site()
    {
        using var browser = shop.Browser();
        using (var asked = await browser.GetAsync("/Jobs/101/Find", TestContext.Current.CancellationToken))
            asked.Headers.Location!.ToString().ShouldBe("/SignIn?to=%2FJobs%2F101%2FFind");
        foreach (var (to, wanted) in new[] { ("/Jobs", "/Jobs"), ("//evil.example", "/"), ("https://evil.example/", "/"), ("/\\evil.example", "/") })
        {
            using var answer = await shop.Send(
                browser,
                "/SignIn",
                "/SignIn",
                ("name", "Ann Owner"),
                ("password", SignedShop.Word),
                ("to", to)
            );
            answer.Headers.Location!.ToString().ShouldBe(wanted);
        }
    }

    [Fact]
    public async Task What_is_done_carries_the_name_of_who_did_it_and_cannot_be_rewritten()
    {
        using var ben = await shop.In(ShopRole.Technician);
        var find = $"/Jobs/{shop.Number}/Find";
        using (var answer = await shop.Send(ben, find, find + "?handler=Function", ("function", "speaker"), ("result", "fail")))
            ((int)answer.StatusCode).ShouldBeLessThan(400);
        var job = shop.Jobs.Find(shop.Number)!;
        shop.Service<Timeline>().Of(job.Id)[0].DoneBy.ShouldBe("Ben Bench");
        using var page = await ben.GetAsync($"/Jobs/{shop.Number}/Timeline", TestContext.Current.CancellationToken);
        (await WebShop.Parse(page)).QuerySelector(".line-time")!.TextContent.ShouldContain("by Ben Bench");
        using var connection = shop.Database.Open();
        connection.ExecuteScalar<string>("SELECT done_by FROM bench_records ORDER BY id DESC LIMIT 1").ShouldBe("Ben Bench");
        foreach (
            var sql in (string[])
                [
                    "UPDATE bench_records SET words = 'it works'",
                    "UPDATE bench_records SET done_by = 'Cleo Counter'",
                    "DELETE FROM bench_records",
                    "UPDATE timeline SET done_by = ''",
                    "DELETE FROM timeline",
                    "DELETE FROM access_log",
                    "UPDATE access_log SET words = ''",
                ]
        )
            Should.Throw<Microsoft.Data.Sqlite.SqliteException>(() => connection.Execute(sql)).Message.ShouldContain("never");
    }

    [Fact]
    public async Task What_is_done_to_the_shop_besides_its_jobs_is_noted_with_who_did_it()
    {
        using var ben = await shop.In(ShopRole.Technician);
        using (var answer = await shop.Send(ben, "/Gear", "/Gear?handler=Add", ("kind", "test-cartridge"), ("name", "second cartridge")))
            ((int)answer.StatusCode).ShouldBeLessThan(400, await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
        var line = shop.Service<AccessLog>().Newest(1).Single();
        (line.Who, line.Words).ShouldBe(("Ben Bench", "/Gear: Add"));
        // What is only one's own, and what was refused, is no deed.
        using (await shop.Send(ben, "/Me", "/Settings?handler=Theme&from=me", ("theme", "dark"))) { }
        using (await shop.Send(ben, "/Gear", "/Gear?handler=Add", ("kind", ""), ("name", ""))) { }
        shop.Service<AccessLog>().Newest(1).Single().ShouldBe(line);
    }

    [Fact]
    public async Task Who_only_looks_reads_no_sale_and_finds_nobody_by_name()
    {
        var (jobs, name) = (shop.Service<JobStore>(), shop.Jobs.Find(shop.Number)!.CustomerName!);
        jobs.Note(shop.Jobs.Find(shop.Number)!.Id, "Sold for €55.00: to Bert at the fair", TimelineEntry.Money);
        jobs.Note(shop.Jobs.Find(shop.Number)!.Id, "The pack was €12.50");
        async Task<string> Page(HttpClient browser, string path)
        {
            using var shown = await browser.GetAsync(path, TestContext.Current.CancellationToken);
            return (await WebShop.Parse(shown)).Body!.TextContent;
        }

        using var leo = await shop.In(ShopRole.LookerOn);
        using var cleo = await shop.In(ShopRole.Counter);
        using var ben = await shop.In(ShopRole.Technician);
        var (looks, counter, works) = (
            await Page(leo, $"/Jobs/{shop.Number}/Timeline"),
            await Page(cleo, $"/Jobs/{shop.Number}/Timeline"),
            await Page(ben, $"/Jobs/{shop.Number}/Timeline")
        );
        looks.ShouldNotContain("Bert");
        looks.ShouldContain("The pack was a sum");
        counter.ShouldContain("Sold for a sum: to Bert");
        works.ShouldContain("Sold for €55.00: to Bert");
        var search = $"/Jobs?q={Uri.EscapeDataString(name)}";
        (await Page(leo, search)).ShouldContain("No job fits every word");
        (await Page(cleo, search)).ShouldNotContain("No job fits every word");
        // What is no name is found by everybody.
        (await Page(leo, $"/Jobs?q={shop.Jobs.Find(shop.Number)!.ModelName.Split(' ')[0]}")).ShouldNotContain("No job fits");
    }

    [Fact]
    public async Task Who_only_looks_is_offered_nothing_else_but_what_is_their_own()
    {
        using var leo = await shop.In(ShopRole.LookerOn);
        foreach (var (path, only) in new[] { ($"/Jobs/{shop.Number}/Find", "looks"), ("/Me", "") })
        {
            using var shown = await leo.GetAsync(path, TestContext.Current.CancellationToken);
            var page = await WebShop.Parse(shown);
            (page.Body!.ClassName ?? "").ShouldBe(only);
            page.QuerySelector(".reading-bar").ShouldBeNull();
        }

        using (var answer = await shop.Send(leo, "/Me", "/Me?handler=Out"))
            answer.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await shop.Look(leo, "/Me")).ShouldBe(HttpStatusCode.Redirect);
    }

    private static async Task<string> Cookie(HttpClient browser)
    {
        // The handler keeps cookies to itself; the server is asked to say what it got.
        using var request = new HttpRequestMessage(HttpMethod.Get, "/Me");
        using var answer = await browser.SendAsync(request, TestContext.Current.CancellationToken);
        var cookies = answer.RequestMessage!.Headers.GetValues("Cookie").SelectMany(c => c.Split("; "));
        return cookies.Single(c => c.StartsWith($"mendro.{ShopDoor.Cookie}.", StringComparison.Ordinal));
    }

    private async Task<HttpStatusCode> With(string cookie)
    {
        using var browser = shop.Browser();
        using var request = new HttpRequestMessage(HttpMethod.Get, "/Me");
        request.Headers.Add("Cookie", cookie);
        using var answer = await browser.SendAsync(request, TestContext.Current.CancellationToken);
        return answer.StatusCode;
    }
}
