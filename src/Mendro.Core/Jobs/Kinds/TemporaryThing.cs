using Mendro.Core.Diagnosis;

namespace Mendro.Core.Jobs;

/// <summary>Something put on the unit for a while, or taken off again: soldered supply leads, a strip in a lid switch, tape over a
/// window, a lens cover. The case does not close over it unasked.</summary>
/// <param name="What">What it is, in words.</param>
/// <param name="Off">True when it was taken off.</param>
/// <param name="Partner">Number of the unit that lends the part or has it for now, or null.</param>
[RecordKind("temporary")]
public sealed record TemporaryThing(string What, bool Off, long? Partner = null) : RecordBody
{
    /// <summary>Longest words, characters.</summary>
    public const int LongestWords = 80;

    /// <inheritdoc/>
    public override string Subject => "";

    /// <inheritdoc/>
    public override RecordSign Sign => Off ? RecordSign.Done : RecordSign.Noted;

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) => Off ? $"Taken off again: {What}" : $"Put on for a while: {What}";
}
