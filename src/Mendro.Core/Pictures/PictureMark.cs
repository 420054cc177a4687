using System.Text.Json;
using System.Text.Json.Serialization;

namespace Mendro.Core.Pictures;

/// <summary>What a mark on a picture is.</summary>
[JsonConverter(typeof(JsonStringEnumConverter<MarkShape>))]
public enum MarkShape
{
    /// <summary>An arrow to a place.</summary>
    Arrow,

    /// <summary>A ring round a place.</summary>
    Ring,

    /// <summary>A number at a place.</summary>
    Number,

    /// <summary>Words at a place.</summary>
    Words,
}

/// <summary>A mark drawn over a picture; the picture itself stays as it is.</summary>
/// <param name="Shape">What it is.</param>
/// <param name="X">Where, 0 to 1 across.</param>
/// <param name="Y">Where, 0 to 1 down.</param>
/// <param name="FromX">Where an arrow begins; null for the usual side.</param>
/// <param name="FromY">Likewise down.</param>
/// <param name="Text">Words, or what a number stands for; blank for none.</param>
public sealed record PictureMark(MarkShape Shape, double X, double Y, double? FromX = null, double? FromY = null, string Text = "")
{
    /// <summary>Most marks of a picture.</summary>
    public const int Most = 40;

    /// <summary>Longest words, characters.</summary>
    public const int LongestText = 60;

    /// <summary>Why it cannot be, or null.</summary>
    [JsonIgnore]
    public string? Problem =>
        !On(X) || !On(Y) || !(FromX is null || On(FromX.Value)) || !(FromY is null || On(FromY.Value)) ? "A mark lies on the picture."
        : Text.Length > LongestText ? $"The words of a mark take {LongestText} characters."
        : Shape == MarkShape.Words && Text.Length == 0 ? "Say what the words are."
        : null;

    /// <summary>Writes marks.</summary>
    public static string Write(IReadOnlyList<PictureMark> marks) => JsonSerializer.Serialize(marks, Json);

    /// <summary>Reads marks; what is no list of marks is an empty one.</summary>
    public static IReadOnlyList<PictureMark> Read(string? json)
    {
        try
        {
            return JsonSerializer.Deserialize<List<PictureMark>>(json ?? "[]", Json)?.Where(m => m is { Problem: null }).ToList() ?? [];
        }
        catch (JsonException)
        {
            return [];
        }
    }

    private static bool On(double share) => share is >= 0 and <= 1;

    private static JsonSerializerOptions Json { get; } =
        new(JsonSerializerDefaults.Web) { DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull };
}
