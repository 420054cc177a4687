using Mendro.Core.Jobs;
using Mendro.Core.Papers;
using Mendro.Storage;

namespace Mendro.Shop.Tests;

/// <summary>What an owner brings together: taken in by lines, one quote, handed over in parts; items corrected; rounds over all of it.</summary>
public sealed class BatchDeskTests : IDisposable
{
    private const string Cartridge = "pellin-atrium-cartridge";
    private static readonly DateOnly Today = new(2026, 3, 2);

    private readonly TestShop _shop = new();

    public BatchDeskTests() => _shop.Time.SetUtcNow(new DateTimeOffset(2026, 3, 2, 10, 0, 0, TimeSpan.Zero));

    public void Dispose() => _shop.Dispose();

    private long Begin(string name = "Rovik, console and games", string? owner = "Pim Rovik", decimal? price = null) =>
        long.Parse(
            _shop
                .Lots.Save(
                    new Lot
                    {
                        Name = name,
                        OwnerName = owner,
                        OwnerContact = owner is null ? "" : "pim@rovik.example",
                        Price = price,
                        Currency = "EUR",
                        BoughtOn = "2026-02-27",
                        ProfileId = Cartridge,
                    }
                )
                .Done.ShouldNotBeNull()
                .Words,
            System.Globalization.CultureInfo.InvariantCulture
        );

    private IReadOnlyList<long> TakeIn(long lot, string lines) => _shop.LotItems.TakeIn(lot, lines).Done.ShouldNotBeNull().Numbers;

    private BatchSheet Open(long lot) => _shop.Batches.Open(_shop.Lots.Open(lot)!);

    [Fact]
    public void All_of_a_batch_are_its_owners_and_nothing_was_paid_for_them()
    {
        var lot = Begin();
        var numbers = TakeIn(lot, "black box\ngarbled logo\natrium pad all buttons dead\n");
        var jobs = numbers.Select(n => _shop.Jobs.Find(n)!).ToList();
        jobs.ShouldAllBe(j => j.CustomerName == "Pim Rovik" && j.CustomerContact == "pim@rovik.example" && j.Paid == null);
        jobs.Select(j => j.CustomerId).Distinct().Count().ShouldBe(1);
        jobs[2].ProfileId.ShouldBe("pellin-atrium-pad");
        // What an owner brings has no price; what has one is not an owner's.
        _shop.Lots.Save(_shop.LotRows.Find(lot)! with { Price = 10 }).Refusal.ShouldNotBeNull().Problem.ShouldContain("no price");
        _shop.Lots.Save(_shop.LotRows.Find(lot)! with { OwnerName = null }).Refusal.ShouldNotBeNull().Problem.ShouldContain("give the name");
        // Another name is that of all of them.
        _shop.Lots.Save(_shop.LotRows.Find(lot)! with { OwnerName = "Pim Rovik-Aal" }).Done.ShouldNotBeNull();
        numbers.Select(n => _shop.Jobs.Find(n)!.CustomerName).ShouldAllBe(n => n == "Pim Rovik-Aal");
    }

    [Fact]
    public void One_quote_is_parted_to_the_cent_and_one_answer_limits_each()
    {
        var lot = Begin();
        var numbers = TakeIn(lot, "black box\ngarbled logo\ndead\n");
        _shop.Batches.Answer(Open(lot), new QuoteAnswered(true, 50, "EUR", "Pim Rovik", ConsentWay.Phone)).Refusal.ShouldNotBeNull();
        _shop.Batches.Quote(Open(lot), new QuoteGiven(30, 20, 50, "EUR", "", ConsentWay.Phone), true).Refusal.ShouldNotBeNull();
        _shop.Batches.Quote(Open(lot), new QuoteGiven(20, 30.01m, 50, "EUR", "", ConsentWay.Phone), true).Done.ShouldNotBeNull();
        var quotes = numbers.Select(n => _shop.View(n).All<QuoteGiven>().Single().Body).ToList();
        (quotes.Sum(q => q.Low), quotes.Sum(q => q.Likely), quotes.Sum(q => q.High)).ShouldBe((20m, 30.01m, 50m));
        quotes.ShouldAllBe(q => q.Low <= q.Likely && q.Likely <= q.High);
        Open(lot).Quoted!.Value.Value.ShouldBe(30.01m);
        Open(lot).State.ShouldBe(AgreementState.Waiting);
        numbers.Select(n => _shop.Jobs.Find(n)!.Shelf).ShouldAllBe(s => s == Shelf.WaitingOwner);

        _shop.Batches.Answer(Open(lot), new QuoteAnswered(true, 40, "EUR", "Pim Rovik", ConsentWay.Phone)).Done.ShouldNotBeNull();
        Open(lot).Limit!.Value.Value.ShouldBe(40);
        Open(lot).State.ShouldBe(AgreementState.Agreed);
        numbers.Select(n => _shop.Jobs.Find(n)!.Shelf).ShouldAllBe(s => s == Shelf.None);
    }

