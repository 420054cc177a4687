using Mendro.Core.Readings;
using Mendro.Core.Stock;
using Mendro.Instruments;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>Suppliers: their terms, their prices by file or asked of them.</summary>
public sealed class SupplierDesk(OrderStore orders, SupplierLink link, Ledger ledger, TimeProvider time)
{
    private const int LongestName = 80;

    /// <summary>Keeps a supplier.</summary>
    public Deed<Done> Save(Supplier supplier, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (supplier.Name.Length is 0 or > LongestName || supplier.Words.Length > StockDesk.LongestWords)
                    return Refusal.Invalid($"A supplier has a name of up to {LongestName} characters.");
                if (supplier.Postage < 0 || supplier.FreeFrom < 0 || supplier.LeadDays is < 0 or > 365)
                    return Refusal.Invalid("Postage is nothing or more, and a parcel takes 0 to 365 days.");
                if (supplier.Address.Length > 0 && InstrumentAddress.Parse(supplier.Address) is null)
                    return Refusal.Invalid("An address is a machine and a port, such as 127.0.0.1:5901; blank when its prices come by file.");
                if (orders.Suppliers().Any(s => s.Id != supplier.Id && Same(s.Name, supplier.Name)))
                    return Refusal.Invalid($"There is a supplier “{supplier.Name}” already.");
                return new Done(orders.Save(supplier).ToString(System.Globalization.CultureInfo.InvariantCulture));
            }
        );

    /// <summary>Takes a supplier away, or brings it back.</summary>
    public Deed<Done> Remove(long id, bool back, string? once = null) => ledger.Once(once, () => orders.SetDeleted(id, !back));

    /// <summary>Takes a price list in: all of it, or nothing with every reason.</summary>
    public Deed<Done> Prices(long supplierId, string text, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (orders.FindSupplier(supplierId) is not { } supplier)
                    return Refusal.Missing;
                var lines = PriceList.Read(text, out var problems);
                if (problems.Count > 0)
                    return Refusal.Lines(problems);
                if (lines.Count == 0)
                    return Refusal.Invalid("There is no price in it.");
                orders.SetPrices(supplierId, lines);
                orders.Save(supplier with { AskedAt = time.GetUtcNow(), Problem = "" });
                return new Done($"{supplier.Name}: {lines.Count} prices.");
            }
        );

    /// <summary>Asks a supplier for its prices. When it does not answer as it should, its last ones stay.</summary>
    public async Task<Deed<Done>> AskAsync(long supplierId, CancellationToken cancel, string? once = null)
    {
        if (orders.FindSupplier(supplierId) is not { } supplier)
            return Refusal.Missing;
        if (InstrumentAddress.Parse(supplier.Address) is not { } address)
            return Refusal.Invalid($"{supplier.Name} has no address: its prices come by file.");
        string problem;
        try
        {
            var answer = PriceList.ReadAnswer(await link.PricesAsync(address, cancel));
            if (answer.IsOk)
                return ledger.Once<Done>(
                    once,
                    () =>
                    {
                        var told = answer.Value;
                        orders.SetPrices(supplierId, told.Offers);
                        orders.Save(
                            supplier with
                            {
                                Postage = told.Postage,
                                FreeFrom = told.FreeFrom,
                                LeadDays = told.LeadDays,
                                Currency = told.Currency,
                                AskedAt = time.GetUtcNow(),
                                Problem = "",
                            }
                        );
                        return new Done($"{supplier.Name}: {told.Offers.Count} prices.");
                    }
                );
            problem = $"What it answers is no price list ({answer.Problem}). Its last prices stay; take its list as a file, or ask there.";
        }
        catch (InstrumentLinkException ex)
        {
            problem = ex.Message;
        }

        orders.Save(supplier with { Problem = problem });
        return Refusal.Invalid($"{supplier.Name}: {problem}");
    }

    private static bool Same(string one, string other) => string.Equals(one, other, StringComparison.OrdinalIgnoreCase);
}
