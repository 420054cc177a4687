using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Storage;

namespace Mendro.Shop.Tests;

/// <summary>A shop's own ways: copied, changed, every version kept, and what its jobs say of them.</summary>
public sealed class MethodDeskTests : IDisposable
{
    private readonly TestShop _shop = new();
    private readonly TradeLibrary _library = TradeLibrary.Shipped.Copy();
    private readonly MethodDesk _desk;

    public MethodDeskTests() =>
        _desk = new MethodDesk(
            new MethodStore(_shop.Database, _shop.Time),
            new ModelShelf(_shop.Profiles, _library),
            _shop.Ledger,
            _library
        );

    public void Dispose() => _shop.Dispose();

    [Fact]
    public void A_copy_is_offered_beside_the_shipped_one_and_each_version_is_kept()
    {
        var flush = _library.FindMethod("flush-switch")!;
        var id = (MethodId)_desk.Save("flush-switch", flush with { Name = "Flush, our way", Minutes = 6 }).Done!.Words;
        _library.MethodsFor("power-switch").Select(m => m.Id).ShouldContain(id);
        _desk.Save(id, _library.FindMethod(id)! with { Minutes = 7 }).Done!.Words.ShouldBe(id.Value);
        _desk.Versions(id).Select(v => (v.Version, v.Method.Minutes)).ShouldBe([(2, 7.0), (1, 6.0)]);
        _library.FindMethod(id)!.Minutes.ShouldBe(7);
        TradeLibrary.Shipped.FindMethod(id).ShouldBeNull();

        // Old records still find it when it is not offered any more.
        _desk.Retire(id, true).Done.ShouldNotBeNull();
        _library.MethodsFor("power-switch").Select(m => m.Id).ShouldNotContain(id);
        _library.FindMethod(id)!.Name.ShouldBe("Flush, our way");
        _desk.Retire("flush-switch", true).Refusal.ShouldBe(Refusal.Missing);
    }

    [Fact]
    public void A_method_that_makes_no_sense_is_refused_with_a_word_why()
    {
        var flush = _library.FindMethod("flush-switch")!;
        string Problem(Method changed) => _desk.Save("flush-switch", changed).Refusal!.Problem;
        Problem(flush with { Name = " " }).ShouldContain("name");
        Problem(flush with { Minutes = 0 }).ShouldContain("minutes");
        Problem(flush with { Cures = [] }).ShouldContain("what it cures");
        Problem(flush with { Steps = [new MethodStep("x", 30)] }).ShouldContain("longer");
        Problem(flush with { Steps = [new MethodStep("x", Agent: "gold", Surface: "board")] }).ShouldContain("gold");
        Problem(flush with { Steps = [new MethodStep("x", Agent: "water", Surface: "moon")] }).ShouldContain("moon");
        Problem(flush with { Steps = [new MethodStep("x", Cautions: ["dragons"])] }).ShouldContain("dragons");
    }

    [Fact]
    public void The_usual_way_is_marked_and_taken_back()
    {
        _desk.SetUsual("power-switch", "polish-switch").Done.ShouldNotBeNull();
        _desk.Of("power-switch").Single(l => l.Usual).Method.Id.Value.ShouldBe("polish-switch");
        _desk.SetUsual("power-switch", "swab-edge").Refusal.ShouldBe(Refusal.Missing);
        _desk.SetUsual("power-switch", null).Done.ShouldNotBeNull();
        _desk.Usual("power-switch").ShouldBeNull();
    }

    [Fact]
    public void Closed_jobs_move_the_success_and_a_come_back_counts_against()
    {
        var last = 0L;
        void Closed(string serial, string method)
        {
            var number = last = _shop.TakeIn(fails: "power-light");
            _shop.Jobs.SaveIntake(_shop.Jobs.Find(number)! with { Serial = serial }, "Ilka Dorn", "");
            _shop.Repairs.Log(new RepairOrder(number, "switch", method)).Done.ShouldNotBeNull();
            _shop.AllWork(number, proving: true);
            _shop.HandOver.Close(new CloseOrder(number, JobEnd.Returned, "", "", null, false)).Refusal.ShouldBeNull();
            _shop.Time.Advance(TimeSpan.FromDays(1));
        }

        Closed("H4-1", "flush-switch");
        Closed("H4-2", "flush-switch");
        _desk.Refresh();
        MethodLine Line() => _desk.Of("power-switch").Single(l => l.Method.Id == (MethodId)"flush-switch");
        (Line().Tally!.Held, Line().Tally!.Failed).ShouldBe((2, 0));
        // 0.72 worth 20 cases and 2 of 2.
        Line().Learned.ShouldBe((0.72 * 20 + 2) / 22, 1e-9);
        Closed("H4-2", "polish-switch");
        // Counted on at the close, as a whole count would have it, and not twice.
        _desk.Closed(last);
        (Line().Tally!.Held, Line().Tally!.Failed).ShouldBe((1, 1));
        _desk.Closed(last);
        (Line().Tally!.Held, Line().Tally!.Failed).ShouldBe((1, 1));
        _desk.Refresh();
        (Line().Tally!.Held, Line().Tally!.Failed).ShouldBe((1, 1));
    }
}
