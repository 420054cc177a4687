using Mendro.Core.Library;
using Mendro.Core.Sources;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages;

/// <summary>Where each number of the library comes from.</summary>
public sealed class NumbersModel(TradeLibrary library) : PageModel
{
    /// <summary>Numbers shown at once.</summary>
    public const int PageSize = 100;

    /// <summary>What is searched for, in names, ids and sources.</summary>
    [BindProperty(SupportsGet = true, Name = "q")]
    public string? Search { get; set; }

    /// <summary>Kind of source that is shown; null for all.</summary>
    [BindProperty(SupportsGet = true, Name = "source")]
    public SourceKind? Source { get; set; }

    /// <summary>Page, from 1.</summary>
    [BindProperty(SupportsGet = true, Name = "page_")]
    public int At { get; set; } = 1;

    /// <summary>All that was found.</summary>
    public IReadOnlyList<LibraryNumber> Found { get; private set; } = [];

    /// <summary>Those of this page.</summary>
    public IEnumerable<LibraryNumber> Shown => Found.Skip((At - 1) * PageSize).Take(PageSize);

    /// <summary>Pages.</summary>
    public int Pages => Math.Max(1, (Found.Count + PageSize - 1) / PageSize);

    /// <summary>Numbers by kind of source, of all that the search finds.</summary>
    public IReadOnlyDictionary<SourceKind, int> Counts { get; private set; } = new Dictionary<SourceKind, int>();

    /// <summary>Shows them.</summary>
    public void OnGet()
    {
        var words = Words.Clean(Search).Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var matching = LibraryNumbers.Of(library).Where(n => words.All(w => Says(n, w))).ToList();
        Counts = matching.CountBy(n => n.Kind).ToDictionary();
        Found = Source is { } kind ? matching.Where(n => n.Kind == kind).ToList() : matching;
        At = Math.Clamp(At, 1, Pages);
    }

    /// <summary>Address of this list with another kind of source or page.</summary>
    public string Address(SourceKind? source, int page = 1) =>
        $"/Numbers?q={Uri.EscapeDataString(Words.Clean(Search))}{(source is { } s ? $"&source={s}" : "")}{(page > 1 ? $"&page_={page}" : "")}";

    /// <summary>What its source says beyond the kind it is of.</summary>
    public static string Further(LibraryNumber number)
    {
        var kind = LibraryNumber.Name(number.Kind);
        var said = number.Source.StartsWith(kind, StringComparison.Ordinal) ? number.Source[kind.Length..].TrimStart(';', ':', ',', ' ') : number.Source;
        return said.Length > 0 ? $": {said}" : "";
    }

    private static bool Says(LibraryNumber number, string word) =>
        number.Of.Equals(word, StringComparison.OrdinalIgnoreCase)
        || number.Where.Contains(word, StringComparison.OrdinalIgnoreCase)
        || number.What.Contains(word, StringComparison.OrdinalIgnoreCase)
        || number.Source.Contains(word, StringComparison.OrdinalIgnoreCase);
}
