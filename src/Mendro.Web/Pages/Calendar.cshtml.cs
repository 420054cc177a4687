using Mendro.Shop;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages;

/// <summary>The shop's calendar feed, and fixed hours from other calendars.</summary>
public sealed class CalendarModel(CalendarDesk desk, ShopCalendar calendar) : ShopPageModel
{
    /// <summary>Zone of the shop.</summary>
    public string Zone => calendar.Zone.Id;

    /// <summary>Address of the feed.</summary>
    public string Address => $"{Request.Scheme}://{Request.Host}/calendar.ics";

    /// <summary>Shows the page.</summary>
    public void OnGet() { }

    /// <summary>Takes hours in.</summary>
    public async Task<IActionResult> OnPostAsync(IFormFile? file)
    {
        if (file is not { Length: > 0 })
            return Refuse("Choose an iCalendar file.");
        if (file.Length > CalendarFile.Longest)
            return Refuse("The file is too long: at most 2 MB.");
        using var reader = new StreamReader(file.OpenReadStream());
        return Answer(
            desk.Import(await reader.ReadToEndAsync(HttpContext.RequestAborted), calendar.Zone, Once),
            done =>
            {
                TempData["Said"] = done.Words;
                return RedirectToPage("/Day/Hours");
            }
        );
    }
}
