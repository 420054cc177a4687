using CsCheck;
using Mendro.Core.Papers;

namespace Mendro.Core.Tests.Papers;

/// <summary>Papers as text.</summary>
public sealed class PaperTextTests
{
    [Fact]
    public void No_line_is_longer_than_mail_has_it_and_no_word_is_lost() =>
        Gen.Select(Gen.String[Gen.Char['a', 'z'], 1, 90].Array[1, 30], Gen.String[Gen.Char['0', '9'], 0, 20], Gen.Int[0, 3])
            .Sample(
                (words, value, tone) =>
                {
                    var line = new PaperLine(string.Join(' ', words), value, (PaperTone)tone);
                    var text = PaperText.Write(
                        new Paper("Job sheet", "101", "Harrow", "Lantern · 1 Jan 2026", [("With it", line.Words)], [new PaperSection("Found", [line])])
                    );
                    text.Split('\n').ShouldAllBe(l => l.Length <= PaperText.Width);
                    var letters = string.Concat(text.Where(c => c is >= 'a' and <= 'z'));
                    letters.ShouldContain(string.Concat(words));
                    text.ShouldContain(value);
                }
            );

    [Fact]
    public void A_section_without_lines_says_so_or_is_left_out()
    {
        var text = PaperText.Write(
            new Paper("Job sheet", "101", "Harrow", "Lantern", [], [new PaperSection("Found", [], "No cause confirmed."), new PaperSection("Remarks", [])])
        );
        text.ShouldContain("FOUND\n  No cause confirmed.\n");
        text.ShouldNotContain("REMARKS");
    }
}
