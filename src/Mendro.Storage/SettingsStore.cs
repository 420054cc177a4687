using System.Globalization;
using Dapper;
using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Money;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;

namespace Mendro.Storage;

/// <summary>The shop's settings.</summary>
/// <param name="ShopName">Name on the sheets.</param>
/// <param name="Currency">ISO 4217 code.</param>
/// <param name="RatePerHour">Value of an hour of work, in the currency; above 0.</param>
/// <param name="OriginalityMinutes">Minutes of work given to avoid a full loss of originality: high is originality first, low is
/// reliability first.</param>
/// <param name="LearningStrength">Cases found that a starting weight is worth when the shop learns; above 0.</param>
/// <param name="SecondLookMinutes">Minutes of work within which a second look should cure.</param>
/// <param name="SecondLookChance">Chance from which a second look is worth it, 0 to 1.</param>
/// <param name="Meter">Bench meter, or null.</param>
/// <param name="Supply">Bench supply, or null.</param>
/// <param name="TimeZone">IANA name of the shop's time zone; blank for the machine's.</param>
/// <param name="WallVolts">Volts at the shop's wall.</param>
public sealed record ShopSettings(
    string ShopName,
    string Currency,
    decimal RatePerHour,
    double OriginalityMinutes,
    double LearningStrength = ShopLessons.DefaultStrength,
    double SecondLookMinutes = 20,
    double SecondLookChance = 0.4,
    InstrumentAddress? Meter = null,
    InstrumentAddress? Supply = null,
    string TimeZone = "",
    double WallVolts = MainsFit.UsualWall
)
{
    /// <summary>Value of an hour of work.</summary>
    public Amount PerHour => new(RatePerHour, Currency);

    /// <summary>What an hour is worth where it may have a worth of its own.</summary>
    /// <param name="own">Its own, or null for the shop's.</param>
    /// <param name="currency">Currency of its own, ISO 4217.</param>
    public Amount HourOr(decimal? own, string currency) => own is { } told ? new Amount(told, currency) : PerHour;

    /// <summary>Settings of an empty shop.</summary>
    public static ShopSettings Default { get; } = new("My workshop", "EUR", 30, 60);
}

/// <summary>Keeps the settings.</summary>
public sealed class SettingsStore(ShopDatabase database)
{
    /// <summary>The settings; defaults where nothing was set.</summary>
    public ShopSettings Get()
    {
        var rows = database
            .Read(connection => connection.Query<(string Key, string Value)>("SELECT key, value FROM settings"))
            .ToDictionary(r => r.Key, r => r.Value);
        var standard = ShopSettings.Default;
        double Number(string key, double otherwise) =>
            double.TryParse(rows.GetValueOrDefault(key), NumberStyles.Float, CultureInfo.InvariantCulture, out var told)
            && double.IsFinite(told)
                ? told
                : otherwise;
        return new ShopSettings(
            rows.GetValueOrDefault("shop-name", standard.ShopName),
            rows.GetValueOrDefault("currency", standard.Currency),
            decimal.TryParse(rows.GetValueOrDefault("rate-per-hour"), NumberStyles.Float, CultureInfo.InvariantCulture, out var rate)
                ? rate
                : standard.RatePerHour,
            Number("originality-minutes", standard.OriginalityMinutes),
            Number("learning-strength", standard.LearningStrength),
            Number("second-look-minutes", standard.SecondLookMinutes),
            Number("second-look-chance", standard.SecondLookChance),
            InstrumentAddress.Parse(rows.GetValueOrDefault("meter", "")),
            InstrumentAddress.Parse(rows.GetValueOrDefault("supply", "")),
            rows.GetValueOrDefault("time-zone", ""),
            Number("wall-volts", MainsFit.WallOf(rows.GetValueOrDefault("currency", standard.Currency)))
        );
    }

    /// <summary>Saves the settings.</summary>
    public void Save(ShopSettings settings) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "INSERT INTO settings (key, value) VALUES (@Key, @Value) ON CONFLICT (key) DO UPDATE SET value = excluded.value",
                    new[]
                    {
                        new { Key = "shop-name", Value = settings.ShopName },
                        new { Key = "currency", Value = settings.Currency },
                        new { Key = "rate-per-hour", Value = settings.RatePerHour.ToString(CultureInfo.InvariantCulture) },
                        new { Key = "originality-minutes", Value = settings.OriginalityMinutes.ToString(CultureInfo.InvariantCulture) },
                        new { Key = "learning-strength", Value = settings.LearningStrength.ToString(CultureInfo.InvariantCulture) },
                        new { Key = "second-look-minutes", Value = settings.SecondLookMinutes.ToString(CultureInfo.InvariantCulture) },
                        new { Key = "meter", Value = settings.Meter?.ToString() ?? "" },
                        new { Key = "supply", Value = settings.Supply?.ToString() ?? "" },
                        new { Key = "time-zone", Value = settings.TimeZone },
                        new { Key = "wall-volts", Value = settings.WallVolts.ToString(CultureInfo.InvariantCulture) },
                        new { Key = "second-look-chance", Value = settings.SecondLookChance.ToString(CultureInfo.InvariantCulture) },
                    },
                    transaction
                )
        );

    /// <summary>A single value, such as the mark that the demo world is in.</summary>
    public string? Value(string key) =>
        database.Read(connection => connection.QueryFirstOrDefault<string>("SELECT value FROM settings WHERE key = @key", new { key }));

    /// <summary>Sets a single value.</summary>
    public void SetValue(string key, string value) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "INSERT INTO settings (key, value) VALUES (@key, @value) ON CONFLICT (key) DO UPDATE SET value = excluded.value",
                    new { key, value },
                    transaction
                )
        );
}
