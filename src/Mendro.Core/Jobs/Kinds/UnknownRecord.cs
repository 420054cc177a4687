using Mendro.Core.Diagnosis;

namespace Mendro.Core.Jobs;

/// <summary>A record of a kind that this version does not know, from a newer one perhaps: kept, shown as noted, never lost.</summary>
/// <param name="Kind">Key as stored.</param>
/// <param name="Version">Version as stored.</param>
/// <param name="Payload">Payload as stored.</param>
public sealed record UnknownRecord(string Kind, int Version, string Payload) : RecordBody
{
    /// <inheritdoc/>
    public override string Key => Kind;

    /// <inheritdoc/>
    public override int PayloadVersion => Version;

    /// <inheritdoc/>
    public override string Subject => "";

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) => $"Noted: {Kind}";

    /// <inheritdoc/>
    public override string Title(DeviceModel model, string words) => words.Length > 0 ? words : Describe(model);

    /// <inheritdoc/>
    public override string Small(DeviceModel model, BenchRecord record) => "noted by a newer version";
}
