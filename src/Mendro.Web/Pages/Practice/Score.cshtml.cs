using Mendro.Core.Diagnosis;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages.Practice;

/// <summary>The score of a practice unit and a walk through the advisor's way.</summary>
public sealed class ScoreModel(JobStore jobs, BenchDesk desk, PracticeDesk practice) : ShopPageModel
{
    /// <summary>The unit.</summary>
    public JobView View { get; private set; } = null!;

    /// <summary>The score; null while the unit is still being worked on.</summary>
    public PracticeScore? Score { get; private set; }

    /// <summary>What the score says in a sentence.</summary>
    public string Verdict =>
        Score is not { } score ? ""
        : !score.Mine.AllWork
            ? $"Given up after {Words.Minutes(score.Mine.Minutes)}; the advice needed "
                + $"{Words.Minutes(score.Advisor.Minutes)}{(score.Advisor.AllWork ? "" : " and did not cure it either")}."
        : score.Mine.Minutes <= score.Advisor.Minutes
            ? $"Cured in {Words.Minutes(score.Mine.Minutes)}: as good as the advice, which needed {Words.Minutes(score.Advisor.Minutes)}, or better."
        : $"Cured in {Words.Minutes(score.Mine.Minutes)}; the advice needed {Words.Minutes(score.Advisor.Minutes)}.";

    /// <summary>Shows the score once everything works or the unit was given up.</summary>
    public IActionResult OnGet(long number)
    {
        if (!Load(number))
            return NotFound();
        if (
            View.Job.ClosedAt is not null
            || View.Proof.Lines.All(l => View.Diagnosis?.Functions[l.Function.Id] == Core.Diagnosis.FunctionState.Works)
        )
            Score = practice.Score(View);
        return Page();
    }

    /// <summary>Gives the unit up, or puts it away: the score is shown.</summary>
    public IActionResult OnPost(long number)
    {
        if (!Load(number))
            return NotFound();
        return Answer(practice.PutAway(number, Once), _ => RedirectToPage(new { number }));
    }

    private bool Load(long number)
    {
        if (jobs.Find(number) is not { PracticeSeed: not null } job)
            return false;
        View = desk.Open(job);
        return true;
    }
}
