using System.Text.Json;
using System.Text.Json.Serialization;

namespace Mendro.Core.Profiles;

/// <summary>Reads and writes <c>mendro.profile/1</c> and the library files.</summary>
public static class ProfileJson
{
    /// <summary>Options shared by every format: camelCase names, kebab-case enums, comments allowed when reading.</summary>
    public static JsonSerializerOptions Options { get; } =
        new(JsonSerializerDefaults.Web)
        {
            Converters = { new JsonStringEnumConverter(JsonNamingPolicy.KebabCaseLower, allowIntegerValues: false) },
            DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
            ReadCommentHandling = JsonCommentHandling.Skip,
            AllowTrailingCommas = true,
            WriteIndented = true,
            RespectNullableAnnotations = true,
            RespectRequiredConstructorParameters = false,
            NumberHandling = JsonNumberHandling.Strict,
        };

    /// <summary>Reads a profile.</summary>
    /// <returns>The profile, or a message that names the place in the text.</returns>
    public static Outcome<DeviceProfile> Read(string json)
    {
        if (Deserialize<DeviceProfile>(json, out var profile) is { } unreadable)
            return Outcome<DeviceProfile>.Fail(unreadable);
        if (profile is null)
            return Outcome<DeviceProfile>.Fail("The file is empty.");
        if (profile.Format != DeviceProfile.FormatName)
            return Outcome<DeviceProfile>.Fail($"format: expected “{DeviceProfile.FormatName}”.");
        if (profile.Id is null || profile.Name is null)
            return Outcome<DeviceProfile>.Fail("id and name are required.");
        return Outcome<DeviceProfile>.Ok(
            profile with
            {
                Maker = profile.Maker ?? "",
                Revisions = profile.Revisions ?? [],
                Parts = profile.Parts ?? [],
                Feeds = profile.Feeds ?? [],
                Functions = profile.Functions ?? [],
                Probes = profile.Probes ?? [],
                Preparation = profile.Preparation ?? new Preparation(5, 5, 5),
            }
        );
    }

    /// <summary>Reads any of the formats.</summary>
    /// <returns>Null when it was read, else a message that names the place.</returns>
    internal static string? Deserialize<T>(string json, out T? value)
        where T : class
    {
        value = null;
        try
        {
            value = JsonSerializer.Deserialize<T>(json, Options);
            return null;
        }
        catch (JsonException ex)
        {
            return Explain(ex);
        }
    }

    /// <summary>Writes a profile.</summary>
    public static string Write(DeviceProfile profile) => WriteItem(profile);

    /// <summary>Writes a part of a profile.</summary>
    internal static string WriteItem<T>(T item) => JsonSerializer.Serialize(item, Options);

    /// <summary>A JSON error as a sentence with its place.</summary>
    private static string Explain(JsonException ex)
    {
        var place = ex.Path is { Length: > 1 } path ? path : "the file";
        var line = ex.LineNumber is { } number ? $" (line {number + 1})" : "";
        return $"{place}{line}: this is not valid JSON for the format.";
    }
}
