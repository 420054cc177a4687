using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Money;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>Sale: what it may fetch, the listing, and what became of it.</summary>
public sealed class SaleModel(JobStore jobs, BenchDesk desk, SaleDesk sale, CostDesk costs, ShopCalendar calendar, TradeLibrary library)
    : JobPageModel(jobs, desk, library)
{
    private const int LongestFile = 256 * 1024;

    /// <summary>Grade to reckon with; that of the unit when nothing is said.</summary>
    [BindProperty(SupportsGet = true)]
    public string? Grade { get; set; }

    /// <summary>All that decides a price.</summary>
    public SaleSheet Sheet { get; private set; } = null!;

    /// <summary>The shop's template, as typed or kept.</summary>
    public string Template { get; private set; } = "";

    /// <summary>Tax that applies today.</summary>
    public TaxRule Tax => costs.TaxToday;

    /// <summary>Today.</summary>
    public DateOnly Today => calendar.Today;

    /// <summary>Lines of a file that could not be read.</summary>
    public IReadOnlyList<string> Problems { get; private set; } = [];

    /// <summary>Shows it.</summary>
    public IActionResult OnGet() => Prepare() ? Page() : NotFound();

    /// <summary>Adds one price.</summary>
    public IActionResult OnPostAdd(string? day, string? condition, string? price, string? words)
    {
        if (!Keep(("day", day), ("price", price), ("words", words)))
            return NotFound();
        var read = ComparableFile.One(day ?? "", condition ?? "", price ?? "", Words.Clean(words), View.Currency, calendar.Today);
        return read.IsOk ? Answer(sale.Add(View, [read.Value!], Once), Back) : Refuse(read.Problem);
    }

    /// <summary>Adds the prices of a file, all or none.</summary>
    public async Task<IActionResult> OnPostFile(IFormFile? file)
    {
        if (!Prepare())
            return NotFound();
        if (await TextOf(null, file, LongestFile) is not { Length: > 0 } text)
            return Refuse("Choose a CSV file with date, condition and price.");
        var prices = ComparableFile.Read(text, View.Currency, calendar.Today, out var problems);
        if (problems.Count == 0)
            return Answer(sale.Add(View, prices, Once), Back);
        Problems = problems;
        return Refuse($"Nothing was taken: {problems.Count} {(problems.Count == 1 ? "line" : "lines")} could not be read.");
    }

    /// <summary>Takes a price away, or brings it back.</summary>
    public IActionResult OnPostRemove(long id, bool back) => Prepare() ? Answer(sale.Remove(id, back, Once), Back) : NotFound();

    /// <summary>Keeps what selling costs, and the template.</summary>
    public IActionResult OnPostTerms(string? fees, string? postage, string? packing, string? template)
    {
        if (!Keep(("fees", fees), ("postage", postage), ("packing", packing)))
            return NotFound();
        Template = template ?? "";
        if (Numbers(fees, postage, packing) is not { } told)
            return Refuse("Fees in %, postage and packing are numbers.");
        return Answer(sale.Keep(new SaleTerms(told[0], told[1], told[2]), Words.Clean(template), Once), Back);
    }

    /// <summary>Notes what became of it.</summary>
    public IActionResult OnPostBecomes(string? state, string? price, string? fees, string? postage, string? packing, string? words, string? tax)
    {
        if (!Keep(("soldTax", tax), ("sold", price), ("soldFees", fees), ("soldPostage", postage), ("soldPacking", packing), ("soldWords", words)))
            return NotFound();
        if (!Enum.TryParse<SaleState>(state, out var became) || !Enum.IsDefined(became))
            return Refuse("Say what became of it.");
        if (Amount.TryRead(price, View.Currency, out var fetched) is { } wrong)
            return Refuse(wrong);
        if (Numbers(fees, postage, packing) is not { } told)
            return Refuse("Fees, postage and packing are amounts.");
        var order = new Sale
        {
            State = became,
            Price = fetched?.Value,
            Fees = told[0],
            Postage = told[1],
            Packing = told[2],
            Words = Words.Clean(words),
            Tax = Words.Clean(tax),
        };
        return Answer(sale.Becomes(Number, order, Once), Back);
    }

    private static decimal[]? Numbers(params string?[] texts)
    {
        var read = texts.Select(t => string.IsNullOrWhiteSpace(t) ? 0 : Words.Number(t)).ToList();
        return read.All(n => n is >= 0 and < 1e9) ? read.Select(n => (decimal)n!.Value).ToArray() : null;
    }

    private IActionResult Back(Done done)
    {
        if (done.Words.Length > 0)
            TempData["Said"] = done.Words;
        return RedirectToPage(new { number = Number, grade = Grade });
    }

    private bool Keep(params (string Name, string? Value)[] typed)
    {
        Remember(typed);
        return Prepare();
    }

    private bool Prepare()
    {
        if (!Load())
            return false;
        Sheet = sale.Open(View, ConditionGrade.Find(Grade), calendar.Today, calendar.Day);
        Template = sale.Template;
        return true;
    }
}
