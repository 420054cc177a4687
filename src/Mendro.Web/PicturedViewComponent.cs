using Mendro.Core.Jobs;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web;

/// <summary>Pictures where they are of use: small beside the step, the screws, the reading or the condition they show.</summary>
/// <param name="pictures">Pictures of the shop.</param>
public sealed class PicturedViewComponent(PictureStore pictures) : ViewComponent
{
    /// <summary>What is shown at one place.</summary>
    /// <param name="Number">Number of the job.</param>
    /// <param name="Shown">Pictures with the words under them.</param>
    /// <param name="Add">What a new picture would show; null when none can be added here.</param>
    public sealed record Place(long Number, IReadOnlyList<(UnitPicture Picture, string Words)> Shown, string? Add);

    /// <summary>Shows them.</summary>
    /// <param name="view">The job.</param>
    /// <param name="about">What they show: a subject such as <c>step:lid</c>, or a kind of subjects such as <c>probe:</c>.</param>
    /// <param name="add">True to offer to add one here.</param>
    public IViewComponentResult Invoke(JobView view, string about, bool add)
    {
        var subjects = PictureDesk.Subjects(view.Profile).ToDictionary(s => s.About, s => s.Words);
        var shown = pictures
            .Of(view.Job.Id)
            .Where(p => p.About == about || about.EndsWith(':') && p.About.StartsWith(about, StringComparison.Ordinal))
            .Select(p => (p, Caption(p, subjects)))
            .ToList();
        return View(new Place(view.Job.Number, shown, add && view.Job.ClosedAt is null ? about.TrimEnd(':') : null));
    }

    private static string Caption(UnitPicture picture, Dictionary<string, string> subjects) =>
        string.Join(", ", new[] { picture.Side, picture.Caption.Length > 0 ? picture.Caption : subjects.GetValueOrDefault(picture.About, "") }
            .Where(w => w.Length > 0));
}
