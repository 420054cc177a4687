using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>What is met at the moves of the advice.</summary>
public static class MoveCautions
{
    /// <summary>Cautions of a move: those of its method, and those of the unit where it works.</summary>
    /// <param name="hazards">Hazards of the unit.</param>
    /// <param name="move">The move.</param>
    /// <param name="profile">Model of the unit.</param>
    public static IReadOnlyList<Caution> At(this UnitHazards hazards, Move move, DeviceProfile profile) =>
        move switch
        {
            { Repair: { } repair } => hazards.At(repair.Method, repair.Part),
            { Probe: { } probe } => hazards.At(probe, profile),
            { SwapOut: { } out_ } => hazards.At(AccessState.Closed, profile.FindPart(out_) is { } part ? [part] : []),
            _ => hazards.At(AccessState.Closed),
        };
}
