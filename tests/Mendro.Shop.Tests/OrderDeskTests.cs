using Mendro.Core.Jobs;
using Mendro.StandIns.Suppliers;
using Mendro.Storage;

namespace Mendro.Shop.Tests;

/// <summary>Stock and orders: put by, ordered, received late and wrong, and suppliers that fail.</summary>
public sealed class OrderDeskTests : IDisposable
{
    private const string Answer = """
        {"format":"mendro.prices/1","currency":"EUR","postage":4.5,"freeFrom":40,"leadDays":2,"offers":[
        {"number":"S-1","part":"Speaker","price":2.1,"available":40},{"number":"F-1","part":"Fuse","price":0.2,"available":500}]}
        """;

    private readonly TestShop _shop = new();
    private readonly StandInSupplier _quick = new(Answer);

    public void Dispose()
    {
        _quick.Dispose();
        _shop.Dispose();
    }

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private long Supplier(string name, int days = 3, decimal postage = 3, string address = "") =>
        long.Parse(
            _shop
                .Suppliers.Save(
                    new Supplier
                    {
                        Name = name,
                        LeadDays = days,
                        Postage = postage,
                        Address = address,
                        Currency = "EUR",
                    }
                )
                .Done.ShouldNotBeNull()
                .Words,
            System.Globalization.CultureInfo.InvariantCulture
        );

    private long Quick() => Supplier("Quick", address: $"127.0.0.1:{_quick.Port}");

    private StockItem Bin(string name) => _shop.StockRows.Named(name).ShouldNotBeNull();

    private void Stock(string csv) => _shop.Stock.Import("name,count,cost\n" + csv).Done.ShouldNotBeNull();

    [Fact]
    public void What_a_job_wants_is_put_by_and_goes_into_it_with_its_cost()
    {
        Stock("Fuse,5,0.10\n");
        var (one, other) = (_shop.TakeIn(), _shop.TakeIn());
        _shop.Stock.Want(one, "Fuse", 4).Done.ShouldNotBeNull().Words.ShouldContain("put by");
        _shop.Stock.Want(other, "fuse", 3).Done.ShouldNotBeNull().Words.ShouldContain("2 to be ordered");
        (Bin("Fuse").Count, Bin("Fuse").Reserved, Bin("Fuse").Free).ShouldBe((5, 5, 0));
        // Nobody takes what is put by for another.
        _shop.Stock.Use(Bin("Fuse").Id, other, 2).Refusal.ShouldNotBeNull();
        _shop.Stock.Use(Bin("Fuse").Id, one, 4).Done.ShouldNotBeNull();
        (Bin("Fuse").Count, Bin("Fuse").Reserved).ShouldBe((1, 1));
        _shop.View(one).PartsCost.Value.ShouldBe(0.40m);
        _shop.View(one).All<PartUsed>().Single().Body.ShouldBe(new PartUsed("Fuse", 4));
        _shop.Stock.Correct(Bin("Fuse").Id, 0, "").Refusal.ShouldNotBeNull();
        _shop.Stock.Correct(Bin("Fuse").Id, 7, "found more").Done.ShouldNotBeNull();
        _shop.StockRows.Moves(Bin("Fuse").Id).Select(m => (m.Change, m.Job, m.Why)).ShouldBe([
            (6, null, "found more"), (-4, one, $"into {one}"), (5, null, "by a file"),
        ]);
    }

    [Fact]
    public void A_file_with_one_wrong_line_changes_nothing()
    {
        Stock("Fuse,5,0.10\n");
        var refused = _shop.Stock.Import("name,count\nFuse,3\nSpeaker,some\n").Refusal.ShouldNotBeNull();
        refused.Problem.ShouldStartWith("line 3: count");
        Bin("Fuse").Count.ShouldBe(5);
        _shop.StockRows.Named("Speaker").ShouldBeNull();
        _shop.Stock.Import("name,count\nFuse,3\n").Done.ShouldNotBeNull();
        Bin("Fuse").Count.ShouldBe(8);
        // Out and in again doubles what is there, and loses nothing of what it is.
        _shop.Stock.Import(_shop.Stock.Export()).Done.ShouldNotBeNull();
        (Bin("Fuse").Count, Bin("Fuse").Cost).ShouldBe((16, 0.10m));
    }

