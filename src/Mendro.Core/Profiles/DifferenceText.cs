using System.Globalization;
using System.Text;
using System.Text.Json;

namespace Mendro.Core.Profiles;

/// <summary>A difference as a person reads it: of what both sides say only the members that differ.</summary>
public static class DifferenceText
{
    /// <summary>What each side says, in words; null for a side that has nothing there.</summary>
    public static (string? Mine, string? Theirs) Of(ProfileDifference difference)
    {
        var (mine, theirs) = (Members(difference.Mine), Members(difference.Theirs));
        return (Told(mine, theirs), Told(theirs, mine));
    }

    private static string? Told(IReadOnlyDictionary<string, string>? said, IReadOnlyDictionary<string, string>? other)
    {
        if (said is null)
            return null;
        var told = said.Where(m => other is null || other.GetValueOrDefault(m.Key) != m.Value)
            .Select(m => m.Key.Length == 0 ? m.Value : $"{m.Key} {m.Value}")
            .Concat((other ?? said).Keys.Where(k => k.Length > 0 && !said.ContainsKey(k)).Select(k => $"no {k}"))
            .ToList();
        return told.Count == 0 ? "the same otherwise" : string.Join("; ", told);
    }

    private static Dictionary<string, string>? Members(string? json)
    {
        if (json is null)
            return null;
        using var read = JsonDocument.Parse(json);
        var members = new Dictionary<string, string>();
        Collect(read.RootElement, "", members);
        return members;
    }

    private static void Collect(JsonElement element, string place, Dictionary<string, string> members)
    {
        switch (element.ValueKind)
        {
            case JsonValueKind.Object:
                foreach (var member in element.EnumerateObject())
                    Collect(member.Value, $"{place} {Spaced(member.Name)}".TrimStart(), members);
                break;
            case JsonValueKind.Array
                when element.EnumerateArray().All(e => e.ValueKind is not (JsonValueKind.Object or JsonValueKind.Array)):
                members[place] = string.Join(", ", element.EnumerateArray().Select(e => e.ToString()));
                break;
            case JsonValueKind.Array:
                var n = 0;
                foreach (var item in element.EnumerateArray())
                    Collect(item, string.Create(CultureInfo.InvariantCulture, $"{place} {++n}").TrimStart(), members);
                break;
            case JsonValueKind.True or JsonValueKind.False:
                members[place] = element.GetBoolean() ? "yes" : "no";
                break;
            default:
                members[place] = element.ToString();
                break;
        }
    }

    /// <summary><c>boardOut</c> as <c>board out</c>.</summary>
    private static string Spaced(string name)
    {
        var spaced = new StringBuilder();
        foreach (var c in name)
            if (char.IsUpper(c))
                spaced.Append(' ').Append(char.ToLowerInvariant(c));
            else
                spaced.Append(c);
        return spaced.ToString();
    }
}
