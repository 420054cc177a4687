using System.Globalization;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Storage;
using Mendro.Web;
using Mendro.Web.Bench;
using Mendro.Web.Demo;
using Mendro.Web.Meter;
using Microsoft.AspNetCore.DataProtection;
using Serilog;
using Serilog.Events;

var builder = WebApplication.CreateBuilder(args);
var options = ServeOptions.From(builder.Configuration);

builder.Host.UseSerilog((_, logging) => logging
    .MinimumLevel.Information()
    .MinimumLevel.Override("Microsoft", LogEventLevel.Warning)
    // The keys lie in the shop's own folder beside its data; encrypting them there would protect nothing more.
    .MinimumLevel.Override("Microsoft.AspNetCore.DataProtection", LogEventLevel.Error)
    .Enrich.FromLogContext()
    .WriteTo.Console(formatProvider: CultureInfo.InvariantCulture,
        outputTemplate: "{Timestamp:HH:mm:ss} {Level:u3} {Message:lj} {Properties:j}{NewLine}{Exception}"));

// Loopback unless told otherwise: the shop's data is nobody else's business.
if (options.Port is { } port) builder.WebHost.UseUrls($"http://{options.Host}:{port}");
builder.WebHost.ConfigureKestrel(kestrel =>
{
    kestrel.AddServerHeader = false;
    kestrel.Limits.MaxRequestBodySize = 2 * 1024 * 1024;
});

builder.Services.AddRazorPages();
builder.Services.AddAntiforgery(antiforgery =>
{
    antiforgery.Cookie.Name = "mendro.antiforgery";
    antiforgery.Cookie.SameSite = SameSiteMode.Strict;
    antiforgery.HeaderName = "X-Mendro-Antiforgery";
});
Directory.CreateDirectory(options.DataDirectory);
builder.Services.AddDataProtection().SetApplicationName("mendro")
    .PersistKeysToFileSystem(new DirectoryInfo(Path.Combine(options.DataDirectory, "keys")));
builder.Services.AddSingleton(TimeProvider.System);
builder.Services.AddSingleton(TradeLibrary.Shipped);
builder.Services.AddSingleton(new ShopDatabase(Path.Combine(options.DataDirectory, "shop.db")));
builder.Services.AddSingleton<JobStore>();
builder.Services.AddSingleton<BenchRecordStore>();
builder.Services.AddSingleton<ProfileStore>();
builder.Services.AddSingleton<SettingsStore>();
builder.Services.AddSingleton<Timeline>();
builder.Services.AddSingleton<GearStore>();
builder.Services.AddSingleton<LessonStore>();
builder.Services.AddSingleton<SecondLookStore>();
builder.Services.AddSingleton<GoodReadingStore>();
builder.Services.AddSingleton<ContactMarkStore>();
builder.Services.AddSingleton<ModelShelf>();
builder.Services.AddSingleton<ShopExperience>();
builder.Services.AddSingleton<SecondLookDesk>();
builder.Services.AddSingleton<PracticeDesk>();
builder.Services.AddSingleton<BenchDesk>();
builder.Services.AddSingleton<StandInTruthStore>();
builder.Services.AddSingleton<BenchMeter>();
builder.Services.AddSingleton<BenchSupply>();
builder.Services.AddSingleton<StandInBench>();
builder.Services.AddSingleton<LiveReadings>();
builder.Services.AddSingleton<DemoWorld>();
builder.Services.AddHostedService<WarmUp>();
builder.Services.AddHealthChecks().AddCheck<DatabaseHealth>("database");

var app = builder.Build();

app.Services.GetRequiredService<ShopDatabase>().Migrate();
app.Services.GetRequiredService<ProfileStore>().TakeIn(TradeLibrary.Shipped);
if (options.Demo)
{
    app.Services.GetRequiredService<DemoWorld>().SeedOnce();
    app.Services.GetRequiredService<StandInBench>().Start();
}

app.UseMiddleware<SecurityHeaders>();
app.UseExceptionHandler("/Error");
app.UseStatusCodePagesWithReExecute("/Error", "?code={0}");
app.UseStaticFiles();
app.UseRouting();
app.MapRazorPages();
app.MapGet("/Jobs/{number:long}/Live", (HttpContext context, long number, string? probe, string? contact, LiveReadings live) => live.StreamAsync(context, number, probe, contact));
app.MapHealthChecks("/health");

app.Lifetime.ApplicationStarted.Register(() =>
{
    var shop = app.Services.GetRequiredService<SettingsStore>().Get();
    if (options.Demo) Console.WriteLine($"A stand-in meter answers at {shop.Meter}, a stand-in supply at {shop.Supply}");
    foreach (var url in app.Urls) Console.WriteLine($"Mendro is open at {url}");
});
app.Run();

/// <summary>Entry point; public so that the tests can host it.</summary>
public partial class Program;
