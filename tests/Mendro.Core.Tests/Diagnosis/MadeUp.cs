using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>Small made-up models whose right answers can be worked out by hand.</summary>
internal static class MadeUp
{
    /// <summary>A supply chain of equal boxes with a volts point behind each, one function at the end, and one repair that always
    /// cures.</summary>
    public static DeviceModel Chain(
        int boxes,
        double prior,
        double repairMinutes = 10,
        double probeMinutes = 1,
        AccessState state = AccessState.Closed
    )
    {
        var kind = new PartKind("box", "Box", [new FailureMode("dead", "dead", ModeEffect.Dead, prior, 0.99, null, null, "made up")]);
        var mend = Mends("mend", repairMinutes, new Cure("box", "dead", 1), state: state);
        var library = new TradeLibrary(
            [kind],
            [new FunctionKind("work", "Work", "works", [new Look("nothing", "nothing")])],
            [mend],
            [],
            [],
            []
        );
        var parts = Enumerable.Range(0, boxes).Select(i => new Part($"b{i}", $"Box {i}", "box")).ToList();
        var profile = new DeviceProfile(
            DeviceProfile.FormatName,
            "chain",
            "Chain",
            "",
            DeviceKind.Accessory,
            [],
            null,
            parts,
            Enumerable.Range(1, boxes - 1).Select(i => new Feed($"b{i - 1}", $"b{i}", Carries.Power)).ToList(),
            [new DeviceFunction("work", "Work", "work", [$"b{boxes - 1}"])],
            Enumerable
                .Range(0, boxes - 1)
                .Select(i => VoltsAfter($"v{i}", $"b{i}", $"b{i + 1}", probeMinutes))
                .ToList(),
            new Preparation(1, 1, 1)
        );
        return new DeviceModel(profile, library);
    }

    /// <summary>Parts side by side, each with one mode and one method, all needed by one function.</summary>
    public static DeviceModel SideBySide(params (double Prior, ModeEffect Effect, double Success, double Harm)[] parts)
    {
        var kinds = parts
            .Select(
                (p, i) => new PartKind($"k{i}", $"Kind {i}", [new FailureMode("bad", "bad", p.Effect, p.Prior, 0.9, null, null, "made up")])
            )
            .ToList();
        var methods = parts.Select((p, i) => Mends($"m{i}", 5, new Cure($"k{i}", "bad", p.Success), p.Harm)).ToList();
        var library = new TradeLibrary(
            kinds,
            [new FunctionKind("work", "Work", "works", [new Look("nothing", "nothing")])],
            methods,
            [],
            [],
            []
        );
        var profile = new DeviceProfile(
            DeviceProfile.FormatName,
            "side",
            "Side",
            "",
            DeviceKind.Accessory,
            [],
            null,
            parts.Select((_, i) => new Part($"p{i}", $"Part {i}", $"k{i}")).ToList(),
            [],
            [new DeviceFunction("work", "Work", "work", parts.Select((_, i) => new PartId($"p{i}")).ToList())],
            [],
            new Preparation(1, 1, 1)
        );
        return new DeviceModel(profile, library);
    }

    /// <summary>A repair of one failure mode, with the case closed unless said otherwise.</summary>
    public static Method Mends(string id, double minutes, Cure cure, double harm = 0, AccessState state = AccessState.Closed) =>
        new(id, $"Method {id}", MethodType.Repair, null, null, minutes, 0, state, harm, 0, [], [], [], [], [cure], "made up");

    /// <summary>A point behind a part where five volts should be.</summary>
    public static Probe VoltsAfter(string id, string at, string toward, double minutes = 1) =>
        new(id, $"After {at}", "", ProbeKind.Volts, at, toward, null, null, new Expectation(4.75, 5.25, "V"), AccessState.Closed, minutes);
}
