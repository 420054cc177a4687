using CsCheck;
using Mendro.Core.Proving;

namespace Mendro.Core.Tests.Proving;

/// <summary>The order of trials, against all orders.</summary>
public sealed class TestOrderTests
{
    [Fact]
    public void Without_set_up_the_order_is_the_best_of_all()
    {
        Trials(setUps: 1, most: 6)
            .Sample(trials =>
            {
                var best = Orders(trials).Min(TestOrder.ExpectedMinutes);
                TestOrder.ExpectedMinutes(TestOrder.Arrange(trials)).ShouldBe(best, 1e-9);
            });
    }

    [Fact]
    public void With_set_up_it_is_the_best_of_those_that_lay_everything_out_once()
    {
        Trials(setUps: 3, most: 6)
            .Sample(trials =>
            {
                var best = Orders(trials).Where(LaidOutOnce).Min(TestOrder.ExpectedMinutes);
                var ours = TestOrder.Arrange(trials);
                LaidOutOnce(ours).ShouldBeTrue();
                TestOrder.ExpectedMinutes(ours).ShouldBe(best, 1e-9);
            });
    }

    // By hand: A first costs 1 + 0.5 × 4 = 3, B first 4 + 0.9 × 1 = 4.9.
    [Fact]
    public void What_fails_often_and_costs_little_comes_first()
    {
        var ours = TestOrder.Arrange([new Trial("b", 0.1, 4), new Trial("a", 0.5, 1)]);
        ours.Select(t => t.Id).ShouldBe(["a", "b"]);
        TestOrder.ExpectedMinutes(ours).ShouldBe(3);
    }

    private static Gen<IReadOnlyList<Trial>> Trials(int setUps, int most) =>
        Gen.Select(Gen.Double[0, 0.9], Gen.Double[0.2, 10], Gen.Int[0, setUps - 1])
            .List[1, most]
            .Select(list =>
                (IReadOnlyList<Trial>)
                    list.Select((t, n) => new Trial($"t{n}", t.Item1, t.Item2, t.Item3 == 0 ? "" : $"s{t.Item3}")).ToList()
            );

    private static bool LaidOutOnce(IReadOnlyList<Trial> order)
    {
        var changes = order.Where((t, n) => n == 0 || order[n - 1].SetUp != t.SetUp).Select(t => t.SetUp).ToList();
        return changes.Distinct().Count() == changes.Count;
    }

    private static IEnumerable<IReadOnlyList<Trial>> Orders(IReadOnlyList<Trial> trials) =>
        trials.Count <= 1
            ? [trials]
            : trials.SelectMany((first, n) => Orders([.. trials.Where((_, at) => at != n)]).Select(rest => (IReadOnlyList<Trial>)[first, .. rest]));
}
