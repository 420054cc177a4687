using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>Order of the bench's list.</summary>
public enum BenchSort
{
    /// <summary>By chance to cure for the time still to be spent.</summary>
    Chance,

    /// <summary>By what an hour brings.</summary>
    Gain,

    /// <summary>By the day promised; what has none afterwards, by its chance.</summary>
    Promise,

    /// <summary>By age, the oldest first.</summary>
    Age,
}

/// <summary>The order that the shop chose for its bench; the day goes by it too.</summary>
public static class BenchOrder
{
    private const string Key = "bench-sort";

    /// <summary>The order that holds.</summary>
    public static BenchSort Of(SettingsStore settings) =>
        Enum.TryParse<BenchSort>(settings.Value(Key), out var sort) && Enum.IsDefined(sort) ? sort : BenchSort.Chance;

    /// <summary>Chooses it.</summary>
    public static void Choose(SettingsStore settings, BenchSort sort) => settings.SetValue(Key, sort.ToString());
}

/// <summary>One line of “Do next” on the bench.</summary>
/// <param name="Job">Job.</param>
/// <param name="Stage">Stage in which the move is made.</param>
/// <param name="Symptom">What is wrong with it.</param>
/// <param name="Move">What to do.</param>
/// <param name="Why">Why.</param>
/// <param name="Chance">Chance to cure, 0 to 1, or null when that is not the question.</param>
/// <param name="Minutes">Minutes of the move, or null.</param>
public sealed record NextLine(Job Job, WorkStage Stage, string Symptom, string Move, string Why, double? Chance, double? Minutes)
{
    private const double HandOverMinutes = 3;
    private const int FunctionsNamed = 3;

    /// <summary>The best move of each job, in the order that the shop chose.</summary>
    /// <param name="views">Jobs.</param>
    /// <param name="by">Order.</param>
    /// <param name="perHour">The shop's hour, for what an hour brings.</param>
    public static IReadOnlyList<NextLine> Rank(IEnumerable<JobView> views, BenchSort by = BenchSort.Chance, Amount perHour = default) =>
        views
            .Select(view =>
                (
                    Line: Of(view),
                    Day: by == BenchSort.Promise ? view.Job.PromisedOn ?? DateOnly.MaxValue : default,
                    Order: by switch
                    {
                        BenchSort.Gain => Gain(view, perHour),
                        BenchSort.Age => -view.Job.Number,
                        _ => Order(view),
                    }
                )
            )
            .OrderBy(x => x.Day)
            .ThenByDescending(x => x.Order)
            .Select(x => x.Line)
            .ToList();

    /// <summary>What an hour on it brings: for stock what curing adds by its chance, for owners the shop's hour; ready ones first.</summary>
    private static double Gain(JobView view, Amount perHour) =>
        view switch
        {
            { Proof.Complete: true } => 1e6,
            { Worth: { MinutesMore: > 0 } worth, Job.ShopStock: true } when view.Job.Values.AtStake is { } stake && stake.Currency == perHour.Currency =>
                (worth.ChanceToCure * (double)stake.Value - (view.Advice.Outlook?.Parts ?? 0)) / (worth.MinutesMore / 60),
            { Job.ShopStock: false } => (double)perHour.Value,
            _ => 0,
        };

    /// <summary>What a minute sooner is worth in the order that the shop chose; alike for all where nothing else tells them apart.</summary>
    /// <param name="view">Job.</param>
    /// <param name="by">Order.</param>
    /// <param name="perHour">The shop's hour.</param>
    /// <param name="now">Now, UTC.</param>
    internal static double WorthOf(JobView view, BenchSort by, Amount perHour, DateTimeOffset now) =>
        by switch
        {
            BenchSort.Gain => Math.Clamp(Gain(view, perHour) * (view.Worth?.MinutesMore ?? 5) / 60, 0.1, 500),
            BenchSort.Promise => view.Job.PromisedOn is null ? 0.2 : 2,
            BenchSort.Age => 0.2 + Math.Clamp((now - view.Job.ReceivedAt).TotalDays, 0, 365) / 10,
            _ => Math.Max(0.1, view.Worth?.ChanceToCure ?? 1),
        };

    private static double Order(JobView view) =>
        view switch
        {
            { Problem: not null } => 1000,
            { Proof.Complete: true } => 100,
            { Worth: { } worth } => worth.ChanceToCure / (worth.MinutesMore + 5),
            _ => 0.5,
        };

    /// <summary>The best move of a job.</summary>
    public static NextLine Of(JobView view)
    {
        var target = view.Diagnosis?.Target;
        var symptom =
            view.All<FunctionTrial>()
                .Where(t => !t.Body.Passed && target is not null && t.Body.Function == target.Id)
                .Select(t => t.Record.Words)
                .LastOrDefault()
            ?? view.Job.Claim;
        if (view.Problem is { } problem)
            return new NextLine(view.Job, WorkStage.Find, symptom, "Sort out the evidence", problem, null, null);
        if (view.Proof.Complete)
            return new NextLine(
                view.Job,
                WorkStage.HandOver,
                "everything works",
                "Hand over",
                "Proved since the last repair.",
                null,
                HandOverMinutes
            );
        if (view.Advice.Moves is [var move, ..] && target is not null && view.Worth is { GoOn: true } worth)
        {
            var stage =
                move.Ends ? WorkStage.HandOver
                : move.Repair is null ? WorkStage.Find
                : WorkStage.Fix;
            return new NextLine(view.Job, stage, symptom, move.Title, move.Why, worth.ChanceToCure, move.Minutes);
        }

        if (target is not null)
        {
            return new NextLine(
                view.Job,
                WorkStage.HandOver,
                symptom,
                view.Advice.EndsWith == Mendro.Core.Diagnosis.Move.AsideId ? "Decide: set aside, or teach it" : "Decide: to parts, or set aside",
                view.Advice.Moves is [{ Ends: true } end, ..] ? end.Why : "Going on costs more than it would bring.",
                view.Worth is { ChanceToCure: > 0 } left ? left.ChanceToCure : null,
                null
            );
        }

        var open = view.Proof.Unproved.ToList();
        var repaired = view.Job.Stage >= WorkStage.Fix;
        var names = string.Join(", ", open.Take(FunctionsNamed).Select(l => l.Function.Name));
        return new NextLine(
            view.Job,
            repaired ? WorkStage.Prove : WorkStage.Find,
            symptom,
            $"Try: {names}{(open.Count > FunctionsNamed ? " …" : "")}",
            repaired ? "Not proved since the last repair." : "No failure seen yet; finish the baseline.",
            null,
            open.Sum(l => l.Function.Minutes)
        );
    }
}
