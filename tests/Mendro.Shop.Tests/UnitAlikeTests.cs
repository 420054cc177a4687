using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;

namespace Mendro.Shop.Tests;

/// <summary>Units for which the same was seen are worked out once, and each goes its own way from there.</summary>
public sealed class UnitAlikeTests : IDisposable
{
    private readonly TestShop _shop = new();

    public void Dispose() => _shop.Dispose();

    private static IEnumerable<string> Told(JobView view) =>
        view.Advice.Moves.Select(m => $"{m.Id} {m.ExpectedMinutes:R}").Concat(view.Diagnosis!.Suspects.Select(s => $"{s.Fault.Id} {s.Share:R}"));

    [Fact]
    public void Twins_share_their_advice_until_something_else_is_seen_in_one()
    {
        var (one, other) = (_shop.TakeIn(fails: "picture"), _shop.TakeIn(fails: "picture"));
        var (first, second) = (_shop.View(one), _shop.View(other));
        second.Advice.ShouldBeSameAs(first.Advice);
        // What is its own stays its own.
        (second.Job.Number, second.Records[0].JobId).ShouldBe((other, second.Job.Id));

        _shop.Readings.Read(new ReadingOrder(other, "tp3", "6.2 V")).Done.ShouldNotBeNull();
        Told(_shop.View(other)).ShouldNotBe(Told(first));
        Told(_shop.View(one)).ShouldBe(Told(first));
        // Seen in both, in the same order, they are twins again; withdrawn in one, not.
        _shop.Readings.Read(new ReadingOrder(one, "tp3", "6.2 V")).Done.ShouldNotBeNull();
        _shop.View(one).Advice.ShouldBeSameAs(_shop.View(other).Advice);
        _shop.Readings.Undo(other).Done.ShouldNotBeNull();
        Told(_shop.View(other)).ShouldBe(Told(first));
    }

    [Fact]
    public void What_is_worth_another_sum_or_was_pressed_elsewhere_is_no_twin()
    {
        var (one, other) = (_shop.TakeIn(fails: "picture"), _shop.TakeIn(fails: "picture"));
        var first = _shop.View(one);
        _shop.Jobs.SaveIntake(_shop.Jobs.Find(other)! with { ValueWorking = 1, ValueAsIs = 0 }, "Ilka Dorn", "");
        _shop.View(other).Advice.ShouldNotBeSameAs(first.Advice);
        _shop.View(other).Worth!.Brings.ShouldNotBe(first.Worth!.Brings);
    }

    [Fact]
    public void A_twin_says_just_what_would_be_worked_out_for_it_alone()
    {
        var alone = _shop.TakeIn("pellin-atrium", "picture");
        var told = Told(_shop.View(alone)).ToList();
        using var other = new TestShop();
        for (var n = 0; n < 3; n++)
            Told(other.View(other.TakeIn("pellin-atrium", "picture"))).ShouldBe(told);
    }
}
