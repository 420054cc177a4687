using System.Text;
using Mendro.Core.Library;
using Mendro.Core.Money;
using Mendro.Core.Papers;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>Bills of a job: made, printed, taken back.</summary>
public sealed class BillModel(JobStore jobs, BenchDesk desk, BillDesk bills, ShopCalendar calendar, TradeLibrary library)
    : JobPageModel(jobs, desk, library)
{
    /// <summary>Number of the bill that is shown; the newest when nothing is said.</summary>
    [BindProperty(SupportsGet = true, Name = "bill")]
    public string? Which { get; set; }

    /// <summary>Bills that were given out, the oldest first.</summary>
    public IReadOnlyList<GivenBill> Given { get; private set; } = [];

    /// <summary>The bill that is shown; null for none.</summary>
    public Bill? Shown => (Given.FirstOrDefault(b => b.Paper.Number == Which) ?? (Given.Count > 0 ? Given[^1] : null))?.Paper;

    /// <summary>The bill as it would be given out; null where one stands or nothing is charged.</summary>
    public Bill? Draft => View.Job.ClosedAt is null || Given.Any(b => b.Stands) ? null : bills.Draft(View, calendar.Today);

    /// <summary>The shop's address and numbers.</summary>
    public string Sender => bills.Sender;

    /// <summary>Shows them.</summary>
    public IActionResult OnGet() => Prepare() ? Page() : NotFound();

    /// <summary>A bill as text.</summary>
    public IActionResult OnGetText() =>
        Prepare() && Shown is { } bill ? Content(PaperText.Write(bill.ToPaper()), "text/plain; charset=utf-8", Encoding.UTF8) : NotFound();

    /// <summary>Receipt of a payment, where one is asked for.</summary>
    public Paper? Receipt { get; private set; }

    /// <summary>The receipt of a payment, to be printed.</summary>
    public IActionResult OnGetReceipt(long payment)
    {
        if (!Prepare() || bills.Receipt(View, payment) is not { } receipt)
            return NotFound();
        Receipt = receipt;
        return Page();
    }

    /// <summary>A bill as JSON.</summary>
    public IActionResult OnGetJson() =>
        Prepare() && Shown is { } bill ? File(Encoding.UTF8.GetBytes(bill.ToJson()), "application/json", $"bill-{bill.Number}.json") : NotFound();

    /// <summary>Gives the bill out.</summary>
    public IActionResult OnPost(string? sender)
    {
        if (!Prepare())
            return NotFound();
        Remember(("sender", sender));
        return Told(bills.Give(Number, Words.Clean(sender).Replace("\r\n", "\n", StringComparison.Ordinal), calendar.Today, Once));
    }

    /// <summary>Takes a bill back.</summary>
    public IActionResult OnPostBack() => Prepare() ? Told(bills.Reverse(Number, Words.Clean(Which), calendar.Today, Once)) : NotFound();

    private IActionResult Told(Deed<Done> deed) =>
        Answer(
            deed,
            done =>
            {
                TempData["Said"] = done.Words;
                return RedirectToPage(new { number = Number });
            }
        );

    private bool Prepare()
    {
        if (!Load())
            return false;
        Given = bills.Of(View.Job.Id);
        // Kept as it was given out, shown without the name of one who was taken out.
        if (View.Job.CustomerName?.StartsWith(OwnerStore.ErasedName, StringComparison.Ordinal) == true)
            Given = [.. Given.Select(b => b with { Paper = b.Paper with { Customer = View.Job.CustomerName, Contact = "" } })];
        return true;
    }
}
