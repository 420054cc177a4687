using Mendro.Core.Jobs;

namespace Mendro.Core.Tests.Jobs;

/// <summary>A wiring table says itself what is wrong with it.</summary>
public class WiringTests
{
    private static WiringNoted Table(params WireLine[] wires) => new("port", wires);

    [Fact]
    public void Two_wires_on_one_contact_and_a_silent_one_are_told()
    {
        var table = Table(new("1", "5", "red", true), new("2", "5", "green", null), new("3", "6", "black", false));
        table.Problems.ShouldBe(["new contact 5 is used 2 times", "3 to 6 does not beep"]);
        table.Sign.ShouldBe(RecordSign.Bad);
    }

    [Fact]
    public void One_to_one_with_all_that_beep_is_well()
    {
        var table = Table(new("1", "1", "", true), new("2", "2", "", true));
        table.Problems.ShouldBeEmpty();
        table.Describe(Shipped.Model("harrow-quartet")).ShouldContain("2 of 2 beep");
    }
}
