using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>Parts of donor units: pulled for a job, found bad, put back.</summary>
public sealed class DonorDesk(DonorStore donors, JobStore jobs, JobBench bench, Ledger ledger)
{
    private const int LongestWords = 200;

    /// <summary>Notes what became of a part.</summary>
    /// <param name="id">Part.</param>
    /// <param name="state"><c>taken</c>, <c>bad</c>, or <c>there</c> again.</param>
    /// <param name="words">Where it went, or what is wrong with it.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> Set(long id, string state, string words, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (donors.Find(id) is not { } part)
                    return Refusal.Missing;
                if (state is not ("there" or "taken" or "bad"))
                    return Refusal.Invalid("A part is there, taken or bad.");
                if (words.Length > LongestWords)
                    return Refusal.Invalid($"The words take {LongestWords} characters.");
                donors.Set(id, state, words);
                return new Done($"{part.Name} of {part.Number}: {(state == "there" ? "there again" : state)}.");
            }
        );

    /// <summary>Least chance to be good with which a part is offered to others.</summary>
    public const double GoodEnough = 0.9;

    /// <summary>Models of which a unit is in the shop: their parts are better kept.</summary>
    public IReadOnlySet<string> Wanted() => jobs.Live().Select(j => j.ProfileId).ToHashSet();

    /// <summary>A part was sold.</summary>
    /// <param name="id">Part.</param>
    /// <param name="price">What it fetched, in the currency of its job, above nothing.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> Sell(long id, decimal price, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (donors.Find(id) is not { } part || jobs.Find(part.Number) is not { } donor)
                    return Refusal.Missing;
                if (part.State != "there")
                    return Refusal.Invalid($"{part.Name} of {part.Number} is not there any more: {part.State}.");
                if (price is <= 0 or > 100_000)
                    return Refusal.Invalid("Say what it fetched, such as 4.50.");
                donors.Set(id, "sold", "", price);
                bench.NoteMoney(donor, $"{part.Name} was sold for {donor.In(price)}");
                return new Done($"{part.Name} of {part.Number}: sold for {donor.In(price)}.");
            }
        );

    /// <summary>A part goes into a job: its history and its share of what was paid for the donor go along.</summary>
    /// <param name="id">Part.</param>
    /// <param name="number">Job that it goes into.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> Pull(long id, long number, string? once = null) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                if (donors.Find(id) is not { } part)
                    return Refusal.Missing;
                if (part.State != "there")
                    return Refusal.Invalid($"{part.Name} of {part.Number} is not there any more: {part.State}.");
                if (part.Number == number)
                    return Refusal.Invalid("It is in that very unit.");
                var cost = Share(part);
                if (cost is { } share && share.Currency.Code != job.Job.Currency)
                    cost = null;
                donors.Set(id, "taken", FormattableString.Invariant($"into {number}"));
                var (name, bin) = (
                    FormattableString.Invariant($"{part.Name} of {part.Number}"),
                    FormattableString.Invariant($"{PartUsed.DonorBin}{part.Number}")
                );
                bench.File(job, new PartUsed(name, 1, bin), null, r => r with { Cost = cost?.Value });
                if (jobs.Find(part.Number) is { } donor)
                    bench.Note(donor, $"{part.Name} went into {job.Job.Tag}");
                return new Done($"{part.Name} of {part.Number} into {job.Job.Tag}{(cost is { Value: > 0 } paid ? $", {paid}" : "")}.");
            }
        );

    /// <summary>Its share of what was paid for the donor: by the chance that it is good, among all its parts; null when nothing is known.</summary>
    public Amount? Share(DonorPart part)
    {
        if (jobs.Find(part.Number) is not { Paid: > 0 } donor)
            return null;
        var all = donors.Of(donor.Id).Sum(p => p.Good);
        return all > 0 ? (new Amount(donor.Paid!.Value, donor.Currency) * (decimal)(part.Good / all)).Rounded() : null;
    }
}
