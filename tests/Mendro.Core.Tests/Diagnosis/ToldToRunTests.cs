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

    private static double Share(IEnumerable<Suspect> suspects, IReadOnlySet<PartId> parts) =>
        suspects.Where(s => parts.Contains(s.Fault.Part.Id)).Sum(s => s.Share);

    private static List<Suspect> Suspects(DeviceModel model, params BenchEvent[] events) =>
        [.. UnitDiagnosis.Make(model, events).Value!.Suspects.OrderByDescending(s => s.Share)];
}
