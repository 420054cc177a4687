using System.Globalization;
using System.Net;
using System.Net.Http.Headers;
using System.Reflection;
using System.Text;
using Dapper;
using Mendro.Storage;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.ApplicationModels;
using Microsoft.AspNetCore.Mvc.Infrastructure;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;

namespace Mendro.Web.Tests;

/// <summary>
/// Every page and every handler of every page, found by reflection, is sent what nobody should send: no answer is a fault of the
/// server, no answered write is lost, and the database stays whole. <c>bench/fuzz.sh</c> runs it longer.
/// </summary>
public sealed class FuzzTests : IAsyncLifetime
{
    private const int InTheSuite = 500;

    // Each request alone, or one would hang on the other; a request that takes longer than this has hung.
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(90);

    private readonly string _folder = Directory.CreateTempSubdirectory("mendro-fuzz-").FullName;
    private RealServer _server = null!;
    private HttpClient _client = null!;
    private ShopDatabase _database = null!;

    /// <summary>The real server, with its own limits and its own way with headers.</summary>
    public async ValueTask InitializeAsync()
    {
        _server = await RealServer.Open(_folder, null, "--demo", "true", "--patience", "0");
        _client = new HttpClient(new HttpClientHandler { AllowAutoRedirect = false, CookieContainer = new CookieContainer() })
        {
            BaseAddress = new Uri(_server.Address),
        };
        _database = new ShopDatabase(Path.Combine(_folder, "shop.db"));
    }

    public ValueTask DisposeAsync()
    {
        _client.Dispose();
        _server.Dispose();
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        Directory.Delete(_folder, true);
        return ValueTask.CompletedTask;
    }

    /// <summary>A page's route and what a handler of it takes.</summary>
    private sealed record Target(string Route, string Method, string? Handler, IReadOnlyList<string> Fields);

    [Fact]
    public async Task Requests_that_nobody_should_send_break_nothing()
    {
        var count = Setting("MENDRO_FUZZ_REQUESTS", InTheSuite);
        var seed = Setting("MENDRO_FUZZ_SEED", 10);
        var random = new Random(seed);
        var targets = Targets();
        targets.Count.ShouldBeInRange(61, count, "each handler is visited once at least");
        var token = await Token();
        var codes = new SortedDictionary<int, int>();
        var faults = new List<string>();
        for (var n = 0; n < count; n++)
        {
            // The first round visits every handler once.
            var target = n < targets.Count ? targets[n] : targets[random.Next(targets.Count)];
            using var request = Make(target, random, token);
            var told = $"request {n} of seed {seed}: {request.Method} {request.RequestUri}";
            using var limit = CancellationTokenSource.CreateLinkedTokenSource(TestContext.Current.CancellationToken);
            limit.CancelAfter(Longest);
            using var response = await _client.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, limit.Token);
            var code = (int)response.StatusCode;
            codes[code] = codes.GetValueOrDefault(code) + 1;
            if (code >= 500)
                faults.Add($"{told}: {code}\n{await Sent(request)}");
            response.Headers.Contains("Content-Security-Policy").ShouldBeTrue(told);
        }

        faults.ShouldBeEmpty();
        // It was not all turned away at the door: handlers were reached, and what they were sent was judged by them.
        codes.Keys.ShouldContain(200);
        codes.Keys.ShouldContain(302);
        codes.Keys.ShouldContain(422);
        Integrity();
        // Whatever is stored now: every page of every job opens.
        foreach (var number in Numbers())
        foreach (
            var page in (string[])
                [
                    .. (string[])["Intake", "Find", "Why", "Fix", "Prove", "HandOver", "Sheet", "Timeline", "Swaps", "Compare", "Supply"],
                    .. (string[])["Contacts", "Traces", "Jumpers", "Owner", "Pictures", "Sale", "Trays"],
                ]
        )
            (await Open($"/Jobs/{number}/{page}")).ShouldBeLessThan(500, $"job {number} {page}");

