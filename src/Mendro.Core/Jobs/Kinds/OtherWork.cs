using System.Globalization;
using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Jobs;

/// <summary>Work that cures no fault of a part: shell, window, an improvement. It is no evidence.</summary>
/// <param name="Method">Method of the library.</param>
/// <param name="Held">What the check at its end said; null when it was not told.</param>
/// <param name="Originals">Where the original parts are kept; null when none came off.</param>
[RecordKind("other-work")]
public sealed record OtherWork(MethodId Method, bool? Held = null, string? Originals = null) : RecordBody
{
    /// <summary>Longest words on the originals, characters.</summary>
    public const int LongestOriginals = 120;

    /// <inheritdoc/>
    public override string Subject => Method;

    /// <inheritdoc/>
    public override RecordSign Sign => RecordSign.Done;

    /// <inheritdoc/>
    public override JobStep Step => JobStep.Repaired;

    /// <inheritdoc/>
    public override string Describe(DeviceModel model)
    {
        var method = model.Library.FindMethod(Method);
        var check = Held is { } held && method?.Check is { } end ? $": {(held ? end.Good : end.Bad)}" : "";
        return $"{method?.Name ?? Method}{check}";
    }

    /// <inheritdoc/>
    public override string Small(DeviceModel model, BenchRecord record) =>
        string.Create(CultureInfo.InvariantCulture, $"{record.Minutes:0.#}\u00A0min");

    /// <inheritdoc/>
    public override AccessState After(DeviceModel model, AccessState before) =>
        Further(before, model.Library.FindMethod(Method)?.State ?? AccessState.Closed);

    /// <inheritdoc/>
    public override double UsualMinutes(DeviceModel model) => model.Library.FindMethod(Method)?.Minutes ?? 0;
}
