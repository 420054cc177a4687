using System.Text.Json.Serialization;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Jobs;

/// <summary>A condition mark was noted at intake.</summary>
/// <param name="Mark">Mark of the library.</param>
/// <param name="Grade">How bad it is; null when not told.</param>
/// <param name="Place">Where: a part or a contact of the model, or any words; null when not told.</param>
[RecordKind("mark")]
public sealed record MarkNoted(string Mark, SeenGrade? Grade = null, string? Place = null) : RecordBody, IEvidenceEntryReader
{
    /// <summary>Longest place.</summary>
    public const int LongestPlace = 60;

    /// <summary>Mark, grade and place in one word of a form, such as <c>crust-board:heavy:beside F1</c>.</summary>
    [JsonIgnore]
    public string Written => Write(Mark, GradeWord, Place);

    /// <summary>Writes a mark as <see cref="Make"/> reads it.</summary>
    /// <param name="mark">Mark of the library.</param>
    /// <param name="grade">slight, heavy, or blank.</param>
    /// <param name="place">Where, or blank.</param>
    public static string Write(string mark, string? grade, string? place) =>
        !string.IsNullOrEmpty(place) ? $"{mark}:{grade}:{place}"
        : !string.IsNullOrEmpty(grade) ? $"{mark}:{grade}"
        : mark;

    /// <summary>slight, heavy, or blank.</summary>
    [JsonIgnore]
    public string GradeWord => WordOf(Grade);

    /// <summary>slight, heavy, or blank for a grade that was not told.</summary>
    public static string WordOf(SeenGrade? grade) => grade is null or SeenGrade.Untold ? "" : grade.Value.ToString().ToLowerInvariant();

    /// <inheritdoc/>
    public override string Subject => Written;

    /// <inheritdoc/>
    public override bool IsSymptom => true;

    /// <summary>A mark of the library as <see cref="Written"/>.</summary>
    /// <returns>The mark, or null when there is no such one, or no such grade, or the place is too long.</returns>
    public static MarkNoted? Make(TradeLibrary library, string written)
    {
        var words = written.Split(':', 3);
        var place = words.Length > 2 ? words[2].Trim() : "";
        return
            library.FindMark(words[0]) is { } found && ReadGrade(words.ElementAtOrDefault(1), out var grade) && place.Length <= LongestPlace
            ? new MarkNoted(found.Id, grade, place.Length > 0 ? place : null)
            : null;
    }

    /// <inheritdoc/>
    public override BenchEvent ToEvent(long id) => new MarkSeen(id, Mark, Grade ?? SeenGrade.Untold, Place);

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) => $"Seen at intake: {Words(model.Library)}";

    /// <summary>Name of the mark with its grade and place.</summary>
    public string Words(TradeLibrary library) =>
        (library.FindMark(Mark)?.Name ?? Mark) + (GradeWord.Length == 0 ? "" : $", {GradeWord}") + (Place is null ? "" : $" ({Place})");

    /// <inheritdoc/>
    public static Outcome<RecordBody>? FromEntry(EvidenceEntry entry, EntryContext context)
    {
        if (entry is not { Mark: { } mark, Function: null, Swap: null, Probe: null })
            return null;
        if (context.Model.Library.FindMark(mark) is null)
            return Outcome<RecordBody>.Fail($"the library has no condition mark “{mark}”.");
        if (!ReadGrade(entry.Grade, out var grade))
            return Outcome<RecordBody>.Fail($"a mark's grade is slight or heavy; “{entry.Grade}” is neither.");
        if (entry.Place is { Length: > LongestPlace })
            return Outcome<RecordBody>.Fail($"a mark's place has at most {LongestPlace} characters.");
        return Outcome<RecordBody>.Ok(new MarkNoted(mark, grade, string.IsNullOrWhiteSpace(entry.Place) ? null : entry.Place.Trim()));
    }

    private static bool ReadGrade(string? word, out SeenGrade? grade)
    {
        grade = word switch
        {
            "slight" => SeenGrade.Slight,
            "heavy" => SeenGrade.Heavy,
            _ => null,
        };
        return grade is not null || string.IsNullOrEmpty(word);
    }
}
