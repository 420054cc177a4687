using System.Text;
using Mendro.Shop;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages;

/// <summary>The shop's calendar as calendar programs follow it.</summary>
public sealed class CalendarFeedModel(CalendarDesk desk, ShopCalendar calendar) : PageModel
{
    /// <summary>The feed.</summary>
    public IActionResult OnGet() => File(Encoding.UTF8.GetBytes(desk.Feed(calendar.Zone)), "text/calendar", "mendro.ics");
}
