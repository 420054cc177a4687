using System.IO.Compression;
using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Mendro.Core.Access;
using Mendro.Pictures;
using Mendro.Shop;
using Mendro.Storage;
using Mendro.Web.Api;
using Microsoft.AspNetCore.Routing;
using Microsoft.AspNetCore.Routing.Patterns;

namespace Mendro.Web.Tests.Access;

/// <summary>The interface for other programs, held against its own description.</summary>
public sealed class ApiTests(SignedShop shop) : IClassFixture<SignedShop>
{
    private static readonly string[] Everything = ProgramScope.All.Select(s => s.Id).ToArray();

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Every_address_asks_for_its_own_right_and_for_no_other()
    {
        var calls = shop.Service<EndpointDataSource>()
            .Endpoints.OfType<RouteEndpoint>()
            .Where(e => e.RoutePattern.RawText!.StartsWith(ApiEndpoints.Root, StringComparison.Ordinal))
            .Select(e => (e.RoutePattern, Scope: e.Metadata.GetMetadata<ProgramRight>()?.Scope, e.Metadata.GetMetadata<IHttpMethodMetadata>()?.HttpMethods))
            .Where(e => e.HttpMethods is { Count: > 0 })
            .ToList();
        calls.Count.ShouldBe(7);
        foreach (var (pattern, scope, methods) in calls)
        {
            scope.ShouldNotBeNull(pattern.RawText);
            using var nobody = shop.Browser();
            using var owner = await shop.In(ShopRole.Owner);
            using var made = Program(scope);
            using var wrong = Program(Everything.First(s => s != scope));
            using var stranger = shop.Browser();
            stranger.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue("Bearer", "mendro_" + OneTimeCode.MakeSecret());
            foreach (var (client, expected) in new[] { (nobody, 401), (owner, 401), (stranger, 401), (wrong, 403) })
            {
                using var answer = await Ask(client, pattern, methods![0]);
                ((int)answer.StatusCode).ShouldBe(expected, pattern.RawText);
                answer.Content.Headers.ContentType!.MediaType.ShouldBe("application/problem+json");
                answer.Headers.WwwAuthenticate.ToString().ShouldStartWith("Bearer");
            }

            using var good = await Ask(made, pattern, methods![0]);
            good.StatusCode.ShouldNotBe(HttpStatusCode.Unauthorized, pattern.RawText);
            good.StatusCode.ShouldNotBe(HttpStatusCode.Forbidden, pattern.RawText);
        }
    }

    [Fact]
    public async Task A_token_opens_no_page_and_an_ended_one_nothing()
    {
        using var program = Program(Everything);
        (await shop.Look(program, "/Jobs")).ShouldBe(HttpStatusCode.Redirect);
        (await shop.Look(program, "/api/1/bench")).ShouldBe(HttpStatusCode.OK);
        var id = shop.Service<ProgramDesk>().Programs().Single(p => p.Name == _last).Id;
        shop.Service<ProgramDesk>().End("Ann Owner", id).Done.ShouldNotBeNull();
        (await shop.Look(program, "/api/1/bench")).ShouldBe(HttpStatusCode.Unauthorized);
        shop.Service<ProgramDesk>().Add("Ann Owner", _last, [ProgramScope.ReadJobs]).Refusal!.Problem.ShouldContain("one program's");
    }

