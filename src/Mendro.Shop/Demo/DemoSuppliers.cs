using Mendro.Core.Stock;
using Mendro.StandIns.Suppliers;
using Mendro.Storage;

namespace Mendro.Shop.Demo;

/// <summary>Suppliers of the invented world, each a stand-in on a loopback port; the last of them fails.</summary>
public sealed class DemoSuppliers(OrderStore orders, TimeProvider time) : IDisposable
{
    private static readonly (string Name, SupplierMood Mood, string Prices)[] Known =
    [
        (
            "Cormorant Parts",
            SupplierMood.Well,
            """
            {"format":"mendro.prices/1","currency":"EUR","postage":4.5,"freeFrom":40,"leadDays":2,"offers":[
            {"number":"CP-1107","part":"Speaker 28 mm","price":2.1,"available":40},
            {"number":"CP-2201","part":"Save cell with tabs","price":1.35,"available":200},
            {"number":"CP-2201","part":"Save cell with tabs","price":1.1,"from":10,"available":200},
            {"number":"CP-3080","part":"Connector 72","price":11.2,"available":3},
            {"number":"CP-0410","part":"Fuse 1 A","price":0.2,"available":500},{"number":"CP-4410","part":"Power switch","price":3.4,"available":12}]}
            """
        ),
        (
            "Harbour Electronics",
            SupplierMood.Well,
            """
            {"format":"mendro.prices/1","currency":"EUR","postage":3.2,"freeFrom":null,"leadDays":6,"offers":[
            {"number":"71-22","part":"Speaker 28 mm","price":1.4,"available":2},{"number":"71-90","part":"Save cell with tabs","price":0.95,"available":60},
            {"number":"70-01","part":"Fuse 1 A","price":0.09,"available":1000},{"number":"75-05","part":"Regulator 7805","price":0.48,"available":80}]}
            """
        ),
        ("Old Mill Salvage", SupplierMood.Fails, ""),
    ];

    private readonly List<StandInSupplier> _running = [];

    /// <summary>Starts them and tells the shop where they answer.</summary>
    public void Start()
    {
        foreach (var (name, mood, prices) in Known)
        {
            var running = new StandInSupplier(prices) { Mood = mood };
            _running.Add(running);
            var supplier = orders.Suppliers().FirstOrDefault(s => s.Name == name) ?? new Supplier { Name = name, Words = "stand-in that ships with Mendro" };
            var id = orders.Save(supplier with { Address = FormattableString.Invariant($"127.0.0.1:{running.Port}") });
            // Asked once before the doors open; from then on when the shop asks.
            if (supplier.Id == 0 && PriceList.ReadAnswer(prices) is { IsOk: true, Value: var told })
            {
                orders.SetPrices(id, told.Offers);
                orders.Save(
                    orders.FindSupplier(id)! with
                    {
                        Postage = told.Postage,
                        FreeFrom = told.FreeFrom,
                        LeadDays = told.LeadDays,
                        AskedAt = time.GetUtcNow(),
                    }
                );
            }
        }
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        foreach (var running in _running)
            running.Dispose();
    }
}
