namespace Mendro.Core.Money;

/// <summary>The text of a listing from the shop's own template: words in braces are filled in; a line whose words are all empty is left
/// out.</summary>
public static class ListingText
{
    /// <summary>Longest template, characters.</summary>
    public const int Longest = 4000;

    /// <summary>Words that can be filled in, with what they stand for.</summary>
    public static IReadOnlyDictionary<string, string> Known { get; } =
        new Dictionary<string, string>
        {
            ["title"] = "the unit",
            ["revision"] = "board revision",
            ["grade"] = "grade",
            ["grade-words"] = "how the grade is told",
            ["works"] = "what works, tried",
            ["faults"] = "what does not, and marks",
            ["not-tried"] = "what was not tried",
            ["done"] = "what was renewed and repaired",
            ["modified"] = "what is not original",
            ["with"] = "what comes with it",
            ["proof"] = "proof in numbers",
            ["price"] = "asking price",
            ["tag"] = "number on the tag",
            ["shop"] = "name of the shop",
        };

    /// <summary>The template of an empty shop.</summary>
    public const string Usual =
        "{title}, board {revision}\n\nCondition: {grade} ({grade-words})\nTested and working: {works}\nFaults: {faults}\nNot tried: {not-tried}\n"
        + "Work done: {done}\nNot original: {modified}\nProof: {proof}\nWith it: {with}\n\nPrice: {price}\n{shop}, no. {tag}";

    /// <summary>What is wrong with a template, or null.</summary>
    public static string? Problem(string template)
    {
        if (template.Length > Longest)
            return $"A template takes {Longest} characters.";
        foreach (var word in Words(template))
            if (!Known.ContainsKey(word))
                return $"“{{{word}}}” is none of the words that can be filled in: {string.Join(", ", Known.Keys)}.";
        return null;
    }

    /// <summary>Fills a template.</summary>
    /// <param name="template">Template.</param>
    /// <param name="values">What each word stands for; a missing one is empty.</param>
    public static string Fill(string template, IReadOnlyDictionary<string, string> values)
    {
        var lines = new List<string>();
        foreach (var line in template.Replace("\r", "", StringComparison.Ordinal).Split('\n'))
        {
            var words = Words(line).ToList();
            if (words.Count > 0 && words.All(w => values.GetValueOrDefault(w, "").Length == 0))
                continue;
            // In one pass: what is filled in is not read again.
            lines.Add(Replace(line, values));
        }

        return string.Join('\n', lines).Trim();
    }

    private static string Replace(string line, IReadOnlyDictionary<string, string> values)
    {
        var text = new System.Text.StringBuilder();
        for (var at = 0; at < line.Length; at++)
        {
            var end = line[at] == '{' ? line.IndexOf('}', at) : -1;
            if (end < 0)
            {
                text.Append(line[at]);
                continue;
            }

            text.Append(values.GetValueOrDefault(line[(at + 1)..end], ""));
            at = end;
        }

        return text.ToString();
    }

    private static IEnumerable<string> Words(string text)
    {
        for (var open = text.IndexOf('{'); open >= 0; open = text.IndexOf('{', open + 1))
        {
            var end = text.IndexOf('}', open);
            if (end > open)
                yield return text[(open + 1)..end];
        }
    }
}
