using Mendro.Core.Diagnosis;
using Mendro.Core.Dismantling;
using Mendro.Core.Profiles;

namespace Mendro.Core.Jobs;

/// <summary>What was wrong with a fastener as it came out.</summary>
public enum FastenerState
{
    /// <summary>It was not there.</summary>
    Missing,

    /// <summary>Its head or thread is worn out.</summary>
    Stripped,

    /// <summary>It is none of this model's.</summary>
    Foreign,
}

/// <summary>A fastener that was not as it should be.</summary>
/// <param name="Id">Fastener.</param>
/// <param name="State">What was wrong.</param>
public sealed record OddFastener(string Id, FastenerState State);

/// <summary>A step of taking the unit apart was done, or put back.</summary>
/// <param name="StepId">Step of the profile.</param>
/// <param name="Back">True when it was put back.</param>
/// <param name="Odd">Fasteners that were not as they should be; null for none.</param>
[RecordKind("step")]
public sealed record StepTaken(string StepId, bool Back, IReadOnlyList<OddFastener>? Odd = null) : RecordBody
{
    /// <inheritdoc/>
    public override string Subject => StepId;

    /// <inheritdoc/>
    public override RecordSign Sign => RecordSign.Done;

    /// <inheritdoc/>
    public override string Describe(DeviceModel model)
    {
        var name = Find(model)?.Name ?? StepId;
        var odd = Odd is { Count: > 0 }
            ? $" ({string.Join(", ", Odd.Select(o => $"{o.Id} {o.State.ToString().ToLowerInvariant()}"))})"
            : "";
        return (Back ? $"Put back: {MoveWords.Lower(name)}" : name) + odd;
    }

    /// <inheritdoc/>
    public override AccessState After(DeviceModel model, AccessState before)
    {
        if (Find(model) is not { } step)
            return before;
        var reached = StepAccess.Of(model.Profile, step);
        return Back ? (AccessState)Math.Min((int)before, (int)StepAccess.Before(model.Profile, step)) : Further(before, reached);
    }

    /// <inheritdoc/>
    public override Apart After(DeviceModel model, Apart before) => model.Disassembly.Step(before, StepId, Back);

    /// <inheritdoc/>
    public override double UsualMinutes(DeviceModel model) => Find(model) is { } step ? (Back ? step.BackMinutes : step.Minutes) : 0;

    private TeardownStep? Find(DeviceModel model) => model.Profile.FindStep(StepId);
}
