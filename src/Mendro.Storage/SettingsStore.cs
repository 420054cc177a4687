using System.Globalization;
using Dapper;

namespace Mendro.Storage;

/// <summary>The shop's settings.</summary>
/// <param name="ShopName">Name on the sheets.</param>
/// <param name="Currency">ISO 4217 code.</param>
/// <param name="RatePerHour">Value of an hour of work, in the currency; above 0.</param>
/// <param name="OriginalityMinutes">Minutes of work given to avoid a full loss of originality: high is originality first, low is reliability first.</param>
public sealed record ShopSettings(string ShopName, string Currency, decimal RatePerHour, double OriginalityMinutes)
{
    /// <summary>Settings of an empty shop.</summary>
    public static ShopSettings Default { get; } = new("My workshop", "EUR", 30, 60);
}

/// <summary>Keeps the settings.</summary>
public sealed class SettingsStore(ShopDatabase database)
{
    /// <summary>The settings; defaults where nothing was set.</summary>
    public ShopSettings Get()
    {
        using var connection = database.Open();
        var rows = connection.Query<(string Key, string Value)>("SELECT key, value FROM settings").ToDictionary(r => r.Key, r => r.Value);
        var standard = ShopSettings.Default;
        return new ShopSettings(
            rows.GetValueOrDefault("shop-name", standard.ShopName),
            rows.GetValueOrDefault("currency", standard.Currency),
            rows.TryGetValue("rate-per-hour", out var rate) ? decimal.Parse(rate, CultureInfo.InvariantCulture) : standard.RatePerHour,
            rows.TryGetValue("originality-minutes", out var minutes) ? double.Parse(minutes, CultureInfo.InvariantCulture) : standard.OriginalityMinutes);
    }

    /// <summary>Saves the settings.</summary>
    public void Save(ShopSettings settings) => database.Write((connection, transaction) => connection.Execute(
        "INSERT INTO settings (key, value) VALUES (@Key, @Value) ON CONFLICT (key) DO UPDATE SET value = excluded.value",
        new[]
        {
            new { Key = "shop-name", Value = settings.ShopName },
            new { Key = "currency", Value = settings.Currency },
            new { Key = "rate-per-hour", Value = settings.RatePerHour.ToString(CultureInfo.InvariantCulture) },
            new { Key = "originality-minutes", Value = settings.OriginalityMinutes.ToString(CultureInfo.InvariantCulture) },
        }, transaction));

    /// <summary>A single value, such as the mark that the demo world is in.</summary>
    public string? Value(string key)
    {
        using var connection = database.Open();
        return connection.QueryFirstOrDefault<string>("SELECT value FROM settings WHERE key = @key", new { key });
    }

    /// <summary>Sets a single value.</summary>
    public void SetValue(string key, string value) => database.Write((connection, transaction) => connection.Execute(
        "INSERT INTO settings (key, value) VALUES (@key, @value) ON CONFLICT (key) DO UPDATE SET value = excluded.value", new { key, value }, transaction));
}
