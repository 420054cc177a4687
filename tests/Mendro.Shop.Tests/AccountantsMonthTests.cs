using System.Globalization;
using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Storage;

namespace Mendro.Shop.Tests;

/// <summary>
/// A month of a shop beside books kept by hand: after each action the sums written out here are those on Money, in its file, by job and
/// by lot; then every kind of correction behind the closed month. Tax is 19 % in the price in March (of 119 it is 19), 20 % on top from April.
/// </summary>
public sealed class AccountantsMonthTests : IDisposable
{
    private static readonly DateOnly March = new(2026, 3, 1);
    private static readonly DateOnly April = new(2026, 4, 1);

    private readonly TestShop _shop = new();
    private readonly Dictionary<Account, decimal> _byHand = [];
    private DateOnly _month = March;
    private int _actions;

    public AccountantsMonthTests()
    {
        // Two hours east of UTC: a day ends at 22:00 UTC.
        _shop.Settings.Save(_shop.Settings.Get() with { TimeZone = "Etc/GMT-2", RatePerHour = 60 });
        _shop.Money.SetTax(new TaxRule(19, true), new DateOnly(2020, 1, 1)).Done.ShouldNotBeNull();
        _shop.Money.SetTax(new TaxRule(20, false), April).Done.ShouldNotBeNull();
    }

    public void Dispose() => _shop.Dispose();

    private void On(int month, int day, int hour = 10, int minute = 0) =>
        _shop.Time.SetUtcNow(new DateTimeOffset(2026, month, day, hour, minute, 0, TimeSpan.Zero));

    // Does one thing and holds the books against the figures by hand, such as "cash -12, units 12".
    private void Step(string what, Action act, string moves = "")
    {
        act();
        _actions++;
        foreach (var move in moves.Split(", ", StringSplitOptions.RemoveEmptyEntries))
        {
            var (account, value) = (Enum.Parse<Account>(move.Split(' ')[0], ignoreCase: true), decimal.Parse(move.Split(' ')[1], CultureInfo.InvariantCulture));
            _byHand[account] = _byHand.GetValueOrDefault(account) + value;
        }

        _byHand.Values.Sum().ShouldBe(0, $"the figures by hand of “{what}” do not add up to nothing");
        var books = _shop.Money.Month(_month);
        foreach (var account in Enum.GetValues<Account>())
            books.Sums.GetValueOrDefault(account).ShouldBe(_byHand.GetValueOrDefault(account), $"{account} after action {_actions}, {what}");
        books.Entries.ShouldAllBe(e => e.Postings.Sum(p => p.Value) == 0);
        _shop.Money.Balance(Account.Stock).Value.ShouldBe(_shop.StockRows.Worth(), what);
        // The file says the same, and so do the kinds with what is of none of them.
        var last = BooksFile.Entries(books).Trim().Split("\r\n")[^1].Split(',');
        last[^1].ShouldBe(_byHand.GetValueOrDefault(Account.Other) is 0 ? "" : _byHand[Account.Other].ToString("0.00##", CultureInfo.InvariantCulture));
        (books.ByModel.Sum(l => l.Gain.Value) + books.OfNoUnit).ShouldBe(books.Gain);
        books.ByKind.Sum(l => l.Gain.Value).ShouldBe(books.ByModel.Sum(l => l.Gain.Value));
    }

    private long Unit(decimal paid)
    {
        var number = _shop.TakeIn(owner: null);
        _shop.Jobs.SaveIntake(_shop.Jobs.Find(number)! with { Paid = paid }, null, "");
        return number;
    }

    private void Offer(long number, decimal asking)
    {
        _shop.AllWork(number, proving: true);
        _shop.HandOver.Close(new CloseOrder(number, JobEnd.ForSale, "", "", asking, false)).Done.ShouldNotBeNull();
    }

    private void Becomes(long number, SaleState state, decimal price = 0, decimal fees = 0, decimal postage = 0) =>
        _shop.Sale.Becomes(number, new Sale { State = state, Price = price, Fees = fees, Postage = postage }).Done.ShouldNotBeNull();

    private void Close(long number)
    {
        _shop.AllWork(number, proving: true);
        _shop.HandOver.Close(new CloseOrder(number, JobEnd.Returned, "", "", null, false)).Done.ShouldNotBeNull();
    }

