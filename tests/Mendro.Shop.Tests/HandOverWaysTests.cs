using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Core.Papers;
using Mendro.Storage;

namespace Mendro.Shop.Tests;

/// <summary>To owner, to sale, to parts, to the shelf: what each leaves behind.</summary>
public sealed class HandOverWaysTests : IDisposable
{
    private readonly TestShop _shop = new();

    public void Dispose() => _shop.Dispose();

    private Job Job(long number) => _shop.Jobs.Find(number)!;

    private static string Day(DateTimeOffset at) => at.ToString("d MMM yyyy", System.Globalization.CultureInfo.InvariantCulture);

    private string Text(long number, PaperKind kind) => PaperText.Write(_shop.Papers.Of(_shop.View(number), kind, Day));

    [Fact]
    public void A_sold_unit_says_what_the_next_may_fetch()
    {
        var number = _shop.TakeIn("harrow-quartet", owner: null);
        _shop.AllWork(number, proving: true);
        _shop.HandOver.Close(new CloseOrder(number, JobEnd.ForSale, "", "", 48, false, Grade: "worn")).Done.ShouldNotBeNull();
        _shop.Sale.Becomes(number, new Sale { State = SaleState.Sold }).Refusal.ShouldNotBeNull();
        _shop.Sale.Becomes(number, new Sale { State = SaleState.Sold, Price = 40, Fees = 4, Postage = 3 }).Done!.Words.ShouldBe("Sold for €40.00.");

        var next = _shop.TakeIn("harrow-quartet", owner: null);
        var sheet = _shop.Sale.Open(_shop.View(next), ConditionGrade.Good, new DateOnly(2026, 3, 1), Day);
        // One worn one for 40: a good one, 40 / 0.8.
        sheet.Estimate!.Expected.ShouldBe(new Amount(50, "EUR"));
        sheet.Seen.Single().Words.ShouldBe("own sale");

        _shop.Sale.Becomes(number, new Sale { State = SaleState.Returned, Words = "no light" }).Done.ShouldNotBeNull();
        _shop.Sale.Open(_shop.View(next), null, new DateOnly(2026, 3, 1), Day).Estimate.ShouldBeNull();
        _shop.Sale.Becomes(next, new Sale { State = SaleState.Withdrawn }).Refusal!.Problem.ShouldContain("not sent to sale");
    }

    [Fact]
    public void Break_even_holds_fees_postage_and_packing()
    {
        var number = _shop.TakeIn("harrow-quartet", owner: null);
        _shop.Jobs.SaveIntake(Job(number) with { Paid = 10 }, null, "");
        _shop.Repairs.Log(new RepairOrder(number, "switch", "flush-switch", Minutes: 20, Cost: 2)).Done.ShouldNotBeNull();
        _shop.Sale.Keep(new SaleTerms(10, 4, 1), "{title} {moon}").Refusal!.Problem.ShouldContain("moon");
        _shop.Sale.Keep(new SaleTerms(10, 4, 1), "{title}: {price}").Done.ShouldNotBeNull();
        var sheet = _shop.Sale.Open(_shop.View(number), null, new DateOnly(2026, 3, 1), Day);
        // 10 paid, 20 min at 30 an hour are 10, parts 2: 22; (22 + 4 + 1) / 0.9.
        sheet.BreakEven.ShouldBe(new Amount(30, "EUR"));
    }

    [Fact]
    public void What_is_good_in_a_unit_becomes_parts_in_stock_and_what_is_bad_says_so()
    {
        var number = _shop.TakeIn("harrow-quartet", fails: "picture", owner: null);
        _shop.File(number, CauseSeen.Make(_shop.View(number).Model, "panel", "broken", true)!);
        var parts = HandOverDesk.Parts(_shop.View(number));
        parts.Single(p => p.Part == "panel").Good.ShouldBeLessThan(0.1);
        parts.Single(p => p.Part == "speaker").Good.ShouldBeGreaterThan(0.8);
        // The bench's own cartridge is no part of it.
        parts.ShouldNotContain(p => p.Part == "testcart");
        var given = parts.Where(p => p.Good > 0.5).ToList();
        _shop.HandOver.Close(new CloseOrder(number, JobEnd.Parts, "", "", null, false, Donates: given)).Done.ShouldNotBeNull();
        var stock = _shop.Donors.List("speaker", all: false).Single();
        (stock.Number, stock.State).ShouldBe((number, "there"));
        var desk = _shop.DonorParts;
        desk.Set(stock.Id, "eaten", "").Refusal.ShouldNotBeNull();
        desk.Set(stock.Id, "taken", "into 141").Done.ShouldNotBeNull();
        _shop.Donors.List("speaker", all: false).ShouldBeEmpty();
        _shop.Donors.List("speaker", all: true).Single().Words.ShouldBe("into 141");
        desk.Set(stock.Id, "there", "").Done.ShouldNotBeNull();
        // Reopened and given up again, nothing is there twice.
        _shop.HandOver.Reopen(number);
        _shop.HandOver.Close(new CloseOrder(number, JobEnd.Parts, "", "", null, false, Donates: given)).Done.ShouldNotBeNull();
        _shop.Donors.Of(Job(number).Id).Count.ShouldBe(given.Count);
    }

