using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>
/// What is changed alone and ends the failure was what failed: a lasting fault that fails a function now goes on failing it
/// (common practice, no source).
/// </summary>
public sealed class SwapNamesTests
{
    [Fact]
    public void Another_piece_that_works_names_the_piece_in_every_model()
    {
        var (swaps, leads) = (0, 0);
        foreach (var (model, function, piece) in Pieces())
        {
            var bench = new Bench(model).Fails(function.Id);
            var before = bench.Diagnose().Parts[piece.Id].Share;
            // A piece that nobody would try for this is none of it.
            if (before < 0.01)
                continue;
            swaps++;
            var after = bench.Add(new SwapTried(1, function.Id, SwapPlanner.Chain(model, function.Id, [piece.Id]), true)).Diagnose();
            var share = after.Parts[piece.Id].Share;
            var first = after.Parts.Values.MaxBy(v => v.Share)!.Part.Id == piece.Id;
            leads += first ? 1 : 0;
            // A connector that nobody has touched may have failed just then and hold now: it keeps a tenth of what it had.
            (first || Odds(share) > 5 * Odds(before)).ShouldBeTrue($"{model.Profile.Id} {function.Id} {piece.Id} {before:0.00} {share:0.00}");
        }

        swaps.ShouldBeGreaterThan(60);
        ((double)leads / swaps).ShouldBeGreaterThan(0.8);
    }

    [Fact]
    public void What_comes_and_goes_with_another_piece_names_none()
    {
        var bench = new Bench("pellin-atrium").Works("power-light").Fails("video", "nothing");
        var chain = SwapPlanner.Chain(bench.Model, "video", ["cable"]);
        double Share(SwapTried swap) =>
            new Bench(bench.Model).Works("power-light").Fails("video", "nothing").Add(swap).Diagnose().Parts["cable"].Share;
        Share(new SwapTried(2, "video", chain, true)).ShouldBeGreaterThan(3 * Share(new SwapTried(2, "video", chain, true, Flickers: true)));
    }

    [Fact]
    public void A_trial_with_another_piece_before_a_repair_says_nothing_of_a_failure_after_it()
    {
        var bench = new Bench("pellin-atrium").Works("power-light").Fails("video", "nothing");
        bench.Add(new SwapTried(2, "video", SwapPlanner.Chain(bench.Model, "video", ["cable"]), true));
        bench.Diagnose().Parts["cable"].Share.ShouldBeGreaterThan(0.25);
        bench.Repairs("cable", "swap-cable").Fails("video", "nothing");
        bench.Diagnose().Parts["cable"].Share.ShouldBeLessThan(0.1);
    }

    private static double Odds(double share) => share / (1 - share);

    private static IEnumerable<(DeviceModel Model, DeviceFunction Function, Part Piece)> Pieces() =>
        from profile in TradeLibrary.Shipped.Profiles.Concat(TradeLibrary.Shipped.Archetypes)
        let model = new DeviceModel(profile, TradeLibrary.Shipped)
        from function in profile.Functions
        from piece in SwapPlanner.Swappable(model, function.Id)
        where TradeLibrary.Shipped.FindPartKind(piece.Kind)?.Gear == true
        select (model, function, piece);
}
