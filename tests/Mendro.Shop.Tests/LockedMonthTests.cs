using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Storage;

namespace Mendro.Shop.Tests;

/// <summary>Whatever is clicked afterwards, what is on Money does not change for a month that is closed; and the books agree with
/// themselves all along.</summary>
public sealed class LockedMonthTests
{
    private static readonly DateOnly March = new(2026, 3, 1);

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(4)]
    public void A_closed_month_stands_whatever_is_clicked(int seed)
    {
        using var shop = new TestShop();
        var random = new Random(seed);
        var lot = long.Parse(
            shop.Lots.Save(new Lot { Name = "attic", Price = 31, Currency = "EUR", BoughtOn = "2026-03-02", ProfileId = "harrow-quartet" }).Done!.Words,
            System.Globalization.CultureInfo.InvariantCulture
        );
        var numbers = shop.LotItems.TakeIn(lot, "no light\nno light\nno light\n").Done!.Numbers.ToList();
        numbers.AddRange([shop.TakeIn(), shop.TakeIn(fails: "picture"), shop.TakeIn(owner: null)]);
        shop.Stock.Import("name;bin;count;cost\nFuse;A1;9;0.37\nKnob;A2;4;1.20\n").Done.ShouldNotBeNull();
        for (var n = 0; n < 25; n++)
            Click(shop, random, numbers, lot);
        shop.Time.Advance(TimeSpan.FromDays(40));
        shop.Money.Lock(March, true, new DateOnly(2026, 4, 10)).Done.ShouldNotBeNull();
        var closed = BooksFile.Entries(shop.Money.Month(March));
        closed.Length.ShouldBeGreaterThan(400);
        for (var n = 0; n < 60; n++)
        {
            var what = Click(shop, random, numbers, lot);
            BooksFile.Entries(shop.Money.Month(March)).ShouldBe(closed, what);
            var april = shop.Money.Month(March.AddMonths(1));
            april.Entries.ShouldAllBe(e => e.Postings.Sum(p => p.Value) == 0, what);
            shop.Money.Balance(Account.Stock).Value.ShouldBe(shop.StockRows.Worth(), what);
            Enum.GetValues<Account>().Sum(a => shop.Money.Balance(a).Value).ShouldBe(0, what);
            shop.Money.Gains(March, 2).Sum(m => m.Gain).ShouldBe(shop.Money.Month(March).Gain + april.Gain, what);
            // What is added up by month as it is written is the sum of the entries.
            var year = shop.Money.Span(new DateOnly(2026, 1, 1), new DateOnly(2026, 12, 31)).Sums;
            foreach (var account in Enum.GetValues<Account>())
                year.GetValueOrDefault(account).ShouldBe(shop.Money.Balance(account).Value, what);
            // What a unit cost comes out of Units when it goes, to the cent; what is left there is what the shop has.
            var here = shop.Money.Balance(Account.Units).Value;
            here.ShouldBe(Here(shop), what);
        }
    }

    // Units of the shop's own that are neither sold nor given up, at what was paid for them, and what a lot cost beyond its units.
    private static decimal Here(TestShop shop)
    {
        using var connection = shop.Database.Open();
        var units = Dapper.SqlMapper.Query<(string Paid, string Lot)>(
            connection,
            """
            SELECT j.paid, j.lot FROM jobs j LEFT JOIN sales s ON s.job_id = j.id
            WHERE j.customer_id IS NULL AND j.practice_seed IS NULL AND j.deleted_at IS NULL AND j.paid IS NOT NULL AND j.ending <> 'Parts'
              AND coalesce(s.state, '') <> 'Sold'
            """
        );
        var rest = shop.Journal.Of(null, "attic", new("EUR")).Where(e => e.Job is null).Sum(e => e.On(Account.Units));
        return units.Sum(u => decimal.Parse(u.Paid, System.Globalization.CultureInfo.InvariantCulture)) + rest;
    }

    private static string Click(TestShop shop, Random random, List<long> numbers, long lot)
    {
        var number = numbers[random.Next(numbers.Count)];
        var job = shop.Jobs.Find(number)!;
        var sum = Math.Round((decimal)random.NextDouble() * 40, 2) + 0.01m;
        shop.Time.Advance(TimeSpan.FromHours(random.Next(1, 12)));
        switch (random.Next(15))
        {
            case 0:
                shop.Repairs.Log(new RepairOrder(number, "switch", "flush-switch", Minutes: random.Next(5, 60), Cost: sum));
                return $"repair {number}";
            case 1:
                shop.HandOver.Close(new CloseOrder(number, JobEnd.ForSale, "", "as it is", sum, false));
                return $"offer {number}";
            case 2:
                shop.Sale.Becomes(number, new Sale { State = SaleState.Sold, Price = sum, Fees = Math.Round(sum / 10, 2), Postage = 1.5m });
                return $"sell {number}";
            case 3:
                shop.Sale.Becomes(number, new Sale { State = SaleState.Returned, Price = sum });
                return $"came back {number}";
            case 4:
                shop.HandOver.Close(new CloseOrder(number, job.ShopStock ? JobEnd.Parts : JobEnd.Returned, "", "as it is", null, false));
                return $"close {number}";
            case 5:
                shop.HandOver.Reopen(number);
                return $"reopen {number}";
            case 6:
                shop.Money.Pay(number, new Payment { Kind = "payment", Amount = sum, Day = random.Next(2) == 0 ? "2026-03-03" : "2026-04-12" });
                return $"pay {number}";
            case 7:
                if (shop.Money.Payments(job.Id) is [var paid, ..])
                    shop.Money.Unpay(number, paid.Id, back: false);
                return $"unpay {number}";
            case 8:
                shop.Money.SetTax(new TaxRule(random.Next(0, 25), random.Next(2) == 0), random.Next(2) == 0 ? March : new DateOnly(2026, 4, 5));
                return "tax";
            case 9:
                shop.Settings.Save(shop.Settings.Get() with { RatePerHour = random.Next(10, 90) });
                return "hour";
            case 10:
                shop.Stock.Use(shop.StockRows.Named(random.Next(2) == 0 ? "Fuse" : "Knob")!.Id, number, 1);
                return $"use {number}";
            case 11:
                shop.Readings.Undo(number);
                return $"undo {number}";
            case 12:
                var bin = shop.StockRows.Named(random.Next(2) == 0 ? "Fuse" : "Knob")!;
                shop.Stock.Correct(bin.Id, random.Next(bin.Reserved, 12), "counted");
                return "count";
            case 13:
                shop.Lots.Save(shop.LotRows.Find(lot)! with { Price = sum });
                return "price of the lot";
            default:
                shop.LotItems.Place(numbers[random.Next(3)], random.Next(2) == 0, "", null);
                return "apart";
        }
    }
}
