using Mendro.Core.Capacitors;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Evidence;
using Mendro.Core.Profiles;
using Mendro.Core.Stock;
using Mendro.Storage;

namespace Mendro.Shop.Tests;

/// <summary>A capacitor job from its revision to the last stage.</summary>
public sealed class RecapDeskTests : IDisposable
{
    private readonly TestShop _shop = new();

    public void Dispose() => _shop.Dispose();

    private RecapSheet Sheet(long number) => _shop.Recap.Open(_shop.View(number))!;

    private long TakeIn(string? revision = "B")
    {
        var number = _shop.TakeIn("dovrel-sextant", fails: "speaker");
        if (revision is not null)
            _shop.Recap.TellRevision(number, revision).Done.ShouldNotBeNull();
        return number;
    }

    private async Task Place(long number)
    {
        _shop.Recap.Place(_shop.View(number)).Done.ShouldNotBeNull();
        await WaitAsync(number);
    }

    private Task WaitAsync(long number) => _shop.Fits.Ended(_shop.Jobs.Find(number)!.Id).WaitAsync(TestContext.Current.CancellationToken);

    private Deed<StageDone> Finish(long number, params (string Function, bool Works)[] tried)
    {
        var now = Sheet(number).Now!;
        return _shop.Recap.Finish(
            _shop.View(number),
            now.Number,
            now.Positions.Select(p => p.Key).ToHashSet(),
            tried.ToDictionary(t => (FunctionId)t.Function, t => t.Works),
            null
        );
    }

    [Fact]
    public void No_list_is_shown_before_the_revision_is_told()
    {
        var number = TakeIn(null);
        Sheet(number).ShouldSatisfyAllConditions(s => s.WantsRevision.ShouldBeTrue(), s => s.Lines.ShouldBeEmpty());
        _shop.Recap.Place(_shop.View(number)).Refusal!.Problem.ShouldContain("revision");
        _shop.Recap.Begin(_shop.View(number)).Refusal!.Problem.ShouldContain("revision");
        _shop.Recap.TellRevision(number, "Q").Refusal!.Kind.ShouldBe(RefusalKind.Missing);
        _shop.Recap.TellRevision(number, "A").Done.ShouldNotBeNull();
        Sheet(number).Lines.Select(l => l.Position.Capacitor.Mount).Distinct().ShouldBe(["through-hole"]);
    }

    [Fact]
    public async Task All_boards_are_placed_and_a_change_of_parts_asks_for_it_anew()
    {
        var number = TakeIn();
        Sheet(number).IsPlaced.ShouldBeFalse();
        await Place(number);
        var sheet = Sheet(number);
        sheet.IsPlaced.ShouldBeTrue();
        sheet.Progress.ShouldBeNull();
        sheet.Renewed.Count(l => l.Placed is not null).ShouldBe(23);
        sheet.Plan.Fits.ShouldAllBe(f => f.Plan.Optimal);
        var line = sheet.Find("main/C39")!;
        _shop.Recap.Decide(number, p => p with { Chosen = new Dictionary<string, string> { ["main/C39"] = line.Offers[^1].Part.Id } }).Done.ShouldNotBeNull();
        Sheet(number).IsPlaced.ShouldBeFalse();
        await Place(number);
        Sheet(number).Find("main/C39")!.Part!.Id.ShouldBe(line.Offers[^1].Part.Id);
    }

    [Fact]
    public void Ones_own_parts_are_taken_first_as_long_as_there_are_enough()
    {
        var number = TakeIn("A");
        _shop.Recap.Add(CapacitorFile.ReadParts("value,volts,size,count\n100u,16,6.3x7,2\n", CapacitorSource.Stock, out _));
        var sheet = Sheet(number);
        sheet.Lines.Count(l => l.Part!.Source == CapacitorSource.Stock).ShouldBe(2);
        _shop.Recap.Shopping(sheet).Single(l => l.Part.Source == CapacitorSource.Stock).ShouldSatisfyAllConditions(
            l => l.Needed.ShouldBe(2),
            l => l.InStock.ShouldBe(2)
        );
        _shop.Recap.Decide(number, p => p with { Sources = [CapacitorSource.Catalogue] });
        Sheet(number).Lines.ShouldAllBe(l => l.Part!.Source == CapacitorSource.Catalogue);
    }

