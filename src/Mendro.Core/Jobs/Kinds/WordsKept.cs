using Mendro.Core.Diagnosis;

namespace Mendro.Core.Jobs;

/// <summary>What was filed while the unit was taken for another model, and has no place in the one that it is: kept in words, no
/// evidence.</summary>
/// <param name="Words">The words of the record.</param>
/// <param name="Model">Model that it was taken for.</param>
[RecordKind("words-kept")]
public sealed record WordsKept(string Words, string Model) : RecordBody
{
    /// <inheritdoc/>
    public override string Subject => "";

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) => $"{Words} (filed when it was taken for a {Model})";
}
