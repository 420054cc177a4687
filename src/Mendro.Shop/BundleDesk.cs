using Mendro.Core.Jobs;
using Mendro.Core.Lots;
using Mendro.Core.Money;
using Mendro.Core.Proving;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>A unit of a bundle.</summary>
/// <param name="View">It.</param>
/// <param name="Worth">What it bears of the price by: its asking price, else its worth; nothing where neither is known.</param>
/// <param name="Bar">Why it cannot be sold as it is; null when it can.</param>
public sealed record BundleUnit(JobView View, decimal Worth, string? Bar);

/// <summary>Several units sold for one price.</summary>
/// <param name="Units">Units.</param>
/// <param name="Asking">What they are worth together; null where that of one is not known.</param>
public sealed record BundleSheet(IReadOnlyList<BundleUnit> Units, Amount? Asking)
{
    /// <summary>Their currency.</summary>
    public Currency Currency => Units[0].View.Currency;

    /// <summary>A sum for all in parts by worth; where that of one is not known, the same for each. The parts add up to the sum.</summary>
    public IReadOnlyList<decimal> Parts(decimal sum) =>
        [
            .. PriceSpread
                .Of(new Amount(sum, Currency).Rounded(), [.. Units.Select(u => Units.All(o => o.Worth > 0) ? u.Worth : 1)])
                .Select(a => a.Value),
        ];
}

/// <summary>Several units offered and sold together: one price, parted by worth.</summary>
public sealed class BundleDesk(SaleDesk sale, HandOverDesk handOver, BenchDesk bench, JobStore jobs, SaleStore sales, Ledger ledger)
{
    /// <summary>Most units in one.</summary>
    public const int Most = 60;

    /// <summary>The units of a bundle; null where one is unknown, not the shop's own, or of another currency.</summary>
    public BundleSheet? Open(IReadOnlyList<long> numbers)
    {
        var found = numbers.Distinct().Take(Most).Select(jobs.Find).ToList();
        if (found.Count == 0 || found.Exists(j => j is null || !j.ShopStock || j.DeletedAt is not null || j.Currency != found[0]!.Currency))
            return null;
        var units = found.Select(j => Unit(bench.Open(j!))).ToList();
        var asking = units.TrueForAll(u => u.Worth > 0) ? new Amount(units.Sum(u => u.Worth), units[0].View.Currency) : (Amount?)null;
        return new BundleSheet(units, asking);
    }

    private BundleUnit Unit(JobView view)
    {
        var (job, offered) = (view.Job, sales.Find(view.Job.Id));
        var works = !view.Proof.Lines.Any(l => l.Failed || l.State == ProofState.Fails);
        var worth = offered?.Asking ?? job.Asking ?? (works ? job.ValueWorking : job.ValueAsIs) ?? 0;
        var bar =
            job.Ending == JobEnd.Open ? view.Proof.Bar(null, HandOverDesk.Kept(view.Model, view.Records))
            : job.Ending != JobEnd.ForSale ? "It is gone."
            : offered is { State: SaleState.Sold } ? "It is sold."
            : null;
        return new BundleUnit(view, worth, bar);
    }

    /// <summary>They were sold together: each bears its part of price, fees, postage and packing.</summary>
    /// <param name="sheet">Units.</param>
    /// <param name="price">What they fetched together.</param>
    /// <param name="fees">Fees.</param>
    /// <param name="postage">Postage.</param>
    /// <param name="packing">Packing.</param>
    /// <param name="words">To whom, how.</param>
    /// <param name="reason">Why they go although not all of them are proved; blank where they are.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> Sold(
        BundleSheet sheet,
        decimal price,
        decimal fees,
        decimal postage,
        decimal packing,
        string words,
        string reason,
        string? once = null
    ) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                var (prices, cuts, posts, packs) = (sheet.Parts(price), sheet.Parts(fees), sheet.Parts(postage), sheet.Parts(packing));
                foreach (var (unit, n) in sheet.Units.Select((u, n) => (u, n)))
                {
                    var (job, tag) = (unit.View.Job, unit.View.Job.Tag);
                    if (unit.Bar is { } bar && (reason.Length == 0 || job.Ending != JobEnd.Open))
                        return Refusal.Invalid($"{tag}: {bar}");
                    if (job.Ending == JobEnd.Open)
                    {
                        var order = new CloseOrder(
                            job.Number,
                            JobEnd.ForSale,
                            "",
                            unit.Bar is null ? "" : reason,
                            prices[n],
                            true,
                            Grade: PaperDesk.GradeOf(unit.View).Id
                        );
                        if (handOver.Close(order).Refusal is { } closed)
                            return closed with { Problem = $"{tag}: {closed.Problem}" };
                    }

                    var became = new Sale
                    {
                        State = SaleState.Sold,
                        Price = prices[n],
                        Fees = cuts[n],
                        Postage = posts[n],
                        Packing = packs[n],
                        Words = words,
                    };
                    if (sale.Becomes(job.Number, became).Refusal is { } refused)
                        return refused with { Problem = $"{tag}: {refused.Problem}" };
                }

                return new Done($"{sheet.Units.Count} sold together for {new Amount(price, sheet.Currency)}.");
            }
        );
}