    [Fact]
    public void Stage_by_stage_to_the_end_with_what_was_done_and_taken_from_the_drawer()
    {
        var number = TakeIn();
        _shop.Recap.Add(CapacitorFile.ReadParts("value,volts,size,count,mount\n47u,16,6.3x5.4,9,surface\n", CapacitorSource.Stock, out _));
        _shop.Recap.Begin(_shop.View(number)).Done.ShouldNotBeNull();
        var sheet = Sheet(number);
        sheet.Now!.Number.ShouldBe(1);
        // What is to blame most for the complaint comes first.
        var blame = sheet.View.Diagnosis!.Parts;
        var most = sheet.Lines.Select(l => l.Position.Part!.Id).Distinct().MaxBy(id => blame[id].Share);
        sheet.Now.Positions.ShouldContain(p => p.Part!.Id == most);
        _shop.Recap.Decide(number, p => p with { Scope = RecapScope.Failed }).Refusal!.Problem.ShouldContain("has begun");

        string Refused(int stage) =>
            _shop.Recap.Finish(_shop.View(number), stage, new HashSet<string>(), new Dictionary<FunctionId, bool>(), null).Refusal!.Problem;
        Refused(1).ShouldContain("once more");
        Finish(number).Refusal!.Problem.ShouldContain("at least one function");
        Refused(3).ShouldContain("done already");

        while (Sheet(number).Now is not null)
            Finish(number, ("start-up", true)).Done!.Worse.ShouldBeEmpty();
        var view = _shop.View(number);
        view.All<CapacitorsFitted>().SelectMany(f => f.Body.Refdes).Count().ShouldBe(23);
        view.All<CapacitorsFitted>().Sum(f => f.Record.Minutes).ShouldBe(23 * CapacitorLibrary.Shipped.MinutesEach, 0.5);
        // Sections that are whole count as that; 47 µF is on C3 of the supply, C33 in B and C5 of the sound board.
        view.All<CapacitorsFitted>().Select(f => f.Body.Method?.Value).Distinct().ShouldContain("recap-stages");
        _shop.Capacitors.Parts().Single().Count.ShouldBe(7);
        Sheet(number).Lines.ShouldAllBe(l => l.IsIn);
    }

    [Fact]
    public void Capacitors_that_were_ordered_come_into_a_bin_and_go_from_there_into_the_job_that_wanted_them()
    {
        var number = TakeIn();
        var list = _shop.Recap.Shopping(Sheet(number)).Where(l => l.ToBuy > 0).Select(l => (l.Part.Words, l.ToBuy)).ToList();
        _shop.Stock.WantAll(number, list).Done.ShouldNotBeNull();
        // They come: each into a bin that is read as what it is.
        foreach (var (words, count) in list)
        {
            var bin = _shop.StockRows.Add(StockItem.Of(new StockLine(StockCapacitor.Named(words), "K1", count, null, 0.2m, "ordered")), "received");
            foreach (var need in _shop.StockRows.Needs().Where(n => n.Part == words))
                _shop.StockRows.Reserve(need.Id, bin, count);
        }

        _shop.Recap.Shopping(Sheet(number)).ShouldAllBe(l => l.ToBuy == 0);
        Sheet(number).Renewed.ShouldAllBe(l => l.Part!.Source == CapacitorSource.Stock);
        _shop.Recap.Begin(_shop.View(number)).Done.ShouldNotBeNull();
        var first = Sheet(number).Now!.Positions.Select(p => Sheet(number).Find(p.Key)!.Part!.Words).ToList();
        Finish(number, ("speaker", false)).Done.ShouldNotBeNull();
        var bins = _shop.StockRows.List().ToDictionary(i => i.Name);
        foreach (var (words, count) in list)
            bins[words].Count.ShouldBe(count - first.Count(f => f == words));
        // What went in is wanted no more, and nothing is to be ordered twice.
        _shop.StockRows.Needs().Sum(n => n.Missing).ShouldBe(0);
        _shop.StockRows.Needs().Sum(n => n.Count).ShouldBe(list.Sum(l => l.ToBuy) - first.Count);
        _shop.View(number).All<PartUsed>().Sum(u => u.Body.Count).ShouldBe(first.Count);
        // Another job sees only what lies free: here nothing.
        Sheet(TakeIn()).Renewed.ShouldAllBe(l => l.Part!.Source == CapacitorSource.Catalogue);
    }

