using System.Globalization;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Profiles;

namespace Mendro.Core.Jobs;

/// <summary>Something that happened in a soak.</summary>
/// <param name="Minute">Minute of the soak.</param>
/// <param name="Words">What happened.</param>
public sealed record Interruption(double Minute, string Words);

/// <summary>A timed play under watch, to its end or until it was stopped.</summary>
/// <param name="Function">Function that was watched.</param>
/// <param name="Planned">Minutes planned.</param>
/// <param name="Played">Minutes played.</param>
/// <param name="Interruptions">What happened meanwhile; empty when it ran through.</param>
[RecordKind("soak")]
public sealed record SoakRun(FunctionId Function, double Planned, double Played, IReadOnlyList<Interruption> Interruptions) : RecordBody
{
    /// <summary>True when it ran its whole time without an interruption.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public bool Held => Interruptions.Count == 0 && Played >= Planned;

    /// <inheritdoc/>
    public override string Subject => Function;

    /// <inheritdoc/>
    public override RecordSign Sign =>
        Interruptions.Count > 0 ? RecordSign.Bad
        : Held ? RecordSign.Good
        : RecordSign.Noted;

    /// <inheritdoc/>
    public override JobStep Step =>
        Interruptions.Count > 0 ? JobStep.FailureFound
        : Held ? JobStep.Proving
        : JobStep.Noted;

    /// <inheritdoc/>
    public override bool IsSymptom => Interruptions.Count > 0;

    // A soak that was cut short says nothing of what would have come.
    /// <inheritdoc/>
    public override BenchEvent? ToEvent(long id) =>
        Interruptions.Count > 0 ? new FunctionTried(id, Function, false, null, 1)
        : Held ? new FunctionTried(id, Function, true)
        : null;

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"Soak, {model.Profile.FindFunction(Function)?.Name ?? Function}: {Played:0.#} of {Planned:0.#} min, {Told}"
        );

    /// <inheritdoc/>
    public override string Value(DeviceModel model) =>
        Interruptions.Count == 0 ? string.Create(CultureInfo.InvariantCulture, $"{Played:0.#} min") : Told;

    private string Told =>
        Interruptions.Count == 0
            ? Held ? "ran through"
                : "stopped early, nothing seen"
            : string.Join(
                ", ",
                Interruptions.Select(i => string.Create(CultureInfo.InvariantCulture, $"{i.Words} at {i.Minute:0.#} min"))
            );
}