    [Fact]
    public async Task The_oldest_promise_gets_what_came_and_wrong_ones_go_back_for_others_or_for_money()
    {
        var supplier = Quick();
        (await _shop.Suppliers.AskAsync(supplier, Cancel)).Done.ShouldNotBeNull();
        var (none, late, soon) = (_shop.TakeIn(), _shop.TakeIn(), _shop.TakeIn());
        foreach (var (number, day) in new[] { (none, ""), (late, "2026-12-20"), (soon, "2026-12-02") })
        {
            var job = _shop.Jobs.Find(number)!;
            _shop.Jobs.SaveIntake(job with { Promised = day }, null, "");
            _shop.Stock.Want(number, "Speaker", 1).Done.ShouldNotBeNull();
        }

        (await _shop.Orders.SendAsync(supplier, false, Cancel)).Done.ShouldNotBeNull();
        SentLine Line() => _shop.OrderRows.List(10).Single().Lines.Single();
        _shop.Arrivals.Return(Line().Id, true).Refusal.ShouldNotBeNull();
        _shop.Arrivals.Receive(Line().Id, 1, 2).Done.ShouldNotBeNull();
        _shop.StockRows.Needs().Where(n => n.Reserved > 0).Select(n => n.Number).ShouldBe([soon]);
        _shop.Arrivals.Return(Line().Id, true).Done.ShouldNotBeNull().Words.ShouldBe("Speaker: 2 sent back, right ones are still to come.");
        (Line().ToReturn, Line().ToCome).ShouldBe((0, 2));
        _shop.Arrivals.Receive(Line().Id, 1, 1).Done.ShouldNotBeNull();
        _shop.StockRows.Needs().Where(n => n.Reserved > 0).Select(n => n.Number).Order().ShouldBe([late, soon]);
        // The last one's money comes back: it is wanted again, and the order is at its end.
        _shop.Arrivals.Return(Line().Id, false).Done.ShouldNotBeNull();
        (Line().Returned, Line().Cancelled, Line().ToCome).ShouldBe((3, 1, 0));
        _shop.OrderRows.List(10, open: true).ShouldBeEmpty();
        _shop.Orders.Wanted().ShouldHaveSingleItem().Jobs.ShouldBe([none]);
    }

    [Fact]
    public async Task An_order_comes_late_and_in_parts_and_wakes_the_job_that_waited_longest()
    {
        var supplier = Quick();
        (await _shop.Suppliers.AskAsync(supplier, Cancel)).Done.ShouldNotBeNull().Words.ShouldBe("Quick: 2 prices.");
        _shop.OrderRows.FindSupplier(supplier)!.FreeFrom.ShouldBe(40);
        var (first, second) = (_shop.TakeIn(), _shop.TakeIn());
        foreach (var number in new[] { first, second })
        {
            _shop.Stock.Want(number, "Speaker", 1).Done.ShouldNotBeNull();
            _shop.HandOver.Shelve(number, Shelf.WaitingPart, "cone torn", "").Done.ShouldNotBeNull();
        }

        var wish = _shop.Orders.Wanted().ShouldHaveSingleItem();
        (wish.Part, wish.Count).ShouldBe(("Speaker", 2));
        wish.Jobs.ShouldBe([first, second]);
        var proposal = _shop.Orders.Propose(urgent: false);
        proposal.Plan.Total.ShouldBe(8.70m);
        var sent = (await _shop.Orders.SendAsync(supplier, false, Cancel, "key1")).Done.ShouldNotBeNull();
        // Sent twice by a double click it is one order, and answered alike.
        (await _shop.Orders.SendAsync(supplier, false, Cancel, "key1")).Done.ShouldBe(sent);
        _shop.OrderRows.List(10).ShouldHaveSingleItem();
        _quick.Orders.ShouldHaveSingleItem().ShouldContain("\"S-1\"");
        // On its way it is not wanted again.
        _shop.Orders.Wanted().ShouldBeEmpty();
        var line = _shop.OrderRows.List(10).Single().Lines.Single();
        _shop.Arrivals.Receive(line.Id, 3, 0).Refusal.ShouldNotBeNull();
        // One comes as it should, one wrong.
        _shop.Arrivals.Receive(line.Id, 1, 1).Done.ShouldNotBeNull().Words.ShouldBe($"Speaker: 1 received; {first} back on the bench.");
        (_shop.Jobs.Find(first)!.Shelf, _shop.Jobs.Find(second)!.Shelf).ShouldBe((Shelf.None, Shelf.WaitingPart));
        _shop.OrderRows.List(10, open: true).ShouldHaveSingleItem();
        _shop.Arrivals.Receive(line.Id, 1, 0).Done.ShouldNotBeNull();
        _shop.Jobs.Find(second)!.Shelf.ShouldBe(Shelf.None);
        var ended = _shop.OrderRows.List(10).Single();
        (ended.EndedAt is not null, ended.Lines.Single().Wrong, ended.Total).ShouldBe((true, 1, 8.70m));
        (Bin("Speaker").Count, Bin("Speaker").Reserved, Bin("Speaker").Cost).ShouldBe((2, 2, 2.1m));
    }

