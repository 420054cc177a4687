using System.Net;
using System.Net.Http.Headers;
using System.Text;
using Dapper;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;

namespace Mendro.Web.Tests;

/// <summary>What no page of ours sends: refused with our own page, or cleaned; and whatever is stored, a page opens.</summary>
public sealed class BadInputTests(WebShop shop) : IClassFixture<WebShop>
{
    private static readonly string[] JobPages =
    [
        "Intake",
        "Find",
        "Why",
        "Fix",
        "Prove",
        "HandOver",
        "Sheet",
        "Timeline",
        "Swaps",
        "Compare",
    ];

    private readonly WebShop _shop = shop;

    // GS and EOT, as a scanner of bar codes sends them between and after its fields (ISO/IEC 15434).
    [Fact]
    public async Task A_scanners_control_characters_are_left_out_of_a_reading_and_of_the_intake()
    {
        var number = await _shop.TakeIn(
            "harrow-quartet",
            ("Form.Result[power-light]", "fail"),
            ("Form.Serial", "]C1\u001dK77\u0004\ufffe")
        );
        _shop.Jobs.Find(number)!.Serial.ShouldBe("]C1K77");
        using var filed = await _shop.Post(
            $"/Jobs/{number}/Find",
            $"/Jobs/{number}/Find?handler=Reading",
            false,
            ("probe", "contacts-eye"),
            ("text", "bad \u001dgreen\u0004 crust")
        );
        filed.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        _shop.View(number).Records[^1].Words.ShouldNotContain('\u001d');
        _shop.View(number).Records[^1].Words.ShouldContain("green crust");
        await _shop.Page($"/Jobs/{number}/Find");
    }

    [Fact]
    public async Task A_page_opens_whatever_is_stored()
    {
        var number = await _shop.TakeIn("harrow-quartet", ("Form.Result[power-light]", "fail"));
        using (var connection = _shop.Database.Open())
        {
            const string nasty = "\u0001\u001b[31m\ufffe\uffff\u202e<b>&\"'\u0085\ud83d\ude00";
            var id = _shop.Jobs.Find(number)!.Id.Value;
            connection.Execute(
                "UPDATE jobs SET serial = @nasty, claim = @nasty, condition_note = @nasty, unit_name = @nasty",
                new { nasty }
            );
            connection.Execute("DROP TRIGGER bench_records_stay; UPDATE bench_records SET words = @nasty, note = @nasty, minutes = 1e300", new { nasty });
            connection.Execute("DROP TRIGGER timeline_stays; UPDATE timeline SET words = @nasty", new { nasty });
            connection.Execute(
                """
                INSERT INTO bench_records (job_id, seq, kind, subject, words, stage, at, payload, cost)
                VALUES (@id, 90, 'probe', 'tp3', @nasty, 'Nowhere', '2026-01-01T00:00:00.000Z', '{"probe":"tp3","outcome":"normal"}', '1e400'),
                  (@id, 91, 'repair', @nasty, @nasty, 'Fix', '2026-01-01T00:00:00.000Z', 'no json at all', NULL),
                  (@id, 92, 'cause', 'switch', @nasty, 'Fix', '2026-01-01T00:00:00.000Z', '{"part":"switch"}', NULL),
                  (@id, 93, 'cause', 'switch', @nasty, 'Fix', '2026-01-01T00:00:00.000Z', 'no json', NULL),
                  (@id, 94, 'cause', 'switch', @nasty, 'Fix', '2026-01-01T00:00:00.000Z', '{"part":"switch","mode":"dirty","present":true}', NULL)
                """,
                new { id, nasty }
            );
        }

        _shop.Database.Settle();
        foreach (var page in JobPages)
            await _shop.Page($"/Jobs/{number}/{page}");
        foreach (var page in (string[])["/", "/Jobs", "/Patterns", "/Jobs?q=quartet"])
            await _shop.Page(page);
    }

    [Theory]
    [InlineData("a\tb\nc\r\nd", "a\tb\nc\r\nd")]
    [InlineData("\u0000\u001d\u007f\u0085x", "x")]
    [InlineData("\ufdd0\ufffe\uffffx", "x")]
    [InlineData("👩‍🔧 Übel ½", "👩‍🔧 Übel ½")]
    public void The_gate_leaves_out_what_nobody_types(string told, string kept) => PlainText.Clean(told).ShouldBe(kept);

