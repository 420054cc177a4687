using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Methods;

namespace Mendro.Shop.Tests;

/// <summary>A contact cleaned rung by rung: filed as repairs, with what is put on, stopped where it is dangerous.</summary>
public sealed class LadderDeskTests : IDisposable
{
    private const string Model = "pellin-atrium-cartridge";

    private readonly TestShop _shop = new();

    private readonly LadderDesk _ladders;

    public LadderDeskTests() =>
        _ladders = new LadderDesk(
            new JobBench(_shop.Jobs, _shop.Records, _shop.Models, _shop.Ledger, _shop.Time),
            _shop.Records,
            _shop.Runs,
            TradeLibrary.Shipped,
            _shop.Time
        );

    public void Dispose() => _shop.Dispose();

    private PartOnLadder At(long number) => _ladders.Find(_shop.Jobs.Find(number)!, _shop.View(number).Profile, "edge", "dark", null)!;

    [Fact]
    public void Two_rungs_and_it_works_and_the_diagnosis_knows()
    {
        var number = _shop.TakeIn(Model, fails: "cartridge");
        At(number).State.Rung!.Id.ShouldBe("alcohol");
        _ladders.Go(number, "edge", "alcohol", true, false).Done!.Words.ShouldBe("Alcohol on a swab (edge contacts): swab clean");
        At(number).State.Rung!.Id.ShouldBe("eraser");
        _ladders.Go(number, "edge", "eraser", true, true).Done.ShouldNotBeNull();
        At(number).State.Advice.ShouldBe(LadderAdvice.Cured);
        At(number).State.WearSpent.ShouldBe(0.02, 1e-9);
        var view = _shop.View(number);
        view.All<FunctionTrial>().Last().Body.Passed.ShouldBeTrue();
        view.All<MaterialUsed>().Select(m => m.Body.Done.Agent).ShouldBe(["isopropyl-91", "eraser"]);
    }

    [Fact]
    public void Polish_comes_off_before_the_next_rung()
    {
        var number = _shop.TakeIn(Model, fails: "cartridge");
        _ladders.Go(number, "edge", "polish", true, null).Done.ShouldNotBeNull();
        At(number).State.Advice.ShouldBe(LadderAdvice.TakeOff);
        _ladders.Go(number, "edge", "fibre", true, null).Refusal!.Problem.ShouldContain("still on it");
        _ladders.TakeOff(number, "edge", "isopropyl-91").Done.ShouldNotBeNull();
        _ladders.Go(number, "edge", "fibre", true, null).Done.ShouldNotBeNull();
    }

    [Fact]
    public void A_dangerous_rung_is_refused()
    {
        var number = _shop.TakeIn(Model);
        _shop.Runs.Log(number, new SequenceStep("bleach-1-10", "bare-plastic")).Done.ShouldNotBeNull();
        _ladders.Go(number, "edge", "alcohol", true, null).Refusal!.Problem.ShouldContain("Bleach");
        _shop.View(number).All<RungDone>().ShouldBeEmpty();
    }

    [Fact]
    public void Wear_of_an_earlier_job_of_the_same_cartridge_counts()
    {
        var (first, second) = (_shop.TakeIn(Model), _shop.TakeIn(Model));
        foreach (var number in (long[])[first, second])
            _shop.Jobs.SaveIntake(_shop.Jobs.Find(number)! with { Serial = "C-7" }, "Ilka Dorn", "");
        _ladders.Go(first, "edge", "abrasive", true, true).Done.ShouldNotBeNull();
        At(second).State.WearSpent.ShouldBe(0.3, 1e-9);
        // It begins where this job's condition says all the same.
        At(second).Gone.Single().ThisJob.ShouldBeFalse();
    }
}