    [Fact]
    public async Task A_job_that_waits_by_name_alone_takes_what_comes_and_what_will_not_come_is_wanted_again()
    {
        var supplier = Supplier("By file");
        _shop.Suppliers.Prices(supplier, "part,price\nhinge,4\n").Done.ShouldNotBeNull();
        var number = _shop.TakeIn();
        _shop.HandOver.Shelve(number, Shelf.WaitingPart, "hinge broken", "", part: "Hinge").Done.ShouldNotBeNull();
        (await _shop.Orders.SendAsync(supplier, false, Cancel)).Done.ShouldNotBeNull();
        var line = _shop.OrderRows.List(10).Single().Lines.Single();
        _shop.Arrivals.Cancel(line.Id).Done.ShouldNotBeNull();
        _shop.OrderRows.List(10).Single().EndedAt.ShouldNotBeNull();
        _shop.Orders.Wanted().ShouldHaveSingleItem().Jobs.ShouldBe([number]);
        (await _shop.Orders.SendAsync(supplier, false, Cancel)).Done.ShouldNotBeNull();
        _shop.Arrivals.Receive(_shop.OrderRows.List(10)[0].Lines.Single().Id, 1, 0).Done.ShouldNotBeNull();
        _shop.Jobs.Find(number)!.Shelf.ShouldBe(Shelf.None);
    }

    [Fact]
    public void In_a_hurry_the_quicker_supplier_is_taken_as_long_as_it_has_as_much()
    {
        var (slow, quick) = (Supplier("Slow", days: 9, postage: 1), Supplier("Swift", days: 1, postage: 6));
        _shop.Suppliers.Prices(slow, "part,price\nFuse,0.10\n").Done.ShouldNotBeNull();
        _shop.Suppliers.Prices(quick, "part,price,available\nFuse,0.20,5\n").Done.ShouldNotBeNull();
        var number = _shop.TakeIn();
        _shop.Stock.Want(number, "Fuse", 4).Done.ShouldNotBeNull();
        _shop.Orders.Propose(urgent: false).Parcels.Single().Supplier.Id.ShouldBe(slow);
        var hurry = _shop.Orders.Propose(urgent: true);
        (hurry.Parcels.Single().Supplier.Id, hurry.Days, hurry.Plan.Total).ShouldBe((quick, 1, 6.80m));
        // It has five: with eight wanted the slow one is needed too.
        _shop.Stock.Want(number, "Fuse", 4).Done.ShouldNotBeNull();
        _shop.Orders.Propose(urgent: true).Days.ShouldBe(9);
    }

    [Fact]
    public void What_would_do_instead_is_told_where_the_part_itself_is_missing()
    {
        _shop.Stock.Import("name,sort,pins,count\nSlide switch,switch,slide-3,4\nPower switch,switch,slide-3,0\n").Done.ShouldNotBeNull();
        _shop
            .Stock.Want(_shop.TakeIn(), "Power switch", 1)
            .Done.ShouldNotBeNull()
            .Words.ShouldBe("Power switch: 1 to be ordered; Slide switch would do (4 free).");
    }

    [Fact]
    public void A_bin_below_its_mark_is_filled_up()
    {
        _shop.Stock.Import("name,count,low\nFuse,3,10\n").Done.ShouldNotBeNull();
        var wish = _shop.Orders.Wanted().ShouldHaveSingleItem();
        (wish.Count, wish.ForStock, wish.Jobs.Count).ShouldBe((17, 17, 0));
    }

    [Theory]
    [InlineData(SupplierMood.Fails, "500")]
    [InlineData(SupplierMood.Nonsense, "no price list")]
    [InlineData(SupplierMood.Half, "only half")]
    [InlineData(SupplierMood.Silent, "does not answer")]
    public async Task A_supplier_that_fails_loses_nothing_and_says_what_to_do(SupplierMood mood, string says)
    {
        var supplier = Quick();
        (await _shop.Suppliers.AskAsync(supplier, Cancel)).Done.ShouldNotBeNull();
        _shop.Stock.Want(_shop.TakeIn(), "Speaker", 1).Done.ShouldNotBeNull();
        _quick.Mood = mood;
        var refused = (await Answered(_shop.Suppliers.AskAsync(supplier, Cancel))).Refusal.ShouldNotBeNull();
        refused.Problem.ShouldContain(says);
        refused.Problem.ShouldContain("as a file");
        _shop.OrderRows.Prices(supplier).Count.ShouldBe(2);
        _shop.OrderRows.FindSupplier(supplier)!.Problem.ShouldNotBeEmpty();
        // An order that nobody took is none.
        var sent = await Answered(_shop.Orders.SendAsync(supplier, false, Cancel));
        sent.Refusal.ShouldNotBeNull();
        _shop.OrderRows.List(10).ShouldBeEmpty();
        _shop.Orders.Wanted().ShouldHaveSingleItem();
    }