        foreach (
            var page in (string[])
                ["/", "/Jobs", "/Jobs?show=closed", "/Jobs?show=deleted", "/Patterns", "/Gear", "/Models", "/Practice", "/Settings"]
        )
            (await Open(page)).ShouldBe(200, page);
        await WritesStillCount(token);
    }

    private async Task<int> Open(string path)
    {
        using var opened = await _client.GetAsync(path, TestContext.Current.CancellationToken);
        return (int)opened.StatusCode;
    }

    /// <summary>What was answered is there: a record for every answer, none besides.</summary>
    private async Task WritesStillCount(string token)
    {
        var jobs = new JobStore(_database, TimeProvider.System);
        async Task<HttpResponseMessage> Post(string path, params KeyValuePair<string, string>[] fields)
        {
            using var request = new HttpRequestMessage(HttpMethod.Post, path) { Content = new FormUrlEncodedContent(fields) };
            request.Headers.Add("X-Mendro-Antiforgery", token);
            return await _client.SendAsync(request, TestContext.Current.CancellationToken);
        }

        using var taken = await Post("/?handler=Quick", KeyValuePair.Create("line", "quartet no light"));
        taken.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var number = long.Parse(taken.Headers.Location!.ToString().Split('/')[2], CultureInfo.InvariantCulture);
        var records = new BenchRecordStore(_database, TimeProvider.System);
        var before = records.Of(jobs.Find(number)!.Id).Count;
        for (var n = 0; n < 5; n++)
        {
            using var filed = await Post(
                $"/Jobs/{number}/Find?handler=Reading",
                KeyValuePair.Create("probe", "tp3"),
                KeyValuePair.Create("text", $"6.{n}")
            );
            filed.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        }

        records.Of(jobs.Find(number)!.Id).Count.ShouldBe(before + 5);
    }

    private static int Setting(string name, int otherwise) =>
        int.TryParse(Environment.GetEnvironmentVariable(name), NumberStyles.None, CultureInfo.InvariantCulture, out var told)
            ? told
            : otherwise;

    private async Task<string> Token()
    {
        using var page = await _client.GetAsync("/Settings", TestContext.Current.CancellationToken);
        return (await WebShop.Parse(page)).QuerySelector("meta[name=mendro-token]")!.GetAttribute("content")!;
    }

    /// <summary>What the application itself says that it answers.</summary>
    private static List<Target> Targets()
    {
        using var shop = new WebShop(demo: false, alone: true);
        var pages = shop.Service<IActionDescriptorCollectionProvider>().ActionDescriptors.Items.OfType<PageActionDescriptor>().ToList();
        var loader = shop.Service<Microsoft.AspNetCore.Mvc.RazorPages.Infrastructure.PageLoader>();
        var targets = new List<Target>();
        foreach (var page in pages.OrderBy(p => p.ViewEnginePath, StringComparer.Ordinal))
        {
            var compiled = loader.LoadAsync(page, EndpointMetadataCollection.Empty).GetAwaiter().GetResult();
            var bound = compiled
                .ModelTypeInfo!.GetProperties()
                .Where(p => p.GetCustomAttribute<BindPropertyAttribute>() is not null)
                .SelectMany(Fields)
                .ToList();
            // With the first account the token of all others ends; how the door stands is tested by itself.
            foreach (var handler in compiled.HandlerMethods.Where(h => (page.ViewEnginePath, h.Name) != ("/Access/Accounts", "First")))
                targets.Add(
                    new Target(
                        page.AttributeRouteInfo?.Template ?? page.ViewEnginePath,
                        handler.HttpMethod,
                        handler.Name,
                        [.. handler.Parameters.Select(p => p.Name), .. bound, OnceTagHelper.Field]
                    )
                );
        }

        // What is no page.
        targets.Add(new Target("/Events", "Get", null, []));
        targets.Add(new Target("/health", "Get", null, []));
        targets.Add(new Target("/no/such/page", "Post", null, ["x"]));
        return targets;
    }

    /// <summary>Names under which a bound property is sent; a form of its own has one for each of its own.</summary>
    private static IEnumerable<string> Fields(PropertyInfo property)
    {
        if (property.PropertyType.Namespace?.StartsWith("Mendro.Web", StringComparison.Ordinal) != true)
            return [property.Name];
        return property
            .PropertyType.GetProperties()
            .Where(p => p.CanWrite)
            .SelectMany(p =>
                p.PropertyType.IsGenericType && p.PropertyType.GetGenericTypeDefinition() == typeof(Dictionary<,>)
                    ? (IEnumerable<string>)[$"{property.Name}.{p.Name}[power-light]", $"{property.Name}.{p.Name}[x"]
                    : [$"{property.Name}.{p.Name}"]
            );
    }

    private HttpRequestMessage Make(Target target, Random random, string token)
    {
        var path =
            "/"
            + string.Join('/', target.Route.Trim('/').Split('/').Select(part => part.StartsWith('{') ? RouteValue(part, random) : part));
        var query = target.Handler is null ? "" : $"?handler={target.Handler}";
        var fields = target.Fields.Where(_ => random.Next(8) > 0).Select(f => KeyValuePair.Create(f, Value(f, random))).ToList();
        if (random.Next(10) == 0)
            fields.Add(KeyValuePair.Create(FuzzWords.Text(random), FuzzWords.Text(random)));
        if (random.Next(60) == 0)
            fields.AddRange(Enumerable.Range(0, 1100).Select(n => KeyValuePair.Create($"f{n}", "")));
        if (target.Method.Equals("Get", StringComparison.OrdinalIgnoreCase))
        {
            foreach (var (name, value) in fields)
                query +=
                    $"{(query.Length > 0 ? "&" : "?")}{Uri.EscapeDataString(FuzzWords.Whole(name))}={Uri.EscapeDataString(FuzzWords.Whole(value))}";
            return Get(path, query, random);
        }

        var request = new HttpRequestMessage(HttpMethod.Post, new Uri(path + query, UriKind.Relative)) { Content = Body(fields, random) };
        if (random.Next(12) > 0)
            request.Headers.Add("X-Mendro-Antiforgery", token);
        if (random.Next(2) == 0)
            request.Headers.Add("HX-Request", "true");
        return request;
    }

    private static HttpRequestMessage Get(string path, string query, Random random)
    {
        if (query.Length > 6000)
            query = query[..6000];
        var request = new HttpRequestMessage(HttpMethod.Get, new Uri(path + query.TrimEnd('%', '2'), UriKind.Relative));
        if (random.Next(3) == 0)
            request.Headers.Add("HX-Request", "true");
        if (random.Next(10) == 0)
            request.Headers.TryAddWithoutValidation("Accept-Language", FuzzWords.Header(random));
        return request;
    }

    private static HttpContent Body(List<KeyValuePair<string, string>> fields, Random random)
    {
        switch (random.Next(14))
        {
            case 0:
                return new StringContent("{\"line\":\"x\"}", Encoding.UTF8, "application/json");
            case 1:
            {
                var bare = new ByteArrayContent(Encoding.UTF8.GetBytes("line=quartet no light"));
                bare.Headers.ContentType = null;
                return bare;
            }
            case 2:
            {
                var broken = new ByteArrayContent(
                    Encoding.UTF8.GetBytes("--x\r\nContent-Disposition: form-data; name=\"file\r\n\r\nno end")
                );
                broken.Headers.ContentType = MediaTypeHeaderValue.Parse("multipart/form-data; boundary=x");
                return broken;
            }
            case 3:
            {
                var form = new MultipartFormDataContent();
                foreach (var (name, value) in fields.Where(f => f.Key.All(char.IsAscii) && f.Key.Any(char.IsAsciiLetterOrDigit)))
                    form.Add(
                        new StringContent(FuzzWords.Whole(value)),
                        $"\"{string.Concat(name.Where(c => c is not ('"' or '\r' or '\n')))}\""
                    );
                form.Add(new ByteArrayContent(FuzzWords.Bytes(random)), "file", "x.csv");
                return form;
            }
            case 4:
                // Percent signs that begin nothing, bytes that are no UTF-8.
                return new StringContent(
                    "line=%&probe=%ff%fe&text=%00%1d" + string.Concat(fields.Select(f => $"&{f.Key}=%c3%28")),
                    Encoding.UTF8,
                    "application/x-www-form-urlencoded"
                );
            default:
                return new FormUrlEncodedContent(fields.Select(f => KeyValuePair.Create(FuzzWords.Whole(f.Key), FuzzWords.Whole(f.Value))));
        }
    }

    private static string RouteValue(string part, Random random)
    {
        if (part.Contains("long", StringComparison.Ordinal))
            return random.Next(6) switch
            {
                0 => "9223372036854775807",
                1 => "-1",
                2 => "99999999999999999999",
                _ => (101 + random.Next(45)).ToString(CultureInfo.InvariantCulture),
            };
        return random.Next(3) switch
        {
            0 => Uri.EscapeDataString(FuzzWords.InPath(random) + "x"),
            1 => "harrow-quartet",
            _ => "generic-handheld",
        };
    }

    private static string Value(string field, Random random) =>
        random.Next(3) == 0 ? FuzzWords.Text(random)
        : FuzzWords.Likely.TryGetValue(field.Split('.', '[')[^1].TrimEnd(']').ToLowerInvariant(), out var known)
            ? known[random.Next(known.Length)]
        : FuzzWords.Text(random);

    private static async Task<string> Sent(HttpRequestMessage request) =>
        request.Content is { } content ? await content.ReadAsStringAsync() : "";

    private List<long> Numbers()
    {
        using var connection = _database.Open();
        return connection.Query<long>("SELECT number FROM jobs ORDER BY id").AsList();
    }

    private void Integrity()
    {
        using var connection = _database.Open();
        connection.ExecuteScalar<string>("PRAGMA integrity_check").ShouldBe("ok");
        connection.Query("PRAGMA foreign_key_check").ShouldBeEmpty();
    }
}
