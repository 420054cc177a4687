using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;
using Mendro.Core.Stock;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>What becomes of an order that was sent: it comes, right or wrong, goes back, or will not come.</summary>
public sealed class ArrivalDesk(
    OrderStore orders,
    StockStore stock,
    StockDesk bins,
    ShelfStore shelves,
    HandOverDesk handOver,
    JobStore jobs,
    SettingsStore settings,
    MoneyStore rates,
    Ledger ledger,
    TimeProvider time
)
{
    /// <summary>Parts came: into their bin, put by in the order of promises, and what has all it waited for is back on the bench.</summary>
    /// <param name="lineId">Line of the order.</param>
    /// <param name="good">How many came as they should.</param>
    /// <param name="wrong">How many came wrong, and go back.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> Receive(long lineId, int good, int wrong, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (orders.FindLine(lineId) is not { } line)
                    return Refusal.Missing;
                if (good < 0 || wrong < 0 || good + wrong == 0 || good > line.ToCome)
                    return Refusal.Invalid($"{line.ToCome} of {line.Part} are still to come; count what is there, and what is wrong of it.");
                orders.Save(line with { Received = line.Received + good, Wrong = line.Wrong + wrong });
                if (good == 0)
                    return new Done($"{line.Part}: {wrong} came wrong; send them back. {line.ToCome} are still to come.");
                // What they cost here, by the rate of the day where they were ordered in another currency.
                var (order, own) = (orders.Find(line.OrderId)!, new Currency(settings.Get().Currency));
                var today = ShopZone.Day(time.GetUtcNow(), settings, time);
                if ((order.Currency == own.Code ? 1 : rates.Rate(order.Currency, today)) is not { } rate)
                    return Refusal.Invalid($"Say first, under Money, what one {order.Currency} is worth: the bins are reckoned in {own.Code}.");
                var (each, cost) = (own.Round(line.Price * rate), own.Round(line.Price * good * rate));
                if (stock.Named(line.Part) is { } bin)
                {
                    stock.Move(bin.Id, good, null, "received", line.Id, cost);
                    stock.Save(bin with { Cost = each });
                }
                else
                    stock.Add(
                        StockItem.Of(new StockLine(StockCapacitor.Named(line.Part), "", good, null, each, "ordered")),
                        "received",
                        line.Id,
                        cost
                    );

                var woken = Give(line.Part);
                return new Done($"{line.Part}: {good} received{(woken.Count > 0 ? $"; {string.Join(", ", woken)} back on the bench" : "")}.");
            }
        );

    /// <summary>The wrong ones of a line were sent back: replaced they are still to come, else the rest of the line will not come.</summary>
    /// <param name="lineId">Line of the order.</param>
    /// <param name="replaced">True when right ones come instead; false when the money comes back.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> Return(long lineId, bool replaced, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (orders.FindLine(lineId) is not { } line)
                    return Refusal.Missing;
                if (line.ToReturn == 0)
                    return Refusal.Invalid($"No wrong {line.Part} lies here.");
                var money = replaced ? 0 : Math.Min(line.ToReturn, line.ToCome);
                orders.Save(line with { Returned = line.Wrong, Cancelled = line.Cancelled + money });
                return new Done(
                    $"{line.Part}: {line.ToReturn} sent back, {(money == 0 ? "right ones are still to come" : "the money comes back; they are wanted again")}."
                );
            }
        );

    /// <summary>Notes the tax on an order, as its bill shows it beside the prices; where the shop has it back it is no cost.</summary>
    public Deed<Done> SetTax(long orderId, decimal tax, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (orders.Find(orderId) is not { } order)
                    return Refusal.Missing;
                if (tax < 0)
                    return Refusal.Invalid("Tax is 0 or more.");
                orders.SetTax(orderId, tax);
                return new Done($"{order.Supplier}: {new Amount(tax, order.Currency)} of tax.");
            }
        );

    /// <summary>What is still to come of a line will not come: it can be ordered elsewhere.</summary>
    public Deed<Done> Cancel(long lineId, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (orders.FindLine(lineId) is not { } line)
                    return Refusal.Missing;
                orders.Save(line with { Cancelled = line.Cancelled + line.ToCome });
                return new Done($"{line.Part}: {line.ToCome} will not come; they are wanted again.");
            }
        );

    /// <summary>Gives what came to the oldest promise, then to who waits longest, and brings back what waits no more.</summary>
    private List<long> Give(string part)
    {
        var waiting = shelves.All().ToDictionary(w => w.JobId);
        var live = jobs.Live().OrderBy(j => j.PromisedOn ?? DateOnly.MaxValue).ThenBy(j => j.Number).ToList();
        var turn = live.Select((j, n) => (j.Id, n)).ToDictionary(x => x.Id, x => x.n);
        var needs = stock
            .Needs()
            .Where(n => n.Missing > 0 && OrderDesk.Same(n.Part, part))
            .OrderBy(n => n.JobId is { } id ? turn.GetValueOrDefault(id, int.MaxValue) : int.MaxValue)
            .ToList();
        foreach (var need in needs)
            bins.PutBy(need);
        var missing = stock.Needs().Where(n => n.Missing > 0).Select(n => n.JobId).OfType<JobId>().ToHashSet();
        var free = stock.Named(part)?.Free ?? 0;
        var ready = new List<long>();
        // Those that wait by its name alone take one each in the same turn, as long as there are any.
        foreach (var job in live.Where(j => j.Shelf == Shelf.WaitingPart && !missing.Contains(j.Id)))
        {
            var has = needs.Any(n => n.JobId == job.Id);
            if (!has && waiting.TryGetValue(job.Id, out var wait) && OrderDesk.Same(wait.Part, part) && free > 0)
            {
                bins.PutBy(new PartNeed { Id = stock.Want(job.Id, part, 1), Part = part, Count = 1 });
                (has, free) = (true, free - 1);
            }

            if (has && handOver.Wake(job.Number, $"{part} came").Done is not null)
                ready.Add(job.Number);
        }

        return ready;
    }
}
