using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Profiles;

namespace Mendro.Core.Jobs;

/// <summary>An item of the test plan that is no function was tried: a check of the model, a seat, a soldered place.</summary>
/// <param name="Item">Item of the plan.</param>
/// <param name="Name">Its name at that time.</param>
/// <param name="Passed">True when it was as it should be.</param>
/// <param name="Function">Function that it tries more closely; a failure is a failed trial of it. Null for none.</param>
[RecordKind("test-done")]
public sealed record TestDone(string Item, string Name, bool Passed, FunctionId? Function = null) : RecordBody
{
    /// <inheritdoc/>
    public override string Subject => Item;

    /// <inheritdoc/>
    public override RecordSign Sign => Passed ? RecordSign.Good : RecordSign.Bad;

    /// <inheritdoc/>
    public override JobStep Step => Passed ? JobStep.Proving : Function is null ? JobStep.Noted : JobStep.FailureFound;

    /// <inheritdoc/>
    public override bool IsSymptom => !Passed;

    // One passed check does not prove the whole function; one that fails disproves it.
    /// <inheritdoc/>
    public override BenchEvent? ToEvent(long id) =>
        Function is { } function && !Passed ? new FunctionTried(id, function, false) : null;

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) => $"{Name}: {(Passed ? "good" : "not good")}";

    /// <inheritdoc/>
    public override string Title(DeviceModel model, string words) => Name;

    /// <inheritdoc/>
    public override string Value(DeviceModel model) => Passed ? "good" : "not good";
}
