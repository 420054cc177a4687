using System.Globalization;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Profiles;
using Mendro.Core.Proving;

namespace Mendro.Core.Jobs;

/// <summary>Starts under one condition.</summary>
/// <param name="Condition">Condition.</param>
/// <param name="Starts">Starts.</param>
/// <param name="Failures">Failed ones among them.</param>
public sealed record StartsUnder(string Condition, int Starts, int Failures);

/// <summary>A run of starts to prove the cure of an intermittent fault, k failed of n.</summary>
/// <param name="Function">Function that was watched.</param>
/// <param name="Starts">Starts, 1 or more.</param>
/// <param name="Failures">Failed ones among them.</param>
/// <param name="Decision">What the sequential test says.</param>
/// <param name="Limits">What was accepted and refused, with which risks.</param>
/// <param name="Under">By condition.</param>
[RecordKind("start-run")]
public sealed record StartRunFiled(
    FunctionId Function,
    int Starts,
    int Failures,
    SequentialDecision Decision,
    SequentialTest Limits,
    IReadOnlyList<StartsUnder> Under
) : RecordBody
{
    /// <inheritdoc/>
    public override string Subject => Function;

    /// <inheritdoc/>
    public override RecordSign Sign => Failures == 0 ? RecordSign.Good : RecordSign.Bad;

    /// <inheritdoc/>
    public override JobStep Step => Failures == 0 ? JobStep.Proving : JobStep.FailureFound;

    /// <inheritdoc/>
    public override bool IsSymptom => Failures > 0;

    /// <inheritdoc/>
    public override BenchEvent ToEvent(long id) =>
        Failures == 0 ? new FunctionTried(id, Function, true, null, Starts) : new FunctionTried(id, Function, false, null, Failures);

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"{model.Profile.FindFunction(Function)?.Name ?? Function}: {Failures} of {Starts} starts failed, {Words}"
        );

    /// <inheritdoc/>
    public override string Value(DeviceModel model) => string.Create(CultureInfo.InvariantCulture, $"{Failures} of {Starts}");

    /// <inheritdoc/>
    public override double UsualMinutes(DeviceModel model) => (model.Profile.FindFunction(Function)?.Minutes ?? 0) * Starts;

    private string Words =>
        Decision switch
        {
            SequentialDecision.Accept => "accepted",
            SequentialDecision.Refuse => "refused",
            _ => "not decided",
        };
}
