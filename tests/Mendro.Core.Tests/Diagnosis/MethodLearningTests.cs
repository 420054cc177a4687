using CsCheck;
using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>What a shop's own work says of its methods.</summary>
public class MethodLearningTests
{
    private static RepairMade Did(string method, string part = "switch") => new(part, "power-switch", method);

    private static JobOutcome Job(string unit, bool cured, params RepairMade[] repairs) => new(unit, cured, repairs);

    private static (int Held, int Failed) Of(IReadOnlyDictionary<(MethodId, string), MethodTally> tallies, string method) =>
        tallies.TryGetValue((method, "power-switch"), out var tally) ? (tally.Held, tally.Failed) : (0, 0);

    [Fact]
    public void The_last_repair_of_a_part_has_held_and_those_before_it_have_not()
    {
        var tallies = MethodLearning.Tally([Job("a", true, Did("flush-switch"), Did("flush-switch"), Did("polish-switch"))]);
        Of(tallies, "flush-switch").ShouldBe((0, 2));
        Of(tallies, "polish-switch").ShouldBe((1, 0));
    }

    [Fact]
    public void A_unit_that_left_unwell_counts_against_the_method() =>
        Of(MethodLearning.Tally([Job("a", false, Did("flush-switch"))]), "flush-switch").ShouldBe((0, 1));

    [Fact]
    public void A_unit_that_comes_back_for_the_same_part_takes_the_cure_back()
    {
        var first = Job("H4-11", true, Did("flush-switch"));
        Of(MethodLearning.Tally([first, Job("H4-11", true, Did("replace-switch"))]), "flush-switch").ShouldBe((0, 1));
        // For another part, or another unit, it has held.
        Of(MethodLearning.Tally([first, Job("H4-11", true, new RepairMade("fuse", "fuse", "replace-fuse"))]), "flush-switch").ShouldBe((1, 0));
        Of(MethodLearning.Tally([first, Job("H4-12", true, Did("replace-switch"))]), "flush-switch").ShouldBe((1, 0));
    }

    [Fact]
    public void What_left_cured_and_came_back_is_counted_apart_from_what_never_held()
    {
        var tallies = MethodLearning.Tally([
            Job("H4-11", true, Did("polish-switch"), Did("flush-switch")),
            Job("H4-12", true, Did("flush-switch")),
            Job("H4-11", true, Did("replace-switch")),
            Job("H4-13", false, Did("flush-switch")),
        ]);
        tallies[("flush-switch", "power-switch")].ShouldBe(new MethodTally(1, 2, 1));
        tallies[("flush-switch", "power-switch")].Left.ShouldBe(2);
        tallies[("polish-switch", "power-switch")].CameBack.ShouldBe(0);
    }

    // Beta(a, b) after k of n has the mean (a + k)/(a + b + n): textbook. MathNet's Beta is the other way to the same figure.
    [Fact]
    public void The_learned_success_is_the_mean_of_the_beta_after_the_shops_cases() =>
        Gen.Select(Gen.Double[0.05, 0.95], Gen.Int[0, 200], Gen.Int[0, 200])
            .Sample(
                (library, held, failed) =>
                {
                    var beta = new MathNet.Numerics.Distributions.Beta(
                        library * MethodLearning.Strength + held,
                        (1 - library) * MethodLearning.Strength + failed
                    );
                    return Math.Abs(MethodLearning.Success(library, new MethodTally(held, failed)) - beta.Mean) < 1e-12;
                }
            );

    [Fact]
    public void The_library_offers_what_was_learned_and_the_shipped_one_stays_as_it_is()
    {
        var library = TradeLibrary.Shipped.Copy();
        var shipped = TradeLibrary.Success(TradeLibrary.Shipped.FindMethod("flush-switch")!, "power-switch", "dirty");
        var tallies = MethodLearning.Tally(Enumerable.Range(0, 20).Select(n => Job($"u{n}", n % 4 == 0, Did("flush-switch"))));
        library.UseMethods(MethodLearning.Apply(TradeLibrary.Shipped.Methods, tallies), []);
        // 0.72 worth 20 cases, and 5 of 20: (14.4 + 5) / 40, in hundredths.
        TradeLibrary.Success(library.FindMethod("flush-switch")!, "power-switch", "dirty").ShouldBe((shipped * 20 + 5) / 40, 0.0051);
        TradeLibrary.Success(TradeLibrary.Shipped.FindMethod("flush-switch")!, "power-switch", "dirty").ShouldBe(shipped);
        library.MethodsRevision.ShouldBe(1);
    }
}
