using System.Globalization;
using Mendro.Core.Money;
using Mendro.Core.Quantities;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>What is brought into the books besides jobs and lots: bins, orders, other costs.</summary>
public sealed partial class BookKeeper
{
    private void BringMove(long id)
    {
        if (_stock.FindMove(id) is not { } move || move.Value == 0)
            return;
        var (day, key) = (On(move.At), string.Create(CultureInfo.InvariantCulture, $"move:{id}"));
        var own = move.Change > 0 && StockDesk.IsPutIn(move.Why);
        Reconcile(
            Standing(key + ";"),
            [
                new BookMatter(
                    key + ";",
                    move.Value.ToString(CultureInfo.InvariantCulture),
                    day,
                    () => own ? Books.PutIn(day, move.Part, Own.Round(move.Value)) : Books.Counted(day, move.Part, Own.Round(move.Value))
                ),
            ],
            null
        );
    }

    private void BringOrder(long id)
    {
        if (_orders.Find(id) is not { } order || _stock.Received(id) is not { Count: > 0 } received)
            return;
        var key = string.Create(CultureInfo.InvariantCulture, $"order:{id}:");
        var matters = received
            .Where(r => r.Value != 0)
            .Select(r => new BookMatter(
                string.Create(CultureInfo.InvariantCulture, $"{key}{r.Id}"),
                r.Value.ToString(CultureInfo.InvariantCulture),
                On(r.At),
                () => Books.Received(On(r.At), order.Supplier, Own.Round(r.Value), 0).Through(Ways.Orders)
            ))
            .ToList();
        var first = On(received[0].At);
        if (order.Postage != 0)
            matters.Add(
                new BookMatter(
                    key + "postage",
                    string.Create(CultureInfo.InvariantCulture, $"{order.Postage}|{order.Currency}"),
                    first,
                    () => Here(order.Postage, order.Currency, first) is { } here ? Books.Received(first, order.Supplier, 0, here).Through(Ways.Orders) : null
                )
            );
        if (order.Tax != 0 && _journal.Tax(first).InputTax)
            matters.Add(
                new BookMatter(
                    key + "tax",
                    string.Create(CultureInfo.InvariantCulture, $"{order.Tax}|{order.Currency}"),
                    first,
                    () => Here(order.Tax, order.Currency, first) is { } here ? Books.InputTax(first, order.Supplier, here).Through(Ways.Orders) : null
                )
            );
        Reconcile(Standing(key), matters, null);
    }

    private void BringOwn(long id)
    {
        if (_journal.FindOwn(id) is not { } own || DayText.Read(own.Day) is not { } day)
            return;
        var key = string.Create(CultureInfo.InvariantCulture, $"own:{id};");
        var what = own.Words.Length > 0 ? own.Words : OwnEntry.KindWords(own.Kind);
        var (sum, back) = (Own.Round(own.Amount), _journal.Tax(day).InputTax ? TaxRule.In(own.Amount, own.TaxPercent, Own) : 0);
        var matter = new BookMatter(
            key,
            string.Create(CultureInfo.InvariantCulture, $"{own.Kind}|{own.Amount}|{own.Day}") + (own.Way.Length > 0 ? $"|{own.Way}" : ""),
            day,
            () => own.Kind switch
            {
                "cost" => (Books.OtherCost(day, what, sum, back) with { TaxPercent = back == 0 ? 0 : own.TaxPercent }).Through(own.Way == "bank"),
                "drawn" => Books.BroughtIn(day, what, -sum).Through(own.Way == "bank"),
                "to-bank" => Books.ToBank(day, what, sum),
                "from-bank" => Books.ToBank(day, what, -sum),
                "counted" => Books.DrawerCounted(day, what, sum),
                _ => Books.BroughtIn(day, what, sum).Through(own.Way == "bank"),
            }
        );
        Reconcile(Standing(key), own.DeletedAt is null ? [matter] : [], null);
    }
}
