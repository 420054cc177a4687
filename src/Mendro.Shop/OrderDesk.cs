using System.Collections.Concurrent;
using System.Text.Json;
using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;
using Mendro.Core.Stock;
using Mendro.Instruments;
using Mendro.Solver;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>A part that has to be ordered.</summary>
/// <param name="Part">Part.</param>
/// <param name="Count">How many.</param>
/// <param name="Jobs">Numbers of the jobs that wait for it, the oldest first.</param>
/// <param name="ForStock">How many of them fill a bin up again.</param>
public sealed record OrderWish(string Part, int Count, IReadOnlyList<long> Jobs, int ForStock);

/// <summary>How what is wanted would be ordered.</summary>
/// <param name="Plan">The split.</param>
/// <param name="Parcels">What goes to each supplier.</param>
/// <param name="Days">Days until the last of it is here.</param>
public sealed record OrderProposal(OrderPlan Plan, IReadOnlyList<OrderParcel> Parcels, int Days);

/// <summary>What is ordered from one supplier.</summary>
/// <param name="Supplier">Supplier.</param>
/// <param name="Lines">Lines.</param>
/// <param name="Postage">Postage.</param>
public sealed record OrderParcel(Supplier Supplier, IReadOnlyList<SentLine> Lines, Amount Postage)
{
    /// <summary>Goods and postage.</summary>
    public Amount Total => Postage with { Value = Postage.Value + Lines.Sum(l => l.Price * l.Count) };
}

