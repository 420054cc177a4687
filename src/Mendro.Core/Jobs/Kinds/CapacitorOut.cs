using Mendro.Core.Capacitors;
using Mendro.Core.Diagnosis;

namespace Mendro.Core.Jobs;

/// <summary>An old capacitor: which way it pointed, and what it measured once it was out. The last one filed for a position holds.</summary>
/// <param name="Board">Board.</param>
/// <param name="Refdes">Position.</param>
/// <param name="Way">Where its plus pointed: <c>as drawn</c>, <c>turned</c>, or degrees counterclockwise; null when not looked at.</param>
/// <param name="Farads">Measured, farads; null when it was not.</param>
/// <param name="EsrOhms">ESR, ohms; null when it was not measured.</param>
/// <param name="Verdict">good, low, high, high ESR, leaked or shorted; null when it was not judged.</param>
[RecordKind("capacitor-out")]
public sealed record CapacitorOut(
    string Board,
    string Refdes,
    string? Way = null,
    double? Farads = null,
    double? EsrOhms = null,
    string? Verdict = null
) : RecordBody
{
    /// <summary>True for one that had failed.</summary>
    public bool Failed => Verdict is not (null or "good");

    /// <inheritdoc/>
    public override string Subject => $"{Board}/{Refdes}";

    /// <inheritdoc/>
    public override RecordSign Sign => Failed ? RecordSign.Bad : RecordSign.Noted;

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) =>
        $"Old {Refdes}, {MoveWords.Lower(model.Profile.FindBoard(Board)?.Name ?? Board)}: "
        + string.Join(
            ", ",
            new[]
            {
                Farads is { } farads ? CapacitorPart.Value(farads) : null,
                EsrOhms is { } esr ? FormattableString.Invariant($"ESR {esr:0.###} Ω") : null,
                Verdict,
                Way is { } way ? $"plus {way}" : null,
            }.OfType<string>()
        );
}
