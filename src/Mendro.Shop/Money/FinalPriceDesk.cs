using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>What a repair is charged at in the end, with its reason.</summary>
public sealed class FinalPriceDesk(JobBench bench, OwnerStore owners, JobStore jobs, BenchRecordStore records)
{
    /// <summary>The earlier job of the same owner and unit whose warranty still runs, by number; null for none.</summary>
    /// <param name="job">Job.</param>
    /// <param name="today">The shop's day.</param>
    public long? Warranty(Job job, DateOnly today) =>
        job.CustomerId is not { } owner
            ? null
            : owners
                .Jobs(owner)
                .Where(j => j.Id.Value < job.Id.Value && j.DeletedAt is null && Same(j, job))
                .Where(j => Until(j) >= today)
                .Select(j => (long?)j.Number)
                .LastOrDefault();

    /// <summary>Files it, or takes the last one back when nothing is told.</summary>
    /// <param name="number">Number of the job.</param>
    /// <param name="price">Price and reason.</param>
    /// <param name="once">Key of the form.</param>
    /// <param name="workAndParts">What it would be charged without; null where that has no price.</param>
    public Deed<Done> Set(long number, FinalPrice price, string? once = null, Amount? workAndParts = null) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                if (job.Job.ShopStock)
                    return Refusal.Invalid("This unit is the shop's own: nobody is charged for it.");
                if (price.Price < 0 || price.Words.Length > FinalPrice.LongestWords)
                    return Refusal.Invalid($"A price is 0 or more, and the words take {FinalPrice.LongestWords} characters.");
                if (price.Reason == PriceReason.Discount && workAndParts is { } whole && price.Price > whole.Value)
                    return Refusal.Invalid($"Work and parts come to {whole}: that is no discount. Say “as agreed”.");
                if (price.Reason == PriceReason.Warranty && Wrong(job.Job, price.WarrantyOf) is { } wrong)
                    return Refusal.Invalid(wrong);
                if (price.Reason != PriceReason.Warranty && price.WarrantyOf is not null)
                    price = price with { WarrantyOf = null };
                return new Done(bench.File(job, price, job.Job.Stage).Words);
            }
        );

    private string? Wrong(Job job, long? of) =>
        of is not { } number ? "Say which job's warranty it is, by its number."
        : number == job.Number ? "A job is not its own warranty."
        : jobs.Find(number) is not { } before ? $"There is no job {number}."
        : before.ProfileId != job.ProfileId ? $"Job {number} was another model: {before.Title}."
        : null;

    private static bool Same(Job one, Job other) =>
        one.ProfileId == other.ProfileId && (one.Serial.Length == 0 || other.Serial.Length == 0 || one.Serial == other.Serial);

    private DateOnly? Until(Job job) => records.Of(job.Id).Select(r => r.Body).OfType<HandedOver>().LastOrDefault()?.WarrantyUntil;
}
