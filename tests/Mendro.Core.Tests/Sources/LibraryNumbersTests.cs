using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Sources;

namespace Mendro.Core.Tests.Sources;

/// <summary>Each number of the library can be asked where it comes from, and docs/sources.md counts them.</summary>
public class LibraryNumbersTests
{
    private static readonly TradeLibrary Library = TradeLibrary.Shipped;

    private static readonly IReadOnlyList<LibraryNumber> Numbers = [.. LibraryNumbers.Of(Library)];

    [Fact]
    public void Every_number_has_a_source_that_can_be_told_apart()
    {
        Numbers.ShouldAllBe(n => n.Source.Length > 0 && n.Where.Length > 0 && n.What.Length > 0 && double.IsFinite(n.Value));
        foreach (var number in Numbers.Where(n => n.Kind == SourceKind.CommonPractice))
            number.Source.ShouldContain("common practice", Case.Insensitive, $"{number.Where}, {number.What}: {number.Source}");
    }

    [Theory]
    [InlineData("IEC 60086-2: LR6 is 1.5 V nominal", SourceKind.Published)]
    [InlineData("usual data sheet of a 7805 type", SourceKind.Published)]
    [InlineData("common practice", SourceKind.CommonPractice)]
    [InlineData("common practice: the classic after a wrong adapter", SourceKind.CommonPractice)]
    [InlineData("common practice; wear: value from memory", SourceKind.FromMemory)]
    [InlineData("value from memory", SourceKind.FromMemory)]
    [InlineData("haloform reaction, textbook chemistry", SourceKind.Published)]
    public void A_source_is_one_of_three(string source, SourceKind kind) => LibraryNumber.KindOf(source).ShouldBe(kind);

    /// <summary>Nothing that weighs is left out: the weights, successes and limits counted here one by one.</summary>
    [Fact]
    public void All_weights_successes_and_limits_are_among_them()
    {
        var modes = Library.PartKinds.Sum(k => k.Modes.Count + (k.Classes ?? []).Sum(c => c.Modes.Count));
        Numbers.Count(n => n.What.StartsWith("first weight", StringComparison.Ordinal))
            .ShouldBe(modes + Library.Archetypes.Sum(p => p.Parts.Sum(x => x.Modes?.Count ?? 0)));
        Numbers.Count(n => n.What.StartsWith("looks so", StringComparison.Ordinal))
            .ShouldBe(Library.PartKinds.Sum(k => k.Modes.Sum(m => m.Looks?.Count ?? 0)));
        Numbers.Count(n => n.What.StartsWith("cures ", StringComparison.Ordinal)).ShouldBe(Library.Methods.Sum(m => m.Cures.Count));
        Numbers.Count(n => n.What == "hands-on minutes").ShouldBe(Library.Methods.Count + Library.Ladders.Sum(l => l.Rungs.Count));
        Numbers.Count(n => n.Unit == "V" && n.What is "from" or "to")
            .ShouldBeGreaterThan(Library.Archetypes.Sum(p => p.Probes.Count(x => x.Kind == ProbeKind.Volts)));
    }

    [Fact]
    public void The_document_counts_them()
    {
        var doc = File.ReadAllText(Path.Combine(Shipped.Root(), "docs", "sources.md"));
        foreach (var kind in Enum.GetValues<SourceKind>())
            doc.ShouldContain($"| {LibraryNumber.Name(kind)} | {Numbers.Count(n => n.Kind == kind)} |");
        doc.ShouldContain($"| all | {Numbers.Count} |");
    }

    // A class weighs before the kind, and a part's own weight before its class.
    [Fact]
    public void Weights_differ_by_age_and_make()
    {
        var kind = Library.FindPartKind("capacitors")!;
        var dried = kind.Modes.Single(m => m.Id == "dried");
        var plain = new Part("c", "C", "capacitors");
        kind.Prior(plain, dried).ShouldBe(dried.Prior);
        kind.Prior(plain with { Class = "surface-1988-1996" }, dried).ShouldBe(0.35);
        kind.Prior(plain with { Class = "surface-1988-1996", Modes = [new("dried", 0.6)] }, dried).ShouldBe(0.6);
        kind.Prior(plain with { Class = "mains-hot" }, dried).ShouldBeGreaterThan(dried.Prior);
        // Of the plague years, never changed: half of the groups and more.
        var six = new DeviceModel(Library.Archetypes.First(p => p.Id == "build-handheld-six-cell-tube"), Library);
        foreach (var group in (string[])["psucaps", "railcaps", "biascaps", "invcaps", "soundcaps"])
        {
            var sound = six.FaultsOf(group).Aggregate(1.0, (p, f) => p * (1 - six.Faults[f].Prior));
            (1 - sound).ShouldBeGreaterThanOrEqualTo(0.5, group);
        }
    }

    [Fact]
    public void A_class_that_the_kind_does_not_have_is_told()
    {
        var profile = Library.Archetypes.First(p => p.Id == "build-console-top-loading");
        var wrong = profile with { Parts = profile.Parts.Select(p => p.Id == "filter" ? p with { Class = "of-tin" } : p).ToList() };
        ProfileValidator.Check(wrong, Library).ShouldHaveSingleItem().Message.ShouldContain("no class “of-tin”");
    }
}
