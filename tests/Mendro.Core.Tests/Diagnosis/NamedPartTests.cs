using Mendro.Core.Diagnosis;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>A look at several parts together says which of them it was.</summary>
public class NamedPartTests
{
    private static readonly DeviceModel Sextant = Shipped.Model("dovrel-sextant");

    private static IEnumerable<string> Named(string probe, string words) =>
        Sextant.Named(Sextant.Profile.FindProbe(probe)!, words).Select(f => Sextant.Faults[f].Id).Order(StringComparer.Ordinal);

    [Theory]
    [InlineData("bad, C48 leaks", "invcaps.leaked")]
    [InlineData("bad, C40 dry", "biascaps.dried")]
    [InlineData("bad, the inverter ones are wet", "invcaps.leaked")]
    [InlineData("bad, leaks at c31 and C33", "railcaps.leaked")]
    public void By_what_is_printed_beside_it_or_by_its_name(string words, string fault) => Named("maincaps-eye", words).ShouldBe([fault]);

    [Fact]
    public void A_part_named_without_a_word_for_what_it_has_may_have_anything() =>
        Named("maincaps-eye", "bad, C49").ShouldBe(["invcaps.dried", "invcaps.leaked", "invcaps.shorted"]);

    [Theory]
    [InlineData("bad, all leak")]
    [InlineData("bad, C31, C40 and C48 leak")]
    [InlineData("bad, C99 leaks")]
    public void Where_none_or_all_are_named_all_are_meant(string words) =>
        Named("maincaps-eye", words).ShouldBe(["biascaps.leaked", "invcaps.leaked", "railcaps.leaked"]);

    [Fact]
    public void What_is_named_is_blamed()
    {
        var bench = new Bench("dovrel-sextant").Fails("power-light", "on-then-off").Reads("maincaps-eye", "bad, C48 leaks");
        var parts = bench.Diagnose().Parts;
        parts["invcaps"].Posterior.ShouldBeGreaterThan(0.9);
        // Of those of these years half are bad unnamed; naming another adds nothing to that.
        parts["railcaps"].Posterior.ShouldBeLessThan(parts["invcaps"].Posterior - 0.15);
        var unnamed = new Bench("dovrel-sextant").Fails("power-light", "on-then-off").Diagnose().Parts;
        parts["railcaps"].Posterior.ShouldBeLessThan(unnamed["railcaps"].Posterior + 0.05);
    }

    [Fact]
    public void A_name_with_a_number_is_a_name()
    {
        var bastion = Shipped.Model("dovrel-bastion");
        bastion
            .Named(bastion.Profile.FindProbe("lines-eye")!, "bad, green along line 2")
            .Select(f => bastion.Faults[f].Part.Id.Value)
            .Distinct()
            .ShouldBe(["line2"]);
    }

    [Theory]
    [InlineData("C1–C5", "C1 C2 C3 C4 C5")]
    [InlineData("C31 C33", "C31 C33")]
    [InlineData(null, "")]
    public void Lists_of_designators(string? list, string all) => string.Join(' ', Refdes.Expand(list).Order()).ShouldBe(all);
}
