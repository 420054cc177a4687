using System.Globalization;
using Mendro.Shop;
using Mendro.Storage;

namespace Mendro.Web;

/// <summary>Days and times as the shop's wall clock shows them; kept in UTC, shown in the shop's own zone.</summary>
public sealed class ShopCalendar(SettingsStore settings, TimeProvider time)
{
    /// <summary>The shop's zone: the one set, else the machine's.</summary>
    public TimeZoneInfo Zone => ShopZone.Of(settings, time);

    /// <summary>When a day begins here, UTC; where the clocks skip that hour, what comes after.</summary>
    public DateTimeOffset Start(DateOnly day)
    {
        var local = day.ToDateTime(TimeOnly.MinValue);
        return new DateTimeOffset(local, Zone.GetUtcOffset(Zone.IsInvalidTime(local) ? local.AddHours(1) : local)).ToUniversalTime();
    }

    /// <summary>Today by the shop's own clock.</summary>
    public DateOnly Today => ShopZone.Day(time.GetUtcNow(), settings, time);

    /// <summary>A day such as <c>25 Nov 2026</c>.</summary>
    public string Day(DateTimeOffset at) => TimeZoneInfo.ConvertTime(at, Zone).ToString("d MMM yyyy", CultureInfo.InvariantCulture);

    /// <summary>A day such as <c>25 Nov 2026</c>.</summary>
    public string Day(DateOnly day) => day.ToString("d MMM yyyy", CultureInfo.InvariantCulture);

    /// <summary>Day and time such as <c>25 Nov 2026 22:14</c>.</summary>
    public string Time(DateTimeOffset at) => TimeZoneInfo.ConvertTime(at, Zone).ToString("d MMM yyyy HH:mm", CultureInfo.InvariantCulture);
}
