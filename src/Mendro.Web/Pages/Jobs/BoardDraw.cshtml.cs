using Mendro.Core.Boards;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>A board drawn by tapping over a photo: two points of a known distance give the scale. The photo stays in the browser.</summary>
public sealed class BoardDrawModel(JobStore jobs, BenchDesk desk, RecapDesk recap, TradeLibrary library)
    : RecapPageModel(jobs, desk, recap, library)
{
    private const int LongestText = 400_000;
    private const int LongestFile = 1_000_000;

    /// <summary>Boards as text, as the taps wrote them.</summary>
    [BindProperty]
    public string? Text { get; set; }

    /// <summary>What is wrong with it.</summary>
    public IReadOnlyList<ProfileProblem> Problems { get; private set; } = [];

    /// <summary>What was left out of a file.</summary>
    public IReadOnlyList<string> Notes { get; private set; } = [];

    /// <summary>Shows it.</summary>
    public IActionResult OnGet()
    {
        if (!Prepare())
            return NotFound();
        Text = Sheet?.Plan.Own is { } own ? BoardText.Write(own) : null;
        return Page();
    }

    /// <summary>Reads points and nets from a file onto a board; what else is told of it stays.</summary>
    public async Task<IActionResult> OnPostImportAsync(IFormFile? file, string? boardName)
    {
        if (!Prepare())
            return NotFound();
        if (await TextOf(null, file, LongestFile) is not { Length: > 0 } content)
            return Refuse($"Choose a file of up to {LongestFile / 1000} kB.");
        var read = NetFile.Read(content);
        if (!read.IsOk)
            return Refuse(read.Problem);
        var typed = BoardText.Read(Text, out _);
        var boards = typed.Count > 0 ? typed : View.Profile.Boards ?? [];
        var name = string.IsNullOrWhiteSpace(boardName) ? "Main board" : boardName.Trim();
        var there = boards.FirstOrDefault(b => b.Name.Equals(name, StringComparison.OrdinalIgnoreCase));
        var made = read.Value.On(there, $"board-{boards.Count + 1}", name);
        Notes =
        [
            $"{made.Points!.Count} points and {made.Nets!.Count} nets on “{made.Name}”. Look through the lines below, then use them.",
            .. read.Value.Notes,
        ];
        Text = BoardText.Write(there is null ? [.. boards, made] : boards.Select(b => b == there ? made : b));
        ModelState.Clear();
        return Page();
    }

    /// <summary>Takes what was drawn.</summary>
    public IActionResult OnPost()
    {
        if (!Prepare())
            return NotFound();
        var boards = BoardText.Read((Text ?? "")[..Math.Min(Text?.Length ?? 0, LongestText)], out var unread);
        var wrong = unread.ToList();
        new BoardSection().Check(View.Profile with { Boards = boards }, Library, (place, why) => wrong.Add(new ProfileProblem(place, why)));
        if (boards.Count == 0 && wrong.Count == 0)
            wrong.Add(new ProfileProblem("boards", "nothing is drawn yet."));
        Problems = wrong;
        if (wrong.Count > 0)
            return RefuseAsShown();
        return Answer(
            Recap.UseOwn(Number, boards, Once),
            done =>
            {
                TempData["Said"] = done.Words;
                return ToJob(boards.Any(b => b.Capacitors is { Count: > 0 }) ? "Capacitors" : "Traces");
            }
        );
    }
}
