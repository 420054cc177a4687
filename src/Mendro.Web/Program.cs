using System.Globalization;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Instruments;
using Mendro.Shop.Demo;
using Mendro.Shop;
using Mendro.Storage;
using Mendro.Web;
using Mendro.Web.Access;
using Mendro.Web.Api;
using Mendro.Web.Live;
using Microsoft.AspNetCore.Mvc.ModelBinding;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.HostFiltering;
using Microsoft.AspNetCore.Mvc;
using Serilog;
using Serilog.Events;

// Texts are written by rule and not by the machine's language; what a page shows in the shop's own way goes through ShopCalendar
// and Amount.
CultureInfo.DefaultThreadCurrentCulture = CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;

if (ServeOptions.Read(args, out var problem) is not { } options)
{
    Console.Error.WriteLine(problem);
    return 2;
}

options = NetworkSetup.WithSettings(options);
ShopFolder.NarrowNewFiles();
var builder = WebApplication.CreateBuilder(args);

if (OwnListener.Refuse(args, Environment.GetEnvironmentVariables(), builder.Configuration) is { } elsewhere)
{
    Console.Error.WriteLine(elsewhere);
    return 2;
}

builder.Host.UseSerilog(
    (_, logging) =>
        logging
            .MinimumLevel.Information()
            .MinimumLevel.Override("Microsoft", LogEventLevel.Warning)
            // The keys lie in the shop's own folder beside its data; encrypting them there would protect nothing more.
            .MinimumLevel.Override("Microsoft.AspNetCore.DataProtection", LogEventLevel.Error)
            .Enrich.FromLogContext()
            .WriteTo.Console(new LogLine())
);

builder.WebHost.ConfigureKestrel(kestrel =>
{
    kestrel.AddServerHeader = false;
    kestrel.Limits.MaxRequestBodySize = Gate.MostBytes;
    kestrel.Listen(
        options.Host,
        options.Port ?? OwnListener.UsualPort,
        listen =>
        {
            if (options.Certificate is { } certificate)
                listen.UseHttps(certificate);
        }
    );
});

// Another name that leads to this machine is how a page of somebody else's would reach the shop (DNS rebinding).
builder.Services.Configure<HostFilteringOptions>(hosts =>
{
    hosts.AllowedHosts = [.. NetworkSetup.Hosts(options)];
    hosts.AllowEmptyHosts = false;
});
// What an address says is taken from the address: the gate asked by it, and no field or query of the same name may say otherwise.
builder.Services.AddRazorPages()
    .AddMvcOptions(mvc =>
    {
        var route = mvc.ValueProviderFactories.OfType<RouteValueProviderFactory>().Single();
        mvc.ValueProviderFactories.Remove(route);
        mvc.ValueProviderFactories.Insert(0, route);
        mvc.Filters.Add(new NoHandler());
    });
builder.Services.AddAntiforgery(antiforgery =>
{
    antiforgery.Cookie.Name = ShopCookies.Name("antiforgery", options.DataDirectory);
    antiforgery.Cookie.SameSite = SameSiteMode.Strict;
    antiforgery.HeaderName = "X-Mendro-Antiforgery";
});
using var folderLock = ShopLock.TryTake(options.DataDirectory);
if (folderLock is null)
{
    Console.Error.WriteLine($"Another Mendro works on “{options.DataDirectory}”. Close it first.");
    return 2;
}

builder.Services.Configure<CookieTempDataProviderOptions>(said =>
{
    said.Cookie.Name = ShopCookies.Name("said", options.DataDirectory);
    said.Cookie.SameSite = SameSiteMode.Strict;
});
builder
    .Services.AddDataProtection()
    .SetApplicationName("mendro")
    .PersistKeysToFileSystem(new DirectoryInfo(Path.Combine(options.DataDirectory, "keys")));
builder.Services.AddShop(options);
ShopDoor.Add(builder.Services, options.DataDirectory);
builder.Services.AddApi();
if (options.WarmUp)
    builder.Services.AddHostedService<WarmUp>();
