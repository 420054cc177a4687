using Mendro.Core.Diagnosis;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>The <c>mendro.network/1</c> format: right answers, and messages that name the place of an error.</summary>
public class NetworkFileTests
{
    private const string Good = """
        {"format":"mendro.network/1",
         "faults":[{"id":"switch","prior":0.2}],
         "findings":[{"id":"dead","leak":0.1,"links":[{"fault":"switch","p":0.5}]},{"id":"other","leak":0.3,"links":[]}],
         "observed":[{"finding":"dead","state":"present"}]}
        """;

    [Fact]
    public void A_good_file_is_answered_in_file_order()
    {
        var answer = NetworkFile.Diagnose(Good, TimeProvider.System).Value!;
        answer.EvidenceProbability.ShouldBe(0.19, 1e-12);
        answer.Faults.ShouldHaveSingleItem().Posterior.ShouldBe(0.2 * 0.55 / 0.19, 1e-12);
        answer.Findings.Select(f => f.Id).ShouldBe(["dead", "other"]);
        answer.Findings[0].Probability.ShouldBe(1);
        answer.Findings[1].Probability.ShouldBe(0.3, 1e-12);
        answer.Milliseconds.ShouldBeGreaterThanOrEqualTo(0);
    }

    [Theory]
    [InlineData("{", "not valid JSON")]
    [InlineData("{}", "format")]
    [InlineData("""{"format":"mendro.network/2"}""", "mendro.network/1")]
    [InlineData("""{"format":"mendro.network/1","faults":[{"id":"a","prior":1.5}]}""", "faults[0].prior")]
    [InlineData("""{"format":"mendro.network/1","faults":[{"id":"a","prior":0.5},{"id":"a","prior":0.5}]}""", "used twice")]
    [InlineData(
        """{"format":"mendro.network/1","findings":[{"id":"s","leak":0,"links":[{"fault":"x","p":0.1}]}]}""",
        "findings[0].links[0].fault"
    )]
    [InlineData("""{"format":"mendro.network/1","findings":[{"id":"s","leak":-1}]}""", "findings[0].leak")]
    [InlineData("""{"format":"mendro.network/1","observed":[{"finding":"s","state":"present"}]}""", "observed[0].finding")]
    [InlineData(
        """{"format":"mendro.network/1","findings":[{"id":"s","leak":0.1}],"observed":[{"finding":"s","state":"maybe"}]}""",
        "observed[0].state"
    )]
    [InlineData(
        """{"format":"mendro.network/1","findings":[{"id":"s","leak":0}],"observed":[{"finding":"s","state":"present"}]}""",
        "contradicts"
    )]
    public void A_bad_file_gets_a_message_that_names_the_place(string json, string named)
    {
        var outcome = NetworkFile.Diagnose(json, TimeProvider.System);
        outcome.IsOk.ShouldBeFalse();
        outcome.Problem!.ShouldContain(named);
    }
}