    [Fact]
    public void It_is_handed_over_in_two_parts_and_what_waits_is_told()
    {
        var lot = Begin();
        var numbers = TakeIn(lot, "black box\nblack box\ngarbled logo\n");
        _shop.Batches.PayAhead(Open(lot), 9, Today).Done.ShouldNotBeNull();
        numbers.Sum(n => _shop.Money.Payments(_shop.Jobs.Find(n)!.Id).Sum(p => p.Sum)).ShouldBe(9);
        foreach (var number in numbers.Take(2))
        {
            _shop.Repairs.Log(new RepairOrder(number, "edge", "swab-edge", WorksNow: true)).Done.ShouldNotBeNull();
            _shop.AllWork(number, proving: true);
        }

        _shop.HandOver.Shelve(numbers[2], Shelf.WaitingPart, "", "", part: "socket").Done.ShouldNotBeNull();
        Open(lot).Here.Select(u => u.Waits).ShouldBe(["ready", "ready", "waiting for a part: socket on its way"]);
        BatchLeaves Leaves(decimal? paid, params long[] which) => new([.. which.Select(n => (n, ""))], "Pim Rovik", null, paid);

        // The third is not proved and has no reason: none of the three goes.
        _shop.Batches.HandOver(Open(lot), Leaves(null, [.. numbers]), Today).Refusal.ShouldNotBeNull().Problem.ShouldStartWith($"{numbers[2]}:");
        numbers.Select(n => _shop.Jobs.Find(n)!.ClosedAt).ShouldAllBe(c => c == null);
        _shop.Batches.HandOver(Open(lot), Leaves(1_000, numbers[0], numbers[1]), Today).Refusal.ShouldNotBeNull().Problem.ShouldContain("is due");

        var due = BatchSheet.Due(Open(lot).Here.Take(2), new("EUR")).Value;
        var said = _shop.Batches.HandOver(Open(lot), Leaves(due, numbers[0], numbers[1]), Today).Done.ShouldNotBeNull();
        said.Words.ShouldBe("2 units handed over, 1 still here.");
        numbers.Take(2).Select(n => _shop.Jobs.Find(n)!.Ending).ShouldAllBe(e => e == JobEnd.Returned);
        BatchSheet.Due(Open(lot).Units.Take(2), new("EUR")).Value.ShouldBe(0);

        var paper = new BatchPaper(_shop.Papers, _shop.Settings).Of(Open(lot), _ => "2026-03-02", costs: true);
        var text = PaperText.Write(paper);
        text.ShouldContain("Pim Rovik");
        text.ShouldContain("Clean the edge with alcohol");
        text.ShouldContain("In the shop: waiting for a part: socket on its way");
        text.ShouldContain("Works, tried here");
        new BatchPaper(_shop.Papers, _shop.Settings).Of(Open(lot), _ => "", costs: false).Sections.ShouldNotContain(s => s.Heading == "Together");

        var last = new BatchLeaves([(numbers[2], "the owner wants it as it is")], "Pim Rovik", null, null);
        _shop.Batches.HandOver(Open(lot), last, Today).Done.ShouldNotBeNull().Words.ShouldContain("that is all of it");
        Open(lot).Here.ShouldBeEmpty();
    }