    [Fact]
    public async Task A_unit_is_taken_in_once_however_often_it_is_sent()
    {
        using var program = Program(ProgramScope.TakeIn, ProgramScope.ReadJobs);
        program.DefaultRequestHeaders.Add(ApiEndpoints.KeyHeader, "order 4711");
        var numbers = new List<long>();
        for (var n = 0; n < 3; n++)
        {
            using var answer = await program.PostAsJsonAsync(
                "/api/1/jobs",
                new { model = "harrow-quartet", owner = "Mira Falk", contact = "0151", claim = "no sound", promised = "2027-01-15" },
                Cancel
            );
            answer.StatusCode.ShouldBe(HttpStatusCode.Created);
            numbers.Add((await answer.Content.ReadFromJsonAsync<TakenUnit>(Cancel))!.Number);
            answer.Headers.Location!.ToString().ShouldBe($"/api/1/jobs/{numbers[^1]}");
        }

        numbers.Distinct().ShouldHaveSingleItem();
        var job = shop.Jobs.Find(numbers[0])!;
        (job.CustomerName, job.Claim, job.Promised).ShouldBe(("Mira Falk", "no sound", "2027-01-15"));
        shop.Service<Timeline>().Of(job.Id)[^1].DoneBy.ShouldBe($"program {_last}");
        var read = await program.GetStringAsync($"/api/1/jobs/{numbers[0]}", Cancel);
        read.ShouldContain("no sound");
        read.ShouldNotContain("Mira");
    }

    [Theory]
    [InlineData("""{"model":"no-such-model","claim":"x"}""", 422, "model")]
    [InlineData("""{"model":"harrow-quartet","owner":"A","promised":"soon"}""", 422, "promised")]
    [InlineData("""{"model":"harrow-quartet","owner":""}""", 422, "owner")]
    [InlineData("""{"model":"harrow-quartet","wrong":1}""", 400, "cannot be read")]
    [InlineData("""{"claim":"x"}""", 400, "cannot be read")]
    [InlineData("""[1,2""", 400, "cannot be read")]
    [InlineData("null", 400, "cannot be read")]
    public async Task What_cannot_be_taken_is_said_as_problem_details(string body, int code, string says)
    {
        using var program = Program(ProgramScope.TakeIn);
        using var answer = await program.PostAsync("/api/1/jobs", new StringContent(body, Encoding.UTF8, "application/json"), Cancel);
        ((int)answer.StatusCode).ShouldBe(code);
        answer.Content.Headers.ContentType!.MediaType.ShouldBe("application/problem+json");
        var told = await answer.Content.ReadAsStringAsync(Cancel);
        told.ShouldContain(says);
        using var problem = JsonDocument.Parse(told);
        problem.RootElement.GetProperty("status").GetInt32().ShouldBe(code);
    }

    [Fact]
    public async Task A_reading_a_trial_and_a_picture_go_to_the_job_as_from_its_pages()
    {
        using var program = Program(ProgramScope.Readings, ProgramScope.Pictures, ProgramScope.ReadJobs);
        var at = $"/api/1/jobs/{shop.Number}";
        var probe = shop.View(shop.Number).Profile.Probes.First(p => p.Kind == Core.Profiles.ProbeKind.Volts);
        foreach (
            var (body, code) in new (object, HttpStatusCode)[]
            {
                (new { probe = probe.Id.Value, value = "4.98 V" }, HttpStatusCode.Created),
                (new { function = "speaker", works = false }, HttpStatusCode.Created),
                (new { probe = "no-such-probe", value = "1 V" }, HttpStatusCode.NotFound),
                (new { probe = probe.Id.Value, value = "rather much" }, HttpStatusCode.UnprocessableEntity),
                (new { probe = probe.Id.Value }, HttpStatusCode.UnprocessableEntity),
            }
        )
        {
            using var answer = await program.PostAsJsonAsync(at + "/readings", body, Cancel);
            answer.StatusCode.ShouldBe(code, JsonSerializer.Serialize(body));
        }

        using var picture = new ByteArrayContent(StandInCamera.Shell(0.8, 3));
        picture.Headers.ContentType = new MediaTypeHeaderValue("image/jpeg");
        using (var answer = await program.PostAsync(at + "/pictures?side=before&caption=as+it+came", picture, Cancel))
            answer.StatusCode.ShouldBe(HttpStatusCode.Created, await answer.Content.ReadAsStringAsync(Cancel));
        using var nothing = new ByteArrayContent([1, 2, 3]);
        nothing.Headers.ContentType = new MediaTypeHeaderValue("image/jpeg");
        using (var answer = await program.PostAsync(at + "/pictures", nothing, Cancel))
            answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var job = await program.GetFromJsonAsync<JobShape>(at, Cancel);
        job!.Records.Select(r => r.Kind).ShouldBe(["probe", "function"], ignoreOrder: true);
        shop.Service<PictureStore>().Of(shop.Jobs.Find(shop.Number)!.Id).ShouldHaveSingleItem().Caption.ShouldBe("as it came");
    }

