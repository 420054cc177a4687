using System.Text.Json;
using Mendro.Core;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;

namespace Mendro.StandIns;

/// <summary>A case told by practice: what came up, what each check would show, and what cured it.</summary>
/// <param name="Id">Id, unique in the file.</param>
/// <param name="Profile">Id of the profile.</param>
/// <param name="Access">How far the unit is apart at the beginning.</param>
/// <param name="Facts">What is known at the beginning, in the order it came up.</param>
/// <param name="Answers">What checks show: <c>probe:ID</c>, <c>fn:ID</c>, <c>provoke:FN:HOW</c>, <c>swap:PART</c>; what is not named
/// answers as a sound part would.</param>
/// <param name="Cures">Lists of repairs (<c>part:method</c>); one of each list cures. Empty when the right end is to stop.</param>
/// <param name="Stop">True when the right end is to stop or to set the unit aside.</param>
/// <param name="Within">Moves and minutes within which a seasoned technician is there.</param>
/// <param name="Never">Ids of moves that must never come first; a <c>*</c> at the end stands for anything.</param>
/// <param name="Told">The case in words, or null.</param>
public sealed record PracticeCase(
    string Id,
    string Profile,
    AccessState Access,
    IReadOnlyList<EvidenceEntry> Facts,
    IReadOnlyDictionary<string, string> Answers,
    IReadOnlyList<IReadOnlyList<string>> Cures,
    bool Stop,
    CaseLimits Within,
    IReadOnlyList<string> Never,
    string? Told = null
);

/// <summary>Limits of a case.</summary>
/// <param name="Moves">Most moves.</param>
/// <param name="Minutes">Most minutes, preparation and retests included.</param>
public sealed record CaseLimits(int Moves, double Minutes);

/// <summary>Reads <c>mendro.casebook/1</c>.</summary>
public static class CasebookFile
{
    /// <summary>The format name every casebook carries.</summary>
    public const string FormatName = "mendro.casebook/1";

    /// <summary>Most cases in a file.</summary>
    public const int MostCases = 10_000;

    // A bench reads books that others wrote: members it does not know are passed over.
    private static readonly JsonSerializerOptions Options = ProfileJson.Options;

    /// <summary>Reads a casebook.</summary>
    /// <returns>The cases, or a message that names the place of the error.</returns>
    public static Outcome<IReadOnlyList<PracticeCase>> Read(string json)
    {
        Document? document;
        try
        {
            document = JsonSerializer.Deserialize<Document>(json, Options);
        }
        catch (JsonException ex)
        {
            return Fail($"{(ex.Path is { Length: > 1 } path ? path : "the file")}: this is not valid JSON for the format.");
        }

        if (document?.Format != FormatName)
            return Fail($"format: expected “{FormatName}”.");
        if (document.Cases is not { } told)
            return Fail("cases: missing.");
        if (told.Count > MostCases)
            return Fail($"cases: more than {MostCases}.");
        var cases = new List<PracticeCase>();
        for (var n = 0; n < told.Count; n++)
        {
            if (told[n] is not { Id.Length: > 0, Profile.Length: > 0 } one)
                return Fail($"cases[{n}]: id and profile are required.");
            if (cases.Any(c => c.Id == one.Id))
                return Fail($"cases[{n}].id: “{one.Id}” stands there twice.");
            var (cures, stop, problem) = Cures(one.Cures);
            if (problem is not null)
                return Fail($"cases[{n}].cures: {problem}");
            if (one.Within is { } within && (within.Moves < 1 || !double.IsFinite(within.Minutes) || within.Minutes <= 0))
                return Fail($"cases[{n}].within: moves and minutes must be above 0.");
            if ((one.Facts ?? []).Any(f => f is null))
                return Fail($"cases[{n}].facts: one is empty.");
            cases.Add(
                new PracticeCase(
                    one.Id,
                    one.Profile,
                    one.Access ?? AccessState.Closed,
                    (one.Facts ?? []).OfType<EvidenceEntry>().ToList(),
                    one.Answers ?? [],
                    cures,
                    stop,
                    one.Within ?? new CaseLimits(CasebookPlayer.MostMoves, double.MaxValue),
                    one.Never ?? [],
                    one.Told
                )
            );
        }

        return Outcome<IReadOnlyList<PracticeCase>>.Ok(cases);

        static Outcome<IReadOnlyList<PracticeCase>> Fail(string problem) => Outcome<IReadOnlyList<PracticeCase>>.Fail(problem);
    }

    private static (List<IReadOnlyList<string>> Cures, bool Stop, string? Problem) Cures(JsonElement? told)
    {
        if (told is { ValueKind: JsonValueKind.String } word)
            return word.GetString() is "stop" or "aside" ? ([], true, null) : ([], false, "say lists of part:method, or “stop”.");
        if (told is not { ValueKind: JsonValueKind.Array } lists || lists.GetArrayLength() == 0)
            return ([], false, "say lists of part:method, or “stop”.");
        var cures = new List<IReadOnlyList<string>>();
        foreach (var list in lists.EnumerateArray())
        {
            // One name alone is a list of one.
            var names = list.ValueKind switch
            {
                JsonValueKind.String => [list.GetString()!],
                JsonValueKind.Array when list.EnumerateArray().All(x => x.ValueKind == JsonValueKind.String) => list.EnumerateArray()
                    .Select(x => x.GetString()!)
                    .ToList(),
                _ => new List<string>(),
            };
            if (names.Count == 0 || names.Any(n => !n.Contains(':')))
                return ([], false, "every list names repairs as part:method.");
            cures.Add(names);
        }

        return (cures, false, null);
    }

    private sealed record Document(string? Format, List<Case?>? Cases);

    private sealed record Case(
        string? Id,
        string? Profile,
        string? Told,
        AccessState? Access,
        List<EvidenceEntry?>? Facts,
        Dictionary<string, string>? Answers,
        JsonElement? Cures,
        CaseLimits? Within,
        List<string>? Never
    );
}
