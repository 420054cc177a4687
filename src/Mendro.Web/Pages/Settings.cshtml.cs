using System.Globalization;
using System.Net;
using Mendro.Core.Library;
using Mendro.Core.Money;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;
using Mendro.Instruments;
using Mendro.Shop;
using Mendro.Storage;
using Mendro.Web.Access;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages;

/// <summary>The shop's settings.</summary>
public sealed class SettingsModel(
    SettingsStore settings,
    DailyBackup backups,
    BenchMeter meter,
    AccountDesk accounts,
    ServeOptions options,
    TimeProvider time
) : ShopPageModel
{
    /// <summary>The schools between originality and reliability, with their trade-off.</summary>
    public static IReadOnlyList<(string Value, string Name, string TradeOff)> Schools { get; } =
    [
        ("180", "Originality first", "modifications and new parts come late, even when they would be quicker"),
        ("60", "Balanced", "an hour of work is worth keeping a unit as it was made"),
        ("10", "Reliability first", "whatever works surest and soonest; disclose it at sale"),
    ];

    /// <summary>Themes with their names.</summary>
    public static IReadOnlyList<(string Value, string Name)> Themes { get; } =
        [("", "as the machine"), ("light", "light"), ("dark", "dark, for microscope work")];

    /// <summary>Name on the sheets.</summary>
    [BindProperty]
    public string? ShopName { get; set; }

    /// <summary>Currency.</summary>
    [BindProperty]
    public string? Currency { get; set; }

    /// <summary>Rate an hour, as typed.</summary>
    [BindProperty]
    public string? Rate { get; set; }

    /// <summary>Minutes given for originality, as typed.</summary>
    [BindProperty]
    public string? Originality { get; set; }

    /// <summary>Strength of the starting weights, as typed.</summary>
    [BindProperty]
    public string? Strength { get; set; }

    /// <summary>Minutes of the second look, as typed.</summary>
    [BindProperty]
    public string? LookMinutes { get; set; }

    /// <summary>Chance of the second look in per cent, as typed.</summary>
    [BindProperty]
    public string? LookPercent { get; set; }

    /// <summary>Time zone of the shop by its IANA name; blank for the machine's.</summary>
    [BindProperty]
    public string? TimeZone { get; set; }

    /// <summary>Volts at the wall.</summary>
    [BindProperty]
    public string? Wall { get; set; } = "230";

    /// <summary>Zone of the machine.</summary>
    public string MachineZone => time.LocalTimeZone.Id;

    /// <summary>Zones to choose from.</summary>
    public static IEnumerable<string> Zones =>
        TimeZoneInfo
            .GetSystemTimeZones()
            .Select(z => z.Id)
            .Where(id => id.Contains('/') && !id.StartsWith("Etc/", StringComparison.Ordinal))
            .Order(StringComparer.Ordinal);

    /// <summary>Address of the meter, as typed.</summary>
    [BindProperty]
    public string? Meter { get; set; }

    /// <summary>Address of the supply, as typed.</summary>
    [BindProperty]
    public string? Supply { get; set; }

    /// <summary>Shows them.</summary>
    public void OnGet()
    {
        var now = settings.Get();
        (ShopName, Currency, Rate) = (now.ShopName, now.Currency, now.RatePerHour.ToString("0.##", CultureInfo.InvariantCulture));
        Originality = now.OriginalityMinutes.ToString("0", CultureInfo.InvariantCulture);
        Strength = now.LearningStrength.ToString("0.##", CultureInfo.InvariantCulture);
        LookMinutes = now.SecondLookMinutes.ToString("0.#", CultureInfo.InvariantCulture);
        (Meter, Supply, TimeZone) = (now.Meter?.ToString(), now.Supply?.ToString(), now.TimeZone);
        Wall = now.WallVolts.ToString("0", CultureInfo.InvariantCulture);
        LookPercent = (now.SecondLookChance * 100).ToString("0.#", CultureInfo.InvariantCulture);
    }

    /// <summary>Saves them.</summary>
    public IActionResult OnPost()
    {
        var code = Words.Clean(Currency).ToUpperInvariant();
        if (Words.Clean(ShopName).Length is 0 or > 80)
            ModelState.AddModelError("", "The shop needs a name of up to 80 characters.");
        if (!Mendro.Core.Money.Currency.IsCode(code))
            ModelState.AddModelError("", "The currency is three letters, such as EUR.");
        if (Words.Clean(TimeZone).Length > 0 && Mendro.Shop.ShopZone.Find(Words.Clean(TimeZone)) is null)
            ModelState.AddModelError(
                "",
                $"“{TimeZone}” is no time zone. Choose one from the list, such as Europe/Berlin, or leave it blank."
            );
        var wrong = Amount.TryRead(Rate, new Currency(code), out var rate);
        if (wrong is not null || rate is not { Value: > 0 })
            ModelState.AddModelError("", wrong ?? "An hour of work must be worth more than nothing.");
        if (Schools.All(s => s.Value != Originality))
            ModelState.AddModelError("", "Choose one of the three schools.");
        if (Words.Number(Strength) is not (>= 0.1 and <= 100))
            ModelState.AddModelError("", "A starting weight is worth 0.1 to 100 cases; 2 is a good beginning.");
        if (Words.Number(LookMinutes) is not (>= 1 and <= 600))
            ModelState.AddModelError("", "A second look looks 1 to 600 minutes ahead.");
        if (Words.Number(LookPercent) is not (>= 1 and <= 99))
            ModelState.AddModelError("", "The line of the second look lies between 1 and 99 %.");
        foreach (var (name, text) in new[] { ("meter", Meter), ("supply", Supply) })
            if (Words.Clean(text).Length > 0 && InstrumentAddress.Parse(text!) is null)
                ModelState.AddModelError("", $"“{text}” is no address of a {name}. Try 192.168.1.40:5025.");
        foreach (var text in new[] { Meter, Supply })
            if (
                InstrumentAddress.Parse(Words.Clean(text)) is { } address
                && IPAddress.TryParse(address.Host.Trim('[', ']'), out var ip)
                && !BenchNetwork.IsNear(ip)
            )
                ModelState.AddModelError("", $"“{text}”: instruments are asked in the shop's own network only, such as 192.168.1.40.");
        if (Words.Number(Wall) is not { } wall || !MainsFit.Walls.Contains(wall))
        {
            ModelState.AddModelError("", "The wall gives 230, 120 or 100 V.");
            wall = 0;
        }

        if (!ModelState.IsValid)
            return RefuseAsShown();

        settings.Save(
            new ShopSettings(
                Words.Clean(ShopName),
                code,
                rate!.Value.Value,
                double.Parse(Originality!, CultureInfo.InvariantCulture),
                Words.Number(Strength)!.Value,
                Words.Number(LookMinutes)!.Value,
                Words.Number(LookPercent)!.Value / 100,
                InstrumentAddress.Parse(Words.Clean(Meter)),
                InstrumentAddress.Parse(Words.Clean(Supply)),
                Words.Clean(TimeZone),
                wall
            )
        );
        TempData["Said"] = "Saved.";
        return Redirect("/Settings");
    }

    /// <summary>Asks the instrument at an address who it is.</summary>
    public async Task<IActionResult> OnPostTestAsync(string? which, CancellationToken cancel)
    {
        var text = Words.Clean(which == "supply" ? Supply : Meter);
        if (InstrumentAddress.Parse(text) is not { } address)
            return Partial(
                "_Tested",
                (false, text.Length == 0 ? "Type an address first, such as 192.168.1.40:5025." : $"“{text}” is no address.")
            );
        try
        {
            // What else may listen there is nobody's business: only whether it is an instrument.
            return await meter.IsInstrumentAsync(address, cancel)
                ? Partial("_Tested", (true, "A SCPI instrument answers there."))
                : Partial("_Tested", (false, "Something is there, but it is no SCPI instrument."));
        }
        catch (InstrumentLinkException ex)
        {
            return Partial("_Tested", (false, ex.Message));
        }
    }

    /// <summary>Who reaches the shop now.</summary>
    public string Reach =>
        !options.IsNetwork ? accounts.Any ? "this machine only; everybody signs in" : "this machine only; whoever sits at it may everything"
        : options.Certificate is not null ? "open to the network, by a certificate"
        : options.Proxy is { } before ? $"open to the network, behind the proxy {before}"
        : "open to the network in the clear";

    /// <summary>Names in the network, as saved or typed.</summary>
    public string NetworkNames => InField("names", settings.Value(NetworkSetup.NamesKey) ?? "");

    /// <summary>Proxy, as saved or typed.</summary>
    public string NetworkProxy => InField("proxy", settings.Value(NetworkSetup.ProxyKey) ?? "");

    /// <summary>Saves names and proxy, for the next start.</summary>
    public IActionResult OnPostNetwork(string? names, string? proxy)
    {
        var (told, before) = (NetworkSetup.Names(names), Words.Clean(proxy));
        Remember(("names", names), ("proxy", proxy));
        var wrong =
            told.FirstOrDefault(n => !NetworkSetup.IsName(n)) is { } bad ? $"“{bad}” is no name of a machine. Try mendro.lan."
            : before.Length > 0 && !IPAddress.TryParse(before, out _) ? $"The proxy is named by its address; “{before}” is none."
            : before.Length > 0 && !accounts.Any ? "Through a proxy others reach the shop: make the first account before you name one."
            : null;
        if (wrong is not null)
        {
            ModelState.Clear();
            OnGet();
            return Refuse(wrong);
        }

        settings.SetValue(NetworkSetup.NamesKey, string.Join(' ', told));
        settings.SetValue(NetworkSetup.ProxyKey, before);
        TempData["Said"] = "Saved. It holds from the next start on.";
        return Redirect("/Settings");
    }

    /// <summary>The shop's own backups.</summary>
    public DailyBackup Backups => backups;

    /// <summary>Takes a backup now.</summary>
    public IActionResult OnPostBackup()
    {
        TempData["Said"] = backups.Take() is { } problem ? problem : "Backup taken.";
        return RedirectToPage();
    }

    /// <summary>Remembers the theme on this machine.</summary>
    public IActionResult OnPostTheme(string? theme, string? from)
    {
        if (theme is "light" or "dark")
            Response.Cookies.Append(
                "mendro.theme",
                theme,
                new CookieOptions
                {
                    HttpOnly = true,
                    SameSite = SameSiteMode.Strict,
                    MaxAge = TimeSpan.FromDays(3650),
                    IsEssential = true,
                }
            );
        else
            Response.Cookies.Delete("mendro.theme");
        return Redirect(from == "me" ? "/Me" : "/Settings");
    }
}
