using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Pictures;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>Pictures of a unit: before and after, with marks; yellowing measured in them.</summary>
public sealed class PicturesModel(JobStore jobs, BenchDesk desk, PictureDesk desks, PictureStore pictures, TradeLibrary library)
    : JobPageModel(jobs, desk, library)
{
    /// <summary>Most pictures in one go.</summary>
    public const int AtOnce = 12;

    /// <summary>Picture that is looked at; null for the newest.</summary>
    [BindProperty(SupportsGet = true)]
    public long? At { get; set; }

    /// <summary>What a new picture shows, when one came from the place itself.</summary>
    [BindProperty(SupportsGet = true)]
    public string? About { get; set; }

    /// <summary>Pictures of the job.</summary>
    public IReadOnlyList<UnitPicture> All { get; private set; } = [];

    /// <summary>Picture that is looked at, or null.</summary>
    public UnitPicture? Shown { get; private set; }

    /// <summary>What was taken away, the newest first.</summary>
    public IReadOnlyList<UnitPicture> Gone { get; private set; } = [];

    /// <summary>Pairs of before and after, by what they show and in order.</summary>
    public IReadOnlyList<(UnitPicture Before, UnitPicture After)> Pairs { get; private set; } = [];

    /// <summary>Colours measured, oldest first.</summary>
    public IEnumerable<(BenchRecord Record, ColourMeasured Body)> Colours => View.All<ColourMeasured>();

    /// <summary>What a picture can show.</summary>
    public IEnumerable<(string About, string Words)> Subjects => PictureDesk.Subjects(View.Profile);

    /// <summary>Shows them.</summary>
    public IActionResult OnGet() => Prepare() ? Page() : NotFound();

    /// <summary>Takes pictures in.</summary>
    public async Task<IActionResult> OnPostTake(List<IFormFile> files, string? about, string? side, string? caption)
    {
        if (!Prepare())
            return NotFound();
        if (files.Count is 0 or > AtOnce)
            return Refuse($"Choose one to {AtOnce} pictures.");
        var (taken, wrong) = (0, new List<string>());
        foreach (var file in files)
        {
            if (file.Length > PictureDesk.MostBytes)
            {
                wrong.Add($"{Name(file)}: larger than {PictureDesk.MostBytes / 1024 / 1024} MB.");
                continue;
            }

            using var held = new MemoryStream();
            await file.CopyToAsync(held, HttpContext.RequestAborted);
            var words = new PictureWords(about ?? "", side ?? "", Words.Clean(caption));
            // Each picture of one form is an action of its own.
            var key = Once is { } once ? $"{once}{taken + wrong.Count}" : null;
            var deed = desks.Take(Number, held.ToArray(), words, key);
            if (deed.Refusal is { Kind: RefusalKind.Missing })
                return NotFound();
            if (deed.Refusal is { } refusal)
                wrong.Add($"{Name(file)}: {refusal.Problem}");
            else
                (At, taken) = (deed.Done!.Id, taken + 1);
        }

        if (wrong.Count == 0)
            return Back();
        Prepare();
        return Refuse((taken > 0 ? $"{taken} taken. " : "") + string.Join(" ", wrong));
    }

    /// <summary>Tells what a picture shows.</summary>
    public IActionResult OnPostTell(long id, string? about, string? side, string? caption) =>
        Told(id, () => desks.Tell(Number, id, new PictureWords(about ?? "", side ?? "", Words.Clean(caption)), Once));

    /// <summary>Draws a mark.</summary>
    public IActionResult OnPostMark(long id, string? shape, string? x, string? y, string? fromX, string? fromY, string? text) =>
        Enum.TryParse<MarkShape>(shape, out var drawn) && Enum.IsDefined(drawn)
            ? Told(
                id,
                () =>
                    desks.Mark(
                        Number,
                        id,
                        new PictureMark(
                            drawn,
                            Words.Number(x) ?? double.NaN,
                            Words.Number(y) ?? double.NaN,
                            Words.Number(fromX),
                            Words.Number(fromY),
                            Words.Clean(text)
                        ),
                        Once
                    )
            )
            : NotFound();

    /// <summary>Takes a mark off.</summary>
    public IActionResult OnPostUnmark(long id, int? mark) => Told(id, () => desks.Unmark(Number, id, mark, Once));

    /// <summary>Takes a picture away, or brings it back.</summary>
    public IActionResult OnPostRemove(long id, bool back) => Told(back ? id : null, () => desks.Remove(Number, id, back, Once));

    /// <summary>Measures yellowing.</summary>
    public IActionResult OnPostMeasure(long id, string? inside, string? outside, string? card)
    {
        if (!Prepare())
            return NotFound();
        if (Place(inside) is not { } one || Place(outside) is not { } other)
            return Refuse("Tap on the inside of the shell and on the outside first.");
        return Answer(
            desks.Measure(Number, id, one, other, Place(card), Once),
            done =>
            {
                (At, TempData["Said"]) = (id, done.Words);
                return Back();
            }
        );
    }

    private static (double X, double Y)? Place(string? text)
    {
        var ends = (text ?? "").Split(' ');
        return ends.Length == 2 && Words.Number(ends[0]) is { } x && Words.Number(ends[1]) is { } y ? (x, y) : null;
    }

    private static string Name(IFormFile file) => file.FileName.Length is > 0 and <= 60 ? Words.Clean(file.FileName) : "one picture";

    private IActionResult Told(long? stays, Func<Deed<Done>> work)
    {
        if (!Prepare())
            return NotFound();
        return Answer(
            work(),
            _ =>
            {
                At = stays;
                return Back();
            }
        );
    }

    private IActionResult Back() => RedirectToPage(new { number = Number, at = At });

    private bool Prepare()
    {
        if (!Load())
            return false;
        var all = pictures.Of(View.Job.Id, deleted: true);
        All = all.Where(p => p.DeletedAt is null).ToList();
        Gone = all.Where(p => p.DeletedAt is not null).OrderByDescending(p => p.DeletedAt).Take(12).ToList();
        Shown = All.FirstOrDefault(p => p.Id == At) ?? All.LastOrDefault();
        Pairs = All.GroupBy(p => p.About)
            .SelectMany(g => g.Where(p => p.Side == "before").Zip(g.Where(p => p.Side == "after")))
            .Select(p => (p.First, p.Second))
            .ToList();
        return true;
    }
}
