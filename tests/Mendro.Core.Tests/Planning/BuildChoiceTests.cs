using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Planning;

/// <summary>From a name nobody knows to a profile: three questions, words, and the copy (common practice, no source).</summary>
public class BuildChoiceTests
{
    private static readonly TradeLibrary Library = TradeLibrary.Shipped;

    private static readonly IReadOnlySet<string> None = new HashSet<string>();

    private static DeviceProfile Build(string id) => Library.Archetypes.Single(a => a.Id == id);

    [Theory]
    [InlineData("pocket something, four cells", "build-handheld-four-cell-grey")]
    [InlineData("blue one with 2 aa batteries and a color screen", "build-handheld-two-cell-colour")]
    [InlineData("pocket console with six batteries and a backlit screen", "build-handheld-six-cell-tube")]
    [InlineData("pocket game, runs on six AA", "build-handheld-six-cell-tube")]
    [InlineData("clamshell, rechargeable", "build-handheld-folding-lithium")]
    [InlineData("wireless controller", "build-pad-wireless")]
    [InlineData("joypad with two sticks", "build-pad-sticks")]
    [InlineData("game cart with clock", "build-cartridge-clock")]
    [InlineData("game of a handheld", "build-cartridge-handheld")]
    [InlineData("handheld cart, save is lost", "build-cartridge-handheld-save")]
    [InlineData("joystick, wired", "build-stick-wired")]
    [InlineData("cartridge with a mapper", "build-cartridge-mapper")]
    [InlineData("front-loading console", "build-console-front-loading")]
    [InlineData("cd console with a tray", "build-disc-console-tray")]
    [InlineData("console, hdd inside", "build-console-hard-disk")]
    [InlineData("memory card", "build-memory-card")]
    public void Words_find_the_nearest_build(string words, string id) =>
        BuildChoice.Nearest(Library, new BuildQuestion(Words: words))[0].Id.ShouldBe(id);

    // What is claimed of it tells the build where the name does not: only some can have it (common practice, no source).
    [Theory]
    [InlineData("Torvik Duo: light is on but no picture and no sound on the tv", Gives.PictureOutput)]
    [InlineData("Torvik Duo: speaker crackles and the screen has lines", Gives.OwnScreen)]
    [InlineData("Torvik Duo: the left stick drifts", Gives.Input)]
    [InlineData("Torvik Duo: save is lost when switched off", Gives.Data)]
    [InlineData("Torvik Duo: controller port two does not answer", Gives.PictureOutput)]
    public void What_is_claimed_puts_those_first_that_can_have_it(string claim, Gives gives) =>
        BuildChoice
            .Nearest(Library, new BuildQuestion(Words: NewName.Tells(claim, Library), Claim: claim))[0]
            .Archetype!.Gives.ShouldBe(gives);

    [Fact]
    public void Three_answers_leave_what_they_allow_and_every_build_can_be_reached()
    {
        foreach (var build in Library.Archetypes)
        {
            var facts = build.Archetype!;
            var left = BuildChoice.Nearest(Library, new BuildQuestion(facts.Fed, facts.Takes, facts.Gives));
            left.ShouldContain(build);
            left.Select(b => (b.Archetype!.Fed, b.Archetype.Takes, b.Archetype.Gives))
                .Distinct()
                .ShouldBe([(facts.Fed, facts.Takes, facts.Gives)]);
            // Few enough to be told apart by picture: two rows of them; cartridges are the most.
            left.Count.ShouldBeLessThanOrEqualTo(8, build.Id);
        }
    }

    [Fact]
    public void Answers_that_no_build_has_leave_those_that_contradict_fewest()
    {
        var left = BuildChoice.Nearest(Library, new BuildQuestion(FedBy.Cells, Takes.Disc, Gives.OwnScreen));
        left.ShouldNotBeEmpty();
        left.ShouldAllBe(b =>
            (b.Archetype!.Fed == FedBy.Cells ? 1 : 0)
                + (b.Archetype.Takes == Takes.Disc ? 1 : 0)
                + (b.Archetype.Gives == Gives.OwnScreen ? 1 : 0)
            == 2
        );
    }