/// <summary>Orders: what is wanted, split over suppliers, sent. What becomes of them then is <see cref="ArrivalDesk"/>'s.</summary>
public sealed class OrderDesk(
    OrderStore orders,
    StockStore stock,
    ShelfStore shelves,
    SettingsStore settings,
    SupplierLink link,
    Ledger ledger,
    TimeProvider time
)
{
    private static readonly TimeSpan PlanTime = TimeSpan.FromSeconds(10);

    // By supplier: the order that waits for its answer, with the key of its form.
    private readonly ConcurrentDictionary<long, (string? Once, Task<Deed<Done>> Sent)> _onTheWay = new();

    /// <summary>Currency of the stock.</summary>
    public string Currency => settings.Get().Currency;

    /// <summary>What has to be ordered: what jobs miss and what is low, less what is on its way.</summary>
    public IReadOnlyList<OrderWish> Wanted()
    {
        var coming = orders
            .List(500, open: true)
            .SelectMany(o => o.Lines)
            .GroupBy(l => l.Part, StringComparer.OrdinalIgnoreCase)
            .ToDictionary(g => g.Key, g => g.Sum(l => l.ToCome), StringComparer.OrdinalIgnoreCase);
        var needs = stock.Needs().Where(n => n.Missing > 0).ToList();
        // Jobs on the shelf wait for a part by its name alone: one of it.
        var named = shelves
            .All()
            .Where(w => w.Part.Length > 0 && needs.All(n => n.JobId != w.JobId || !Same(n.Part, w.Part)))
            .Select(w => (w.Part, Count: 1, Job: (long?)w.Number));
        // A bin below its mark is filled up to twice the mark.
        var low = stock.List().Where(i => i.IsLow).Select(i => (Part: i.Name, Count: Math.Max(1, 2 * i.Low!.Value - i.Free), Job: (long?)null));
        return needs
            .Select(n => (n.Part, Count: n.Missing, Job: n.Number))
            .Concat(named)
            .Concat(low)
            .GroupBy(w => w.Part, StringComparer.OrdinalIgnoreCase)
            .Select(g => new OrderWish(
                g.First().Part,
                g.Sum(w => w.Count) - coming.GetValueOrDefault(g.Key),
                g.Select(w => w.Job).OfType<long>().Distinct().Order().ToList(),
                g.Where(w => w.Job is null).Sum(w => w.Count)
            ))
            .Where(w => w.Count > 0)
            .OrderBy(w => w.Part, StringComparer.OrdinalIgnoreCase)
            .ToList();
    }

    /// <summary>Splits what is wanted over the suppliers of the stock's currency.</summary>
    /// <param name="urgent">True to take the quickest suppliers that can have as much as all of them; else the least total.</param>
    public OrderProposal Propose(bool urgent)
    {
        var wanted = Wanted();
        var known = orders
            .Suppliers()
            .Where(s => s.Currency == Currency)
            .Select(s => (Supplier: s, Prices: orders.Prices(s.Id)))
            .ToList();
        OrderTask Task(int days) =>
            new(
                wanted.Select(w => new OrderNeed(w.Part, w.Count)).ToList(),
                known
                    .Where(k => k.Supplier.LeadDays <= days)
                    .Select(k => new OrderSupplier(
                        Key(k.Supplier),
                        k.Supplier.Postage,
                        k.Supplier.FreeFrom,
                        k.Prices.Select(p => (Line: p, Part: wanted.FirstOrDefault(w => Same(w.Part, p.Part))?.Part))
                            .Where(p => p.Part is not null)
                            .Select(p => new SupplierOffer(p.Part!, p.Line.Price, p.Line.Available, p.Line.From))
                            .ToList()
                    ))
                    .ToList()
            );
        int Had(OrderTask task) => task.Needs.Sum(task.Reach);

        var task = Task(int.MaxValue);
        if (urgent)
        {
            var all = Had(task);
            task = known.Select(k => k.Supplier.LeadDays).Distinct().Order().Select(Task).FirstOrDefault(t => Had(t) == all) ?? task;
        }

        var plan = OrderSolver.Solve(task, PlanTime);
        var parcels = plan
            .Lines.GroupBy(l => l.Supplier)
            .Select(g =>
            {
                var (supplier, prices) = known.First(k => Key(k.Supplier) == g.Key);
                var lines = g.Select(l =>
                    {
                        var price = prices.Where(p => Same(p.Part, l.Part) && p.From <= l.Count).OrderByDescending(p => p.From).First();
                        return new SentLine { Part = l.Part, Number = price.Number, Price = price.Price, Count = l.Count };
                    })
                    .ToList();
                var goods = lines.Sum(l => l.Price * l.Count);
                return new OrderParcel(supplier, lines, new Amount(goods >= supplier.FreeFrom ? 0 : supplier.Postage, supplier.Currency));
            })
            .ToList();
        return new OrderProposal(plan, parcels, parcels.Select(p => p.Supplier.LeadDays).DefaultIfEmpty(0).Max());
    }

    /// <summary>Sends one parcel of the proposal. A supplier that answers by itself is sent the order first: what it does not take is
    /// not noted as ordered.</summary>
    public async Task<Deed<Done>> SendAsync(long supplierId, bool urgent, CancellationToken cancel, string? once = null)
    {
        var mine = new TaskCompletionSource<Deed<Done>>(TaskCreationOptions.RunContinuationsAsynchronously);
        var onTheWay = _onTheWay.GetOrAdd(supplierId, (once, mine.Task));
        if (onTheWay.Sent != mine.Task)
        {
            // While a supplier takes its time the button is pressed again, or by another: one order, and both are told how it went.
            var sent = await onTheWay.Sent.WaitAsync(cancel);
            return onTheWay.Once == once && once is not null || sent.Done is null
                ? sent
                : Refusal.Invalid("This was being ordered already when you sent it, and is ordered now. Look at what is still wanted.");
        }

        var result = (Deed<Done>)Refusal.Invalid("The order was broken off before it was answered: ask there before sending it again.");
        try
        {
            return result = await SendNowAsync(supplierId, urgent, cancel, once);
        }
        finally
        {
            _onTheWay.TryRemove(supplierId, out _);
            mine.SetResult(result);
        }
    }

    private async Task<Deed<Done>> SendNowAsync(long supplierId, bool urgent, CancellationToken cancel, string? once)
    {
        // A form that is sent twice finds nothing left to order.
        if (ledger.Answered<Done>(once) is { } before)
            return before;
        if (Propose(urgent).Parcels.FirstOrDefault(p => p.Supplier.Id == supplierId) is not { } parcel)
            return Refusal.Invalid("Nothing is ordered there as things stand now.");
        if (InstrumentAddress.Parse(parcel.Supplier.Address) is { } address)
        {
            var body = JsonSerializer.Serialize(
                new
                {
                    format = "mendro.purchase/1",
                    number = once ?? Guid.NewGuid().ToString("N"),
                    lines = parcel.Lines.Select(l => new { number = l.Number, part = l.Part, price = l.Price, count = l.Count }),
                },
                ProfileJson.Options
            );
            try
            {
                if (!IsAccepted(await link.OrderAsync(address, body, cancel)))
                    return Refusal.Invalid($"{parcel.Supplier.Name}: it does not say that it takes the order. Ask there before sending it again.");
            }
            catch (InstrumentLinkException ex)
            {
                return Refusal.Invalid($"{parcel.Supplier.Name}: {ex.Message}");
            }
        }

        return ledger.Once<Done>(
            once,
            () =>
            {
                orders.Add(
                    new SentOrder
                    {
                        SupplierId = supplierId,
                        Currency = parcel.Supplier.Currency,
                        Postage = parcel.Postage.Value,
                        ExpectedOn = DayText.Write(DateOnly.FromDateTime(time.GetUtcNow().UtcDateTime).AddDays(parcel.Supplier.LeadDays)),
                        Lines = parcel.Lines,
                    }
                );
                return new Done($"Ordered from {parcel.Supplier.Name}: {parcel.Total}.");
            }
        );
    }

    private static bool IsAccepted(string answer)
    {
        try
        {
            using var told = JsonDocument.Parse(answer);
            return told.RootElement.ValueKind == JsonValueKind.Object
                && told.RootElement.TryGetProperty("accepted", out var accepted)
                && accepted.ValueKind == JsonValueKind.True;
        }
        catch (JsonException)
        {
            return false;
        }
    }

    private static string Key(Supplier supplier) => supplier.Id.ToString(System.Globalization.CultureInfo.InvariantCulture);

    /// <summary>True for two names of one part.</summary>
    internal static bool Same(string one, string other) => string.Equals(one, other, StringComparison.OrdinalIgnoreCase);
}
