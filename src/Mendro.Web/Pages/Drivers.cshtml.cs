using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages;

/// <summary>Drivers to lay out for the day.</summary>
public sealed class DriversModel(MeanwhileDesk day) : PageModel
{
    /// <summary>Drivers with the jobs that need them, the most needed first.</summary>
    public IReadOnlyList<(string Driver, IReadOnlyList<Job> Jobs)> Drivers { get; private set; } = [];

    /// <summary>Shows them.</summary>
    public void OnGet() => Drivers = day.Drivers();
}
