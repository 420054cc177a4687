using Mendro.Core.Evidence;
using Mendro.Core.Readings;

namespace Mendro.Core.Tests.Readings;

/// <summary>Verdicts at the probes. Limits: common practice, no source.</summary>
public class ReadingJudgeTests
{
    [Theory]
    [InlineData("tp5", "5.12", ProbeOutcome.Normal)]
    [InlineData("tp5", "4.7", ProbeOutcome.Abnormal)]
    [InlineData("tp5", "5.31 V", ProbeOutcome.Abnormal)]
    [InlineData("tp4", "0.02", ProbeOutcome.Abnormal)]
    [InlineData("tp4", "6.1 jumps", ProbeOutcome.Jumps)]
    [InlineData("fuse-beep", "beep", ProbeOutcome.Normal)]
    [InlineData("fuse-beep", "0.4", ProbeOutcome.Normal)]
    [InlineData("fuse-beep", "7", ProbeOutcome.Abnormal)]
    [InlineData("fuse-beep", "OL", ProbeOutcome.Abnormal)]
    [InlineData("rail-ohms", "4k7", ProbeOutcome.Normal)]
    [InlineData("rail-ohms", "OL", ProbeOutcome.Normal)]
    [InlineData("rail-ohms", "beep", ProbeOutcome.Abnormal)]
    [InlineData("speaker-ohms", "8.2", ProbeOutcome.Normal)]
    [InlineData("speaker-ohms", "OL", ProbeOutcome.Abnormal)]
    [InlineData("contacts-eye", "ok", ProbeOutcome.Normal)]
    [InlineData("contacts-eye", "bad, green crust", ProbeOutcome.Abnormal)]
    public void Readings_get_the_verdict_of_the_bench(string probe, string text, ProbeOutcome expected) =>
        Judge(probe, text).Value!.Outcome.ShouldBe(expected);

    [Theory]
    [InlineData("tp5", "4k7 ohm", "volts")]
    [InlineData("tp5", "beep", "volts")]
    [InlineData("tp5", "OL", "mode")]
    [InlineData("fuse-beep", "5 V", "buzzer")]
    [InlineData("contacts-eye", "hm", "ok or bad")]
    public void A_wrong_kind_of_reading_is_refused_with_a_word_why(string probe, string text, string named) =>
        Judge(probe, text).Problem!.ShouldContain(named);

    [Fact]
    public void The_verdict_says_missing_low_or_high()
    {
        Judge("tp5", "0.02").Value!.Words.ShouldBe("missing");
        Judge("tp5", "4.4").Value!.Words.ShouldBe("low");
        Judge("tp5", "5.6").Value!.Words.ShouldBe("high");
    }

    private static Mendro.Core.Outcome<JudgedReading> Judge(string probe, string text) =>
        ReadingJudge.Judge(Shipped.Profile("harrow-quartet").FindProbe(probe)!, text);
}