    private void Pay(long number, string kind, decimal amount, string day = "2026-03-10") =>
        _shop.Money.Pay(number, new Payment { Kind = kind, Amount = amount, Day = day }).Done.ShouldNotBeNull();

    private void Price(long number, decimal price, PriceReason why = PriceReason.Agreed) =>
        _shop.FinalPrices.Set(number, new FinalPrice(price, "EUR", why)).Done.ShouldNotBeNull();

    private void Note(string kind, decimal amount, string day = "2026-03-02") =>
        _shop.Money.Note(new OwnEntry { Kind = kind, Amount = amount, Day = day, Words = kind }).Done.ShouldNotBeNull();

    private static long Id(Deed<Done> deed) => long.Parse(deed.Done.ShouldNotBeNull().Words, CultureInfo.InvariantCulture);

    [Fact]
    public async Task A_month_of_a_shop_is_what_is_reckoned_by_hand()
    {
        On(3, 2);
        Step("opening balance", () => Note("brought", 500), "cash 500, own -500");
        Step("rent", () => Note("cost", 119), "cash -119, other 119");
        Step("drawn", () => Note("drawn", 40), "cash -40, own 40");
        // 10 · 0.40 + 5 · 1.10 = 9.50.
        Step("bins", () => _shop.Stock.Import("name;bin;count;cost\nFuse;A1;10;0.40\nSwitch;A2;5;1.10\n").Done.ShouldNotBeNull(), "stock 9.50, own -9.50");
        var (fuse, knob) = (_shop.StockRows.Named("Fuse")!.Id, _shop.StockRows.Named("Switch")!.Id);
        long a = 0, b = 0, c = 0;
        Step("unit A", () => a = Unit(12), "cash -12, units 12");
        Step("unit B", () => b = Unit(8.50m), "cash -8.50, units 8.50");
        Step("unit C", () => c = Unit(3), "cash -3, units 3");
        Step("two fuses into A", () => _shop.Stock.Use(fuse, a, 2).Done.ShouldNotBeNull(), "stock -0.80, partsused 0.80");
        Step("a part bought for A", () => Repair(a, 1.35m), "cash -1.35, partsused 1.35");
        Step("A is offered", () => Offer(a, 60));
        // 59.50 hold 9.50 of tax: 50 stay. 59.50 - 5.95 - 4.10 = 49.45 come in.
        Step(
            "A is sold",
            () => Becomes(a, SaleState.Sold, 59.50m, 5.95m, 4.10m),
            "cash 49.45, fees 5.95, postage 4.10, sales -50, tax -9.50, unitsgone 12, units -12"
        );
        Step("its fee was more", () => Becomes(a, SaleState.Sold, 59.50m, 6.45m, 4.10m), "cash -0.50, fees 0.50");
        _shop.Money.Of(a, "").Gain.ShouldBe(50 - 6.45m - 4.10m - 12 - 0.80m - 1.35m);
        Step("a fuse into B", () => _shop.Stock.Use(fuse, b, 1).Done.ShouldNotBeNull(), "stock -0.40, partsused 0.40");
        Step("taken back", () => _shop.Readings.Undo(b).Done.ShouldNotBeNull(), "stock 0.40, partsused -0.40");
        Step("one fuse is lost", () => _shop.Stock.Correct(fuse, 7, "lost").Done.ShouldNotBeNull(), "stock -0.40, partsused 0.40");
        Step("C was taken in by mistake", () => _shop.HandOver.Delete(c).Done.ShouldNotBeNull(), "cash 3, units -3");
        Step("and was not", () => _shop.HandOver.BringBack(c).Done.ShouldNotBeNull(), "cash -3, units 3");
        Step("B had cost 9", () => _shop.Jobs.SaveIntake(_shop.Jobs.Find(b)! with { Paid = 9 }, null, ""), "cash -0.50, units 0.50");

        // A lot: 20 and 5 of postage, four units at 6.25.
        long attic = 0;
        IReadOnlyList<long> units = [];
        var lot = new Lot { Name = "attic", Price = 20, Postage = 5, Currency = "EUR", BoughtOn = "2026-03-03", ProfileId = "harrow-quartet" };
        Step("a lot", () => attic = Id(_shop.Lots.Save(lot)), "cash -25, units 25");
        Step("its units", () => units = _shop.LotItems.TakeIn(attic, "no light\nno light\nno light\nno light\n").Done.ShouldNotBeNull().Numbers);
        Step("a switch into the first", () => _shop.Stock.Use(knob, units[0], 1).Done.ShouldNotBeNull(), "stock -1.10, partsused 1.10");
        Step("the first is offered", () => Offer(units[0], 30));
        // 23.80 hold 3.80.
        Step(
            "and sold",
            () => Becomes(units[0], SaleState.Sold, 23.80m, 2.38m),
            "cash 21.42, fees 2.38, sales -20, tax -3.80, unitsgone 6.25, units -6.25"
        );
        // 3.00 more for the three that are there; the sold one keeps its 6.25.
        Step("the lot had cost 23", () => _shop.Lots.Save(_shop.LotRows.Find(attic)! with { Price = 23 }).Done.ShouldNotBeNull(), "cash -3, units 3");
        _shop.Jobs.Find(units[1])!.Paid.ShouldBe(7.25m);
        Step("the second goes to parts", () => GiveUp(units[1]), "unitsgone 7.25, units -7.25");
        // Panel and speaker are worth 9 to 6: the panel takes 7.25 · 0.6 = 4.35 along.
        Step("its panel goes into B", () => Pull("panel", b), "partsused 4.35, unitsgone -4.35");
        _shop.Money.Of(b, "").Gain.ShouldBe(-4.35m);
        _shop.Money.Of(units[1], "").Gain.ShouldBe(-7.25m + 4.35m);
        Step("its speaker is sold", () => _shop.DonorParts.Sell(DonorPart("speaker"), 2.38m).Done.ShouldNotBeNull(), "cash 2.38, sales -2, tax -0.38");
        _shop.Money.Of(null, "attic").Gain.ShouldBe(20 - 2.38m - 6.25m - 1.10m - 7.25m + 4.35m + 2);

        // Five repairs, each with 10 ahead and 47.60 in the end: 40 and 7.60 of tax.
        var repairs = new List<long>();
        for (var n = 0; n < 5; n++)
        {
            On(3, 10 + n);
            var at = n;
            Step($"repair {n}", () => repairs.Add(_shop.TakeIn(fails: "power-light")));
            Step("paid ahead", () => Pay(repairs[at], "deposit", 10), "cash 10, owners -10");
            Step("a switch", () => _shop.Repairs.Log(new RepairOrder(repairs[at], "switch", "flush-switch", Minutes: 20)).Done.ShouldNotBeNull());
            Step("a fuse", () => _shop.Stock.Use(fuse, repairs[at], 1).Done.ShouldNotBeNull(), "stock -0.40, partsused 0.40");
            Step("the price", () => Price(repairs[at], 47.60m));
            Step("handed over", () => Close(repairs[at]), "owners 47.60, repairs -40, tax -7.60");
            Step("paid", () => Pay(repairs[at], "payment", 37.60m, $"2026-03-{10 + at}"), "cash 37.60, owners -37.60");
        }

        // Others' ends: declined, waived, warranty, a discount, too much paid and paid back, a payment by mistake.
        On(3, 18);
        foreach (var why in (PriceReason[])[PriceReason.Waived, PriceReason.Discount])
        {
            long job = 0;
            Step($"a repair, {why}", () => job = _shop.TakeIn(fails: "power-light"));
            Step("a part bought for it", () => Repair(job, 2), "cash -2, partsused 2");
            Step("its price", () => Price(job, 23.80m, why));
            Step("handed over", () => Close(job), why == PriceReason.Discount ? "owners 23.80, repairs -20, tax -3.80" : "");
            if (why == PriceReason.Discount)
            {
                Step("paid by mistake", () => Pay(job, "payment", 50, "2026-03-18"), "cash 50, owners -50");
                var wrong = _shop.Money.Payments(_shop.Jobs.Find(job)!.Id).Single().Id;
                Step("taken away", () => _shop.Money.Unpay(job, wrong, back: false).Done.ShouldNotBeNull(), "cash -50, owners 50");
                Step("counts after all", () => _shop.Money.Unpay(job, wrong, back: true).Done.ShouldNotBeNull(), "cash 50, owners -50");
                Step("paid back what is too much", () => Pay(job, "refund", 26.20m, "2026-03-18"), "cash -26.20, owners 26.20");
            }
        }

        long declined = 0;
        Step("a repair to be declined", () => declined = _shop.TakeIn(fails: "power-light"));
        Step("quoted", () => _shop.Owners.Quote(declined, new QuoteGiven(10, 20, 30, "EUR", "", ConsentWay.Phone), false).Done.ShouldNotBeNull());
        Step("work", () => Repair(declined, 0));
        Step("declined", () => _shop.Owners.Answer(declined, new QuoteAnswered(false, null, "EUR", "x", ConsentWay.Phone)).Done.ShouldNotBeNull());
        Step("fetched", () => Close(declined));
        long limited = 0;
        Step("a repair with a limit", () => limited = _shop.TakeIn(fails: "power-light"));
        var quote = new QuoteGiven(5, 10, 11.90m, "EUR", "", ConsentWay.Phone);
        Step("quoted with a limit", () => _shop.Owners.Quote(limited, quote, false).Done.ShouldNotBeNull());
        Step("agreed", () => _shop.Owners.Answer(limited, new QuoteAnswered(true, 11.90m, "EUR", "x", ConsentWay.Phone)).Done.ShouldNotBeNull());
        Step("an hour of work", () => _shop.Repairs.Log(new RepairOrder(limited, "switch", "flush-switch", Minutes: 60)).Done.ShouldNotBeNull());
        // 11.90 hold 1.90.
        Step("handed over at the limit", () => Close(limited), "owners 11.90, repairs -10, tax -1.90");

        // An order: 8 of 0.25 and 3 of postage; three come first. They go after the fuses that lie there.
        var supplier = Id(_shop.Suppliers.Save(new Supplier { Name = "By file", Postage = 3, Currency = "EUR" }));
        Step("a price list", () => _shop.Suppliers.Prices(supplier, "part,price\nClip,0.25\n").Done.ShouldNotBeNull());
        Step("wanted", () => _shop.Stock.Want(b, "Clip", 8).Done.ShouldNotBeNull());
        (await _shop.Orders.SendAsync(supplier, false, TestContext.Current.CancellationToken)).Done.ShouldNotBeNull();
        var line = _shop.OrderRows.List(1)[0].Lines[0].Id;
        Step("three clips come", () => _shop.Arrivals.Receive(line, 3, 0).Done.ShouldNotBeNull(), "stock 0.75, postage 3, cash -3.75");
        Step("and five", () => _shop.Arrivals.Receive(line, 5, 0).Done.ShouldNotBeNull(), "stock 1.25, cash -1.25");
        Step("a clip into B", () => _shop.Stock.Use(_shop.StockRows.Named("Clip")!.Id, b, 1).Done.ShouldNotBeNull(), "stock -0.25, partsused 0.25");

        // Twenty units bought and sold again for 11.90 each: 10 stay of it, less 4 that it cost.
        for (var n = 0; n < 20; n++)
        {
            On(3, 19 + n / 3);
            long unit = 0;
            Step($"unit {n}", () => unit = Unit(4), "cash -4, units 4");
            Offer(unit, 12);
            Step($"unit {n} is sold", () => Becomes(unit, SaleState.Sold, 11.90m), "cash 11.90, sales -10, tax -1.90, unitsgone 4, units -4");
            if (n == 7)
                Step("and comes back", () => Becomes(unit, SaleState.Returned, 11.90m), "cash -11.90, sales 10, tax 1.90, unitsgone -4, units 4");
        }

        // The last half hour of March and the first of April.
        Offer(b, 40);
        On(3, 31, 21, 30);
        // B had cost 9; the panel's 4.35 and the clip are booked already. 35.70 hold 5.70.
        Step("B is sold at 23:30", () => Becomes(b, SaleState.Sold, 35.70m), "cash 35.70, sales -30, tax -5.70, unitsgone 9, units -9");
        Offer(c, 40);
        On(3, 31, 22, 30);
        Step("C is sold at 00:30 of April", () => Becomes(c, SaleState.Sold, 35.70m));
        // 35.70 named, 20 % of it on top: 7.14.
        _shop.Money.Month(April).Sums[Account.Tax].ShouldBe(-7.14m);
        _actions.ShouldBeGreaterThanOrEqualTo(120);

        // What April had before the corrections.
        foreach (var (account, value) in _shop.Money.Month(April).Sums)
            _opening[account] = value;
        Corrections(a, repairs, attic, units, fuse);
    }

