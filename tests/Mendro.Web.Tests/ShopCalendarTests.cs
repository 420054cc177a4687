using System.Globalization;
using System.Net;
using Mendro.Core.Money;
using Mendro.Storage;
using Microsoft.Extensions.Time.Testing;

namespace Mendro.Web.Tests;

/// <summary>Times are kept in UTC and shown by the shop's own clock.</summary>
public sealed class ShopCalendarTests(WebShop shop) : IClassFixture<WebShop>
{
    private readonly WebShop _shop = shop;

    /// <summary>Nepal is 5 h 45 min ahead of UTC, without summer time (IANA time zone database).</summary>
    [Theory]
    [InlineData("", "UTC", "24 Nov 2026 18:20")]
    [InlineData("Asia/Kathmandu", "UTC", "25 Nov 2026 00:05")]
    [InlineData("", "Asia/Kathmandu", "25 Nov 2026 00:05")]
    [InlineData("UTC", "Asia/Kathmandu", "24 Nov 2026 18:20")]
    [InlineData("Nowhere/Town", "Asia/Kathmandu", "25 Nov 2026 00:05")]
    public void The_shops_zone_goes_before_the_machines(string set, string machine, string shown)
    {
        var settings = _shop.Service<SettingsStore>();
        settings.Save(settings.Get() with { TimeZone = set });
        var at = new DateTimeOffset(2026, 11, 24, 18, 20, 0, TimeSpan.Zero);
        var time = new FakeTimeProvider(at);
        time.SetLocalTimeZone(TimeZoneInfo.FindSystemTimeZoneById(machine));
        var calendar = new ShopCalendar(settings, time);
        var before = CultureInfo.CurrentCulture;
        try
        {
            CultureInfo.CurrentCulture = new CultureInfo("de-DE");
            calendar.Time(at).ShouldBe(shown);
            calendar.Day(at).ShouldBe(shown[..^6]);
        }
        finally
        {
            CultureInfo.CurrentCulture = before;
        }

        calendar.Today.ShouldBe(DateOnly.ParseExact(shown[..^6], "d MMM yyyy", CultureInfo.InvariantCulture));
    }

    [Fact]
    public async Task A_zone_that_does_not_exist_is_told_and_kept_as_typed()
    {
        var before = _shop.Service<SettingsStore>().Get().TimeZone;
        using var refused = await _shop.SaveSettings(("TimeZone", "Nowhere/Town"));
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var page = await WebShop.Parse(refused);
        page.Body!.TextContent.ShouldContain("“Nowhere/Town” is no time zone");
        page.QuerySelector("input[name=TimeZone]")!.GetAttribute("value").ShouldBe("Nowhere/Town");
        _shop.Service<SettingsStore>().Get().TimeZone.ShouldBe(before);
    }
}
