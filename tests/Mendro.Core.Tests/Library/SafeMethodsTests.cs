using Mendro.Core.Library;
using Mendro.Core.Methods;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Library;

/// <summary>What the methods, materials and cautions that ship must hold, read as one who could be hurt by them.</summary>
public class SafeMethodsTests
{
    private static readonly TradeLibrary Library = TradeLibrary.Shipped;

    public static TheoryData<string> Methods { get; } = new(Library.Methods.Select(m => m.Id.Value));

    private static Method Find(string id) => Library.FindMethod(id)!;

    /// <summary>The stop for vapour that burns hangs on a step that says it is hot.</summary>
    [Theory]
    [MemberData(nameof(Methods))]
    public void A_method_whose_tools_hold_an_iron_has_a_heated_step(string id)
    {
        var method = Find(id);
        var hot = method.Tools.Any(t => t.StartsWith("iron", StringComparison.Ordinal) || t.Contains("hot air", StringComparison.Ordinal));
        if (!hot)
            return;
        method.Steps.ShouldContain(s => s.Heat != null, id);
        method.Cautions.ShouldContain("hot-tip", id);
    }

    /// <summary>The cautions of an agent stand at the step that puts it on, or before it (safety sheets of each class).</summary>
    [Theory]
    [MemberData(nameof(Methods))]
    public void An_agent_is_warned_of_before_it_is_put_on(string id)
    {
        var seen = new HashSet<string>();
        foreach (var step in Find(id).Steps)
        {
            seen.UnionWith(step.Cautions ?? []);
            if (MaterialLibrary.Shipped.FindAgent(step.Agent) is not { } agent)
                continue;
            string[] wanted =
            [
                .. agent.Acid ? ["acid", "crust"] : (string[])[],
                .. agent.Id.Contains("glue", StringComparison.Ordinal) || agent.Id == "epoxy" ? ["glue"] : (string[])[],
                .. agent.Id == "peroxide-gel" ? ["peroxide", "no-mixing"] : (string[])[],
                .. agent.Id == "glass-fibre-pen" ? ["glass-fibre"] : (string[])[],
                .. agent.Id == "metal-polish" ? ["polish-residue"] : (string[])[],
            ];
            wanted.ShouldBeSubsetOf(seen, $"{id}: {step.Do}");
            // What burns and dries away is warned of in the method, at the first place where it is poured.
            if (agent is { Flammable: true, Volatile: true } && agent.Id != "solvent-glue")
                Find(id).Cautions.ShouldContain("alcohol-fire", id);
        }
    }

    [Fact]
    public void Every_caution_is_used()
    {
        var core = Directory
            .EnumerateFiles(Path.Combine(Shipped.Root(), "src"), "*.cs", SearchOption.AllDirectories)
            .Where(f => !f.Contains("/obj/", StringComparison.Ordinal))
            .Select(File.ReadAllText)
            .ToList();
        var told = Library
            .Methods.SelectMany(m => m.Cautions)
            .Concat(Library.Marks.Select(m => m.Caution).OfType<string>())
            .Concat(Library.Ladders.SelectMany(l => l.Rungs).Select(r => r.Caution).OfType<string>())
            .Concat(Library.PartKinds.SelectMany(k => k.Hazards ?? []))
            .Concat(Library.Cautions.SelectMany(c => (c.Brings ?? []).Concat(c.Live ?? [])))
            .Concat(Library.Archetypes.SelectMany(p => (p.Hazards ?? []).Concat(p.Parts.SelectMany(x => x.Hazards ?? []))))
            .Concat(Library.Archetypes.SelectMany(p => p.Steps ?? []).SelectMany(s => s.Cautions ?? []))
            .ToHashSet();
        Library
            .Cautions.Select(c => c.Id)
            .Where(id => !told.Contains(id) && !core.Any(text => text.Contains($"\"{id}\"", StringComparison.Ordinal)))
            .ShouldBeEmpty();
    }

    [Theory]
    [InlineData("mains-switch")]
    [InlineData("mains-fuse")]
    public void Nothing_is_poured_into_the_mains_path_and_each_method_there_says_discharge(string kind)
    {
        var methods = Library.MethodsFor(kind).ToList();
        methods.ShouldNotBeEmpty();
        foreach (var method in methods)
        {
            method.Steps.ShouldAllBe(s => s.Agent == null);
            method.Steps[0].Do.ShouldContain("measure again");
            method.Cautions.ShouldContain("mains");
            method.Settings[0].ShouldContain("250 V");
        }
    }

    [Fact]
    public void A_mains_fuse_is_250_volts_and_the_short_is_found_before_it_is_fitted()
    {
        var method = Find("replace-mains-fuse");
        var said = method.Steps.Select(s => s.Do).ToList();
        said.FindIndex(s => s.Contains("short", StringComparison.Ordinal))
            .ShouldBeLessThan(said.FindIndex(s => s.Contains("breaking capacity", StringComparison.Ordinal)));
        method.Steps.SelectMany(s => s.Cautions ?? []).ShouldContain("mains-fuse");
        Library.FindCaution("mains-fuse")!.Text.ShouldContain("250 V");
        Library.MethodsFor("mains-fuse").ShouldNotContain(m => m.Settings.Any(s => s.Contains("32 V", StringComparison.Ordinal)));
    }

