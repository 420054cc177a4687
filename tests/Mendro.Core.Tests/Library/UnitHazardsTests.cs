using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Methods;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Library;

/// <summary>A hazard belongs to the unit: whatever is done where it reaches shows its caution.</summary>
public class UnitHazardsTests
{
    private static readonly TradeLibrary Library = TradeLibrary.Shipped;

    private static readonly IReadOnlyList<DeviceProfile> Everything = [.. Library.Archetypes, .. Library.Profiles];

    private static DeviceProfile Build(string id) => Everything.First(p => p.Id == id);

    private static string[] Ids(IEnumerable<Caution> cautions) => [.. cautions.Select(c => c.Id)];

    public static TheoryData<string> All { get; } = new(Everything.Select(p => p.Id));

    // By what goes in and what is inside; told here once more, apart from the library.
    [Theory]
    [InlineData("build-console-internal-supply", "mains", "reservoir")]
    [InlineData("build-disc-console-lid", "mains", "reservoir", "laser", "coin-cell")]
    [InlineData("build-disc-console-tray", "mains", "reservoir", "laser", "coin-cell")]
    [InlineData("build-console-hard-disk", "mains", "reservoir", "laser")]
    [InlineData("build-adapter-dc", "mains", "reservoir")]
    [InlineData("build-adapter-ac", "mains", "reservoir")]
    [InlineData("build-handheld-six-cell-tube", "inverter")]
    [InlineData("build-handheld-clone-pack", "lithium")]
    [InlineData("build-handheld-folding-lithium", "lithium")]
    [InlineData("build-handheld-drive", "lithium", "laser")]
    [InlineData("build-cartridge-save-cell", "coin-cell")]
    [InlineData("build-handheld-four-cell-grey")]
    [InlineData("build-cartridge-plain")]
    [InlineData("build-pad-wired")]
    public void What_is_inside_a_build(string id, params string[] hazards) =>
        Ids(UnitHazards.Of(Build(id), Library).Inside).ShouldBe(hazards, ignoreOrder: true);

    [Theory]
    [MemberData(nameof(All))]
    public void Every_method_reading_and_step_inside_inherits_them(string id)
    {
        var model = new DeviceModel(Build(id), Library);
        var hazards = UnitHazards.Of(model.Profile, Library);
        var inside = Ids(hazards.Inside);
        foreach (var part in model.Profile.Parts)
        foreach (var method in model.MethodsFor(part).Where(m => m.State > AccessState.Closed))
            inside.ShouldBeSubsetOf(Ids(hazards.At(method, part)), $"{id}: {part.Id}, {method.Id}");
        foreach (var probe in model.Profile.Probes.Where(p => p.State > AccessState.Closed))
            inside.ShouldBeSubsetOf(Ids(hazards.At(probe, model.Profile)), $"{id}: {probe.Id}");
        foreach (var part in model.Profile.Parts)
        foreach (var brought in (Library.FindPartKind(part.Kind)!.Hazards ?? []).Concat(part.Hazards ?? []))
        {
            Library.FindCaution(brought).ShouldNotBeNull($"{id}: {part.Id}").Reach.ShouldNotBeNull(brought);
            Ids(hazards.At(AccessState.Closed, part)).ShouldContain(brought, $"{id}: {part.Id}");
        }
    }

    [Fact]
    public void What_stops_comes_first_and_each_once()
    {
        var disc = Build("build-disc-console-lid");
        var met = UnitHazards.Of(disc, Library).At(Library.FindMethod("swap-drive")!, disc.FindPart("drive"));
        met.Select(c => c.Stop).ShouldBe(met.Select(c => c.Stop).OrderByDescending(s => s));
        Ids(met).ShouldBeUnique();
        Ids(met).ShouldBe(["mains", "reservoir", "coin-cell", "laser", "static", "pickup-blob"], ignoreOrder: true);
    }

    [Fact]
    public void Outside_a_closed_unit_only_what_reaches_there_is_met()
    {
        var console = Build("build-console-internal-supply");
        var hazards = UnitHazards.Of(console, Library);
        hazards.At(Library.FindMethod("clean-test-gear")!, console.FindPart("testcart")).ShouldAllBe(c => c.Reach == null);
        Ids(hazards.At(console.FindProbe("cart-press")!, console)).ShouldBeEmpty();
        // The brick of a console is mains too, at the brick alone.
        var three = Build("build-console-three-rails");
        Ids(UnitHazards.Of(three, Library).At(three.FindProbe("tp2")!, three)).ShouldContain("mains-brick");
        Ids(UnitHazards.Of(three, Library).At(three.FindProbe("tp2")!, three)).ShouldContain("negative-rail");
        Ids(UnitHazards.Of(three, Library).Inside).ShouldNotContain("mains");
    }

