using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Profiles;

/// <summary>Checks as lines of text.</summary>
public sealed class ProofCheckTextTests
{
    [Fact]
    public void A_check_is_written_and_read_back()
    {
        ProofCheck[] checks =
        [
            new(
                "save-off",
                "Save kept over power-off",
                "save, off ten minutes, load",
                "the save is there",
                "saving",
                ["cartridge with a save"],
                ["cell", "memory"],
                12,
                true
            ),
            new("pattern", "Test pattern"),
        ];
        var text = ProofCheckText.Write(checks);
        text.Split('\n')[1].ShouldBe("pattern: Test pattern; 1 min");
        var read = ProofCheckText.Read(text, out var problems);
        problems.ShouldBeEmpty();
        ProofCheckText.Write(read).ShouldBe(text);
        (read[0].Closed, read[0].Minutes, read[0].Function!.Value.Value).ShouldBe((true, 12, "saving"));
    }

    [Fact]
    public void What_is_not_understood_is_told_with_its_line()
    {
        var read = ProofCheckText.Read("pattern: Test pattern; sometime; 2 min\n\nno colon here", out var problems);
        read.Single().Minutes.ShouldBe(2);
        problems.Select(p => p.Place).ShouldBe(["checks, line 1", "checks, line 3"]);
        problems[0].Message.ShouldContain("sometime");
    }
}