    [Fact]
    public void A_shelved_job_comes_back_with_its_part_or_on_its_day()
    {
        var (part, day, both) = (_shop.TakeIn(), _shop.TakeIn(), _shop.TakeIn());
        _shop.HandOver.Shelve(part, Shelf.WaitingPart, "speaker", "fit it", part: "Speaker 28 mm").Done.ShouldNotBeNull();
        _shop.HandOver.Shelve(day, Shelf.SetAside, "no idea", "look again", until: new DateOnly(2026, 3, 9)).Done.ShouldNotBeNull();
        _shop.HandOver.Shelve(both, Shelf.WaitingPart, "speaker", "", part: "speaker 28 mm", until: new DateOnly(2026, 4, 1)).Done.ShouldNotBeNull();
        _shop.HandOver.WakeDue(new DateOnly(2026, 3, 8)).ShouldBeEmpty();
        _shop.HandOver.WakeDue(new DateOnly(2026, 3, 9)).ShouldBe([day]);
        Job(day).Shelf.ShouldBe(Shelf.None);
        _shop.HandOver.PartCame("a moon").Refusal.ShouldNotBeNull();
        _shop.HandOver.PartCame("SPEAKER 28 MM").Done!.Words.ShouldContain($"{part}, {both}");
        Job(part).Shelf.ShouldBe(Shelf.None);
        _shop.HandOver.WakeDue(new DateOnly(2026, 5, 1)).ShouldBeEmpty();
    }

    [Fact]
    public void What_is_taken_down_by_hand_waits_no_more_also_when_it_is_shelved_for_something_else()
    {
        var number = _shop.TakeIn(fails: "picture");
        _shop.HandOver.Shelve(number, Shelf.SetAside, "no idea", "", until: new DateOnly(2026, 3, 9)).Done.ShouldNotBeNull();
        _shop.HandOver.TakeDown(number).Done.ShouldNotBeNull();
        _shop.Owners.Quote(number, new QuoteGiven(1, 2, 3, "EUR", "", ConsentWay.Phone), waits: true).Done.ShouldNotBeNull();
        _shop.HandOver.WakeDue(new DateOnly(2026, 3, 9)).ShouldBeEmpty();
        Job(number).Shelf.ShouldBe(Shelf.WaitingOwner);
    }

    [Fact]
    public void The_papers_say_what_was_found_done_proved_and_left()
    {
        var number = _shop.TakeIn("harrow-quartet", fails: "speaker");
        _shop.Jobs.SaveIntake(Job(number) with { Serial = "HQ-7", Accessories = "case" }, "Ilka Dorn", "");
        _shop.File(number, CauseSeen.Make(_shop.View(number).Model, "switch", "dirty", true)!);
        _shop.Repairs.Log(new RepairOrder(number, "switch", "flush-switch", Minutes: 6, Cost: 0.2m)).Done.ShouldNotBeNull();
        foreach (var item in ProveDesk.Plan(_shop.View(number)).Items.Where(i => i.Function is not null && i.Name is not ("Speaker" or "Wheels")).ToList())
            _shop.Prove.Answer(_shop.View(number), item.Id, true, null).Done.ShouldNotBeNull();
        for (var n = 0; n < 15; n++)
            _shop.Starts.Count(number, "power-light", "cold", true).Done.ShouldNotBeNull();
        _shop.Starts.File(number, "power-light").Done.ShouldNotBeNull();
        _shop.Try(number, "speaker", false);
        _shop.Prove.Keep(_shop.View(number), "function:speaker", KeepReason.WaitingPart, "cone on order").Done.ShouldNotBeNull();
        _shop.HandOver.Close(
            new CloseOrder(number, JobEnd.Returned, "Window scratched.", "wheels were not tried", null, false, "Ilka Dorn", new DateOnly(2026, 9, 1))
        ).Done.ShouldNotBeNull();
        foreach (var kind in Enum.GetValues<PaperKind>())
            Golden(kind, Text(number, kind));
    }

    // What is expected stands in a file, to be read by a person; on a wanted change it is written anew by hand.
    private static void Golden(PaperKind kind, string text)
    {
        var name = $"Mendro.Shop.Tests.Golden.{kind.ToString().ToLowerInvariant()}-paper.txt";
        using var stream = typeof(HandOverWaysTests).Assembly.GetManifestResourceStream(name).ShouldNotBeNull(name + "\n" + text);
        using var reader = new StreamReader(stream);
        text.ShouldBe(reader.ReadToEnd().Replace("\r", "", StringComparison.Ordinal));
    }
}