    // Drivers as benches name them (common practice, no source).
    [Theory]
    [InlineData("tri-wing", "tri-wing", null)]
    [InlineData("blue one, triwing screws, four cells", "tri-wing", null)]
    [InlineData("six-lobe T8", "six-lobe", "T8")]
    [InlineData("two cells, T6", "six-lobe", "T6")]
    [InlineData("cross 00 screws", "cross", "00")]
    [InlineData("security 4.5 mm screws", "security", "4.5")]
    [InlineData("slotted screws", "slot", null)]
    [InlineData("cross pad dead, cartridge slot worn", null, null)]
    [InlineData("four cells", null, null)]
    public void Screws_are_understood_as_said(string words, string? head, string? size) =>
        SaidScrews.Read(words).ShouldBe(head is null ? null : (head, size));

    [Fact]
    public void Screws_that_were_said_hold_the_shell_and_not_the_boards()
    {
        foreach (var build in Library.Archetypes.Where(b => b.Fasteners is { Count: > 0 }))
        {
            var made = BuildChoice.Named(build, "Pocket thing", None, "six-lobe T8");
            ProfileValidator.Check(made, Library).ShouldBeEmpty(build.Id);
            foreach (var (before, after) in build.Fasteners!.Zip(made.Fasteners!))
                after.Driver.ShouldBe(
                    before is { Driver: not null, Face: null or "back", Under: null } ? "six-lobe T8" : before.Driver,
                    $"{build.Id} {before.Id}"
                );
        }
    }

    [Fact]
    public void The_copy_gives_the_same_advice_as_its_build()
    {
        foreach (var build in Library.Archetypes)
        {
            var copy = BuildChoice.Named(build, "Something blue", None);
            (copy.Id, copy.Name, copy.Build, copy.Archetype).ShouldBe(("something-blue", "Something blue", build.Id, null));
            ProfileValidator.Check(copy, Library).ShouldBeEmpty();
            var failing = build.Functions[0];
            Advised(copy, failing.Id).ShouldBe(Advised(build, failing.Id));
        }

        static IEnumerable<(string, double)> Advised(DeviceProfile profile, FunctionId function)
        {
            var model = new DeviceModel(profile, Library);
            var diagnosis = UnitDiagnosis.Make(model, [new FunctionTried(0, function, false)]).Value!;
            return new MoveAdvisor(new BenchCosts())
                .Advise(diagnosis, AccessState.Closed)
                .Moves.Select(m => (m.Id, m.ExpectedMinutes))
                .ToList();
        }
    }

    [Theory]
    [InlineData("Pocket Thing Ω 3", "pocket-thing-3")]
    [InlineData("  Größe  X-1 ", "gro-e-x-1")]
    [InlineData("64", "model-64")]
    [InlineData("ゲーム", "model")]
    public void Whatever_is_on_the_label_gets_an_id_of_its_own(string name, string id)
    {
        var build = Build("build-pad-wired");
        var made = BuildChoice.Named(build, name, None);
        made.Id.ShouldBe(id);
        System.Text.RegularExpressions.Regex.IsMatch(made.Id, ProfileFormat.ModelIdPattern).ShouldBeTrue();
        BuildChoice.Named(build, name, new HashSet<string> { id }).Id.ShouldBe(id + "-2");
    }

    [Fact]
    public void Cells_that_were_said_set_the_supply_and_its_limits()
    {
        var four = Build("build-handheld-four-cell-grey");
        var six = BuildChoice.Named(four, "Pocket", None, "pocket, six cells, no light");
        six.Supply!.Cells.ShouldBe(6);
        // From weak rechargeables, 1.15 V a cell, to new lithium AA cells, 1.8 V.
        (six.FindProbe("tp1")!.Expect.Low, six.FindProbe("tp1")!.Expect.High).ShouldBe((6.9, 10.8));
        // The rail behind the supply board stays what it is.
        six.FindProbe("tp5")!.Expect.ShouldBe(four.FindProbe("tp5")!.Expect);
        BuildChoice.Named(four, "Pocket", None, "no light").Supply!.Cells.ShouldBe(4);
        BuildChoice.Named(Build("build-console-top-loading"), "Box", None, "box, 7.5 V, no picture").Supply!.AdapterVolts.ShouldBe(7.5);
    }

