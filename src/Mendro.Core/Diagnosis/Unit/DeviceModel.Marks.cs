using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <content>What condition marks point to.</content>
public sealed partial class DeviceModel
{
    /// <summary>“The mark was seen at intake”.</summary>
    /// <param name="mark">Mark.</param>
    /// <param name="grade">How bad it is: a trace points to what is tarnished or dirty, a lot of it to what is eaten.</param>
    /// <param name="at">Part at which it was seen; null when not told or no part of the model.</param>
    public FindingTemplate Mark(ConditionMark mark, SeenGrade grade = SeenGrade.Untold, PartId? at = null) =>
        _templates.GetOrAdd(
            $"mark:{mark.Id}:{grade}:{at}",
            _ => new FindingTemplate(
                $"mark:{mark.Id}",
                mark.Leak,
                Faults
                    .Select(
                        (fault, i) =>
                            new Link(i, at is not { } only || fault.Part.Id == only ? Graded(Hint(mark, fault), fault.Mode, grade) : 0)
                    )
                    .Where(l => l.P > 0)
                    .ToList()
            )
        );

    /// <summary>The part that a place names: by its id, its name or its printed name, or by a contact of its connector such as
    /// <c>slot:14</c>; null when it names none.</summary>
    public PartId? PartAt(string? place)
    {
        if (string.IsNullOrWhiteSpace(place))
            return null;
        var words = place.Trim();
        bool Is(string? name) => string.Equals(name, words, StringComparison.OrdinalIgnoreCase);
        if (Profile.Parts.FirstOrDefault(p => Is(p.Id.Value) || Is(p.Name) || Is(p.Refdes)) is { } part)
            return part.Id;
        var connector = words.Split(':', ' ')[0];
        return Profile.Connectors?.FirstOrDefault(c => string.Equals(c.Id, connector, StringComparison.OrdinalIgnoreCase))?.Part;
    }

    /// <summary>The part at which a mark was seen, when it is one that the mark can point to.</summary>
    internal PartId? PartAt(ConditionMark mark, string? place) =>
        PartAt(place) is { } part && FaultsOf(part).Any(f => Hint(mark, Faults[f]) > 0) ? part : (PartId?)null;

    /// <summary>True when a mark that was seen tells of a part.</summary>
    internal bool Marked(MarkSeen seen, PartId part) =>
        Library.FindMark(seen.MarkId) is { } mark
        && (PartAt(mark, seen.Place) is { } at ? at == part : FaultsOf(part).Any(f => Hint(mark, Faults[f]) >= Telling));

    /// <summary>A mark that hints at a part less than this tells little of it.</summary>
    internal const double Telling = 0.5;

    private static double Hint(ConditionMark mark, PartFault fault) =>
        (mark.Hints ?? [])
            .Where(h => h.Kind == fault.Part.Kind && (h.Mode == fault.Mode.Id || h.Mode == "*"))
            .Select(h => h.P)
            .DefaultIfEmpty(0)
            .Max();

    /// <summary>Chance that a fault leaves the mark in this grade (common practice, no source): a film comes with a trace, a hole with
    /// a lot.</summary>
    private static double Graded(double p, FailureMode mode, SeenGrade grade) =>
        (grade, mode.Effect) switch
        {
            (SeenGrade.Untold, _) => p,
            (SeenGrade.Slight, ModeEffect.Degraded) => 1 - (1 - p) * (1 - p) * (1 - p),
            (SeenGrade.Slight, _) => p * (mode.Resistive ? 0.7 : 0.25),
            (SeenGrade.Heavy, ModeEffect.Degraded) => p * 0.3,
            _ => Math.Sqrt(p),
        };
}