    [Fact]
    public void Five_of_a_wrong_model_a_line_taken_in_twice_and_one_of_another_lot_are_put_right_and_taken_back()
    {
        var (attic, cellar) = (Begin("attic", null, 10), Begin("cellar", null, 9));
        var numbers = TakeIn(attic, string.Concat(Enumerable.Repeat("dead\n", 5)));
        TakeIn(cellar, "black box\n");
        IReadOnlyList<LotItemTo> All(string to) => [.. numbers.Select(n => new LotItemTo(n, to))];

        var changed = _shop.LotCorrections.Do(LotCorrection.Model, All("pellin-atrium-pad")).Done.ShouldNotBeNull();
        numbers.Select(n => _shop.Jobs.Find(n)!.ProfileId).ShouldAllBe(p => p == "pellin-atrium-pad");
        _shop.LotCorrections.Do(changed.Back, changed.Items).Done.ShouldNotBeNull();
        numbers.Select(n => _shop.Jobs.Find(n)!.ProfileId).ShouldAllBe(p => p == Cartridge);

        var moved = _shop.LotCorrections.Do(LotCorrection.Lot, [new LotItemTo(numbers[0], $"{cellar}")]).Done.ShouldNotBeNull();
        _shop.Lots.Open(attic)!.Rows.Select(r => r.View.Job.Paid).ShouldBe([2.5m, 2.5m, 2.5m, 2.5m]);
        _shop.Lots.Open(cellar)!.Rows.Select(r => r.View.Job.Paid).ShouldBe([4.5m, 4.5m]);
        _shop.LotCorrections.Do(moved.Back, moved.Items).Done.ShouldNotBeNull();
        _shop.Lots.Open(attic)!.Rows.Sum(r => r.View.Job.Paid).ShouldBe(10);
        _shop.Lots.Open(cellar)!.Rows.Single().View.Job.Paid.ShouldBe(9);

        var gone = _shop.LotCorrections.Do(LotCorrection.Remove, [new LotItemTo(numbers[4])]).Done.ShouldNotBeNull();
        _shop.Lots.Open(attic)!.Rows.Select(r => r.View.Job.Paid).ShouldBe([2.5m, 2.5m, 2.5m, 2.5m]);
        _shop.LotCorrections.Do(gone.Back, gone.Items).Done.ShouldNotBeNull();
        _shop.Lots.Open(attic)!.Rows.Select(r => r.View.Job.Paid).ShouldAllBe(p => p == 2);

        // Of several all are corrected or none.
        _shop.LotCorrections.Do(LotCorrection.Lot, [new LotItemTo(numbers[0], $"{cellar}"), new LotItemTo(numbers[1], "99")]).Refusal.ShouldNotBeNull();
        _shop.Jobs.Find(numbers[0])!.Lot.ShouldBe("attic");
        _shop.LotCorrections.Do(LotCorrection.Apart, []).Refusal.ShouldNotBeNull();
        // An owner's unit is in no lot that was bought.
        var batch = Begin();
        _shop.LotCorrections.Do(LotCorrection.Lot, [new LotItemTo(numbers[0], $"{batch}")]).Refusal.ShouldNotBeNull().Problem.ShouldContain("Pim Rovik");
    }

    [Fact]
    public void A_round_over_the_whole_bench_goes_across_owners_and_is_gone_on_with_where_it_was_left()
    {
        var numbers = TakeIn(Begin(), "black box\nblack box\n").Concat(TakeIn(Begin("attic", null, 4), "black box\n! black box\n")).ToList();
        foreach (var number in numbers)
            _shop.View(number);
        var whole = _shop.Rounds.Whole();
        var round = whole.Rounds[0];
        round.Key.ShouldBe("fix:swab-edge:cartridge-edge");
        // What is set apart stays out.
        round.Items.Select(i => i.Number).ShouldBe(numbers.Take(3));
        _shop.Lots.Open(_shop.LotRows.Find("attic")!.Id)!.Rounds.SelectMany(r => r.Items).ShouldAllBe(i => i.Number == numbers[2]);

        _shop.Rounds.Answer(whole, round.Key, numbers[0], RoundAnswer.Good, "", null).Done.ShouldNotBeNull();
        var (left, ahead) = _shop.Rounds.UnderWay(_shop.Rounds.Whole()).ShouldHaveSingleItem();
        (left.After, ahead).ShouldBe((numbers[0], 2));
        _shop.Rounds.Next(_shop.Rounds.Whole(), left.Key, left.After)!.Item.Number.ShouldBe(numbers[1]);
        foreach (var number in numbers.Skip(1).Take(2))
            _shop.Rounds.Answer(_shop.Rounds.Whole(), round.Key, number, RoundAnswer.Bad, "", null).Done.ShouldNotBeNull();
        _shop.Rounds.UnderWay(_shop.Rounds.Whole()).ShouldBeEmpty();
    }

    [Fact]
    public void What_is_given_up_lends_its_casing_to_one_that_wants_it()
    {
        var lot = Begin("attic", null, 10);
        var numbers = TakeIn(lot, "garbled logo, cracked shell\ngarbled logo, label torn\nblack box\n");
        _shop.HandOver.Close(new CloseOrder(numbers[2], JobEnd.Parts, "", "", null, false)).Done.ShouldNotBeNull();
        _shop
            .Lots.Casing(_shop.Lots.Open(lot)!)
            .Select(c => (c.To, c.From, c.Part))
            .ShouldBe([(numbers[0], numbers[2], "shell"), (numbers[1], numbers[2], "label")]);
    }