    [Fact]
    public void What_worked_and_fails_after_a_stage_puts_the_last_group_under_suspicion()
    {
        var number = TakeIn();
        _shop.Try(number, "picture", true);
        _shop.Try(number, "start-up", true);
        _shop.Recap.Decide(number, p => p with { Scope = RecapScope.Section, Sections = ["display"] });
        _shop.Recap.Begin(_shop.View(number));
        Sheet(number).Stages.Count.ShouldBe(1);
        var done = Finish(number, ("start-up", true), ("picture", false)).Done!;
        done.Worse.ShouldBe(["Picture"]);
        var diagnosis = _shop.View(number).Diagnosis!;
        // Before the complaint, which is the speaker: it worked until the last group went in.
        diagnosis.Target!.Id.Value.ShouldBe("picture");
        diagnosis.Suspects[0].Fault.Id.ShouldBe("biascaps.step-damage");
        // Half of all groups of these years are bad, and the group just done leads them all the same.
        diagnosis.Suspects[0].Share.ShouldBeGreaterThan(1.5 * diagnosis.Suspects[1].Share);
    }

    [Fact]
    public void Old_ones_are_judged_and_count_for_the_next_unit_of_the_model()
    {
        var number = TakeIn();
        var line = Sheet(number).Find("sound/C4")!;
        Deed<Done> Old(CapacitorOut old) => _shop.Recap.Old(number, old, line.Position.Capacitor);
        Old(new CapacitorOut("sound", "C4")).Refusal.ShouldNotBeNull();
        // 100 µF that measures 61: −39 %.
        Old(new CapacitorOut("sound", "C4", Farads: 61e-6)).Done.ShouldNotBeNull();
        Old(new CapacitorOut("sound", "C4", Way: "turned")).Done.ShouldNotBeNull();
        Old(new CapacitorOut("sound", "C1", Farads: 104e-6)).Done.ShouldNotBeNull();
        Sheet(number).Find("sound/C4")!.Old.ShouldSatisfyAllConditions(
            o => o!.Verdict.ShouldBe("low"),
            o => o!.Way.ShouldBe("turned")
        );
        _shop.Recap.Decide(number, p => p with { Scope = RecapScope.Failed });
        Sheet(number).Renewed.Select(l => l.Position.Key).ShouldBe(["sound/C4"]);

        var next = TakeIn("A");
        Sheet(next).Find("sound/C4")!.Before.ShouldBe((1, 1));
        Sheet(next).Find("sound/C1")!.Before.ShouldBe((0, 1));
        Sheet(next).Find("sound/C2")!.Before.ShouldBeNull();
        var likes = _shop.Recap.Likes(_shop.View(next));
        likes.Select(l => (l.Number, l.SameList)).ShouldBe([(number, false), (next, true)], ignoreOrder: true);
        likes.Count(l => l.First).ShouldBe(1);
    }

    [Fact]
    public void A_list_of_ones_own_serves_a_unit_without_one()
    {
        var number = _shop.TakeIn("tarn-leaflet", fails: "picture");
        _shop.Recap.Open(_shop.View(number)).ShouldBeNull();
        var boards = CapacitorFile.ReadList("refdes,value,volts,section\nC1,100u,16,supply\nC2,10u,16,sound\n", out _);
        _shop.Recap.UseOwn(number, boards).Done!.Words.ShouldBe("2 positions, 0 nets.");
        var sheet = Sheet(number);
        sheet.WantsRevision.ShouldBeFalse();
        sheet.Renewed.Count().ShouldBe(2);
        _shop.Recap.Place(_shop.View(number)).Refusal!.Problem.ShouldContain("Nothing to place");
        _shop.Recap.Begin(_shop.View(number)).Done.ShouldNotBeNull();
        Finish(number, ("picture", true)).Done!.Finished.ShouldBeTrue();
    }

    [Fact]
    public async Task Placing_can_be_stopped_and_asked_for_again()
    {
        var number = TakeIn();
        var view = _shop.View(number);
        _shop.Recap.Place(view).Done.ShouldNotBeNull();
        _shop.Recap.Stop(view);
        await WaitAsync(number);
        // Stopped before it was done, or done before it was stopped: both leave a plan that can be asked for.
        (Sheet(number).IsPlaced || Sheet(number).Progress!.Problem is not null).ShouldBeTrue();
        await Place(number);
        Sheet(number).IsPlaced.ShouldBeTrue();
    }

    [Fact]
    public void Work_on_parts_that_are_open_anyway_is_offered_with_what_it_saves()
    {
        var joint = _shop.Recap.Joint(_shop.View(TakeIn()));
        joint.ShouldNotBeEmpty();
        joint.ShouldAllBe(w => w.Method.Type == MethodType.Clean && (w.Saved >= 1 || w.Method.Place != null));
        joint.ShouldContain(w => w.Method.Id == "polish-lens");
        joint.ShouldContain(w => w.Part.Id == "pads");
    }
}
