using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages;

/// <summary>What the shop has learned of one model.</summary>
/// <param name="Profile">Model.</param>
/// <param name="Units">Units with a confirmed cause.</param>
/// <param name="Revisions">Revisions among them, for the filter.</param>
/// <param name="Lines">Patterns, the most telling first.</param>
public sealed record LearnedModel(DeviceProfile Profile, int Units, IReadOnlyList<string> Revisions, IReadOnlyList<Pattern> Lines);

/// <summary>Patterns: what the shop's own jobs have taught, against the library's guesses; wrong lessons can be left out.</summary>
public sealed class PatternsModel(ShopExperience experience, LessonStore lessons, ModelShelf shelf) : PageModel
{
    private const int LinesShown = 8;

    /// <summary>Models with lessons, those with most units first.</summary>
    public IReadOnlyList<LearnedModel> Learned { get; private set; } = [];

    /// <summary>Every confirmed cause.</summary>
    public IReadOnlyList<ConfirmedCause> Causes { get; private set; } = [];

    /// <summary>Strength of the starting weights, in cases.</summary>
    public double Strength { get; private set; }

    /// <summary>Model chosen, or null for all.</summary>
    public string? Chosen { get; private set; }

    /// <summary>Revision chosen, or blank.</summary>
    public string Revision { get; private set; } = "";

    /// <summary>Causes behind a pattern, excluded ones too.</summary>
    public IEnumerable<ConfirmedCause> Behind(LearnedModel model, Pattern line) =>
        Causes.Where(c =>
            c.ProfileId == model.Profile.Id
            && c.PartId == line.Fault.Part.Id
            && c.ModeId == line.Fault.Mode.Id
            && (Revision.Length == 0 || c.Revision == Revision)
        );

    /// <summary>Shows them.</summary>
    public void OnGet(string? model, string? revision)
    {
        (Chosen, Revision) = (model, Words.Clean(revision));
        var now = experience.Now();
        (Causes, Strength) = (now.Causes, now.Strength);
        var learned = experience.Learn(Causes, Strength);
        Learned = Causes
            .Where(c => model is null || c.ProfileId == model)
            .GroupBy(c => c.ProfileId)
            .Select(g =>
            {
                var newest = shelf.Get(g.Key, g.Max(c => c.ProfileVersion));
                var counted = g.Where(c => !c.Excluded && (Revision.Length == 0 || c.Revision == Revision))
                    .Select(c => c.JobId)
                    .Distinct()
                    .Count();
                var lines = learned.Patterns(newest, model is null ? "" : Revision);
                return new LearnedModel(
                    newest.Profile,
                    counted,
                    g.Select(c => c.Revision).Where(r => r.Length > 0).Distinct().Order().ToList(),
                    model is null ? lines.Where(l => l.Found > 0).Take(LinesShown).ToList() : lines
                );
            })
            .OrderByDescending(m => m.Units)
            .ToList();
    }

    /// <summary>Leaves a cause out, or lets it count again.</summary>
    public IActionResult OnPost(long id, string? act, string? model, string? revision)
    {
        if (lessons.Causes().FirstOrDefault(c => c.RecordId == id) is not { } cause || act is not ("exclude" or "include"))
            return NotFound();
        if (act == "exclude")
            lessons.Exclude(id);
        else
            lessons.Include(id);
        TempData["Said"] =
            act == "exclude"
                ? $"Job {cause.Number} no longer teaches: {cause.Words}. Press it again to undo."
                : $"Job {cause.Number} teaches again: {cause.Words}.";
        return Redirect(
            model is null ? "/Patterns" : $"/Patterns?model={Uri.EscapeDataString(model)}&revision={Uri.EscapeDataString(revision ?? "")}"
        );
    }
}
