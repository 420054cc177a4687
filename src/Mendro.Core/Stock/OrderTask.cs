using System.Text.Json.Serialization;

namespace Mendro.Core.Stock;

/// <summary>Something that is needed.</summary>
/// <param name="Part">Part, by whatever name the offers call it.</param>
/// <param name="Count">How many, 1 or more.</param>
public sealed record OrderNeed(string Part, int Count);

/// <summary>What a supplier has of a part, at one price; quantity prices are several of them.</summary>
/// <param name="Part">Part.</param>
/// <param name="Price">Price of one, 0 or more, in the currency of the whole task.</param>
/// <param name="Available">How many there are, 0 or more; null where it is not told, and as many as one likes.</param>
/// <param name="From">Least number at which the price holds, 1 or more; null for 1.</param>
public sealed record SupplierOffer(string Part, decimal Price, int? Available, int? From = null);

/// <summary>A supplier with what it offers.</summary>
/// <param name="Id">Id.</param>
/// <param name="Postage">Postage once anything is bought there, 0 or more.</param>
/// <param name="FreeFrom">Worth of goods from which there is no postage; null for never.</param>
/// <param name="Offers">What it offers.</param>
public sealed record OrderSupplier(string Id, decimal Postage, decimal? FreeFrom, IReadOnlyList<SupplierOffer> Offers);

/// <summary>What is to be ordered, and where it can be had.</summary>
/// <param name="Needs">What is needed; a part stands in it once.</param>
/// <param name="Suppliers">Suppliers.</param>
public sealed record OrderTask(IReadOnlyList<OrderNeed> Needs, IReadOnlyList<OrderSupplier> Suppliers)
{
    /// <summary>Most that can be had of a part from all suppliers together, up to what is needed.</summary>
    public int Reach(OrderNeed need) =>
        (int)Math.Min(need.Count, Suppliers.Sum(s => Has(s.Offers.Where(o => o.Part == need.Part && !(o.From > need.Count)), need.Count)));

    // Quantity prices are prices of one and the same heap; other offers lie beside one another.
    private static long Has(IEnumerable<SupplierOffer> offers, int most) =>
        offers
            .GroupBy(o => o.From is null)
            .Sum(g => g.Key ? g.Sum(o => (long)Math.Min(o.Available ?? most, most)) : g.Max(o => (long)Math.Min(o.Available ?? most, most)));

    /// <summary>What an order costs: goods at their prices, and the postage of every supplier that is used.</summary>
    /// <param name="lines">Lines with the price of one.</param>
    public decimal Cost(IEnumerable<(string Supplier, decimal Price, int Count)> lines) =>
        lines
            .Where(l => l.Count > 0)
            .GroupBy(l => l.Supplier)
            .Sum(s =>
            {
                var goods = s.Sum(l => l.Price * l.Count);
                var supplier = Suppliers.First(x => x.Id == s.Key);
                return goods + (goods >= supplier.FreeFrom ? 0 : supplier.Postage);
            });
}

/// <summary>A line of an order.</summary>
/// <param name="Supplier">Supplier.</param>
/// <param name="Part">Part.</param>
/// <param name="Count">How many.</param>
public sealed record OrderLine(string Supplier, string Part, int Count);

/// <summary>How an order is split over suppliers.</summary>
/// <param name="Lines">Lines, by supplier and part in the order of the task.</param>
/// <param name="Total">What it costs with postage.</param>
/// <param name="Missing">What nobody has.</param>
/// <param name="Proved">True when no split is cheaper.</param>
public sealed record OrderPlan(
    IReadOnlyList<OrderLine> Lines,
    decimal Total,
    IReadOnlyList<OrderNeed> Missing,
    [property: JsonIgnore] bool Proved = true
);