    [Theory]
    [InlineData("acid-contacts")]
    [InlineData("soak-contacts")]
    [InlineData("lime-contacts")]
    [InlineData("zinc-contacts")]
    public void Crust_is_wet_before_it_is_brushed_with_gloves_and_goggles_from_the_first_step(string id)
    {
        var steps = Find(id).Steps;
        steps[0].Do.ShouldContain("Gloves and goggles");
        steps[0].Cautions!.ShouldContain("crust");
        foreach (var brushed in steps.Where(s => s.Do.Contains("rush", StringComparison.Ordinal)))
            brushed.Do.ShouldContain("wet", Case.Insensitive, id);
        Library.FindLadder("battery-contacts")!.Rungs[0].Do.ShouldContain("nothing is brushed dry");
    }

    // A worn tube is no capacitor; a dead disk is not cured by copying it; an empty pack is not a dead one (common practice).
    [Theory]
    [InlineData("recap-backlight", "tube-backlight", "worn", 0, 0.05)]
    [InlineData("swap-disk", "hard-disk", "dead", 0, 0.15)]
    [InlineData("charge-pack", "lithium-pack", "empty", 0.85, 1)]
    [InlineData("charge-pack", "lithium-pack", "tired", 0, 0)]
    [InlineData("charge-pack", "lithium-pack", "swollen", 0, 0)]
    [InlineData("remove-clock-capacitor", "clock-capacitor", "leaked", 0.6, 1)]
    [InlineData("replace-adapter", "transformer", "weak", 0.9, 1)]
    public void What_cures_what(string method, string kind, string mode, double least, double most) =>
        TradeLibrary.Success(Find(method), kind, mode).ShouldBeInRange(least, most);

    [Fact]
    public void A_lamp_circuit_on_light_diodes_is_not_recapped() =>
        Library.MethodsFor("backlight").ShouldNotContain(m => m.Id == "recap-backlight");

    // First weights: what benches report of units at large (common practice, no source).
    [Theory]
    [InlineData("chip-legs", "lifted", 0.02, 0.05)]
    [InlineData("save-cell", "flat", 0.5, 0.5)]
    public void First_weights(string kind, string mode, double least, double most) =>
        Library.FindPartKind(kind)!.Modes.Single(m => m.Id == mode).Prior.ShouldBeInRange(least, most);

    [Fact]
    public void A_lifted_leg_is_rare_in_any_build_of_a_cartridge() =>
        Library
            .Archetypes.SelectMany(p => p.Parts)
            .SelectMany(p => (p.Modes ?? []).Where(m => m.Mode == "lifted"))
            .ShouldAllBe(m => m.Prior >= 0.02 && m.Prior <= 0.05);

    [Fact]
    public void In_aged_drives_dirty_lens_and_worn_laser_are_about_alike()
    {
        var modes = Library.FindPartKind("optical-drive")!.Modes.ToDictionary(m => m.Id, m => m.Prior);
        (modes["dirty-lens"] / modes["laser-worn"]).ShouldBeInRange(0.7, 1.4);
    }

    [Fact]
    public void The_one_transistor_output_has_its_resistor_and_capacitor_in_series()
    {
        var method = Find("composite-follower");
        foreach (var part in (string[])["75 Ω", "220 µF"])
        {
            method.Tools.ShouldContain(t => t.Contains(part, StringComparison.Ordinal));
            method.Steps.ShouldContain(s => s.Do.Contains(part, StringComparison.Ordinal));
        }
    }

    [Theory]
    [InlineData("reheat-display")]
    [InlineData("reheat-side-joint")]
    public void A_display_joint_takes_280_degrees_through_a_rubber_shoe_only(string id)
    {
        Find(id).Settings.Single().ShouldContain("only through a rubber shoe");
        Find(id).Steps.Where(s => s.Heat is not null).ShouldAllBe(s => s.Heat == 280 && s.Do.Contains("rubber shoe"));
        Find(id).Steps.Single(s => s.Power).Do.ShouldContain("cells");
    }

    [Fact]
    public void The_save_is_saved_before_its_cell_comes_off()
    {
        var steps = Find("replace-save-cell").Steps;
        steps[0].Do.ShouldContain("Back it up");
        steps[0].Do.ShouldContain("second 3 V supply");
        steps.Select(s => s.Do).ToList().FindIndex(s => s.Contains("Out with the old", StringComparison.Ordinal)).ShouldBeGreaterThan(0);
        steps.ShouldContain(s => s.Do.Contains("same size", StringComparison.Ordinal));
    }

    [Fact]
    public void Words_of_the_bench_say_no_beep() =>
        Library.Methods.Select(m => m.Check?.Say).OfType<string>().ShouldNotContain(s => s.Contains("silent", StringComparison.Ordinal));
}
