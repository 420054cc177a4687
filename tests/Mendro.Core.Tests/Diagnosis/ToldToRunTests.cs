using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>Who brings a dead unit says that it is dead; who brings one for its sound has it running. Common practice, no source.</summary>
public class ToldToRunTests
{
    private static IEnumerable<DeviceProfile> All => TradeLibrary.Shipped.Profiles.Concat(TradeLibrary.Shipped.Archetypes);

    public static TheoryData<string> Models => [.. All.Where(p => p.Functions.Any(f => f.Kind == "start-up")).Select(p => p.Id)];

    private static readonly string[] Heard = ["speaker", "phones", "buttons", "reset", "wheel"];

    [Theory]
    [MemberData(nameof(Models))]
    public void What_is_told_alone_is_looked_for_at_its_own_parts(string id)
    {
        var model = new DeviceModel(All.Single(p => p.Id == id), TradeLibrary.Shipped);
        var start = model.Profile.Functions.First(f => f.Kind == "start-up");
        var light = model.Profile.Functions.First(f => f.Kind == "power-light");
        foreach (var function in model.Profile.Functions.Where(f => Heard.Contains(f.Kind) && f.Name != "Power button"))
        {
            var before = model.BeforeTheBoard(start).Except(function.Needs).ToHashSet();
            var alone = Suspects(model, new FunctionTried(0, function.Id, false));
            before.ShouldNotContain(alone[0].Fault.Part.Id, $"{function.Id} alone: {alone[0].Fault.Id} first");
            var dead = Suspects(model, new FunctionTried(0, light.Id, false, "nothing"), new FunctionTried(1, function.Id, false));
            Share(dead, before).ShouldBeGreaterThan(Share(alone, before), $"{function.Id} of a dead unit");
        }
    }

    // A look at which something is on the screen, by kind of picture.
    private static string? Seen(DeviceModel model) =>
        model.Profile.Functions.Any(f => f.Kind == "video-out") ? "buzz" : model.Profile.Functions.Any(f => f.Kind == "picture") ? "dim" : null;

    public static TheoryData<string> WithPortsAndPicture =>
        [
            .. All.Where(p => p.Functions.Any(f => f.Kind == "start-up") && p.Functions.Any(f => f.Kind == "link"))
                .Where(p => Seen(new DeviceModel(p, TradeLibrary.Shipped)) is not null)
                .Select(p => p.Id),
        ];

    [Theory]
    [MemberData(nameof(WithPortsAndPicture))]
    public void A_bad_picture_is_one_and_the_unit_that_shows_it_runs(string id)
    {
        var model = new DeviceModel(All.Single(p => p.Id == id), TradeLibrary.Shipped);
        var (start, picture) = (Of("start-up"), Of("video-out", "picture"));
        var port = Of("link");
        var before = model.BeforeTheBoard(start).Except(port.Needs).ToHashSet();
        double Before(string look) =>
            Share(Suspects(model, new FunctionTried(0, port.Id, false, "nothing"), new FunctionTried(1, picture.Id, false, look)), before);
        var bad = Before(Seen(model)!);
        bad.ShouldBeLessThan(0.1);
        bad.ShouldBeLessThan(Before("nothing"));

        DeviceFunction Of(params string[] kinds) => model.Profile.Functions.First(f => kinds.Contains(f.Kind));
    }

    // What would keep the unit from running does not fail the port after its cure either: cure and trial are the same chance.
    [Fact]
    public void What_does_not_fail_it_now_does_not_fail_it_after_the_cure()
    {
        var bench = new Bench("build-console-internal-supply").Fails("port1", "nothing").Fails("sound", "buzz").Fails("video", "buzz");
        var clean = bench.Advise().Moves.Single(m => m.Id == "fix:port1:clean-port");
        var cure = clean.Repair!.Cures.Sum(c => bench.Diagnose().Suspects.Where(s => s.FaultIndex == c.Fault).Sum(s => s.Share) * c.Success);
        clean.ChanceToWork!.Value.ShouldBe(cure, 0.05);
    }

    private static double Share(IEnumerable<Suspect> suspects, IReadOnlySet<PartId> parts) =>
        suspects.Where(s => parts.Contains(s.Fault.Part.Id)).Sum(s => s.Share);

    private static List<Suspect> Suspects(DeviceModel model, params BenchEvent[] events) =>
        [.. UnitDiagnosis.Make(model, events).Value!.Suspects.OrderByDescending(s => s.Share)];
}
