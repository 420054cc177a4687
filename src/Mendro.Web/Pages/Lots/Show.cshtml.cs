using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Lots;
using Mendro.Core.Money;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Lots;

/// <summary>The board of a lot: all its items, the rounds, what it comes to.</summary>
public sealed class ShowModel(
    LotDesk desk,
    LotStore lots,
    LotCorrectDesk corrections,
    BatchDesk batches,
    RoundDesk rounds,
    ProfileStore profiles,
    SettingsStore settings,
    ShopCalendar calendar
) : ShopPageModel
{
    /// <summary>Lot.</summary>
    [BindProperty(SupportsGet = true)]
    public long Id { get; set; }

    /// <summary>Order of the items: by number or by gain.</summary>
    [BindProperty(SupportsGet = true)]
    public string? By { get; set; }

    /// <summary>What is told of the lot, as typed.</summary>
    [BindProperty]
    public LotForm Form { get; set; } = new();

    /// <summary>The board.</summary>
    public LotBoard Board { get; private set; } = null!;

    /// <summary>Units that do better as donors of others.</summary>
    public IReadOnlyList<Pairing> Pairs => _pairs ??= desk.Pairs(Board);

    private IReadOnlyList<Pairing>? _pairs;

    /// <summary>Parts of casings that one has for another.</summary>
    public IReadOnlyList<CasingPart> Casing => desk.Casing(Board);

    /// <summary>What to do first, with its reason, and when to stop buying parts.</summary>
    public IReadOnlyList<string> FirstLines => _first ??= LotWords.First(Board, desk.FirstOf(Board));

    private IReadOnlyList<string>? _first;

    /// <summary>True when items stand by what an hour on them brings.</summary>
    public bool ByGain => By == "gain";

    /// <summary>Items in the order asked for.</summary>
    public IEnumerable<LotRow> Rows => ByGain ? Board.ByGain.Concat(Board.Rows.Where(r => !r.Item.IsOpen)) : Board.Rows;

    /// <summary>The shop's hour.</summary>
    public Amount PerHour => LotDesk.HourOf(Board.Lot, settings.Get());

    /// <summary>The batch as its owner sees it; null for what was bought.</summary>
    public BatchSheet? Batch => Board.Lot.IsBatch ? _batch ??= batches.Open(Board) : null;

    private BatchSheet? _batch;

    /// <summary>Rounds that were left.</summary>
    public IReadOnlyList<(RoundUnderWay Round, int Ahead)> UnderWay => _underWay ??= rounds.UnderWay(Board.Scope);

    private IReadOnlyList<(RoundUnderWay, int)>? _underWay;

    /// <summary>Lots that items may be moved to.</summary>
    public IEnumerable<Lot> OtherLots =>
        lots.Newest(LotsShown).Where(l => l.Id != Id && l.CustomerId == Board.Lot.CustomerId && l.Currency == Board.Lot.Currency);

    private const int LotsShown = 100;

    /// <summary>What was corrected just now, and can be taken back; null for nothing.</summary>
    public LotCorrected? Undo =>
        _undo ??= TempData["LotUndo"] is string json ? System.Text.Json.JsonSerializer.Deserialize<LotCorrected>(json) : null;

    private LotCorrected? _undo;

    /// <summary>How an item stands, as a sign.</summary>
    public static string SignOf(LotRow row) =>
        row.Place.Apart ? "–"
        : row.Item.State switch
        {
            LotState.Cured => "✓",
            LotState.Failed => "✕",
            LotState.Waits => "~",
            _ => "·",
        };

    /// <summary>How an item stands, in a word.</summary>
    public string Word(LotRow row) =>
        row.Place.Apart ? "set apart"
        : row.Item.State switch
        {
            LotState.Cured => Board.Lot.IsBatch && row.View.Job.ClosedAt is not null ? "handed over" : "cured",
            LotState.Failed => "given up",
            LotState.Waits => "waits",
            _ => "open",
        };

    /// <summary>Models to choose from.</summary>
    public IReadOnlyList<(string Id, string Name)> Models => ModelChoice.Of(profiles);

    /// <summary>Name of the part that a donor gives.</summary>
    public string PartName(Pairing pair) =>
        MoveWords.Lower(Board.Rows.First(r => r.Item.Number == pair.To).View.Profile.FindPart(pair.Part)?.Name ?? pair.Part);

    /// <summary>Shows it.</summary>
    public IActionResult OnGet()
    {
        if (!Load())
            return NotFound();
        Form = LotForm.From(Board.Lot);
        return Page();
    }

    /// <summary>Corrects the items chosen.</summary>
    public IActionResult OnPostCorrect(LotCorrection what, long[]? number, string? model, string? lot) =>
        Load()
            ? Corrected(
                what,
                (number ?? [])
                    .Where(n => Board.Rows.Any(r => r.Item.Number == n))
                    .Select(n => new LotItemTo(n, Words.Clean(what == LotCorrection.Model ? model : what == LotCorrection.Lot ? lot : "")))
                    .ToList()
            )
            : NotFound();

    /// <summary>Goes to the sale of those chosen together.</summary>
    public IActionResult OnPostTogether(long[]? number) =>
        !Load() ? NotFound()
        : number is { Length: > 1 } ? Redirect($"/Bundle?jobs={string.Join(',', number)}")
        : Refuse("Choose two and more that are sold together.");

    /// <summary>Takes a correction back.</summary>
    public IActionResult OnPostUndo(LotCorrection what, string[]? item) =>
        Load()
            ? Corrected(
                what,
                (item ?? [])
                    .Select(i => i.Split(' ', 2))
                    .Where(i => long.TryParse(i[0], System.Globalization.CultureInfo.InvariantCulture, out _))
                    .Select(i => new LotItemTo(long.Parse(i[0], System.Globalization.CultureInfo.InvariantCulture), i.Length > 1 ? i[1] : ""))
                    .ToList()
            )
            : NotFound();

    private IActionResult Corrected(LotCorrection what, IReadOnlyList<LotItemTo> items) =>
        Answer(
            corrections.Do(what, items, Once),
            done =>
            {
                TempData["LotUndo"] = System.Text.Json.JsonSerializer.Serialize(done);
                return RedirectToPage(new { id = Id, by = By });
            }
        );

    /// <summary>One quote for all.</summary>
    public IActionResult OnPostQuote(string? low, string? likely, string? high)
    {
        if (!Load() || Batch is not { } batch)
            return NotFound();
        Remember(("low", low), ("likely", likely), ("high", high));
        if (Amount.TryRead([low, likely, high], new Currency(Board.Lot.Currency), out var sums) is { } wrong)
            return Refuse(wrong);
        if (sums is not [{ } from, { } most, { } to])
            return Refuse("A quote has three sums: low, likely, high.");
        return Said(batches.Quote(batch, new QuoteGiven(from, most, to, Board.Lot.Currency, "", ConsentWay.InPerson), waits: true, Once));
    }

    /// <summary>What the owner says to it.</summary>
    public IActionResult OnPostAnswer(string? answer, string? upTo)
    {
        if (!Load() || Batch is not { } batch)
            return NotFound();
        Remember(("upTo", upTo));
        if (Amount.TryRead(upTo, new Currency(Board.Lot.Currency), out var most) is { } wrong)
            return Refuse(wrong);
        var said = new QuoteAnswered(answer == "yes", most?.Value, Board.Lot.Currency, Board.Lot.OwnerName ?? "", ConsentWay.InPerson);
        return Said(batches.Answer(batch, said, Once));
    }

    /// <summary>Something is paid ahead.</summary>
    public IActionResult OnPostPayAhead(string? ahead)
    {
        if (!Load() || Batch is not { } batch)
            return NotFound();
        Remember(("ahead", ahead));
        if (Amount.TryRead(ahead, new Currency(Board.Lot.Currency), out var sum) is { } wrong)
            return Refuse(wrong);
        return Said(batches.PayAhead(batch, sum?.Value ?? 0, calendar.Today, Once));
    }

    private IActionResult Said(Deed<Done> deed) =>
        Answer(
            deed,
            done =>
            {
                TempData["Said"] = done.Words;
                return RedirectToPage(new { id = Id, by = By });
            }
        );

    /// <summary>Keeps what is told of the lot.</summary>
    public IActionResult OnPostSave()
    {
        if (!Load())
            return NotFound();
        if (Form.Into(Board.Lot, out var told) is { } wrong)
            return Refuse(wrong);
        return Answer(desk.Save(told, Once), _ => RedirectToPage(new { id = Id, by = By }));
    }

    private bool Load()
    {
        if (desk.Open(Id) is not { } board)
            return false;
        Board = board;
        return true;
    }
}
