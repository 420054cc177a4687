using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>Why: what speaks for and against each suspect, and what would explain each finding.</summary>
public sealed class WhyModel(JobStore jobs, BenchDesk desk, TradeLibrary library) : JobPageModel(jobs, desk, library)
{
    /// <summary>The reasons, or null when there is no diagnosis.</summary>
    public Why? Reasons { get; private set; }

    /// <summary>Shows it.</summary>
    public IActionResult OnGet()
    {
        if (!Load())
            return NotFound();
        Reasons = Desk.Reason(View) is { } diagnosis ? Why.Make(diagnosis) : null;
        return Page();
    }

    /// <summary>A factor on the odds as the bench says it.</summary>
    public static string Factor(double factor) =>
        factor switch
        {
            >= 1000 => "more than × 1000",
            <= 0.001 => "less than ÷ 1000",
            >= 1 => string.Create(
                System.Globalization.CultureInfo.InvariantCulture,
                $"× {(factor < 10 ? Math.Round(factor, 1) : Math.Round(factor)):0.#}"
            ),
            _ => string.Create(
                System.Globalization.CultureInfo.InvariantCulture,
                $"÷ {(1 / factor < 10 ? Math.Round(1 / factor, 1) : Math.Round(1 / factor)):0.#}"
            ),
        };
}
