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
    private ILookup<(string ProfileId, string PartId, string ModeId), ConfirmedCause> _behind = null!;

    private const int LinesShown = 5;
    private const int JobsShown = 6;
    private const int JobsShownOfOne = 60;

    /// <summary>Models with lessons, those with most units first.</summary>
    public IReadOnlyList<LearnedModel> Learned { get; private set; } = [];

    /// <summary>Causes left out, the newest first.</summary>
    public IReadOnlyList<ConfirmedCause> LeftOut { get; private set; } = [];

    /// <summary>Strength of the starting weights, in cases.</summary>
    public double Strength { get; private set; }

    /// <summary>Model chosen, or null for all.</summary>
    public string? Chosen { get; private set; }

    /// <summary>Revision chosen, or blank.</summary>
    public string Revision { get; private set; } = "";

    /// <summary>The newest causes behind a pattern, then those left out.</summary>
    public IEnumerable<ConfirmedCause> Behind(LearnedModel model, Pattern line)
    {
        var (part, mode) = (line.Fault.Part.Id.Value, line.Fault.Mode.Id);
        return _behind[(model.Profile.Id, part, mode)]
            .Concat(
                LeftOut.Where(c =>
                    c.ProfileId == model.Profile.Id
                    && c.PartId == part
                    && c.ModeId == mode
                    && (Revision.Length == 0 || c.Revision == Revision)
                )
            );
    }

    /// <summary>Shows them.</summary>
    public void OnGet(string? model, string? revision)
    {
        (Chosen, Revision) = (model, Words.Clean(revision));
        var now = experience.Now();
        (LeftOut, Strength) = (lessons.LeftOut(), now.Strength);
        // A model whose lessons are all left out is shown too, so that they can be let in again.
        var known = now
            .Groups.Select(g => (g.Model.Profile.Id, g.Revision, g.Units))
            .Concat(LeftOut.Select(c => (Id: c.ProfileId, c.Revision, Units: 0)));
        Learned = known
            .Where(g => model is null || g.Id == model)
            .GroupBy(g => g.Id)
            .Select(g =>
            {
                var newest = shelf.Latest(g.Key)!.Value.Model;
                var lines = now.Patterns(newest, model is null ? "" : Revision);
                return new LearnedModel(
                    newest.Profile,
                    g.Where(x => Revision.Length == 0 || x.Revision == Revision).Sum(x => x.Units),
                    g.Select(x => x.Revision).Where(r => r.Length > 0).Distinct().Order().ToList(),
                    model is null ? lines.Where(l => l.Found > 0).Take(LinesShown).ToList() : lines
                );
            })
            .OrderByDescending(m => m.Units)
            .ToList();
        _behind = lessons.Behind(
            Learned.SelectMany(m => m.Lines.Select(l => (m.Profile.Id, l.Fault.Part.Id.Value, l.Fault.Mode.Id))).ToList(),
            Revision,
            Chosen is null ? JobsShown : JobsShownOfOne
        );
    }

    /// <summary>Leaves a cause out, or lets it count again.</summary>
    public IActionResult OnPost(long? exclude, long? include, string? model, string? revision)
    {
        if ((exclude ?? include) is not { } id || lessons.Find(id) is not { } cause)
            return NotFound();
        if (exclude is not null)
            lessons.Exclude(id);
        else
            lessons.Include(id);
        TempData["Said"] = exclude is not null
            ? $"Job {cause.Number} no longer teaches: {cause.Words}. Press it again to undo."
            : $"Job {cause.Number} teaches again: {cause.Words}.";
        return RedirectToPage(model is null ? null : new { model, revision });
    }
}