    /// <summary>What was asked, once it was heard; who is silent or late is given up when the patience is over.</summary>
    private async Task<Deed<Done>> Answered(Task<Deed<Done>> asked)
    {
        await _quick.Asked(Cancel);
        if (_quick.Mood is SupplierMood.Silent or SupplierMood.Late)
            _shop.Time.Advance(TestShop.Patience);
        return await asked;
    }

    private async Task<long> WantsASpeaker()
    {
        var supplier = Quick();
        (await Answered(_shop.Suppliers.AskAsync(supplier, Cancel))).Done.ShouldNotBeNull();
        _shop.Stock.Want(_shop.TakeIn(), "Speaker", 1).Done.ShouldNotBeNull();
        return supplier;
    }

    [Fact]
    public async Task While_a_supplier_takes_its_time_a_second_press_orders_nothing_twice()
    {
        var supplier = await WantsASpeaker();
        _quick.Mood = SupplierMood.Late;
        var first = _shop.Orders.SendAsync(supplier, false, Cancel, "form1");
        await _quick.Asked(Cancel);
        var again = _shop.Orders.SendAsync(supplier, false, Cancel, "form1");
        var another = _shop.Orders.SendAsync(supplier, false, Cancel, "form2");
        (again.IsCompleted, another.IsCompleted).ShouldBe((false, false));
        _quick.AnswerNow();
        var sent = (await first).Done.ShouldNotBeNull();
        (await again).Done.ShouldBe(sent);
        (await another).Refusal.ShouldNotBeNull().Problem.ShouldContain("is ordered now");
        _quick.Orders.ShouldHaveSingleItem();
        _shop.OrderRows.List(10).ShouldHaveSingleItem();
        // Another order is free again.
        (await _shop.Orders.SendAsync(supplier, false, Cancel, "form3")).Refusal.ShouldNotBeNull().Problem.ShouldContain("Nothing is ordered");
    }

    [Fact]
    public async Task An_order_that_is_answered_too_late_is_not_noted_and_says_that_it_may_have_come_through()
    {
        var supplier = await WantsASpeaker();
        _quick.Mood = SupplierMood.Late;
        var sent = await Answered(_shop.Orders.SendAsync(supplier, false, Cancel, "form1"));
        sent.Refusal.ShouldNotBeNull().Problem.ShouldContain("Nobody knows whether it came through");
        _shop.OrderRows.List(10).ShouldBeEmpty();
        // It had come through. Sent again by the same form it has the same number, by which the supplier knows it.
        _quick.Mood = SupplierMood.Well;
        (await _shop.Orders.SendAsync(supplier, false, Cancel, "form1")).Done.ShouldNotBeNull();
        _quick.Orders.ShouldHaveSingleItem().ShouldContain("form1");
        _shop.OrderRows.List(10).ShouldHaveSingleItem();
    }

    [Fact]
    public async Task A_part_that_comes_by_a_double_click_comes_once()
    {
        var supplier = await WantsASpeaker();
        _shop.Stock.Want(_shop.TakeIn(), "Speaker", 1).Done.ShouldNotBeNull();
        (await _shop.Orders.SendAsync(supplier, false, Cancel)).Done.ShouldNotBeNull();
        var line = _shop.OrderRows.List(10).Single().Lines.Single();
        var told = new System.Collections.Concurrent.ConcurrentBag<string>();
        Parallel.For(0, 4, _ => told.Add(_shop.Arrivals.Receive(line.Id, 1, 0, "came1").Done.ShouldNotBeNull().Words));
        told.Distinct().ShouldHaveSingleItem();
        (Bin("Speaker").Count, _shop.OrderRows.FindLine(line.Id)!.ToCome).ShouldBe((1, 1));
    }

    [Fact]
    public async Task No_supplier_is_asked_beyond_the_shops_own_network()
    {
        var far = Supplier("Far", address: "203.0.113.9:80");
        (await _shop.Suppliers.AskAsync(far, Cancel)).Refusal.ShouldNotBeNull().Problem.ShouldContain("own network");
        _shop.Suppliers.Save(new Supplier { Name = "Odd", Address = "not an address", Currency = "EUR" }).Refusal.ShouldNotBeNull();
    }
}
