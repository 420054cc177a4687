using Mendro.Core.Money;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>What a job has cost so far. The one place where it is added up.</summary>
/// <param name="PerHour">The shop's rate an hour.</param>
/// <param name="Labour">Work at the shop's rate; null when the job is reckoned in another currency.</param>
/// <param name="Parts">Parts, in the job's currency.</param>
/// <param name="Paid">What was paid for the unit, or null.</param>
public sealed record JobCost(Amount PerHour, Amount? Labour, Amount Parts, Amount? Paid)
{
    /// <summary>What its owner is charged: work and parts, at most what was agreed; null when the work has no price in its currency.</summary>
    public Amount? Charge { get; init; }

    /// <summary>Work and parts; null when the work has no price in the job's currency.</summary>
    public Amount? WorkAndParts => Labour is { } labour ? labour + Parts : null;

    /// <summary>Work, parts and what was paid; null likewise.</summary>
    public Amount? Together =>
        WorkAndParts is { } sum
            ? Paid is { } paid
                ? sum + paid
                : sum
            : null;

    /// <summary>Adds a job up. A closed one keeps the hour that it was closed at.</summary>
    /// <param name="view">The job.</param>
    /// <param name="now">What an hour costs now.</param>
    public static JobCost Of(JobView view, Amount now)
    {
        var perHour = view.Job is { ClosedAt: not null, HourAtClose: { } then } ? now with { Value = then } : now;
        return new JobCost(
            perHour,
            Core.Money.Labour.For(view.MinutesSpent, perHour, view.Currency),
            view.PartsCost,
            view.Job.In(view.Job.Paid)
        )
        {
            Charge = JobCharge.Of(view.Records, view.MinutesSpent, perHour, view.Currency, null),
        };
    }
}
