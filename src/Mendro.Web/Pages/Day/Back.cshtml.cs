using Mendro.Core.Scheduling;
using Mendro.Shop;

namespace Mendro.Web.Pages.Day;

/// <summary>Looks back on the weeks and the month.</summary>
public sealed class BackModel(LookBackDesk desk, MoneyDesk money, ShopCalendar calendar) : ShopPageModel
{
    private const int Count = 8;

    /// <summary>Weeks, the oldest first.</summary>
    public IReadOnlyList<WeekPast> Weeks { get; private set; } = [];

    /// <summary>Gain an hour by kind of work this month.</summary>
    public IReadOnlyList<GainLine> ByKind { get; private set; } = [];

    /// <summary>Shows them.</summary>
    public void OnGet()
    {
        Weeks = desk.Weeks(Count, calendar.Zone);
        ByKind = money.Month(new DateOnly(calendar.Today.Year, calendar.Today.Month, 1)).ByKind;
    }
}
