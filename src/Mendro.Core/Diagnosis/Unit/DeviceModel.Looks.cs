using System.Collections.Concurrent;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <content>Which looks of a failure are offered.</content>
public sealed partial class DeviceModel
{
    private readonly ConcurrentDictionary<FunctionId, IReadOnlyList<Look>> _offered = new();

    /// <summary>Looks of a failing function that something in this profile can cause: only these are offered. A look that nothing
    /// causes would point at every part alike. Others are still understood when they are told.</summary>
    public IReadOnlyList<Look> LooksOf(DeviceFunction function) =>
        _offered.GetOrAdd(
            function.Id,
            _ => (Library.FindFunctionKind(function.Kind)?.Looks ?? []).Where(look => CausesOf(function, look.Id).Any()).ToList()
        );

    /// <summary>The looks of a function with one that was told of it, though nothing in this profile causes it: what was heard is not lost
    /// where it is shown.</summary>
    public IReadOnlyList<Look> LooksOf(DeviceFunction function, string? told) =>
        LooksOf(function) is var offered && told is not null && offered.All(l => l.Id != told) && Library.FindLook(function.Kind, told) is { } heard
            ? [.. offered, heard]
            : offered;

    /// <summary>Faults of the profile that make a function fail with this look, as the library tells it.</summary>
    public IEnumerable<PartFault> CausesOf(DeviceFunction function, string lookId) =>
        FunctionFails(function).Links.Where(l => l.P > 0).Select(l => Faults[l.Fault]).Where(f => LooksLike(f, function, lookId));

    private bool LooksLike(PartFault fault, DeviceFunction function, string lookId)
    {
        var told = (fault.Mode.Looks ?? []).Where(l => l.Function == function.Kind || l.Function == "*").ToList();
        if (lookId == "blinks" && !MayBlink(function))
            return false;
        if (told.Count > 0 && !CutsPower(fault))
            return told.Any(l => l.Look == lookId);
        return told.Any(l => l.Look == lookId)
            || lookId switch
            {
                "nothing" => fault.Mode.Effect != ModeEffect.Degraded,
                "pressed" => fault.Mode.Effect == ModeEffect.Intermittent || fault.Mode.Resistive,
                "dim" or "on-then-off" => fault.Mode.Effect == ModeEffect.Short,
                _ => false,
            };
    }
}