    [Fact]
    public async Task The_export_is_the_whole_shop_and_leaves_nothing_behind()
    {
        using var program = Program(ProgramScope.Export);
        using var zip = new ZipArchive(await program.GetStreamAsync("/api/1/export", Cancel));
        zip.Entries.Select(e => e.Name).ShouldContain("shop.json");
        zip.Entries.Select(e => e.Name).ShouldContain("jobs.csv");
        zip.Entries.ShouldAllBe(e => !e.Name.Contains("account") && !e.Name.Contains("session") && !e.Name.Contains("program"));
        Directory.EnumerateFileSystemEntries(Path.GetDirectoryName(shop.Database.File)!, "export-*").ShouldBeEmpty();
    }

    [Fact]
    public async Task Who_asks_too_often_waits_and_another_program_does_not()
    {
        using var greedy = Program(ProgramScope.Stock);
        using var other = Program(ProgramScope.Stock);
        var codes = new List<HttpStatusCode>();
        for (var n = 0; n <= ProgramGate.AMinute; n++)
            codes.Add(await shop.Look(greedy, "/api/1/stock"));
        codes.Take(ProgramGate.AMinute).ShouldAllBe(c => c == HttpStatusCode.OK);
        codes[^1].ShouldBe(HttpStatusCode.TooManyRequests);
        using (var answer = await greedy.GetAsync("/api/1/stock", Cancel))
        {
            answer.Headers.RetryAfter.ShouldNotBeNull();
            answer.Content.Headers.ContentType!.MediaType.ShouldBe("application/problem+json");
        }

        (await shop.Look(other, "/api/1/stock")).ShouldBe(HttpStatusCode.OK);
    }

    /// <summary>What the description says of an answer is what is answered: fields, names and types.</summary>
    [Fact]
    public async Task The_description_fits_what_is_really_answered()
    {
        using var owner = await shop.In(ShopRole.Owner);
        using var described = JsonDocument.Parse(await owner.GetStringAsync("/openapi/1.json", Cancel));
        var root = described.RootElement;
        root.GetProperty("openapi").GetString()!.ShouldStartWith("3.");
        root.GetProperty("paths").EnumerateObject().Select(p => p.Name).ShouldBe(
            ["/api/1/bench", "/api/1/jobs", "/api/1/jobs/{number}", "/api/1/jobs/{number}/readings", "/api/1/jobs/{number}/pictures", "/api/1/stock",
             "/api/1/export"],
            ignoreOrder: true
        );
        using var program = Program(Everything);
        shop.Service<StockStore>().Add(new StockItem { Name = "47 µF 16 V", Count = 12, Bin = "B3" }, "counted");
        foreach (var path in (string[])["/api/1/bench", "/api/1/stock", "/api/1/jobs/{number}"])
        {
            var address = path.Replace("{number}", $"{shop.Number}", StringComparison.Ordinal);
            using var answer = JsonDocument.Parse(await program.GetStringAsync(address, Cancel));
            var shape = root.GetProperty("paths").GetProperty(path).GetProperty("get").GetProperty("responses").GetProperty("200")
                .GetProperty("content").GetProperty("application/json").GetProperty("schema");
            Fits(root, shape, answer.RootElement, path);
        }

        var posts = root.GetProperty("paths").GetProperty("/api/1/jobs").GetProperty("post");
        posts.GetProperty("responses").EnumerateObject().Select(r => r.Name).ShouldBe(["201", "400", "401", "403", "409", "422", "429"], ignoreOrder: true);
        posts.GetProperty("requestBody").GetProperty("content").TryGetProperty("application/json", out _).ShouldBeTrue();
    }

