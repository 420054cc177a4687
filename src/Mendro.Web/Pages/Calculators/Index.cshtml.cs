using System.Globalization;
using System.Text.Json;
using Htmx;
using Mendro.Core.Calculators;
using Mendro.Core.Library;
using Mendro.Shop;
using Mendro.Storage;
using Mendro.Web.Drawing;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages.Calculators;

/// <summary>The bench calculators: each alone, or from a job with what is known filled in.</summary>
public sealed class IndexModel(JobStore jobs, CalculationDesk calculations, TradeLibrary library) : ShopPageModel
{
    private const string First = "resistor-bands";

    /// <summary>Name of the calculator.</summary>
    [BindProperty(SupportsGet = true)]
    public string? Name { get; set; }

    /// <summary>Number of the job it was opened from.</summary>
    [BindProperty(SupportsGet = true, Name = "job")]
    public long? Job { get; set; }

    /// <summary>The calculator shown.</summary>
    public Calculator Calculator { get; private set; } = null!;

    /// <summary>What was typed, by key.</summary>
    public Dictionary<string, string> Typed { get; private set; } = [];

    /// <summary>The calculation, when the inputs are complete.</summary>
    public Calculation? Result { get; private set; }

    /// <summary>Key at fault, or null.</summary>
    public string? WrongKey { get; private set; }

    /// <summary>What is wrong with it.</summary>
    public string? Wrong { get; private set; }

    /// <summary>True while nothing was typed yet: the example is shown.</summary>
    public bool IsExample { get; private set; }

    /// <summary>True when only the result is sent.</summary>
    public bool ResultOnly { get; private set; }

    /// <summary>Jobs it can be filed in.</summary>
    public IReadOnlyList<Job> Open { get; private set; } = [];

    /// <summary>Caution of the answer.</summary>
    public Caution? Caution => Result?.Answer.Caution is { } id ? library.FindCaution(id) : null;

    /// <summary>The drawing as markup, or null where none helps.</summary>
    public string? Drawing => Result is { } result ? Mendro.Web.Drawing.CalculatorDrawing.Of(result) : null;

    /// <summary>The inputs as a query, to link to this very calculation.</summary>
    public string Query => string.Join('&', Typed.Where(t => t.Value.Length > 0).Select(t => $"{t.Key}={Uri.EscapeDataString(t.Value)}"));

    /// <summary>Shows a calculator; computes as far as the query says.</summary>
    public IActionResult OnGet()
    {
        if (!Prepare(key => Request.Query.TryGetValue(key, out var value) ? value.ToString() : null))
            return NotFound();
        if (!Request.IsHtmx())
            return Page();
        ResultOnly = true;
        return Partial("_Result", this);
    }

    /// <summary>Files the calculation in a job.</summary>
    public IActionResult OnPost(string? file)
    {
        if (!Prepare(key => Request.Form.TryGetValue(key, out var value) ? value.ToString() : null))
            return NotFound();
        if (Result is not { } result || IsExample)
        {
            // A wrong key says at its own field what is wrong.
            return Wrong is null ? Refuse("Fill in the calculator first.") : RefuseAsShown();
        }

        var told = Words.Clean(file);
        if (!long.TryParse(told, NumberStyles.None, CultureInfo.InvariantCulture, out var number))
            return Refuse(told.Length == 0 ? "Choose the job to file it in." : $"“{told}” is not the number of a job.");
        return calculations
            .File(number, result, Once)
            .Match(
                done =>
                {
                    TempData["Said"] = done.Words;
                    return RedirectToPage("/Jobs/Find", new { number });
                },
                refusal => Refuse(refusal.Kind == RefusalKind.Missing ? $"“{told}” is not the number of a job." : refusal.Problem)
            );
    }

    private bool Prepare(Func<string, string?> told)
    {
        if (CalculatorShelf.Find(Name ?? First) is not { } calculator)
            return false;
        Calculator = calculator;
        Open = jobs.Live();
        Typed = calculator.Keys.ToDictionary(k => k.Name, k => told(k.Name) ?? "");
        IsExample = Typed.Values.All(t => t.Trim().Length == 0);
        var run = calculator.Run(IsExample ? calculator.Keys.ToDictionary(k => k.Name, k => k.Example) : Typed);
        Result = run.Value;
        if (run.Problem is { } problem)
        {
            var mark = problem.IndexOf(": ", StringComparison.Ordinal);
            (WrongKey, Wrong) = (problem[..mark], problem[(mark + 2)..]);
        }

        return true;
    }
}
