using Mendro.Core.Jobs;

namespace Mendro.Shop.Tests;

/// <summary>What one takes back is what one saw: not what another filed meanwhile.</summary>
public sealed class UndoTests : IDisposable
{
    private readonly TestShop _shop = new();

    public void Dispose() => _shop.Dispose();

    [Fact]
    public void Undo_takes_back_the_entry_that_was_seen_and_not_one_that_came_since()
    {
        var number = _shop.TakeIn(fails: "power-light");
        var seen = _shop.Readings.Read(new ReadingOrder(number, "tp3", "6.2 V")).Done.ShouldNotBeNull().Record;
        var newer = _shop.Readings.Read(new ReadingOrder(number, "tp1", "6.3 V")).Done.ShouldNotBeNull().Record;
        var refused = _shop.Readings.Undo(number, null, seen).Refusal.ShouldNotBeNull();
        refused.Kind.ShouldBe(RefusalKind.Changed);
        // Both are named.
        refused.Problem.ShouldContain("6.2");
        refused.Problem.ShouldContain("6.3");
        _shop.Records.Find(newer)!.WithdrawnAt.ShouldBeNull();
        _shop.Readings.Undo(number, null, newer).Done.ShouldNotBeNull();
        _shop.Readings.Undo(number, null, newer).Refusal.ShouldNotBeNull().Problem.ShouldContain("taken back already");
        // Who names none takes the last.
        _shop.Readings.Undo(number).Done.ShouldNotBeNull();
        _shop.Records.Find(seen)!.WithdrawnAt.ShouldNotBeNull();
    }
}
