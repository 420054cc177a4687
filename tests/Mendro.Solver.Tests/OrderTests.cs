using CsCheck;
using Mendro.Core.Stock;

namespace Mendro.Solver.Tests;

/// <summary>Orders split over suppliers: against every split there is, by another reckoning.</summary>
public sealed class OrderTests
{
    private static readonly TimeSpan Long = TimeSpan.FromSeconds(30);

    /// <summary>Small tasks: up to three suppliers, three parts, four of each.</summary>
    private static Gen<OrderTask> Tasks { get; } =
        from needs in Gen.Int[1, 4].Array[1, 3]
        from suppliers in (
            from postage in Gen.Int[0, 400]
            from free in Gen.OneOf(Gen.Const((int?)null), Gen.Int[0, 900].Select(f => (int?)f))
            from offers in (from part in Gen.Int[0, 2] from cents in Gen.Int[0, 300] from has in Gen.Int[0, 4] select (part, cents, has)).Array[0, 5]
            select (postage, free, offers)
        ).Array[1, 3]
        select new OrderTask(
            needs.Select((count, n) => new OrderNeed($"p{n}", count)).ToList(),
            suppliers
                .Select(
                    (s, n) =>
                        new OrderSupplier(
                            $"s{n}",
                            s.postage / 100m,
                            s.free / 100m,
                            s.offers.DistinctBy(o => o.part).Select(o => new SupplierOffer($"p{o.part}", o.cents / 100m, o.has)).ToList()
                        )
                )
                .ToList()
        );

    [Fact]
    public void No_split_of_all_has_more_or_costs_less() =>
        Tasks.Sample(
            task =>
            {
                var plan = OrderSolver.Solve(task, Long);
                plan.Proved.ShouldBeTrue();
                var (had, cost) = Best(task);
                plan.Lines.Sum(l => l.Count).ShouldBe(had);
                plan.Total.ShouldBe(cost);
                // What the lines say costs what the total says.
                Reckon(task, plan.Lines).ShouldBe(plan.Total);
                foreach (var need in task.Needs)
                {
                    var bought = plan.Lines.Where(l => l.Part == need.Part).Sum(l => l.Count);
                    bought.ShouldBe(need.Count - (plan.Missing.SingleOrDefault(m => m.Part == need.Part)?.Count ?? 0));
                }
            },
            iter: 400
        );

    [Fact]
    public void Of_equal_totals_the_one_with_fewest_parcels_is_taken()
    {
        var one = new OrderSupplier("one", 0, null, [new SupplierOffer("a", 1, 5)]);
        var two = new OrderSupplier("two", 0, null, [new SupplierOffer("a", 1, 5), new SupplierOffer("b", 2, 5)]);
        var plan = OrderSolver.Solve(new OrderTask([new OrderNeed("a", 2), new OrderNeed("b", 1)], [one, two]), Long);
        plan.Lines.ShouldBe([new OrderLine("two", "a", 2), new OrderLine("two", "b", 1)]);
    }

    [Fact]
    public void A_price_for_many_is_taken_for_many_only_and_all_prices_are_of_one_heap()
    {
        OrderSupplier Heap(int has) =>
            new("heap", 0, null, [new SupplierOffer("a", 1.00m, has, 1), new SupplierOffer("a", 0.60m, has, 10)]);
        OrderSolver.Solve(new OrderTask([new OrderNeed("a", 9)], [Heap(50)]), Long).Total.ShouldBe(9.00m);
        OrderSolver.Solve(new OrderTask([new OrderNeed("a", 12)], [Heap(50)]), Long).Total.ShouldBe(7.20m);
        var short_ = OrderSolver.Solve(new OrderTask([new OrderNeed("a", 12)], [Heap(11)]), Long);
        (short_.Total, short_.Missing.Single().Count).ShouldBe((6.60m, 1));
    }

    [Fact]
    public void What_only_whole_packs_would_give_is_missing_rather_than_refused()
    {
        var packs = new OrderTask(
            [new OrderNeed("a", 12)],
            [
                new OrderSupplier("ten", 0, null, [new SupplierOffer("a", 1, 10, 10)]),
                new OrderSupplier("five", 0, null, [new SupplierOffer("a", 1, 5, 5)]),
            ]
        );
        var plan = OrderSolver.Solve(packs, Long);
        plan.Lines.Sum(l => l.Count).ShouldBe(10);
        plan.Missing.ShouldBe([new OrderNeed("a", 2)]);
    }

    [Theory]
    [InlineData("""{"needs":[{"part":"","count":1}],"suppliers":[]}""", "needs[0]")]
    [InlineData("""{"needs":[],"suppliers":[{"id":"a","postage":-1,"offers":[]}]}""", "suppliers[0].postage")]
    [InlineData("""{"needs":[],"suppliers":[{"id":"a","offers":[]},{"id":"a","offers":[]}]}""", "twice")]
    [InlineData("""{"needs":[],"suppliers":[{"id":"a","postage":1,"offers":[{"part":"x","price":1,"available":-2}]}]}""", "available")]
    [InlineData("""{"format":"other","needs":[],"suppliers":[]}""", "format")]
    [InlineData("""{"needs":[]}""", "both")]
    public void What_cannot_be_is_refused_with_its_place(string file, string place)
    {
        var read = OrderFile.Read(file);
        read.IsOk.ShouldBeFalse();
        read.Problem.ShouldContain(place);
    }

    /// <summary>Every way to buy, offer by offer.</summary>
    private static (int Had, decimal Cost) Best(OrderTask task)
    {
        var offers = task.Suppliers.SelectMany(s => s.Offers.Select(o => (Supplier: s, Offer: o))).ToList();
        var left = task.Needs.ToDictionary(n => n.Part, n => n.Count);
        var goods = task.Suppliers.ToDictionary(s => s.Id, _ => (Sum: 0m, Count: 0));
        (int Had, decimal Cost) best = (0, 0);

        void Try(int n, int had)
        {
            if (n == offers.Count)
            {
                var cost = task.Suppliers.Sum(s =>
                    goods[s.Id].Count == 0 ? 0 : goods[s.Id].Sum + (s.FreeFrom is { } free && goods[s.Id].Sum >= free ? 0 : s.Postage)
                );
                if (had > best.Had || had == best.Had && cost < best.Cost)
                    best = (had, cost);
                return;
            }

            var (supplier, offer) = offers[n];
            var before = goods[supplier.Id];
            for (var take = 0; take <= Math.Min(left.GetValueOrDefault(offer.Part), offer.Available!.Value); take++)
            {
                goods[supplier.Id] = (before.Sum + take * offer.Price, before.Count + take);
                if (left.ContainsKey(offer.Part))
                    left[offer.Part] -= take;
                Try(n + 1, had + take);
                if (left.ContainsKey(offer.Part))
                    left[offer.Part] += take;
            }

            goods[supplier.Id] = before;
        }

        Try(0, 0);
        return best;
    }

    private static decimal Reckon(OrderTask task, IReadOnlyList<OrderLine> lines) =>
        lines
            .GroupBy(l => l.Supplier)
            .Sum(s =>
            {
                var supplier = task.Suppliers.Single(x => x.Id == s.Key);
                var goods = s.Sum(l => l.Count * supplier.Offers.Single(o => o.Part == l.Part).Price);
                return goods + (supplier.FreeFrom is { } free && goods >= free ? 0 : supplier.Postage);
            });
}
