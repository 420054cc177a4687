using System.Text.Json;
using Mendro.Core.Library;
using Mendro.Core.Planning;

namespace Mendro.Core.Tests.Planning;

/// <summary>
/// Lines as people say them (tests/Sayings), written in rounds before they were played; docs/decisions.md keeps their first figures.
/// Common practice, no source.
/// </summary>
public class SayingsTests
{
    private sealed record Saying(string Line, string? Profile, List<string> Facts, List<string> Marks, List<string> May, List<string> Told);

    private sealed record Round(string Format, List<Saying> Lines);

    private static readonly JsonSerializerOptions Options = new() { PropertyNameCaseInsensitive = true };

    private static IEnumerable<Saying> All() =>
        Directory
            .EnumerateFiles(Path.Combine(Shipped.Root(), "tests", "Sayings"), "*.json")
            .Order(StringComparer.Ordinal)
            .Select(f => JsonSerializer.Deserialize<Round>(File.ReadAllText(f), Options)!)
            .SelectMany(r => r.Lines);

    private static string Words(SaidFact fact) =>
        fact.Mark is { } mark ? $"mark {mark}"
        : fact.Part is { } part ? $"told {part}"
        : fact.Provoked ? $"{fact.Function} fail pressed"
        : $"{fact.Function} {(fact.Passed ? "pass" : "fail")} {fact.Look}".TrimEnd();

    [Fact]
    public void Nothing_is_heard_that_was_not_said_and_nine_in_ten_are_heard_whole()
    {
        var (lines, right) = (0, 0);
        var wrong = new List<string>();
        var part = new List<string>();
        foreach (var saying in All())
        {
            lines++;
            var said = Understanding.Of(saying.Line, TradeLibrary.Shipped.Profiles, TradeLibrary.Shipped);
            var got = said.Facts.Select(Words).ToList();
            var wanted = saying.Profile is null ? [] : saying.Facts.Concat(saying.Marks.Select(m => $"mark {m}")).ToList();
            bool Is(string heard, string meant) => heard == meant || heard.StartsWith(meant + " ", StringComparison.Ordinal);
            var extra = got.Where(g => !g.StartsWith("told ", StringComparison.Ordinal) && !wanted.Concat(saying.May).Any(m => Is(g, m))).ToList();
            if (said.Profile?.Id != saying.Profile || saying.Profile is not null && extra.Count > 0)
                wrong.Add($"{saying.Line} → {said.Profile?.Id}: {string.Join(", ", extra)}");
            else if (wanted.TrueForAll(w => got.Exists(g => Is(g, w))))
                right++;
            else
                part.Add(saying.Line);
        }

        lines.ShouldBeGreaterThanOrEqualTo(900);
        wrong.ShouldBeEmpty();
        (right / (double)lines).ShouldBeGreaterThanOrEqualTo(0.9, string.Join("; ", part));
    }

    [Theory]
    [InlineData("quartet, no light")]
    [InlineData("Pellin Atrium: blinks, my pad is fine")]
    [InlineData("leaflet - cartridge not seen, cable frayed")]
    public void Nothing_is_cut_out_of_the_claim(string line) =>
        Understanding.Of(line, TradeLibrary.Shipped.Profiles, TradeLibrary.Shipped).Claim.ShouldBe(line);

    [Theory]
    [InlineData("quartet, dead, bay full of green crust", "corrosion-contacts:heavy")]
    [InlineData("quartet, contacts slightly corroded, no light", "corrosion-contacts:slight")]
    [InlineData("quartet, terminals corroded all over", "corrosion-contacts:heavy")]
    [InlineData("quartet, contacts corroded", "corrosion-contacts")]
    [InlineData("quartet, thick crust on the terminals, a few scratches", "corrosion-contacts:heavy scratches")]
    public void How_bad_a_mark_is_goes_with_it_and_no_word_of_it_is_left_over(string line, string marks)
    {
        var said = Understanding.Of(line, TradeLibrary.Shipped.Profiles, TradeLibrary.Shipped);
        string.Join(' ', said.Facts.Select(f => f.WrittenMark).OfType<string>()).ShouldBe(marks);
        said.Unsure.ShouldNotContain("full");
        said.Unsure.ShouldNotContain("bay");
    }

    [Fact]
    public void What_it_did_when_it_last_ran_is_a_complaint_too() =>
        Understanding
            .Of("duet: no light, and the volume crackled when it ran", TradeLibrary.Shipped.Profiles, TradeLibrary.Shipped)
            .Facts.Select(Words)
            .ShouldBe(["power-light fail nothing", "speaker fail crackle"]);

    [Theory]
    [InlineData("zorbo 3 no light", "zorbo-3")]
    [InlineData("Zorbo 3: 2 buttons dead", "zorbo-3")]
    [InlineData("zorbo, no light", "zorbo-3")]
    [InlineData("zorbo 4, no light", null)]
    [InlineData("zorbo 4 no light", null)]
    [InlineData("zorbo twin, no light", null)]
    [InlineData("quartet 2 buttons dead", "harrow-quartet")]
    public void A_number_belongs_to_the_name(string line, string? model)
    {
        var zorbo = Shipped.Profile("harrow-quartet") with { Id = "zorbo-3", Maker = "", Name = "Zorbo 3" };
        var said = Understanding.Of(line, [.. TradeLibrary.Shipped.Profiles, zorbo], TradeLibrary.Shipped);
        (said.Profile?.Id).ShouldBe(model);
    }

    [Theory]
    [InlineData("harrow sextet, no light")]
    [InlineData("game for the quartet, black box")]
    [InlineData("leaf springs worn, button a stuck")]
    [InlineData("harrow, no light")]
    [InlineData("controller port loose")]
    [InlineData("zorbo handheld four cells, no light")]
    public void A_word_of_the_complaint_or_half_a_name_chooses_no_model(string line) =>
        Understanding.Of(line, TradeLibrary.Shipped.Profiles, TradeLibrary.Shipped).Profile.ShouldBeNull();
}
