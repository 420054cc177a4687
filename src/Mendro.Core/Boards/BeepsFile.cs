using Mendro.Core.Profiles;

namespace Mendro.Core.Boards;

/// <summary>The answer on <c>mendro.beeps/1</c>.</summary>
/// <param name="Test">The two points to test next; null when the break is enclosed as closely as the points allow.</param>
/// <param name="ExpectedTests">Tests to be expected until it is.</param>
/// <param name="Suspects">Segments that may be the broken one.</param>
public sealed record BeepsAnswer(
    [property: System.Text.Json.Serialization.JsonIgnore(Condition = System.Text.Json.Serialization.JsonIgnoreCondition.Never)]
        IReadOnlyList<string>? Test,
    double ExpectedTests,
    IReadOnlyList<SuspectSegment> Suspects
);

/// <summary>Reads <c>mendro.beeps/1</c>: a net, the points that can be reached, and the tests made.</summary>
public static class BeepsFile
{
    /// <summary>The format name.</summary>
    public const string FormatName = "mendro.beeps/1";

    /// <summary>Most segments of one net.</summary>
    public const int MostSegments = 500;

    /// <summary>Most points that are reached.</summary>
    public const int MostReachable = 120;

    /// <summary>Reads a file and answers it.</summary>
    /// <returns>The answer, or what is wrong with its place.</returns>
    public static Outcome<BeepsAnswer> Answer(string json)
    {
        static Outcome<BeepsAnswer> Fail(string problem) => Outcome<BeepsAnswer>.Fail(problem);

        if (ProfileJson.Deserialize<Document>(json, out var told) is { } unreadable)
            return Fail(unreadable);
        if (told?.Format is not (null or FormatName))
            return Fail($"format: expected “{FormatName}”.");
        if (told?.Segments is not { Count: > 0 and <= MostSegments } segments)
            return Fail($"segments: 1 to {MostSegments} are needed.");
        for (var n = 0; n < segments.Count; n++)
            if (segments[n] is not { A.Length: > 0, B.Length: > 0, Weight: not null })
                return Fail($"segments[{n}]: a, b and a weight are needed.");
        if (told.Reachable is not { Count: <= MostReachable } reachable || reachable.Any(r => r is null))
            return Fail($"reachable: up to {MostReachable} points are needed.");
        var results = told.Results ?? [];
        for (var n = 0; n < results.Count; n++)
            if (results[n] is not { A.Length: > 0, B.Length: > 0, Beep: not null })
                return Fail($"results[{n}]: a, b and beep are needed.");
        var search = BreakSearch.Of(
            segments.Select(s => new NetSegment(s.A!, s.B!, s.Weight!.Value)).ToList(),
            reachable,
            results.Select(r => (r.A!, r.B!, r.Beep!.Value)).ToList()
        );
        return search.IsOk
            ? Outcome<BeepsAnswer>.Ok(
                new BeepsAnswer(
                    search.Value.Next is { } test ? [test.A, test.B] : null,
                    search.Value.Expected,
                    search.Value.Suspects
                )
            )
            : Fail(search.Problem!);
    }

    private sealed record Segment(string? A, string? B, double? Weight);

    private sealed record Result(string? A, string? B, bool? Beep);

    private sealed record Document(string? Format, List<Segment>? Segments, List<string>? Reachable, List<Result>? Results);
}
