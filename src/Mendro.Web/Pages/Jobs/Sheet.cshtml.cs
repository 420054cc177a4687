using System.Text;
using Mendro.Core.Library;
using Mendro.Core.Papers;
using Mendro.Shop;
using Mendro.Storage;
using Mendro.Web.Access;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>The papers that go with a unit: job sheet, sale sheet, test record; to be printed, or as text to paste.</summary>
public sealed class SheetModel(
    JobStore jobs,
    BenchDesk desk,
    PaperDesk papers,
    PictureStore pictures,
    ShopCalendar calendar,
    Viewer viewer,
    TradeLibrary library
)
    : JobPageModel(jobs, desk, library)
{
    private const int MostPictures = 6;

    /// <summary>Which paper; the job sheet when nothing is said.</summary>
    [BindProperty(SupportsGet = true)]
    public string? Kind { get; set; }

    /// <summary>Which paper it is.</summary>
    public PaperKind Which { get; private set; }

    /// <summary>The paper.</summary>
    public Paper Paper { get; private set; } = null!;

    /// <summary>Pictures on it.</summary>
    public IReadOnlyList<UnitPicture> Pictures { get; private set; } = [];

    /// <summary>Shows it.</summary>
    public IActionResult OnGet() => Prepare() ? Page() : NotFound();

    /// <summary>The same as text.</summary>
    public IActionResult OnGetText() =>
        Prepare() ? Content(PaperText.Write(Paper), "text/plain; charset=utf-8", Encoding.UTF8) : NotFound();

    private bool Prepare()
    {
        if (!Load())
            return false;
        Which = Enum.TryParse<PaperKind>(Kind, ignoreCase: true, out var told) && Enum.IsDefined(told) ? told : PaperKind.Job;
        Paper = papers.Of(View, Which, calendar.Day, viewer.SeesCosts);
        Pictures = Which == PaperKind.Test ? [] : Chosen(pictures.Of(View.Job.Id));
        return true;
    }

    // A buyer sees how it is now, an owner what it was and is.
    private IReadOnlyList<UnitPicture> Chosen(IReadOnlyList<UnitPicture> all) =>
        (Which == PaperKind.Sale ? all.Where(p => p.Side != "before") : all.Where(p => p.Side.Length > 0)).Take(MostPictures).ToList();
}
