using Mendro.Core.Jobs;
using Mendro.Storage;

namespace Mendro.Shop.Tests;

/// <summary>The standard piece stands in every chain unseen: what it has just run well is told of it too. Common practice, no source.</summary>
public sealed class StandardGearTests : IDisposable
{
    private readonly TestShop _shop = new();

    public void Dispose() => _shop.Dispose();

    private double Suspicion(string profile)
    {
        var number = _shop.TakeIn(profile);
        _shop.Try(number, "power-light", true);
        _shop.Try(number, "start-up", false);
        return _shop.View(number).Diagnosis!.Parts["testcart"].Posterior;
    }

    private long Worn(int trials)
    {
        var id = new GearStore(_shop.Database, _shop.Time).Add("Cartridge 1", "test-cartridge");
        var number = _shop.TakeIn();
        var piece = new SwapPiece($"g{id}", "Cartridge 1", "test-cartridge");
        for (var n = 0; n < trials; n++)
            _shop.File(number, new SwapTrial("start-up", SwapResult.Fail, ["main"], ["testcart"], [piece]));
        return number;
    }

    [Fact]
    public void What_has_just_run_another_unit_of_the_model_is_hardly_suspect()
    {
        var first = Worn(30);
        var before = Suspicion("harrow-quartet");
        _shop.Try(first, "start-up", true);
        Suspicion("harrow-quartet").ShouldBeLessThan(before * 0.6);
    }

    [Fact]
    public void A_light_that_comes_on_says_nothing_of_the_cartridge_and_one_model_nothing_of_another()
    {
        var first = Worn(30);
        var before = Suspicion("harrow-quartet");
        _shop.Try(first, "power-light", true);
        Suspicion("harrow-quartet").ShouldBe(before, 1e-6);
        var duet = Suspicion("harrow-duet");
        _shop.Try(first, "start-up", true);
        Suspicion("harrow-duet").ShouldBe(duet, 1e-6);
    }

    [Fact]
    public void Used_again_it_is_suspect_again_and_a_trial_taken_back_says_nothing()
    {
        var first = Worn(30);
        var before = Suspicion("harrow-quartet");
        _shop.Try(first, "start-up", true);
        var job = _shop.Jobs.Find(first)!;
        var run = _shop.Records.Of(job.Id)[^1];
        var clear = Suspicion("harrow-quartet");
        var piece = new SwapPiece("g1", "Cartridge 1", "test-cartridge");
        for (var n = 0; n < 20; n++)
            _shop.File(first, new SwapTrial("start-up", SwapResult.Fail, ["main"], ["testcart"], [piece]));
        Suspicion("harrow-quartet").ShouldBeInRange(clear * 1.05, before * 1.5);
        _shop.Records.Withdraw(job.Id, run.Id);
        Suspicion("harrow-quartet").ShouldBeGreaterThan(before);
    }
}
