using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Library;

/// <summary>What a build says of its screws and contacts is about its own kind of unit, and not copied from the next one.</summary>
public class BuildsOfTheirOwnTests
{
    private static readonly TradeLibrary Library = TradeLibrary.Shipped;

    public static TheoryData<string> Screwed { get; } =
        new(Library.Archetypes.Where(b => b.Fasteners is { Count: > 0 }).Select(b => b.Id));

    private static string ScrewSet(DeviceProfile build) =>
        string.Join(" ", build.Fasteners!.Select(f => $"{f.Head}/{f.Size}/{f.LengthMm}/{f.Group}/{f.Under}").Order());

    [Theory]
    [InlineData("build-console-")]
    [InlineData("build-disc-console-")]
    [InlineData("build-handheld-")]
    [InlineData("build-pad-")]
    public void No_two_builds_of_a_family_share_one_screw_set(string family)
    {
        var builds = Library.Archetypes.Where(b => b.Id.StartsWith(family, StringComparison.Ordinal)).ToList();

        builds.Count.ShouldBeGreaterThan(1);
        builds.Select(ScrewSet).ShouldBeUnique();
    }

    [Theory]
    [MemberData(nameof(Screwed))]
    public void Each_screw_comes_out_in_one_step(string id)
    {
        var build = Library.Archetypes.First(b => b.Id == id);

        build.Steps!.SelectMany(s => s.Fasteners ?? []).Order().ShouldBe(build.Fasteners!.Select(f => f.Id).Order(), id);
    }

    /// <summary>On the drawing a screw has its number below it, and its length beside it.</summary>
    [Theory]
    [MemberData(nameof(Screwed))]
    public void No_screw_is_drawn_on_another(string id)
    {
        var screws = Library.Archetypes.First(b => b.Id == id).Fasteners!;
        screws.ShouldAllBe(s => s.X >= 5 && s.X <= 95 && s.Y >= 5 && s.Y <= 92, id);
        foreach (var (n, one) in screws.Select((s, n) => (n, s)))
            screws.Skip(n + 1).Where(o => o.Face == one.Face && Math.Abs(o.X!.Value - one.X!.Value) < 14 && Math.Abs(o.Y!.Value - one.Y!.Value) < 20)
                .Select(o => o.Id)
                .ShouldBeEmpty($"{id}: {one.Id}");
    }

    /// <summary>Thirty contacts stand in a row of the screen: what they carry has room for seven letters.</summary>
    [Fact]
    public void Lines_of_a_long_connector_have_short_names()
    {
        var contacts = Library.Archetypes.SelectMany(b => (b.Connectors ?? []).Where(c => c.Rows.Max(r => r.Lines.Count) > 20).SelectMany(c => c.Contacts));
        contacts.Where(c => c.Line.Length > 7).Select(c => c.Line).Distinct().ShouldBeEmpty();
    }

    /// <summary>An edge that fits no slot is a map of nothing: a cartridge has the contacts of a unit that takes it.</summary>
    [Fact]
    public void Each_cartridge_fits_the_slot_of_a_build()
    {
        var slots = Lines(b => b.Archetype!.Takes != Takes.Nothing).Select(l => l.Text).ToList();

        slots.ShouldBeUnique();
        foreach (var (id, text) in Lines(b => b.Archetype!.Takes == Takes.Nothing))
            slots.ShouldContain(text, id);
    }

    /// <summary>Numbers and lines, without the name of the row: left is front on the other side.</summary>
    private static IEnumerable<(string Id, string Text)> Lines(Func<DeviceProfile, bool> which) =>
        Library
            .Archetypes.Where(which)
            .SelectMany(b =>
                (b.Connectors ?? []).Select(c =>
                    (b.Id, string.Join("|", c.Rows.Select(r => $"{r.First}+{r.Step}: {string.Join(",", r.Lines)}")))
                )
            );

    /// <summary>Common practice: what the iron leaves comes off after the last joint, not before it.</summary>
    [Fact]
    public void Flux_comes_off_after_the_last_joint()
    {
        foreach (var method in Library.Methods)
        {
            var steps = method.Steps.ToList();
            if (steps.FindLastIndex(s => s is { Agent: "isopropyl-99", Surface: "board" }) is var cleaned and >= 0)
                steps.FindLastIndex(s => s.Heat is not null).ShouldBeLessThan(cleaned, method.Id);
        }
    }

    /// <summary>IEC 61951-2 and common practice: rechargeable cells sag where alkaline ones are still good.</summary>
    [Fact]
    public void Cells_weigh_by_their_chemistry()
    {
        var cells = Library.FindPartKind("cells")!;
        var weak = cells.Modes.First(m => m.Id == "weak");
        var part = new Part("cells", "Cells", "cells");

        cells.Prior(part, weak, "nimh").ShouldBe(0.1);
        cells.Prior(part, weak, "alkaline").ShouldBe(0.05);
        cells.Prior(part, weak).ShouldBe(weak.Prior);
        cells.Prior(part with { Class = "nimh" }, weak, "alkaline").ShouldBe(0.1, "what the part says of itself comes first");
        Library.FindPartKind("capacitors")!.ClassOf(part with { Kind = "capacitors" }, "alkaline").ShouldBeNull();
    }
}