    [Fact]
    public void Sold_together_each_bears_its_part_by_worth_and_what_comes_back_opens_its_old_job()
    {
        var lot = Begin("attic", null, 10);
        var numbers = TakeIn(lot, "item;worth\nblack box;30\nblack box;10\ndead;8\n");
        foreach (var number in numbers.Take(2))
        {
            _shop.Repairs.Log(new RepairOrder(number, "edge", "swab-edge", WorksNow: true)).Done.ShouldNotBeNull();
            _shop.AllWork(number, proving: true);
        }

        var sheet = _shop.Bundles.Open(numbers).ShouldNotBeNull();
        // The third still fails: what it is worth as it stands is not known, and it goes with a reason only.
        sheet.Units.Select(u => (u.Worth, u.Bar is null)).ShouldBe([(30m, true), (10m, true), (0m, false)]);
        sheet.Asking.ShouldBeNull();
        _shop.Bundles.Sold(sheet, 40, 4, 3.33m, 0, "", "").Refusal.ShouldNotBeNull().Problem.ShouldStartWith($"{numbers[2]}:");
        _shop.Jobs.Find(numbers[0])!.Ending.ShouldBe(JobEnd.Open);

        var two = _shop.Bundles.Open([numbers[0], numbers[1]]).ShouldNotBeNull();
        two.Asking!.Value.Value.ShouldBe(40);
        _shop.Sale.Together([.. two.Units.Select(u => u.View)], two.Asking, _ => "").ShouldContain("Price for all: €40.00");
        _shop.Bundles.Sold(two, 36.01m, 4, 3.33m, 0, "market", "").Done.ShouldNotBeNull();
        var sold = numbers.Take(2).Select(n => _shop.Sales.Find(_shop.Jobs.Find(n)!.Id)!).ToList();
        sold.Select(s => s.Price).ShouldBe([27.01m, 9m]);
        (sold.Sum(s => s.Fees), sold.Sum(s => s.Postage)).ShouldBe((4m, 3.33m));
        _shop.Bundles.Sold(_shop.Bundles.Open([numbers[0], numbers[1]])!, 36, 0, 0, 0, "", "all the same").Refusal.ShouldNotBeNull();

        var words = "garbled logo again";
        _shop.Sale.Becomes(numbers[0], sold[0] with { State = SaleState.Returned, Words = words }).Done.ShouldNotBeNull();
        var back = _shop.View(numbers[0]);
        back.Job.Ending.ShouldBe(JobEnd.Open);
        // The old job knows what was done, and what the buyer says fails.
        back.Diagnosis!.Target.ShouldNotBeNull();
        back.Records.ShouldContain(r => r.Body.Step == JobStep.Repaired);
    }

    [Fact]
    public void Names_that_are_new_are_asked_once_each_and_become_the_shops_own_models()
    {
        var lot = Begin();
        _shop.Lots.Save(_shop.LotRows.Find(lot)! with { ProfileId = "" }).Done.ShouldNotBeNull();
        const string Lines = "Corvel Brick, front loader, no picture\nCorvel game, black box\nCorvel game, garbled\n";
        var items = Core.Lots.BatchLines.Read(Lines, out _);
        var names = _shop.LotItems.NewNames(_shop.LotRows.Find(lot)!, items);
        names.Select(n => (n.Name, n.Lines)).ShouldBe([("Corvel Brick", 1), ("Corvel game", 2)]);
        // What was said of it puts its build first.
        names[0].Builds[0].Id.ShouldBe("build-console-front-loading");
        _shop.LotItems.TakeIn(lot, Lines).Refusal.ShouldNotBeNull();
        var numbers = _shop
            .LotItems.TakeIn(
                lot,
                Lines,
                names: new Dictionary<string, string> { ["Corvel Brick"] = "build-console-front-loading", ["Corvel game"] = "build-cartridge-plain" }
            )
            .Done.ShouldNotBeNull()
            .Numbers;
        numbers.Select(n => _shop.Jobs.Find(n)!.ModelName).ShouldBe(["Corvel Brick", "Corvel game", "Corvel game"]);
        _shop.View(numbers[0]).Proof.Failures.ShouldNotBeEmpty();
        // The next time they are known.
        _shop.LotItems.NewNames(_shop.LotRows.Find(lot)!, items).ShouldBeEmpty();
    }
}
