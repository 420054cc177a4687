using Mendro.Core.Jobs;
using Mendro.Core.Lots;
using Mendro.Storage;

namespace Mendro.Shop.Tests;

/// <summary>Lots: taken in by the line, spread, worked on in rounds, added up.</summary>
public sealed class LotDeskTests : IDisposable
{
    private const string Cartridge = "pellin-atrium-cartridge";

    private readonly TestShop _shop = new();

    public void Dispose() => _shop.Dispose();

    private long Begin(decimal? price = 10, SpreadWay way = SpreadWay.Equal) =>
        long.Parse(
            _shop
                .Lots.Save(
                    new Lot
                    {
                        Name = "attic",
                        Price = price,
                        Currency = "EUR",
                        BoughtOn = "2026-02-27",
                        Way = way,
                        ProfileId = Cartridge,
                        Working = 16,
                        Otherwise = 2,
                    }
                )
                .Done.ShouldNotBeNull()
                .Words,
            System.Globalization.CultureInfo.InvariantCulture
        );

    private IReadOnlyList<long> TakeIn(long lot, string lines) => _shop.LotItems.TakeIn(lot, lines).Done.ShouldNotBeNull().Numbers;

    [Fact]
    public void Lines_become_units_with_their_failures_and_their_shares_to_the_cent()
    {
        var lot = Begin();
        var numbers = TakeIn(lot, "black box, liquid\ngarbled logo\n! a racing game of another system\n");
        var board = _shop.Lots.Open(lot).ShouldNotBeNull();
        board.Rows.Select(r => r.View.Job.Number).ShouldBe(numbers);
        board.Rows.Select(r => r.View.Job.Paid).ShouldBe([5m, 5m, 0m]);
        board.Rows.Select(r => r.View.Job.ValueWorking).ShouldAllBe(v => v == 16);
        var black = board.Rows[0].View;
        black.All<FunctionTrial>().ShouldContain(t => !t.Body.Passed && t.Body.Look == "black-box");
        black.All<MarkNoted>().ShouldContain(m => m.Body.Mark == "liquid");
        board.Rows[2].Place.Apart.ShouldBeTrue();
        (board.Sum.Counted, board.Sum.Open, board.Price.Value).ShouldBe((2, 2, 10));
        // Back in the lot it bears its share.
        _shop.LotItems.Place(numbers[2], false, "", null).Done.ShouldNotBeNull();
        _shop.Lots.Open(lot)!.Rows.Select(r => r.View.Job.Paid).ShouldBe([3.34m, 3.33m, 3.33m]);
    }

    [Fact]
    public void What_cannot_be_taken_in_is_told_line_by_line_and_nothing_of_the_rest_is_kept()
    {
        var lot = Begin();
        var refused = _shop.LotItems.TakeIn(lot, "item;model;worth\nblack box;;\nbroken;no such thing;\ndead;;ten\n").Refusal.ShouldNotBeNull();
        refused.Problem.ShouldContain("line 4: worth");
        _shop.Lots.Open(lot)!.Rows.ShouldBeEmpty();
        _shop.LotItems.TakeIn(lot, "item;model\nblack box;\nbroken;no such thing\n").Refusal.ShouldNotBeNull().Problem.ShouldContain("no such thing");
        _shop.Lots.Open(lot)!.Rows.ShouldBeEmpty();
        // A line may name its own model.
        TakeIn(lot, "atrium pad all buttons dead");
        _shop.Lots.Open(lot)!.Rows.Single().View.Job.ProfileId.ShouldBe("pellin-atrium-pad");
    }

    [Fact]
    public void A_price_goes_by_worth_or_weight_where_that_is_chosen()
    {
        var lot = Begin(9, SpreadWay.Worth);
        TakeIn(lot, "item;worth;weight\nblack box;10;1\ngarbled logo;20;5\n");
        _shop.Lots.Open(lot)!.Rows.Select(r => r.View.Job.Paid).ShouldBe([3m, 6m]);
        _shop.Lots.Save(_shop.LotRows.Find(lot)! with { Way = SpreadWay.Weight }).Done.ShouldNotBeNull();
        _shop.Lots.Open(lot)!.Rows.Select(r => r.View.Job.Paid).ShouldBe([1.5m, 7.5m]);
    }

