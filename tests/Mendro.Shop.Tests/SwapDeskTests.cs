using Mendro.Core.Jobs;

namespace Mendro.Shop.Tests;

/// <summary>Swaps with what another unit of the shop lends.</summary>
public sealed class SwapDeskTests : IDisposable
{
    private readonly TestShop _shop = new();

    public void Dispose() => _shop.Dispose();

    private IReadOnlyList<string> On(long number) =>
        UnitApart.Of(_shop.View(number).Profile, _shop.View(number).Records.Select(r => r.Body)).Temporary;

    [Fact]
    public void The_drive_of_a_neighbour_stands_in_and_finds_its_way_back()
    {
        var (broken, whole, other) = (
            _shop.TakeIn("tarn-halyard"),
            _shop.TakeIn("tarn-halyard", fails: "sound"),
            _shop.TakeIn("dovrel-bastion", fails: "disc")
        );
        _shop.Try(broken, "disc", passed: false);
        var view = _shop.View(broken);
        var function = view.Profile.FindFunction("disc")!;
        var slot = _shop.Swaps.Slots(view.Job, view.Model, function).Single(s => s.Id == "drive");
        // Only one of the same model lends it; another that nobody wrote down is always there.
        slot.Choices.Select(c => c.Id).ShouldBe([$"job{whole}", SwapDesk.Another]);
        slot.Choices.ShouldAllBe(c => c.Id != $"job{other}");

        _shop.Swaps.File(broken, "disc", new Dictionary<string, string> { ["drive"] = $"job{whole}" }, SwapResult.Pass).Done.ShouldNotBeNull();
        On(broken).Single().ShouldContain("goes back there");
        On(whole).Single().ShouldStartWith("its optical drive is in unit");
        _shop.View(broken).Diagnosis!.Parts["drive"].Share.ShouldBeGreaterThan(0.5);

        _shop.Apart.Temporary(broken, On(broken).Single(), off: true).Done.ShouldNotBeNull();
        On(broken).ShouldBeEmpty();
        On(whole).ShouldBeEmpty();
    }

    [Theory]
    [InlineData("pellin-atrium", "video")]
    [InlineData("harrow-quartet", "power-light")]
    public void Another_one_that_nobody_wrote_down_is_there_at_every_place(string model, string function)
    {
        var view = _shop.View(_shop.TakeIn(model, fails: function));
        _shop
            .Swaps.Slots(view.Job, view.Model, view.Profile.FindFunction(function)!)
            .ShouldAllBe(s => s.Choices.Any(c => c.Id == SwapDesk.Another));
    }
}
