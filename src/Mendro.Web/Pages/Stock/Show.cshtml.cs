using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Stock;

/// <summary>One bin: what went in and out, what is put by, what would do too.</summary>
public sealed class ShowModel(StockStore stock, StockDesk desk, ProfileStore profiles, SettingsStore settings) : ShopPageModel
{
    private const int Most = 1_000_000;

    /// <summary>Bin.</summary>
    [BindProperty(SupportsGet = true)]
    public long Id { get; set; }

    /// <summary>What it is, as typed.</summary>
    [BindProperty]
    public BinForm Form { get; set; } = new();

    /// <summary>The bin.</summary>
    public StockItem Bin { get; private set; } = new();

    /// <summary>What is put by from it.</summary>
    public IReadOnlyList<PartNeed> Needs => stock.Needs().Where(n => n.ItemId == Id && n.Reserved > 0).ToList();

    /// <summary>What went in and out.</summary>
    public IReadOnlyList<StockMove> Moves => stock.Moves(Id);

    /// <summary>Other bins that would do.</summary>
    public IReadOnlyList<StockOffer> Others => desk.For(Bin.What).Where(o => o.Item.Id != Id).Take(6).ToList();

    /// <summary>Models to choose from.</summary>
    public IReadOnlyList<(string Id, string Name)> Models => ModelChoice.Of(profiles);

    /// <summary>Currency of the stock.</summary>
    public string Currency => settings.Get().Currency;

    /// <summary>Shows it.</summary>
    public IActionResult OnGet()
    {
        if (!Load())
            return NotFound();
        Form = BinForm.From(Bin);
        return Page();
    }

    /// <summary>Keeps what it is.</summary>
    public IActionResult OnPost()
    {
        if (!Load())
            return NotFound();
        var line = Form.Read();
        return line.IsOk ? Told(desk.Save(Id, line.Value, Once), "Kept.") : Refuse(line.Problem);
    }

    /// <summary>Takes parts out for a job.</summary>
    public IActionResult OnPostUse(string? number, string? count)
    {
        if (!Load())
            return NotFound();
        Remember(("number", number), ("count", count));
        if (Words.Whole(number) is not { } job || Words.Whole(count) is not (<= Most and var many))
            return Refuse("Say how many, and into which job by the number on its tag.");
        var deed = desk.Use(Id, job, many, Once);
        return deed.Refusal is { Kind: RefusalKind.Missing } ? Refuse($"There is no job {job}.") : Told(deed);
    }

    /// <summary>Corrects the count.</summary>
    public IActionResult OnPostCount(string? counted, string? why)
    {
        if (!Load())
            return NotFound();
        return Words.Whole(counted) is <= Most and var many
            ? Told(desk.Correct(Id, many, Words.Clean(why), Once))
            : Refuse("Count what is there: a whole number.");
    }

    /// <summary>What was put by is free again.</summary>
    public IActionResult OnPostUnwant(long need) => Load() ? Told(desk.Unwant(need, Once), "Free again.") : NotFound();

    private IActionResult Told(Deed<Done> deed, string? words = null) =>
        Answer(
            deed,
            done =>
            {
                TempData["Said"] = words ?? done.Words;
                return Redirect($"/Stock/{Id}");
            }
        );

    private bool Load()
    {
        if (stock.Find(Id) is not { DeletedAt: null } bin)
            return false;
        Bin = bin;
        return true;
    }
}
