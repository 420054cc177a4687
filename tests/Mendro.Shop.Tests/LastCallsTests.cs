using Mendro.Core.Jobs;
using Mendro.Storage;

namespace Mendro.Shop.Tests;

/// <summary>The calls at the end of a job, each told in one press.</summary>
public sealed class LastCallsTests : IDisposable
{
    private static readonly DateOnly Today = new(2026, 3, 9);

    private readonly TestShop _shop = new();

    public LastCallsTests() => _shop.Time.SetUtcNow(new DateTimeOffset(2026, 3, 9, 10, 0, 0, TimeSpan.Zero));

    public void Dispose() => _shop.Dispose();

    private LastCalls Calls(long number) => _shop.LastCalls.Of(_shop.View(number));

    [Fact]
    public void A_part_comes_the_owner_is_told_and_pays_what_is_due()
    {
        var number = _shop.TakeIn("harrow-quartet", fails: "power-light");
        _shop.HandOver.Shelve(number, Shelf.WaitingPart, "", "", null, "slide switch", null).Done.ShouldNotBeNull();
        Calls(number).Part.ShouldBe("slide switch");
        _shop.LastCalls.PartCame(_shop.View(number)).Done.ShouldNotBeNull();
        Calls(number).Part.ShouldBeNull();
        _shop.Jobs.Find(number)!.Shelf.ShouldBe(Shelf.None);

        _shop.Repairs.Log(new RepairOrder(number, "switch", "replace-switch", Cost: 3m, Minutes: 60)).Done.ShouldNotBeNull();
        // An hour at 30 and a part for 3 (the shop's hour as shipped).
        _shop.Settings.Save(_shop.Settings.Get() with { RatePerHour = 30 });
        Calls(number).Due!.Value.Value.ShouldBe(33m + Rest(number));
        Calls(number).Ready.ShouldBeNull();
        _shop.LastCalls.Told(_shop.View(number)).Done.ShouldNotBeNull();
        Calls(number).Ready.ShouldNotBeNull();

        var due = Calls(number).Due!.Value;
        _shop.LastCalls.Paid(_shop.View(number), Today).Done!.Words.ShouldBe($"Paid: {due}.");
        Calls(number).Due!.Value.Value.ShouldBe(0);
        Calls(number).Paid.ShouldBe(due);
        _shop.LastCalls.Paid(_shop.View(number), Today).Refusal!.Problem.ShouldBe("Nothing is due.");
    }

    // Minutes of the trial that took it in, at the shop's hour.
    private decimal Rest(long number) => Math.Round((decimal)(_shop.View(number).MinutesSpent - 60) * 30 / 60, 2);

    [Fact]
    public void No_more_is_due_than_the_owner_agreed_to()
    {
        var number = _shop.TakeIn("harrow-quartet", fails: "power-light");
        var quote = new QuoteGiven(20, 30, 40, "EUR", "new switch", ConsentWay.Phone);
        _shop.Owners.Quote(number, quote, waits: true).Done.ShouldNotBeNull();
        _shop.Owners.Answer(number, new QuoteAnswered(true, 40, "EUR", "Ilka Dorn", ConsentWay.Phone)).Done.ShouldNotBeNull();
        _shop.Repairs.Log(new RepairOrder(number, "switch", "replace-switch", Minutes: 300)).Done.ShouldNotBeNull();
        Calls(number).Due!.Value.Value.ShouldBe(40);
        _shop.Money.Pay(number, new Payment { Kind = "deposit", Amount = 15, Day = "2026-03-09", Words = "" }).Done.ShouldNotBeNull();
        Calls(number).Due!.Value.Value.ShouldBe(25);
    }
}