    [Fact]
    public void A_round_goes_from_unit_to_unit_and_ends()
    {
        var lot = Begin();
        var numbers = TakeIn(lot, "black box\nblack box\nblack box\n");
        var first = _shop.Lots.Open(lot)!.Rounds[0];
        first.Key.ShouldBe("fix:swab-edge:cartridge-edge");
        first.Items.Select(i => i.Number).ShouldBe(numbers);
        // Alcohol and swabs are laid out once instead of three times.
        first.Saved.ShouldBe(2);
        var at = 0L;
        foreach (var (number, answer) in numbers.Zip([RoundAnswer.Good, RoundAnswer.Bad, RoundAnswer.Bad]))
        {
            var step = _shop.Rounds.Next(_shop.Lots.Open(lot)!.Scope, first.Key, at).ShouldNotBeNull();
            step.Item.Number.ShouldBe(number);
            _shop.Rounds.Answer(_shop.Lots.Open(lot)!.Scope, first.Key, number, answer, "", null).Done.ShouldNotBeNull();
            at = number;
        }

        _shop.Rounds.Next(_shop.Lots.Open(lot)!.Scope, first.Key, at).ShouldBeNull();
        _shop.View(numbers[0]).Diagnosis!.Target.ShouldBeNull();
        _shop.View(numbers[1]).Diagnosis!.Target.ShouldNotBeNull();
        // Every chance that was given stands with what came of it.
        var told = _shop.Forecasts.Newest(10);
        told.Select(f => (f.Number, f.Worked)).ShouldBe([(numbers[0], true), (numbers[1], false), (numbers[2], false)]);
        told.ShouldAllBe(f => f.Chance > 0.1 && f.Chance < 1);
        _shop.Offers.Truth().Repairs.ShouldNotBeNull().Count.ShouldBe(3);
    }

    [Fact]
    public void A_cause_confirmed_in_a_round_lifts_its_siblings_and_brings_back_what_was_set_aside()
    {
        var lot = Begin();
        var numbers = TakeIn(lot, "garbled logo\ngarbled logo\ngarbled logo\n");
        foreach (var number in numbers)
            _shop.Repairs.Log(new RepairOrder(number, "edge", "swab-edge", WorksNow: false)).Done.ShouldNotBeNull();
        _shop.HandOver.Shelve(numbers[2], Shelf.SetAside, "cleaned, still garbled", "").Done.ShouldNotBeNull();
        _shop.Lots.Open(lot)!.Rows[2].Item.State.ShouldBe(LotState.Waits);
        var before = Legs(numbers[1]);
        _shop.Repairs.Log(new RepairOrder(numbers[0], "legs1", "resolder-legs", "lifted", WorksNow: true)).Done.ShouldNotBeNull();
        while (_shop.SecondLooks.WeighNext()) { }
        Legs(numbers[1]).ShouldBeGreaterThan(before * 1.2);
        _shop.Jobs.Find(numbers[2])!.Shelf.ShouldBe(Shelf.None);
    }

    private double Legs(long number) =>
        _shop.View(number).Diagnosis!.Suspects.Where(s => s.Fault.Part.Id == "legs1" && s.Fault.Mode.Id == "lifted").Sum(s => s.Share);

    [Fact]
    public void Cured_failed_and_sold_are_counted_in_the_sum()
    {
        var lot = Begin();
        var numbers = TakeIn(lot, "black box\nblack box\nblack box\n");
        _shop.AllWork(numbers[0], proving: true);
        _shop.HandOver.Close(new CloseOrder(numbers[0], JobEnd.ForSale, "", "", 18, false)).Done.ShouldNotBeNull();
        _shop
            .Sale.Becomes(numbers[0], new Sale { State = SaleState.Sold, Price = 15, Fees = 1.5m, Postage = 2 })
            .Done.ShouldNotBeNull();
        _shop.HandOver.Close(new CloseOrder(numbers[1], JobEnd.Parts, "", "", null, false)).Done.ShouldNotBeNull();
        var sum = _shop.Lots.Open(lot)!.Sum;
        (sum.Cured, sum.Failed, sum.Open).ShouldBe((1, 1, 1));
        (sum.Rate.Count, sum.Rate.Of).ShouldBe((1, 2));
        (sum.Received.Value, sum.SoFar.Value).ShouldBe((11.5m, 1.5m));
    }

