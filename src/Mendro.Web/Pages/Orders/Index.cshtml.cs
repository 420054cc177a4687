using Mendro.Core.Money;
using Mendro.Core.Quantities;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Orders;

/// <summary>Orders: what is wanted, where it is best bought, what is on its way, and the suppliers.</summary>
public sealed class IndexModel(
    OrderDesk desk,
    ArrivalDesk arrivals,
    SupplierDesk suppliers,
    OrderStore orders,
    StockDesk bins,
    StockStore stock,
    CostDesk costs,
    ShopCalendar calendar
) : ShopPageModel
{
    private const int Shown = 20;
    private const int LongestFile = 1024 * 1024;

    /// <summary>True when time counts more than money.</summary>
    [BindProperty(SupportsGet = true)]
    public bool Urgent { get; set; }

    /// <summary>Supplier whose list was not taken.</summary>
    public long At { get; private set; }

    /// <summary>What was pasted and not taken.</summary>
    public string Text { get; private set; } = "";

    /// <summary>What has to be ordered.</summary>
    public IReadOnlyList<OrderWish> Wanted => _wanted ??= desk.Wanted();

    /// <summary>How it would be ordered; null when nothing is wanted.</summary>
    public OrderProposal? Proposal => Wanted.Count == 0 ? null : _proposal ??= desk.Propose(Urgent);

    /// <summary>Orders, those on their way first.</summary>
    public IReadOnlyList<SentOrder> Orders => orders.List(Shown);

    /// <summary>Suppliers.</summary>
    public IReadOnlyList<Supplier> Suppliers => orders.Suppliers();

    /// <summary>Names of parts, to choose from.</summary>
    public IEnumerable<string> Names => stock.List().Select(i => i.Name).Distinct();

    /// <summary>Today, as days are kept.</summary>
    public string Today => DayText.Write(calendar.Today);

    private IReadOnlyList<OrderWish>? _wanted;
    private OrderProposal? _proposal;

    /// <summary>An amount of the stock's currency.</summary>
    public Amount In(decimal value) => new Amount(value, desk.Currency).Rounded();

    /// <summary>Prices known of a supplier.</summary>
    public int PriceCount(long supplier) => orders.PriceCount(supplier);

    /// <summary>Shows them.</summary>
    public void OnGet() { }

    /// <summary>A job wants a part.</summary>
    public IActionResult OnPostWant(string? number, string? part, string? count)
    {
        Remember(("number", number), ("part", part), ("count", count));
        if (Words.Whole(number) is not (> 0 and var job) || Words.Whole(count) is not (> 0 and var many))
            return Refuse("Say which job by the number on its tag, the part, and how many.");
        var deed = bins.Want(job, Words.Clean(part), many, Once);
        return deed.Refusal is { Kind: RefusalKind.Missing } ? Refuse($"There is no job {job}.") : Told(deed);
    }

    /// <summary>Sends a parcel's order.</summary>
    public async Task<IActionResult> OnPostSend(long supplier) => Told(await desk.SendAsync(supplier, Urgent, HttpContext.RequestAborted, Once));

    /// <summary>Parts came.</summary>
    public IActionResult OnPostReceive(long line, string? good, string? wrong) =>
        Words.Whole(good) is { } right && Words.Whole(wrong is { Length: > 0 } ? wrong : "0") is { } bad
            ? Told(arrivals.Receive(line, right, bad, Once))
            : Refuse("Count what came: whole numbers.");

    /// <summary>The rest of a line will not come.</summary>
    public IActionResult OnPostCancel(long line) => Told(arrivals.Cancel(line, Once));

    /// <summary>True when tax on what is bought is had back.</summary>
    public bool InputTax => costs.TaxToday.InputTax;

    /// <summary>Notes the tax on an order.</summary>
    public IActionResult OnPostTax(long order, string? tax) =>
        Words.Number(string.IsNullOrWhiteSpace(tax) ? "0" : tax) is >= 0 and < 1e6 and var sum
            ? Told(arrivals.SetTax(order, Math.Round((decimal)sum, 2), Once))
            : Refuse("The tax is a sum such as 3.80.");

    /// <summary>Wrong ones were sent back.</summary>
    public IActionResult OnPostReturn(long line, bool replaced) => Told(arrivals.Return(line, replaced, Once));

    /// <summary>Asks a supplier for its prices.</summary>
    public async Task<IActionResult> OnPostAsk(long supplier) => Told(await suppliers.AskAsync(supplier, HttpContext.RequestAborted, Once));

    /// <summary>Takes a price list in.</summary>
    public async Task<IActionResult> OnPostPrices(long supplier, string? text, IFormFile? file)
    {
        (At, Text) = (supplier, text ?? "");
        return Told(suppliers.Prices(supplier, await TextOf(text, file, LongestFile) ?? "", Once));
    }

    /// <summary>Adds a supplier.</summary>
    public IActionResult OnPostSupplier(string? name, string? postage, string? free, string? days, string? address)
    {
        Remember(("name", name), ("postage", postage), ("free", free), ("days", days), ("address", address));
        if (Amount.TryRead([postage, free], new Currency(desk.Currency), out var told) is { } wrong)
            return Refuse(wrong);
        if (Words.Whole(days) is not (<= 365 and var takes))
            return Refuse("A parcel takes 0 to 365 whole days.");
        return Told(
            suppliers.Save(
                new Supplier
                {
                    Name = Words.Clean(name),
                    Postage = told[0] ?? 0,
                    FreeFrom = told[1],
                    LeadDays = takes,
                    Address = Words.Clean(address),
                    Currency = desk.Currency,
                },
                Once
            ),
            $"{Words.Clean(name)} added."
        );
    }

    /// <summary>Takes a supplier away.</summary>
    public IActionResult OnPostRemove(long supplier) => Told(suppliers.Remove(supplier, false, Once), "Taken away.");

    private IActionResult Told(Deed<Done> deed, string? words = null) =>
        Answer(
            deed,
            done =>
            {
                TempData["Said"] = words ?? done.Words;
                return RedirectToPage(new { urgent = Urgent ? "true" : null });
            }
        );
}
