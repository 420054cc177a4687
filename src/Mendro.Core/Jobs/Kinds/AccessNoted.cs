using Mendro.Core.Dismantling;
using Mendro.Core.Diagnosis;
using Mendro.Core.Profiles;

namespace Mendro.Core.Jobs;

/// <summary>How far the unit is apart was said outright, as when it was closed up again.</summary>
/// <param name="State">How far it is apart from then on.</param>
[RecordKind("access")]
public sealed record AccessNoted(AccessState State) : RecordBody
{
    /// <inheritdoc/>
    public override string Subject => "";

    /// <inheritdoc/>
    public override RecordSign Sign => RecordSign.Done;

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) =>
        State switch
        {
            AccessState.Closed => "Closed up again",
            AccessState.Open => "Case opened",
            AccessState.BoardOut => "Board out",
            _ => "Part lifted",
        };

    /// <inheritdoc/>
    public override AccessState After(DeviceModel model, AccessState before) => State;

    /// <inheritdoc/>
    public override Apart After(DeviceModel model, Apart before) => model.Disassembly.At(State);
}