    [Fact]
    public void Units_of_an_older_shop_find_their_lot_and_a_name_typed_at_intake_begins_one()
    {
        var number = _shop.TakeIn(Cartridge, "cartridge", owner: null);
        _shop.Jobs.SaveIntake(_shop.Jobs.Find(number)! with { Lot = "flea market" }, null, "");
        var line = _shop.LotRows.List(null, 10).ShouldHaveSingleItem();
        (line.Lot.Name, line.Units, line.InShop).ShouldBe(("flea market", 1, 1));
        _shop.Lots.Save(new Lot { Name = "flea market", Currency = "EUR", BoughtOn = "2026-02-27" }).Refusal.ShouldNotBeNull();
    }

    [Fact]
    public void What_the_lot_fetches_counts_for_its_open_items_and_what_one_was_given_stays()
    {
        var id = Begin();
        var numbers = TakeIn(id, "black box\ngarbled logo\ndead, worth 40\n");
        _shop.Jobs.SaveIntake(_shop.Jobs.Find(numbers[2])! with { ValueWorking = 40 }, null, "");
        var lot = _shop.LotRows.Find(id)!;
        _shop.Lots.Save(lot with { Working = 20, Otherwise = 3 }).Done.ShouldNotBeNull();
        var jobs = numbers.Select(n => _shop.Jobs.Find(n)!).ToList();
        jobs.Select(j => j.ValueWorking).ShouldBe([20m, 20m, 40m]);
        jobs.Select(j => j.ValueAsIs).ShouldAllBe(v => v == 3);
        // A worth that is not known any more is known of none of them.
        _shop.Lots.Save(_shop.LotRows.Find(id)! with { Working = null }).Done.ShouldNotBeNull();
        _shop.Jobs.Find(numbers[0])!.ValueWorking.ShouldBeNull();
        _shop.Jobs.Find(numbers[2])!.ValueWorking.ShouldBe(40);
    }

    [Fact]
    public void An_hour_of_its_own_changes_the_verdict_and_never_the_chance()
    {
        var id = Begin();
        _shop.Lots.Save(_shop.LotRows.Find(id)! with { Working = 8, Otherwise = 2 }).Done.ShouldNotBeNull();
        var number = TakeIn(id, "black box\n").Single();
        double Chance() => _shop.View(number).Worth!.ChanceToCure;
        var atTheShops = (_shop.View(number).Worth!, Line: NextLine.Of(_shop.View(number)));
        Chance().ShouldBeGreaterThan(0.3);
        atTheShops.Line.Chance.ShouldBe(Chance());

        // Evening work: an hour is worth next to nothing, and what was too dear is gone on with.
        var before = Chance();
        _shop.Lots.Save(_shop.LotRows.Find(id)! with { PerHour = 0.5m }).Done.ShouldNotBeNull();
        _shop.View(number).Worth!.GoOn.ShouldBeTrue();
        _shop.View(number).Worth!.IsTooDear.ShouldBeFalse();
        Chance().ShouldBe(before, 0.02);

        // At a dear hour it is not, and its chance is the same.
        _shop.Lots.Save(_shop.LotRows.Find(id)! with { PerHour = 300 }).Done.ShouldNotBeNull();
        _shop.View(number).Worth!.IsTooDear.ShouldBeTrue();
        Chance().ShouldBe(before, 0.02);
        // Unless somebody wants it mended all the same.
        _shop.HandOver.Anyway(number, true).Done.ShouldNotBeNull();
        _shop.View(number).Worth!.GoOn.ShouldBeTrue();
        _shop.View(number).Worth!.Verdict.ShouldBe("Mended anyway");
        NextLine.Of(_shop.View(number)).Move.ShouldNotStartWith("Decide");
        _shop.HandOver.Anyway(number, false).Done.ShouldNotBeNull();
        _shop.View(number).Job.Anyway.ShouldBeFalse();
    }