    [Fact]
    public void Halves_of_surrogate_pairs_and_noncharacters_of_every_plane_are_left_out()
    {
        PlainText.Clean("a\ud800b\udc00c\ud83d\ude00").ShouldBe("abc\ud83d\ude00");
        PlainText.Clean(char.ConvertFromUtf32(0x1FFFE) + "x" + char.ConvertFromUtf32(0x10FFFF)).ShouldBe("x");
    }

    public static TheoryData<string, HttpContent> Broken()
    {
        var bare = new ByteArrayContent("line=quartet"u8.ToArray());
        bare.Headers.ContentType = null;
        var half = new ByteArrayContent("--x\r\nContent-Disposition: form-data; name=\"file\r\n\r\nno end"u8.ToArray());
        half.Headers.ContentType = MediaTypeHeaderValue.Parse("multipart/form-data; boundary=x");
        var noBoundary = new ByteArrayContent("x"u8.ToArray());
        noBoundary.Headers.ContentType = MediaTypeHeaderValue.Parse("multipart/form-data");
        return new()
        {
            { "JSON", new StringContent("{\"line\":\"x\"}", Encoding.UTF8, "application/json") },
            { "no content type", bare },
            { "half a file", half },
            { "no boundary", noBoundary },
            { "an open bracket", new FormUrlEncodedContent([KeyValuePair.Create("Form.Result[power-light", "fail")]) },
            { "a closed one", new FormUrlEncodedContent([KeyValuePair.Create("Form.Result]power-light[", "fail")]) },
            { "1,100 fields", new FormUrlEncodedContent(Enumerable.Range(0, 1100).Select(n => KeyValuePair.Create($"f{n}", ""))) },
        };
    }

    [Theory]
    [MemberData(nameof(Broken), DisableDiscoveryEnumeration = true)]
    public async Task What_is_no_form_gets_our_page_with_its_headers_and_nothing_is_taken_in(string what, HttpContent content)
    {
        var before = _shop.UnitsKnown;
        foreach (var path in (string[])["/?handler=Quick", "/Intake", "/Settings", "/no/such/page", "/Models/Import"])
        {
            var token = (await _shop.Page("/")).QuerySelector("meta[name=mendro-token]")!.GetAttribute("content")!;
            using var request = new HttpRequestMessage(HttpMethod.Post, path)
            {
                Content = new ByteArrayContent(await content.ReadAsByteArrayAsync(TestContext.Current.CancellationToken)),
            };
            request.Content.Headers.ContentType = content.Headers.ContentType;
            request.Headers.Add("X-Mendro-Antiforgery", token);
            using var response = await _shop.Client.SendAsync(request, TestContext.Current.CancellationToken);
            response.StatusCode.ShouldBe(HttpStatusCode.BadRequest, $"{what} {path}");
            response.Headers.GetValues("Content-Security-Policy").ShouldHaveSingleItem();
            response.Headers.CacheControl!.NoStore.ShouldBeTrue();
            (await WebShop.Parse(response)).QuerySelector("h1")!.TextContent.ShouldBe("That request could not be taken");
        }

        _shop.UnitsKnown.ShouldBe(before);
    }

