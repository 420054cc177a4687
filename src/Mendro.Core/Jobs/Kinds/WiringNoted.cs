using Mendro.Core.Diagnosis;
using Mendro.Core.Profiles;

namespace Mendro.Core.Jobs;

/// <summary>One wire of a replaced port or connector.</summary>
/// <param name="Old">Contact it came from.</param>
/// <param name="New">Contact it goes to.</param>
/// <param name="Colour">Colour; empty when it was not said.</param>
/// <param name="Beeps">Whether it beeps end to end; null when it was not tried.</param>
public sealed record WireLine(string Old, string New, string Colour, bool? Beeps);

/// <summary>Which old contact goes to which new one, beep by beep. The last one filed for a part holds.</summary>
/// <param name="Part">Part that was replaced.</param>
/// <param name="Wires">Wires.</param>
[RecordKind("wiring")]
public sealed record WiringNoted(PartId Part, IReadOnlyList<WireLine> Wires) : RecordBody
{
    /// <summary>Most wires.</summary>
    public const int MostWires = 80;

    /// <summary>Longest word, characters.</summary>
    public const int LongestWord = 40;

    /// <inheritdoc/>
    public override string Subject => Part;

    /// <inheritdoc/>
    public override RecordSign Sign => Problems.Any() ? RecordSign.Bad : RecordSign.Noted;

    /// <summary>What is wrong with it: a contact that is used twice, a wire that does not beep.</summary>
    public IEnumerable<string> Problems =>
        Wires
            .GroupBy(w => w.New)
            .Where(g => g.Count() > 1)
            .Select(g => $"new contact {g.Key} is used {g.Count()} times")
            .Concat(Wires.GroupBy(w => w.Old).Where(g => g.Count() > 1).Select(g => $"old contact {g.Key} is used {g.Count()} times"))
            .Concat(Wires.Where(w => w.Beeps == false).Select(w => $"{w.Old} to {w.New} does not beep"));

    /// <inheritdoc/>
    public override string Describe(DeviceModel model)
    {
        var done = Wires.Count(w => w.Beeps == true);
        return $"Wiring of {MoveWords.Lower(model.Profile.FindPart(Part)?.Name ?? Part)}: {done} of {Wires.Count} beep"
            + string.Concat(Problems.Take(2).Select(p => $"; {p}"));
    }
}
