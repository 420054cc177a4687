using System.Text.Json;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;

namespace Mendro.Core.Library;

/// <summary>What holds for every number and every text in a JSON file from outside, whatever its format.</summary>
public static class JsonGate
{
    /// <summary>Largest number taken, either way; nothing at a bench comes near it.</summary>
    public const double MostNumber = 1e12;

    private static readonly JsonDocumentOptions AsProfiles = new()
    {
        AllowTrailingCommas = true,
        CommentHandling = JsonCommentHandling.Skip,
    };

    /// <summary>Numbers that are not finite or too large, and texts with control characters, each with its place. A text that is no
    /// JSON has none: its own reader says so.</summary>
    public static IEnumerable<ProfileProblem> Check(string json)
    {
        JsonDocument document;
        try
        {
            document = JsonDocument.Parse(json, AsProfiles);
        }
        catch (JsonException)
        {
            return [];
        }

        using (document)
            return Walk(document.RootElement, "").ToList();
    }

    private static IEnumerable<ProfileProblem> Walk(JsonElement element, string place) =>
        element.ValueKind switch
        {
            JsonValueKind.Object => element
                .EnumerateObject()
                .SelectMany(p =>
                    Text(p.Name, place)
                        .Concat(Walk(p.Value, place.Length > 0 ? $"{place}.{PlainText.Clean(p.Name)}" : PlainText.Clean(p.Name)))
                ),
            JsonValueKind.Array => element
                .EnumerateArray()
                .SelectMany((item, n) => Walk(item, FormattableString.Invariant($"{place}[{n}]"))),
            JsonValueKind.String => Text(element.GetString()!, place),
            JsonValueKind.Number when !element.TryGetDouble(out var number) || !(Math.Abs(number) <= MostNumber) =>
            [
                new ProfileProblem(Named(place), "is too large a number."),
            ],
            _ => [],
        };

    private static IEnumerable<ProfileProblem> Text(string text, string place) =>
        PlainText.IsPlain(text) ? [] : [new ProfileProblem(Named(place), "holds a control character.")];

    private static string Named(string place) => place.Length > 0 ? place : "the file";
}
