using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Storage;

namespace Mendro.Web.Bench;

/// <summary>One line of “Do next” on the bench.</summary>
/// <param name="Job">Job.</param>
/// <param name="Page">Page where the move is made.</param>
/// <param name="Symptom">What is wrong with it.</param>
/// <param name="Move">What to do.</param>
/// <param name="Why">Why.</param>
/// <param name="Chance">Chance to cure, in words.</param>
/// <param name="Minutes">Minutes of the move, in words.</param>
public sealed record NextLine(Job Job, string Page, string Symptom, string Move, string Why, string Chance, string Minutes)
{
    /// <summary>The best move of each job, those first that promise most for the time still to be spent.</summary>
    public static IReadOnlyList<NextLine> Rank(IEnumerable<JobView> views) => views
        .Select(view => (Line: Of(view), Order: Order(view))).OrderByDescending(x => x.Order).Select(x => x.Line).ToList();

    private static double Order(JobView view) => view switch
    {
        { Problem: not null } => 1000,
        { Proof.Complete: true } => 100,
        { Worth: { } worth } => worth.ChanceToCure / (worth.MinutesMore + 5),
        _ => 0.5,
    };

    private static NextLine Of(JobView view)
    {
        var symptom = view.Records.LastOrDefault(r => r.Kind == RecordKind.Function && r.State == "fail" && view.Diagnosis?.Target is { } target && target.Id == r.Subject)?.Words ?? view.Job.Claim;
        if (view.Problem is { } problem) return new NextLine(view.Job, "Find", symptom, "Sort out the evidence", problem, "", "");
        if (view.Proof.Complete) return new NextLine(view.Job, "HandOver", "everything works", "Hand over", "Proved since the last repair.", "", "3 min");
        if (view.Advice.Moves.Count > 0 && view.Diagnosis?.Target is not null && view.Worth is { GoOn: true } worth)
        {
            var move = view.Advice.Moves[0];
            return new NextLine(view.Job, move.Repair is null ? "Find" : "Fix", symptom, move.Title, move.Why, Words.Percent(worth.ChanceToCure), Words.Minutes(move.Minutes));
        }

        if (view.Diagnosis?.Target is not null) return new NextLine(view.Job, "HandOver", symptom, "Decide: to parts, or set aside", "Going on costs more than it would bring.", view.Worth is { } w ? Words.Percent(w.ChanceToCure) : "", "");
        var open = view.Proof.Unproved.ToList();
        var page = view.Job.Stage >= WorkStage.Fix ? "Prove" : "Find";
        return new NextLine(view.Job, page, symptom, $"Try: {string.Join(", ", open.Take(3).Select(l => l.Function.Name))}{(open.Count > 3 ? " …" : "")}",
            view.Job.Stage >= WorkStage.Fix ? "Not proved since the last repair." : "No failure seen yet; finish the baseline.", "", Words.Minutes(open.Sum(l => l.Function.Minutes)));
    }
}