    private static void Fits(JsonElement root, JsonElement schema, JsonElement value, string at)
    {
        while (schema.TryGetProperty("$ref", out var named))
            schema = named.GetString()!.Split('/').Skip(1).Aggregate(root, (e, name) => e.GetProperty(name));
        var types = schema.TryGetProperty("type", out var type)
            ? type.ValueKind == JsonValueKind.Array ? type.EnumerateArray().Select(t => t.GetString()!).ToArray() : [type.GetString()!]
            : [];
        var kind = value.ValueKind switch
        {
            JsonValueKind.Array => "array",
            JsonValueKind.Object => "object",
            JsonValueKind.String => "string",
            JsonValueKind.Null => "null",
            JsonValueKind.Number when types.Contains("integer") && value.TryGetInt64(out _) => "integer",
            JsonValueKind.Number => "number",
            _ => "boolean",
        };
        types.ShouldContain(kind, at);
        if (kind == "array")
        {
            value.GetArrayLength().ShouldBeGreaterThan(0, at);
            foreach (var one in value.EnumerateArray())
                Fits(root, schema.GetProperty("items"), one, at + "[]");
        }

        if (kind != "object")
            return;
        var known = schema.GetProperty("properties").EnumerateObject().ToDictionary(p => p.Name, p => p.Value);
        value.EnumerateObject().Select(p => p.Name).ShouldBe(known.Keys, ignoreOrder: true, at);
        foreach (var field in value.EnumerateObject().Where(f => f.Value.ValueKind != JsonValueKind.Array || f.Value.GetArrayLength() > 0))
            Fits(root, known[field.Name], field.Value, $"{at}.{field.Name}");
    }

    [Fact]
    public async Task A_calendar_program_follows_the_feed_with_its_token()
    {
        var token = shop.Service<ProgramDesk>().Add("Ann Owner", Next(), [ProgramScope.Calendar]).Done!.Code;
        var other = shop.Service<ProgramDesk>().Add("Ann Owner", Next(), [ProgramScope.Stock]).Done!.Code;
        using var nobody = shop.Browser();
        (await shop.Look(nobody, "/calendar.ics")).ShouldBe(HttpStatusCode.Redirect);
        (await shop.Look(nobody, $"/calendar.ics?token={other}")).ShouldBe(HttpStatusCode.Redirect);
        (await nobody.GetStringAsync($"/calendar.ics?token={token}", Cancel)).ShouldStartWith("BEGIN:VCALENDAR");
        (await shop.Look(nobody, $"/Jobs?token={token}")).ShouldBe(HttpStatusCode.Redirect);
    }

    private int _made;
    private string _last = "";

    private string Next() => _last = $"till {GetHashCode()} {++_made}";

    private HttpClient Program(params string[] scopes)
    {
        var client = shop.Browser();
        var token = shop.Service<ProgramDesk>().Add("Ann Owner", Next(), scopes).Done!.Code;
        client.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue("Bearer", token);
        return client;
    }

    private async Task<HttpResponseMessage> Ask(HttpClient client, RoutePattern pattern, string method)
    {
        var path = pattern.RawText!.Replace("{number:long}", $"{shop.Number}", StringComparison.Ordinal);
        using var request = new HttpRequestMessage(new HttpMethod(method), path);
        if (method == "POST")
            request.Content = new StringContent("{}", Encoding.UTF8, path.EndsWith('s') && path.Contains("pictures")  ? "image/png" : "application/json");
        return await client.SendAsync(request, Cancel);
    }
}
