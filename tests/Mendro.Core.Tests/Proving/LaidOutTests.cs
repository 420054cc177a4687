using Mendro.Core.Library;
using Mendro.Core.Proving;

namespace Mendro.Core.Tests.Proving;

/// <summary>What is laid out is what the unit plays. Common practice, no source.</summary>
public class LaidOutTests
{
    [Theory]
    [InlineData("build-disc-console-tray", "disc", "known-good disc, card with a save")]
    [InlineData("build-handheld-folding-lithium", "card", "known-good card, card with a save")]
    [InlineData("build-console-top-loading", "cartridge", "known-good cartridge, cartridge with a save")]
    [InlineData("build-pad-wired", null, "known-good cartridge, cartridge with a save")]
    public void It_is_what_the_unit_plays(string id, string? game, string laid)
    {
        var profile = TradeLibrary.Shipped.Archetypes.Single(p => p.Id == id);
        LaidOut.Game(profile).ShouldBe(game);
        string.Join(", ", LaidOut.For(profile, ["known-good cartridge", "cartridge with a save"])).ShouldBe(laid);
    }
}
