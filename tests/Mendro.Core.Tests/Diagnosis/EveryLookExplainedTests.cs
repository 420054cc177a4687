using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>What can be told at the door has a suspect: no look of any function of any model is left without one (common practice, no
/// source).</summary>
public sealed class EveryLookExplainedTests
{
    public static TheoryData<string> Models => [.. TradeLibrary.Shipped.Profiles.Concat(TradeLibrary.Shipped.Archetypes).Select(p => p.Id)];

    [Theory]
    [MemberData(nameof(Models))]
    public void Every_look_of_every_function_has_a_suspect(string id)
    {
        var profile = TradeLibrary.Shipped.Profiles.Concat(TradeLibrary.Shipped.Archetypes).Single(p => p.Id == id);
        var model = new DeviceModel(profile, TradeLibrary.Shipped);
        var bare = new List<string>();
        foreach (var function in profile.Functions)
        {
            // What is told of one function is told of a unit that starts, where it could not be seen otherwise.
            var starts = function.Kind is "power-light" or "charging"
                ? []
                : profile.Functions.Where(f => f.Kind is "power-light" or "start-up" && f.Id != function.Id).Select(f => f.Id.Value).ToArray();
            foreach (var look in TradeLibrary.Shipped.FindFunctionKind(function.Kind)!.Looks)
            {
                var unexplained = new Bench(model).Works(starts).Fails(function.Id, look.Id).Diagnose().Unexplained;
                if (unexplained > 0.8)
                    bare.Add($"{function.Id} {look.Id} {unexplained:0.00}");
            }
        }

        bare.ShouldBeEmpty();
    }
}