    [Fact]
    public void Marks_bring_theirs_and_liquid_is_met_everywhere()
    {
        var handheld = Build("build-handheld-four-cell-grey");
        var wet = UnitHazards.Of(handheld, Library, ["liquid-inside"]);
        Ids(wet.At(AccessState.Closed)).ShouldBe(["liquid"]);
        Library.FindCaution("liquid")!.Text.ShouldContain("cells");
        // Cells on a bench have no mains in them.
        Ids(wet.Inside).ShouldNotContain("mains");
        Ids(UnitHazards.Of(handheld, Library, ["smell"]).At(AccessState.Open)).ShouldBe(["dust"]);
        Ids(UnitHazards.Of(handheld, Library, ["smell"]).At(AccessState.Closed)).ShouldBeEmpty();
    }

    [Theory]
    [InlineData("flush-switch")]
    [InlineData("replace-supply")]
    [InlineData("recap-supply")]
    [InlineData("replace-mains-fuse")]
    public void A_run_sheet_inside_a_mains_unit_begins_with_the_plug_and_the_reservoir(string id)
    {
        if (Library.FindMethod(id) is not { } method)
            return;
        var mains = UnitHazards.Of(Build("build-console-internal-supply"), Library);
        var steps = RunPlan.Of(method, mains);
        steps[0].Say.ShouldContain("Plug out");
        steps[0].Say.ShouldContain("measure again");
        steps.Select(s => s.Index).ShouldBe(Enumerable.Range(0, steps.Count));
        steps.Count.ShouldBe(RunPlan.Of(method).Count + 1);
        RunPlan.Of(method, UnitHazards.Of(Build("build-handheld-four-cell-grey"), Library)).Count.ShouldBe(RunPlan.Of(method).Count);
    }

    // 230·√2 = 325.3 V and 120·√2 = 169.7 V; at 325 V through 1 kΩ 106 W for a moment, 1·RC and it is over: 5 W of make.
    [Fact]
    public void The_reservoir_is_told_with_its_volts_and_its_way()
    {
        var words = Library.FindCaution("reservoir")!.Text;
        words.ShouldContain($"{Math.Round(230 * Math.Sqrt(2)):0} V");
        words.ShouldContain($"{Math.Round(120 * Math.Sqrt(2)):0} V");
        foreach (var part in (string[])["1 to 10 kΩ", "5 W", "Measure again"])
            words.ShouldContain(part);
    }

    // Which plate goes into which wall: IEC 60038 gives 230 V ±10 %; the others by their plates.
    [Theory]
    [InlineData("plate-100", 230, true)]
    [InlineData("plate-120", 230, true)]
    [InlineData("plate-230", 230, false)]
    [InlineData("plate-any", 230, false)]
    [InlineData("plate-100", 100, false)]
    [InlineData("plate-100", 120, true)]
    [InlineData("plate-120", 120, false)]
    [InlineData("plate-230", 120, true)]
    [InlineData("plate-any", 120, false)]
    [InlineData("plate-any", 100, false)]
    public void A_plate_is_held_against_the_wall(string plate, double wall, bool stops)
    {
        var hazards = UnitHazards.Of(Build("build-console-internal-supply"), Library, [plate], wall);
        var met = hazards.At(AccessState.Closed);
        Ids(met).Contains("mains-voltage").ShouldBe(stops);
        if (stops)
            met[0].Text.ShouldContain(Library.FindMark(plate)!.Mains!.High < wall ? "step-down" : "step-up");
    }

    [Fact]
    public void The_transformer_is_named_with_its_size()
    {
        // 230 V × 0.2 A = 46 VA, a quarter more is 57.5: the next size sold is 75.
        var console = Build("build-console-internal-supply");
        MainsFit
            .Against(new MainsRange(90, 110), 230, console.Supply)
            .ShouldBe("Made for about 100 V, the wall gives 230 V: not without a step-down transformer 230 to 100 V, at least 75 VA.");
        MainsFit.Against(new MainsRange(90, 110), 230, null)!.ShouldContain("watts on its plate");
        (MainsFit.WallOf("USD"), MainsFit.WallOf("JPY"), MainsFit.WallOf("EUR")).ShouldBe((120, 100, 230));
    }

    [Fact]
    public void A_swollen_pack_is_never_charged()
    {
        var model = new DeviceModel(Build("build-handheld-lithium"), Library);
        var events = new BenchEvent[] { new MarkSeen(0, "swollen-cell"), new FunctionTried(1, "power-light", false, "nothing") };
        var moves = new MoveAdvisor(new BenchCosts()).Advise(UnitDiagnosis.Make(model, events).Value!, AccessState.Open).Moves;
        moves.ShouldNotContain(m => m.Repair != null && m.Repair.Method.Id == "charge-pack");
        moves.ShouldContain(m => m.Repair != null && m.Repair.Method.Id == "replace-pack");
    }
}