builder.Services.AddHostedService<BenchWorker>();
builder.Services.AddHostedService<BackupKeeper>();
builder.Services.AddHostedService<BookWorker>();
builder.Services.AddHostedService<HookWorker>();
// What works behind the answers never ends the shop, whatever becomes of it.
builder.Services.Configure<HostOptions>(host => host.BackgroundServiceExceptionBehavior = BackgroundServiceExceptionBehavior.Ignore);
builder.Services.AddHealthChecks().AddCheck<DatabaseHealth>("database");

var app = builder.Build();
app.Services.GetRequiredService<ShopRoom>().Sweep();

try
{
    app.Services.GetRequiredService<ShopDatabase>().Migrate();
}
catch (ShopFileException ex)
{
    Console.Error.WriteLine(ex.Message);
    return 2;
}

app.Services.GetRequiredService<ProfileStore>().TakeIn(TradeLibrary.Shipped, options.DemoModels);
if (options.Demo)
{
    app.Services.GetRequiredService<DemoWorld>().SeedOnce();
    app.Services.GetRequiredService<BookKeeper>().SettleAll();
    app.Services.GetRequiredService<StandInHand>().Start();
    app.Services.GetRequiredService<DemoSuppliers>().Start();
}

// Who was taken out stays out, also after an older backup was restored.
app.Services.GetRequiredService<OwnerData>().Again();
app.Services.GetRequiredService<MethodDesk>().Refresh();

app.UseProxy(options);
app.UseMiddleware<SecurityHeaders>();
// Over TLS every cookie is for TLS only, whoever sets it.
app.UseCookiePolicy(new CookiePolicyOptions { Secure = CookieSecurePolicy.SameAsRequest });
app.UseExceptionHandler(
    new ExceptionHandlerOptions
    {
        ExceptionHandlingPath = "/Error",
        StatusCodeSelector = ErrorCode.Of,
    }
);
app.UseStatusCodePagesWithReExecute("/Error", "?code={0}");
app.UseMiddleware<ErrorPages>();
app.UseMiddleware<Gate>();
app.UseMiddleware<QueryGate>();
app.UseShippedFiles();
app.UseMiddleware<OneConnection>();
app.UseRouting();
app.UseAuthentication();
// Before anything that was sent is read: of whom nobody knows nothing is taken.
app.UseMiddleware<AccessGate>();
app.UseMiddleware<ProgramGate>();
app.UseRateLimiter();
app.UseMiddleware<FormGate>();
app.UseMiddleware<BrowserId>();
app.MapRazorPages();
app.MapShop();
app.MapApi();

app.Lifetime.ApplicationStarted.Register(() =>
{
    foreach (var line in NetworkSetup.Words(options, DateTimeOffset.Now))
        Console.WriteLine(line);
    if (app.Services.GetRequiredService<ShopDoor>().WaitsForOwner)
        Console.WriteLine(
            $"Nobody has an account yet. The first owner comes in with this code, once: {app.Services.GetRequiredService<FirstOwner>().Make()}"
        );
    var shop = app.Services.GetRequiredService<SettingsStore>().Get();
    // No instrument is looked for where Mendro itself answers.
    List<int> own = [.. app.Urls.Select(url => new Uri(url).Port)];
    app.Services.GetRequiredService<BenchMeter>().OwnPorts = own;
    app.Services.GetRequiredService<BenchSupply>().OwnPorts = own;
    app.Services.GetRequiredService<SupplierLink>().OwnPorts = own;
    app.Services.GetRequiredService<HookLink>().OwnPorts = own;
    if (options.Demo)
        Console.WriteLine($"A stand-in meter answers at {shop.Meter}, a stand-in supply at {shop.Supply}");
    foreach (var url in app.Urls)
        Console.WriteLine($"Mendro is open at {url}");
});
app.Run();
return 0;

/// <summary>Entry point; public so that the tests can host it.</summary>
public partial class Program;