    [Theory]
    [InlineData("pocket something, blue, no light", "pocket something", "blue, no light")]
    [InlineData("zorbo 3000 no picture", "zorbo 3000", "no picture")]
    [InlineData("wonder brick dead", "wonder brick", "dead")]
    [InlineData("thingamajig", "thingamajig", "")]
    public void The_name_in_a_line_is_told_from_what_is_said_of_it(string line, string name, string said) =>
        NewName.In(line, Library).ShouldBe((name, said));

    [Fact]
    public void A_model_without_history_leans_on_its_build_and_its_own_cases_outweigh_it()
    {
        // Two fuses: only what is found at the same place in the same build tells of one and not of the other.
        var build = Build("build-handheld-folding-lithium");
        var (one, two) = (BuildChoice.Named(build, "One", None), BuildChoice.Named(build, "Two", None));
        var stranger = BuildChoice.Named(build, "Stranger", None) with { Build = null };
        double Chance(DeviceProfile of, string fault, params Lesson[] lessons)
        {
            var model = new DeviceModel(of, Library);
            var at = model.Faults.Select((f, i) => (f, i)).Single(x => x.f.Id == fault).i;
            return new ShopLessons(lessons, Library).Priors(model, "")[at];
        }

        Lesson[] Found(DeviceProfile by, string part, string mode, int times) =>
            [.. Enumerable.Range(0, times).Select(_ => new Lesson(by, "", [(new PartId(part), mode)]))];
        var first = Found(one, "fuse1", "open", 8);
        var leaning = Chance(two, "fuse1.open", first);
        leaning.ShouldBeGreaterThan(Chance(two, "fuse1.open"));
        leaning.ShouldBeGreaterThan(Chance(stranger, "fuse1.open", first));
        Chance(two, "fuse2.open", first).ShouldBeLessThan(Chance(stranger, "fuse2.open", first));
        // Its own that were something else bring it down again, the more the further.
        var some = Chance(two, "fuse1.open", [.. first, .. Found(two, "switch", "dirty", 20)]);
        some.ShouldBeLessThan(leaning);
        Chance(two, "fuse1.open", [.. first, .. Found(two, "switch", "dirty", 80)]).ShouldBeLessThan(leaning / 2);
    }

    [Theory]
    [InlineData("build-handheld-four-cell-grey", "4", true)]
    [InlineData("build-handheld-four-cell-grey", "AA", true)]
    [InlineData("build-handheld-four-cell-grey", "grey screen", true)]
    [InlineData("build-handheld-two-cell-colour", "4", false)]
    [InlineData("build-handheld-four-cell-grey", "wobbly", false)]
    [InlineData("build-console-front-loading", "front", true)]
    [InlineData("build-console-front-loading", "loaded", true)]
    [InlineData("build-console-front-loading", "front loader", false)]
    public void Words_that_name_the_build_say_nothing_of_its_faults(string build, string words, bool tells) =>
        BuildChoice.TellsOf(TradeLibrary.Shipped.Archetypes.Single(a => a.Id == build), words).ShouldBe(tells);

    [Theory]
    [InlineData("build-handheld-four-cell-grey", "Tellin pocket, four cells, grey screen, no light", "Tellin pocket, no light")]
    [InlineData("build-console-front-loading", "Corvel Brick, front loading, no picture", "Corvel Brick, no picture")]
    [InlineData("build-cartridge-plain", "Corvel game, grey screen", "Corvel game, grey screen")]
    public void What_only_tells_the_build_of_a_new_model_says_nothing_of_its_faults(string build, string line, string left) =>
        BuildChoice.WithoutBuild(TradeLibrary.Shipped.Archetypes.Single(a => a.Id == build), line).ShouldBe(left);

    [Fact]
    public void A_picture_that_is_missing_makes_no_picture_cable_of_it()
    {
        NewName.Tells("Corvel Brick, front loader, no picture", TradeLibrary.Shipped).ShouldBe("Corvel Brick front loader");
        var nearest = BuildChoice.Nearest(Library, new BuildQuestion(Words: "Corvel game"));
        // A game is a cartridge before it is a console for cartridges.
        nearest[0].Kind.ShouldBe(DeviceKind.Cartridge);
    }
}
