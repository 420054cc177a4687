using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>The shop's time zone: a day is a day there.</summary>
public static class ShopZone
{
    /// <summary>The zone that is set, else that of the machine.</summary>
    public static TimeZoneInfo Of(SettingsStore settings, TimeProvider time) => Find(settings.Get().TimeZone) ?? time.LocalTimeZone;

    /// <summary>The shop's day of a moment.</summary>
    public static DateOnly Day(DateTimeOffset at, SettingsStore settings, TimeProvider time) =>
        DateOnly.FromDateTime(TimeZoneInfo.ConvertTime(at, Of(settings, time)).DateTime);

    /// <summary>A zone by its id, or null.</summary>
    public static TimeZoneInfo? Find(string? id) =>
        id is { Length: > 0 } && TimeZoneInfo.TryFindSystemTimeZoneById(id, out var zone) ? zone : null;
}
