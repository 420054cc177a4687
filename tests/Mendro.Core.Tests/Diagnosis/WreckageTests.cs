using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>A soaked, eaten or cracked board has an honest chance: less than a sound one, more than none.</summary>
public sealed class WreckageTests
{
    private static readonly TradeLibrary Library = TradeLibrary.Shipped;

    public static TheoryData<string> Units() => new(Library.Profiles.Concat(Library.Archetypes).Select(p => p.Id));

    private static DeviceModel Model(string id) => new(Library.Profiles.Concat(Library.Archetypes).First(p => p.Id == id), Library);

    private static double Chance(DeviceModel model, FunctionId fails, params BenchEvent[] more)
    {
        var bench = new Bench(model);
        foreach (var seen in more)
            bench.Add(seen);
        return bench.Fails(fails.Value).Advise().Outlook?.ChanceToCure ?? 0;
    }

    [Theory]
    [MemberData(nameof(Units))]
    public void A_wreck_is_cured_less_often_than_a_sound_one_and_not_never(string id)
    {
        var model = Model(id);
        if (model.Profile.Functions.Count == 0)
            return;
        var fails = model.Profile.Functions[0].Id;
        var sound = Chance(model, fails);
        (string, SeenGrade)[] wrecks = [("liquid", SeenGrade.Heavy), ("board-cracked", SeenGrade.Untold), ("crust-board", SeenGrade.Heavy)];
        foreach (var (mark, grade) in wrecks)
        {
            if (Library.FindMark(mark)!.Kinds is { Count: > 0 } kinds && !kinds.Contains(model.Profile.Kind))
                continue;
            var wreck = Chance(model, fails, new MarkSeen(1, mark, grade));
            // Three in ten or so stay dead whatever is done (value from memory); what else such a mark points at may be easier to mend.
            wreck.ShouldBeLessThan(Math.Max(0.75, 0.85 * sound), $"{mark}, {sound:0.00} without it");
            if (sound > 0.5)
                wreck.ShouldBeGreaterThan(0.2, mark);
        }
    }

    [Fact]
    public void What_works_and_a_board_that_looks_sound_speak_against_it()
    {
        var model = Model("pellin-atrium-cartridge");
        var wet = new MarkSeen(1, "liquid", SeenGrade.Heavy);
        var look = model.Profile.Probes.First(p => Wreckage.IsLookAtBoard(model, p)).Id;
        var (alone, works) = (Wreckage.Lost(model, [wet]), Wreckage.Lost(model, [wet, new FunctionTried(2, "cartridge", true)]));
        alone.ShouldBe(Library.FindMark("liquid")!.Lost!.Value, 1e-12);
        works.ShouldBeLessThan(alone);
        Wreckage.Lost(model, [wet, new ProbeTaken(3, look, ProbeOutcome.Normal)]).ShouldBeLessThan(works);
        // The last trial of a function stands, traces of liquid alone are no wreck, and two marks are worse than one.
        Wreckage.Lost(model, [wet, new FunctionTried(2, "cartridge", true), new FunctionTried(4, "cartridge", false)]).ShouldBe(alone, 1e-12);
        Wreckage.Lost(model, [new MarkSeen(1, "liquid", SeenGrade.Slight)]).ShouldBe(0);
        Wreckage.Lost(model, [wet, new MarkSeen(5, "board-cracked")]).ShouldBe(1 - 0.7 * 0.65, 1e-12);
    }
}
