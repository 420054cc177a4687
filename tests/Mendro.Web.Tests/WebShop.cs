using System.Net;
using AngleSharp.Html.Dom;
using AngleSharp.Html.Parser;
using Mendro.Core.Library;
using Mendro.Core.Money;
using Mendro.Shop;
using Mendro.Storage;
using Mendro.Tests.Shared;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Extensions.DependencyInjection;

namespace Mendro.Web.Tests;

/// <summary>The real application on a data folder of its own, with a client that behaves like a browser without script.</summary>
public class WebShop : IDisposable
{
    private readonly string _folder = Path.Combine(Path.GetTempPath(), "mendro-web-" + Guid.NewGuid().ToString("N"));
    private readonly WebApplicationFactory<Program> _factory;

    public WebShop()
        : this(demo: false) { }

    /// <param name="demo">True for the demo world.</param>
    /// <param name="models">True for the invented models, in a shop that is empty otherwise.</param>
    /// <param name="alone">True when nothing may work behind the answers.</param>
    /// <param name="settings">How the server is asked to run besides.</param>
    internal WebShop(bool demo, bool alone = false, bool models = true, params (string Key, string Value)[] settings)
    {
        if (demo)
            PreparedShop.DemoIn(_folder);
        else
            PreparedShop.In(_folder, models);
        _factory = new WebApplicationFactory<Program>().WithWebHostBuilder(host =>
        {
            // The bench page waits for what is being worked out, so that what it shows is the same every time.
            host.UseSetting("data", _folder)
                .UseSetting("demo", demo ? "true" : "false")
                .UseSetting("demo-models", models ? "true" : "false")
                .UseSetting("patience", alone ? "0" : "30000")
                .UseSetting("warm-up", "no");
            foreach (var (key, value) in settings)
                host.UseSetting(key, value);
            if (alone)
                host.ConfigureServices(services => services.Remove(services.Single(s => s.ImplementationType == typeof(BenchWorker))));
        });
        Client = _factory.CreateClient(new WebApplicationFactoryClientOptions { AllowAutoRedirect = false });
    }

    public HttpClient Client { get; }

    /// <summary>Another browser, with cookies of its own.</summary>
    public HttpClient Browser() => _factory.CreateClient(new WebApplicationFactoryClientOptions { AllowAutoRedirect = false });

    public ShopDatabase Database => Service<ShopDatabase>();

    public JobStore Jobs => Service<JobStore>();

    /// <summary>Units that are or were here, for tests that hold that none came in.</summary>
    public int UnitsKnown => Database.AllJobs().Count;

    public BenchRecordStore Records => Service<BenchRecordStore>();

    public T Service<T>()
        where T : notnull => _factory.Services.GetRequiredService<T>();

    public async Task<IHtmlDocument> Page(string path, HttpStatusCode expected = HttpStatusCode.OK)
    {
        using var response = await Client.GetAsync(path, TestContext.Current.CancellationToken);
        response.StatusCode.ShouldBe(expected, path);
        return await Parse(response);
    }

    /// <summary>Loads the page, takes its token and posts.</summary>
    public async Task<HttpResponseMessage> Post(
        string page,
        string handlerPath,
        bool htmx = false,
        params (string Name, string Value)[] fields
    )
    {
        var token = (await Page(page)).QuerySelector("meta[name=mendro-token]")!.GetAttribute("content")!;
        using var request = new HttpRequestMessage(HttpMethod.Post, handlerPath)
        {
            Content = new FormUrlEncodedContent(fields.Select(f => KeyValuePair.Create(f.Name, f.Value))),
        };
        request.Headers.Add("X-Mendro-Antiforgery", token);
        if (htmx)
            request.Headers.Add("HX-Request", "true");
        return await Client.SendAsync(request, TestContext.Current.CancellationToken);
    }

    public Task<HttpResponseMessage> Post(string page, params (string Name, string Value)[] fields) => Post(page, page, false, fields);

    public static async Task<IHtmlDocument> Parse(HttpResponseMessage response) =>
        await new HtmlParser().ParseDocumentAsync(
            await response.Content.ReadAsStringAsync(TestContext.Current.CancellationToken),
            TestContext.Current.CancellationToken
        );

    /// <summary>Takes a unit in through the form and gives its number.</summary>
    public async Task<long> TakeIn(string profile = "harrow-quartet", params (string Name, string Value)[] more)
    {
        List<(string, string)> fields =
        [
            ("Form.Profile", profile),
            ("Form.Owner", "customer"),
            ("Form.OwnerName", "Ilka Dorn"),
            ("Form.Currency", "EUR"),
            ("Form.Claim", "no light"),
        ];
        using var response = await Post("/Intake", Instead(fields, more));
        response.StatusCode.ShouldBe(
            HttpStatusCode.Redirect,
            await response.Content.ReadAsStringAsync(TestContext.Current.CancellationToken)
        );
        return long.Parse(response.Headers.Location!.ToString().Split('/')[2], System.Globalization.CultureInfo.InvariantCulture);
    }

    /// <summary>Sends the settings form as a shop has it, with some fields told otherwise.</summary>
    public Task<HttpResponseMessage> SaveSettings(params (string Name, string Value)[] more) =>
        Post(
            "/Settings",
            Instead(
                [
                    ("ShopName", "S"),
                    ("Currency", "EUR"),
                    ("Rate", "30"),
                    ("Originality", "60"),
                    ("Strength", "2"),
                    ("LookMinutes", "20"),
                    ("LookPercent", "40"),
                ],
                more
            )
        );

    private static (string, string)[] Instead(
        IEnumerable<(string Name, string Value)> fields,
        IReadOnlyCollection<(string Name, string Value)> more
    ) => [.. fields.Where(f => more.All(m => m.Name != f.Name)), .. more];

    public JobView View(long number) => Service<BenchDesk>().Open(Jobs.Find(number)!);

    public TradeLibrary Library => TradeLibrary.Shipped;

    public void Dispose()
    {
        Client.Dispose();
        var database = Database;
        _factory.Dispose();
        PreparedShop.Discard(database);
        GC.SuppressFinalize(this);
    }
}

/// <summary>The application with the demo world, shared by tests that only read.</summary>
public sealed class DemoShop() : WebShop(demo: true);

/// <summary>An empty shop behind whose answers nothing works.</summary>
public sealed class LoneShop() : WebShop(demo: false, alone: true);