    private readonly Dictionary<Account, decimal> _opening = [];

    // Every kind of correction of what lies in the closed month: March stays to the byte, April takes it.
    private void Corrections(long a, List<long> repairs, long attic, IReadOnlyList<long> units, long fuse)
    {
        On(4, 2);
        _shop.Money.Lock(March, true, new DateOnly(2026, 4, 2)).Done.ShouldNotBeNull();
        var file = BooksFile.Entries(_shop.Money.Month(March));
        var (march, expected) = (_shop.Money.Month(March).Gain, new Dictionary<Account, decimal>(_opening));
        _month = April;
        _byHand.Clear();
        foreach (var (account, value) in expected)
            _byHand[account] = value;

        void Correct(string what, Action act, string moves)
        {
            Step(what, act, moves);
            BooksFile.Entries(_shop.Money.Month(March)).ShouldBe(file, what);
        }

        Correct("the fee of A was less", () => Becomes(a, SaleState.Sold, 59.50m, 5.45m, 4.10m), "cash 1, fees -1");
        // The tax of its own day: 71.40 would have held 11.40.
        Correct("the price of A was more", () => Becomes(a, SaleState.Sold, 71.40m, 5.45m, 4.10m), "cash 11.90, sales -10, tax -1.90");
        Correct("A comes back", () => Becomes(a, SaleState.Returned, 71.40m), "cash -71.40, sales 60, tax 11.40, unitsgone -12, units 12");
        var paid = _shop.Money.Payments(_shop.Jobs.Find(repairs[0])!.Id)[^1].Id;
        Correct("a payment was a mistake", () => _shop.Money.Unpay(repairs[0], paid, back: false).Done.ShouldNotBeNull(), "cash -37.60, owners 37.60");
        Correct("and was none", () => _shop.Money.Unpay(repairs[0], paid, back: true).Done.ShouldNotBeNull(), "cash 37.60, owners -37.60");
        var rent = _shop.Money.OwnEntries(50).Single(e => e.Words == "cost").Id;
        Correct("the rent was none", () => _shop.Money.Unnote(rent, back: false).Done.ShouldNotBeNull(), "cash 119, other -119");
        Correct("the rent was one", () => _shop.Money.Unnote(rent, back: true).Done.ShouldNotBeNull(), "cash -119, other 119");
        Correct("a cost of March is noted late", () => Note("cost", 7), "cash -7, other 7");
        // Two units of the lot are there still: 2 more each.
        Correct("the lot had cost 27", () => _shop.Lots.Save(_shop.LotRows.Find(attic)! with { Price = 27 }).Done.ShouldNotBeNull(), "cash -4, units 4");
        Correct("a unit of the lot was a mistake", () => _shop.HandOver.Delete(units[3]).Done.ShouldNotBeNull(), "");
        Correct("a repair is opened again", () => _shop.HandOver.Reopen(repairs[1]).Done.ShouldNotBeNull(), "owners -47.60, repairs 40, tax 7.60");
        // Closed again it is a repair of April: 47.60 named, 9.52 on top.
        Correct("and closed", () => Close(repairs[1]), "owners 57.12, repairs -47.60, tax -9.52");
        Correct("fuses are counted", () => _shop.Stock.Correct(fuse, 1, "counted").Done.ShouldNotBeNull(), "stock -0.40, partsused 0.40");
        Correct("an hour is dearer", () => _shop.Settings.Save(_shop.Settings.Get() with { RatePerHour = 90 }), "");
        Correct("the tax is another from May on", () => _shop.Money.SetTax(new TaxRule(25, true), new DateOnly(2026, 5, 1)).Done.ShouldNotBeNull(), "");
        _shop.Money.Month(March).Gain.ShouldBe(march);
    }

    private void Repair(long number, decimal cost) =>
        _shop.Repairs.Log(new RepairOrder(number, "switch", "flush-switch", Cost: cost == 0 ? null : cost, Minutes: 10)).Done.ShouldNotBeNull();

    private long DonorPart(string part) => _shop.Donors.List(part, all: false).Single().Id;

    private void Pull(string part, long into) => _shop.DonorParts.Pull(DonorPart(part), into).Done.ShouldNotBeNull();

    private void GiveUp(long number) =>
        _shop
            .HandOver.Close(
                new CloseOrder(number, JobEnd.Parts, "", "", null, false)
                {
                    Donates =
                    [
                        new DonorPart { Part = "panel", Name = "Panel", Kind = "panel", Good = 0.9 },
                        new DonorPart { Part = "speaker", Name = "Speaker", Kind = "speaker", Good = 0.6 },
                    ],
                }
            )
            .Done.ShouldNotBeNull();
}