    [Fact]
    public void A_round_keeps_what_the_failure_looks_like_now_and_one_failure_is_weighed()
    {
        var lot = Begin();
        var number = TakeIn(lot, "black box\nblack box\n")[0];
        var round = _shop.Lots.Open(lot)!.Rounds[0];
        var step = _shop.Rounds.Next(_shop.Lots.Open(lot)!.Scope, round.Key, 0).ShouldNotBeNull();
        RoundDesk.Looks(step).Select(l => l.Id).ShouldContain("seen-no-logo");
        var before = _shop.View(number).Worth!.ChanceToCure;
        _shop.Rounds.Answer(_shop.Lots.Open(lot)!.Scope, round.Key, number, RoundAnswer.Bad, "", null, null, "seen-no-logo").Done.ShouldNotBeNull();
        _shop.View(number).All<FunctionTrial>().Last().Body.Look.ShouldBe("seen-no-logo");
        // The failed swab teaches something; it does not end the unit.
        _shop.View(number).Worth!.ChanceToCure.ShouldBeInRange(before / 3, before);
    }

    [Fact]
    public void The_round_for_a_leg_comes_by_itself_after_the_second_and_what_was_said_of_the_end_is_held_against_it()
    {
        var lot = Begin();
        // Evening work.
        _shop.Lots.Save(_shop.LotRows.Find(lot)! with { PerHour = 5 }).Done.ShouldNotBeNull();
        var numbers = TakeIn(lot, string.Concat(Enumerable.Repeat("garbled logo\n", 5)));
        foreach (var number in numbers)
            _shop.Rounds.Answer(_shop.Lots.Open(lot)!.Scope, "fix:swab-edge:cartridge-edge", number, RoundAnswer.Bad, "", null).Done.ShouldNotBeNull();
        var before = _shop.Lots.Open(lot)!.Sum.End;
        foreach (var number in numbers.Take(2))
        {
            _shop.Repairs.Log(new RepairOrder(number, "legs1", "resolder-legs", "lifted", WorksNow: true)).Done.ShouldNotBeNull();
            _shop.AllWork(number, proving: true);
            _shop.HandOver.Close(new CloseOrder(number, JobEnd.ForSale, "", "", 16, false)).Done.ShouldNotBeNull();
        }

        while (_shop.SecondLooks.WeighNext()) { }
        var board = _shop.Lots.Open(lot)!;
        board.ToBegin[0].Items.Select(i => i.Number).ShouldBe(numbers.Skip(2));
        board.ToBegin[0].Items.ShouldAllBe(i =>
            i.Move.Repair != null && i.Move.Repair.Part.Id == "legs1" || i.Move.Probe != null && i.Move.Probe.Spans!.Contains("legs1")
        );
        // What two of them showed moves what is expected of the other three.
        board.Sum.End.Expected.ShouldNotBe(before.Expected);
        board.Sum.End.Low.ShouldBeGreaterThanOrEqualTo(2);
        _shop.Lots.EndsTruth().ShouldBe((0, 0));

        foreach (var number in numbers.Skip(2))
            _shop.HandOver.Close(new CloseOrder(number, JobEnd.Parts, "", "", null, false)).Done.ShouldNotBeNull();
        // All the swabs came before anything was decided: one thing was said of the end.
        var (said, end) = (_shop.LotRows.SaidOfEnds(10).ShouldHaveSingleItem(), _shop.Lots.Open(lot)!.Sum.Cured);
        (said.Decided, end).ShouldBe((0, 2));
        _shop.Lots.EndsTruth().ShouldBe((said.Low <= 2 && 2 <= said.High ? 1 : 0, 1));
    }
}
