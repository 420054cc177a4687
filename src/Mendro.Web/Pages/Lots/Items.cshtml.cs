using Mendro.Core;
using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Lots;
using Mendro.Core.Planning;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Lots;

/// <summary>Items of a lot taken in by the line.</summary>
public sealed class ItemsModel(LotStore lots, LotItemsDesk desk, ProfileStore profiles, TradeLibrary library) : ShopPageModel
{
    /// <summary>Lot.</summary>
    [BindProperty(SupportsGet = true)]
    public long Id { get; set; }

    /// <summary>The lot.</summary>
    public Lot Lot { get; private set; } = new();

    /// <summary>Units in it.</summary>
    public int Count { get; private set; }

    /// <summary>Model of most of them, or null.</summary>
    public string? Kind { get; private set; }

    /// <summary>What was typed.</summary>
    public string Text { get; private set; } = "";

    /// <summary>How it would be taken in.</summary>
    public IReadOnlyList<(BatchItem Item, Outcome<Understanding> Said)> Heard { get; private set; } = [];

    /// <summary>Names that are new, with what each may be.</summary>
    public IReadOnlyList<NewLotName> NewNames { get; private set; } = [];

    /// <summary>Builds that were chosen, by name.</summary>
    public IReadOnlyDictionary<string, string> Chosen { get; private set; } = new Dictionary<string, string>();

    /// <summary>Shows the page.</summary>
    public IActionResult OnGet() => Load() ? Page() : NotFound();

    /// <summary>Reads the lines without taking them in.</summary>
    public IActionResult OnPostRead(string? text)
    {
        if (!Load())
            return NotFound();
        Text = text ?? "";
        var items = BatchLines.Read(Text, out var problems);
        Heard = items.Select(i => (i, desk.Heard(Lot, i))).ToList();
        NewNames = desk.NewNames(Lot, items);
        return problems.Count > 0 ? Refuse(string.Join('\n', problems.Take(12))) : Page();
    }

    /// <summary>Takes them in.</summary>
    public IActionResult OnPost(string? text, string[]? name, string[]? build)
    {
        if (!Load())
            return NotFound();
        Text = text ?? "";
        Chosen = (name ?? [])
            .Zip(build ?? [])
            .Where(n => n.Second.Length > 0)
            .DistinctBy(n => n.First.ToUpperInvariant())
            .ToDictionary(n => n.First, n => n.Second, StringComparer.OrdinalIgnoreCase);
        NewNames = desk.NewNames(Lot, BatchLines.Read(Text, out _));
        if (NewNames.Count > 0 && NewNames.Any(n => !Chosen.ContainsKey(n.Name)))
            return Refuse($"{(NewNames.Count == 1 ? "One name is" : $"{NewNames.Count} names are")} new here: say what each is nearest to, and take them in.");
        return Answer(
            desk.TakeIn(Id, text, Once, Chosen),
            done =>
            {
                TempData["Said"] = done.Numbers.Count == 1 ? $"Taken in as {done.Numbers[0]}." : $"Taken in as {done.Numbers[0]} to {done.Numbers[^1]}.";
                return Redirect($"/Lots/{Id}");
            }
        );
    }

    /// <summary>What a line says, in words.</summary>
    public string WordsOf(Understanding said)
    {
        var words = said
            .Facts.Select(f =>
                f.Function is { } id ? $"{said.Profile!.FindFunction(id)?.Name} {(f.Passed ? "works" : "fails")}"
                : f.Mark is { } mark ? library.FindMark(mark)?.Name
                : null
            )
            .OfType<string>()
            .ToList();
        return words.Count > 0 ? string.Join(", ", words.Select((w, n) => n == 0 ? w : MoveWords.Lower(w))) : "nothing to test by; kept as words";
    }

    private bool Load()
    {
        if (lots.Find(Id) is not { } lot)
            return false;
        Lot = lot;
        Count = lots.Units(lot.Name).Count;
        Kind = profiles.All().FirstOrDefault(p => p.Id == lot.ProfileId)?.FullName;
        return true;
    }
}
