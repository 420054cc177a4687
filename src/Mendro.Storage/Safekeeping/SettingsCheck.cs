using System.Globalization;
using System.Text.Json;
using Mendro.Core.Money;
using Mendro.Core.Readings;

namespace Mendro.Storage;

/// <summary>What the settings of an export may hold.</summary>
internal static class SettingsCheck
{
    private const int Longest = 200_000;

    /// <summary>True for what says how the shop is reached: it never comes in.</summary>
    public static bool BelongsToMachine(string key) => key.StartsWith("network-", StringComparison.Ordinal);

    /// <summary>Says what is wrong with a setting; null when it may come in.</summary>
    public static string? Wrong(string key, string? value) =>
        value is null || value.Length > Longest ? "is missing or too long"
        : key switch
        {
            "currency" => Currency.IsCode(value) ? null : "is no currency such as EUR",
            "rate-per-hour" => decimal.TryParse(value, NumberStyles.Float, CultureInfo.InvariantCulture, out var rate) && rate is > 0 and < 1_000_000
                ? null
                : "is no hourly rate",
            "originality-minutes" or "learning-strength" or "second-look-minutes" or "second-look-chance" or "wall-volts" => double.TryParse(
                value,
                NumberStyles.Float,
                CultureInfo.InvariantCulture,
                out var number
            ) && double.IsFinite(number)
                ? null
                : "is no number",
            "meter" or "supply" => value.Length == 0 || InstrumentAddress.Parse(value) is not null ? null : "is no address of an instrument",
            "time-zone" => value.Length == 0 || TimeZoneInfo.TryFindSystemTimeZoneById(value, out _) ? null : "is no time zone",
            "sale-terms" or "day-terms" or "tax-rule" or "account-numbers" => IsObject(value) ? null : "cannot be read as JSON",
            _ => null,
        };

    private static bool IsObject(string value)
    {
        try
        {
            using var document = JsonDocument.Parse(value);
            return document.RootElement.ValueKind == JsonValueKind.Object;
        }
        catch (JsonException)
        {
            return false;
        }
    }
}
