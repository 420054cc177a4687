using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Core.Quantities;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>What ends a job, beside the handing over itself: a part that comes, the owner told, the money.</summary>
/// <param name="Part">Part that the job waits for, or null.</param>
/// <param name="Ready">When the owner was told that it is ready, or null.</param>
/// <param name="Paid">Paid so far.</param>
/// <param name="Due">Still due: what is charged with its tax, less what was paid; null when the work has no price in
/// the job's currency.</param>
public sealed record LastCalls(string? Part, DateTimeOffset? Ready, Amount Paid, Amount? Due);

/// <summary>The calls at the end of a job, each told in one press.</summary>
public sealed class LastCallsDesk(
    OwnerDesk owners,
    MoneyDesk money,
    HandOverDesk handOver,
    ShelfStore shelves,
    CostDesk costs
)
{
    /// <summary>Where the calls of a job stand.</summary>
    public LastCalls Of(JobView view)
    {
        var (job, cost) = (view.Job, costs.Of(view));
        var paid = money.Payments(job.Id).Sum(p => p.Sum);
        var owed = cost.Owed?.Value;
        return new LastCalls(
            shelves.Find(job.Id)?.Part is { Length: > 0 } part ? part : null,
            view.Records.LastOrDefault(r => r.Body is OwnerTold { Matter: OwnerMatter.Ready })?.At,
            Sum(view, paid),
            owed is { } all ? Sum(view, Math.Max(0, all - paid)) : null
        );
    }

    /// <summary>The part came that the job waits for.</summary>
    public Deed<Done> PartCame(JobView view, string? once = null) => handOver.PartCame(Of(view).Part ?? "", once);

    /// <summary>The owner was told that the unit is ready.</summary>
    public Deed<Done> Told(JobView view, string? once = null) =>
        owners.Tell(view.Job.Number, new OwnerTold(OwnerMatter.Ready, view.Job.CustomerName ?? "", ConsentWay.Phone, ""), once);

    /// <summary>What is due was paid.</summary>
    /// <param name="view">The job.</param>
    /// <param name="day">The shop's day.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> Paid(JobView view, DateOnly day, string? once = null) =>
        Of(view).Due is { Value: > 0 } due
            ? money.Pay(
                view.Job.Number,
                new Payment
                {
                    Kind = "payment",
                    Amount = due.Value,
                    Day = DayText.Write(day),
                    Words = "",
                },
                once
            )
            : Refusal.Invalid("Nothing is due.");

    private static Amount Sum(JobView view, decimal value) => new(value, view.Currency);
}