    [Theory]
    [InlineData("\"preparation\": { \"open\": 99999999999999999999999, \"boardOut\": 1, \"lifted\": 1 }", "preparation.open")]
    [InlineData("\"preparation\": { \"open\": 1e999, \"boardOut\": 1, \"lifted\": 1 }", "preparation.open")]
    [InlineData("\"name\": \"Box\\u0001\", \"preparation\": { \"open\": 1, \"boardOut\": 1, \"lifted\": 1 }", "control character")]
    public async Task A_profile_with_numbers_beyond_all_bounds_is_refused_with_its_place(string member, string told)
    {
        var json = ProfileJson
            .Write(TradeLibrary.Shipped.Profiles[0])
            .Replace("\"preparation\": {", member + ", \"was\": {", StringComparison.Ordinal);
        using var response = await _shop.Post("/Models/Import", ("text", json));
        response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await WebShop.Parse(response)).QuerySelector("[role=alert]")!.Words().ShouldContain(told);
    }

    [Fact]
    public async Task A_profile_with_two_hundred_more_parts_is_refused_with_a_word()
    {
        var profile = TradeLibrary.Shipped.Profiles.First(p => p.Id == "harrow-quartet");
        var large = profile with
        {
            Id = "large-box",
            Parts = [.. profile.Parts, .. Enumerable.Range(0, 200).Select(n => new Part(new PartId("more" + n), "More", "joint"))],
        };
        using var response = await _shop.Post("/Models/Import", ("text", ProfileJson.Write(large)));
        response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await WebShop.Parse(response)).QuerySelector("[role=alert]")!.Words().ShouldContain("too many");
        ProfileValidator
            .Check(large, TradeLibrary.Shipped)
            .ShouldContain(p => p.Place == "parts" && p.Message.Contains("220 are too many"));
    }

    [Theory]
    [InlineData("1e30")]
    [InlineData("NaN")]
    [InlineData("Infinity")]
    [InlineData("-1e30")]
    public void A_good_reading_without_bounds_is_refused_with_its_line(string value)
    {
        Core.Readings.GoodReadingFile.Read($"profile,revision,probe,unit,value,good_unit\np,,tp1,V,{value},x", out var problems)
            .ShouldBeEmpty();
        problems.ShouldHaveSingleItem().ShouldStartWith("line 2: ");
    }

    [Fact]
    public async Task Of_eight_that_correct_the_same_entry_at_once_one_is_taken_and_seven_are_told_what_it_says_now()
    {
        var number = await _shop.TakeIn("harrow-quartet", ("Form.Result[power-light]", "fail"));
        for (var round = 0; round < 4; round++)
        {
            using (
                await _shop.Post($"/Jobs/{number}/Find", $"/Jobs/{number}/Find?handler=Reading", false, ("probe", "tp3"), ("text", "6.0"))
            ) { }
            var entry = _shop.View(number).Records[^1].Id;
            var before = Count();
            var answers = await Task.WhenAll(
                Enumerable
                    .Range(0, 8)
                    .Select(n =>
                        _shop.Post(
                            $"/Jobs/{number}/Find",
                            $"/Jobs/{number}/Find?handler=Reading",
                            false,
                            ("probe", "tp3"),
                            ("text", $"6.{n + 1}"),
                            ("correct", $"{entry}")
                        )
                    )
            );
            answers.Count(a => a.StatusCode == HttpStatusCode.Redirect).ShouldBe(1);
            (Count() - before).ShouldBe(1);
            var refused = answers.Where(a => a.StatusCode == HttpStatusCode.UnprocessableEntity).ToList();
            refused.Count.ShouldBe(7);
            var holds = _shop.View(number).Records.Single(r => r.Replaces == entry);
            foreach (var answer in refused)
                (await WebShop.Parse(answer)).QuerySelector("#main")!.Words().ShouldContain($"it says now: {holds.Words}");
            foreach (var answer in answers)
                answer.Dispose();
        }

        long Count()
        {
            using var connection = _shop.Database.Open();
            return connection.ExecuteScalar<long>("SELECT count(*) FROM bench_records");
        }
    }

    [Fact]
    public async Task Of_an_entry_that_was_withdrawn_it_is_said()
    {
        var number = await _shop.TakeIn("harrow-quartet", ("Form.Result[power-light]", "fail"));
        using (await _shop.Post($"/Jobs/{number}/Find", $"/Jobs/{number}/Find?handler=Reading", false, ("probe", "tp3"), ("text", "6.0")))
        { }
        var entry = _shop.View(number).Records[^1].Id;
        _shop.Records.Withdraw(_shop.Jobs.Find(number)!.Id, entry);
        using var late = await _shop.Post(
            $"/Jobs/{number}/Find",
            $"/Jobs/{number}/Find?handler=Reading",
            false,
            ("probe", "tp3"),
            ("text", "6.4"),
            ("correct", $"{entry}")
        );
        late.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var page = await WebShop.Parse(late);
        page.QuerySelector("#main")!.Words().ShouldContain("has withdrawn that entry meanwhile");
        page.QuerySelector(".reading-bar .entry")!.GetAttribute("value").ShouldBe("6.4");
    }

    [Fact]
    public async Task An_intake_saved_from_two_tabs_shows_both_and_loses_neither()
    {
        var number = await _shop.TakeIn("harrow-quartet", ("Form.Claim", "as told"), ("Form.Marks", "rattle"));
        var path = $"/Jobs/{number}/Intake";
        async Task<string> Shown() => (await _shop.Page(path)).QuerySelector("[name='Form.Shown']")!.GetAttribute("value")!;
        (string, string)[] Fields(string claim, string serial, string shown) =>
            [
                ("Form.Owner", "customer"),
                ("Form.OwnerName", "Ilka Dorn"),
                ("Form.Currency", "EUR"),
                ("Form.Claim", claim),
                ("Form.Serial", serial),
                ("Form.Shown", shown),
                ("Form.Marks", "rattle"),
            ];
        var (mine, theirs) = (await Shown(), await Shown());
        using (var first = await _shop.Post(path, Fields("their words", "K-1", theirs)))
            first.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        using var second = await _shop.Post(path, Fields("my words", "K-1", mine));
        second.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var both = await WebShop.Parse(second);
        both.QuerySelector("[role=alert]")!.Words().ShouldContain("saved on another page meanwhile");
        both.QuerySelector("textarea[name='Form.Claim']")!.TextContent.Trim().ShouldBe("my words");
        both.QuerySelectorAll(".field-error").ShouldHaveSingleItem().TextContent.ShouldBe("Saved meanwhile: their words");
        _shop.Jobs.Find(number)!.Claim.ShouldBe("their words");
        // Saved again with both in sight, it is decided.
        var now = both.QuerySelector("[name='Form.Shown']")!.GetAttribute("value")!;
        using (var third = await _shop.Post(path, Fields("my words", "K-1", now)))
            third.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        _shop.Jobs.Find(number)!.Claim.ShouldBe("my words");
        // A mark set meanwhile is told too.
        var old = await Shown();
        using (var marked = await _shop.Post(path, [.. Fields("my words", "K-1", old), ("Form.Marks", "liquid")]))
            marked.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        using var late = await _shop.Post(path, Fields("my words", "K-1", old));
        late.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await WebShop.Parse(late)).QuerySelector(".field-error")!.TextContent.ShouldStartWith("Marks saved meanwhile: ");
        _shop.View(number).All<MarkNoted>().Count().ShouldBe(2);
    }

    [Fact]
    public async Task While_another_program_holds_the_file_the_page_says_so_keeps_what_was_typed_and_sends_it_again()
    {
        var number = await _shop.TakeIn("harrow-quartet", ("Form.Result[power-light]", "fail"));
        using var other = _shop.Database.Open();
        other.Execute("BEGIN IMMEDIATE");
        using var busy = await _shop.Post(
            $"/Jobs/{number}/Find",
            $"/Jobs/{number}/Find?handler=Reading",
            false,
            ("probe", "tp3"),
            ("text", "6.21"),
            ("once", "abc123")
        );
        busy.StatusCode.ShouldBe(HttpStatusCode.ServiceUnavailable);
        // The file's own patience is two seconds; nobody waits for the usual half a minute.
        new Microsoft.Data.Sqlite.SqliteConnectionStringBuilder(other.ConnectionString).DefaultTimeout.ShouldBe(2);
        busy.Headers.RetryAfter!.ToString().ShouldBe("2");
        var page = await WebShop.Parse(busy);
        page.QuerySelector("h1")!.TextContent.ShouldBe("The shop's file is in use");
        var form = page.QuerySelector("main form")!;
        form.GetAttribute("action").ShouldBe($"/Jobs/{number}/Find?handler=Reading");
        other.Execute("ROLLBACK");
        var kept = form.QuerySelectorAll("input[type=hidden]").Select(i => (i.GetAttribute("name")!, i.GetAttribute("value")!)).ToArray();
        kept.ShouldContain(("text", "6.21"));
        kept.ShouldContain(("once", "abc123"));
        // Sent twice, it is still done once.
        for (var n = 0; n < 2; n++)
        {
            using var again = await _shop.Post($"/Jobs/{number}/Find", form.GetAttribute("action")!, false, kept);
            again.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        }

        _shop.View(number).Records.Count(r => r.Body is ProbeReading).ShouldBe(1);
    }
}
