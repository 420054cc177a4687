using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;
using Mendro.Core.Proving;

namespace Mendro.Shop.Tests;

/// <summary>An intermittent cure proved by starts.</summary>
public sealed class StartsDeskTests : IDisposable
{
    private readonly TestShop _shop = new();

    public void Dispose() => _shop.Dispose();

    private StartsSheet Sheet(long number) => _shop.Starts.Open(_shop.View(number), "start-up")!;

    private void Count(long number, int times, bool works = true)
    {
        for (var n = 0; n < times; n++)
            _shop.Starts.Count(number, "start-up", Sheet(number).Run.Next.Id, works).Done.ShouldNotBeNull();
    }

    [Fact]
    public void Fifteen_good_starts_decide_and_are_filed_as_evidence_with_k_of_n()
    {
        var number = _shop.TakeIn("harrow-quartet", fails: "start-up");
        Count(number, 14);
        Sheet(number).Run.ShouldSatisfyAllConditions(r => r.Decision.ShouldBe(SequentialDecision.GoOn), r => r.ToAccept.ShouldBe(1));
        Count(number, 1);
        Sheet(number).Run.Decision.ShouldBe(SequentialDecision.Accept);
        _shop.Starts.File(number, "start-up").Done!.Words.ShouldBe("Start-up: 0 of 15 starts failed, accepted");
        var filed = _shop.View(number).All<StartRunFiled>().Single();
        // 40, 25, 20 and 15 % of fifteen.
        filed.Body.Under.Select(u => (u.Condition, u.Starts)).ShouldBe([("cold", 6), ("wiggled", 4), ("warm", 3), ("other", 2)]);
        filed.Body.ToEvent(1).ShouldBe(new FunctionTried(1, "start-up", true, null, 15));
        Sheet(number).Run.Starts.ShouldBeEmpty();
    }

    [Fact]
    public void Two_failures_in_three_refuse_and_what_came_before_the_repair_is_counted()
    {
        var number = _shop.TakeIn("harrow-quartet", fails: "start-up");
        Count(number, 1);
        _shop.Starts.File(number, "start-up").Done.ShouldNotBeNull();
        _shop.Repairs.Log(new RepairOrder(number, "switch", "flush-switch")).Done.ShouldNotBeNull();
        // One failure at the door, one good start, then the repair.
        Sheet(number).Before.ShouldBe((1, 2));
        Count(number, 1);
        Count(number, 2, works: false);
        Sheet(number).Run.Decision.ShouldBe(SequentialDecision.Refuse);
        _shop.Starts.Undo(number, "start-up").Done.ShouldNotBeNull();
        Sheet(number).Run.ShouldSatisfyAllConditions(r => r.Starts.Count.ShouldBe(2), r => r.Decision.ShouldBe(SequentialDecision.GoOn));
        Count(number, 1, works: false);
        _shop.Starts.File(number, "start-up").Done!.Words.ShouldContain("2 of 3 starts failed, refused");
        _shop.View(number).Proof.Failures.Select(f => f.Function.Id).ShouldContain((FunctionId)"start-up");
    }

    [Fact]
    public void What_the_shop_accepts_holds_for_the_next_unit_too()
    {
        var (one, two) = (_shop.TakeIn("harrow-quartet", fails: "start-up"), _shop.TakeIn("harrow-quartet", fails: "start-up"));
        _shop.Starts.Limit(one, "start-up", new SequentialTest(0.2, 0.1, 0.05, 0.05)).Refusal!.Problem.ShouldContain("above the rate");
        _shop.Starts.Limit(one, "start-up", new SequentialTest(double.NaN, 0.1, 0.05, 0.05)).Refusal!.Problem.ShouldContain("accept");
        var strict = new SequentialTest(0.01, 0.1, 0.05, 0.02);
        _shop.Starts.Limit(one, "start-up", strict).Done.ShouldNotBeNull();
        Sheet(two).Run.Limits.ShouldBe(strict);
        _shop.Starts.Count(two, "start-up", "upside down", true).Refusal!.Kind.ShouldBe(RefusalKind.Missing);
        _shop.Starts.Count(two, "no-such", "cold", true).Refusal!.Kind.ShouldBe(RefusalKind.Missing);
        _shop.Starts.File(two, "start-up").Refusal!.Problem.ShouldContain("No start");
    }
}
