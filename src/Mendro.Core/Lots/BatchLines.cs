using Mendro.Core.Quantities;

namespace Mendro.Core.Lots;

/// <summary>An item of a lot as one line tells it.</summary>
/// <param name="Words">What it is and what is wrong with it.</param>
/// <param name="Apart">True when it does not belong in the lot.</param>
/// <param name="Model">Model by name, where the line names one of its own; else blank.</param>
/// <param name="Serial">Serial number, or blank.</param>
/// <param name="Worth">What it would be worth when it works, or null.</param>
/// <param name="Weight">Its weight when the price is spread, or null.</param>
public sealed record BatchItem(string Words, bool Apart, string Model = "", string Serial = "", decimal? Worth = null, decimal? Weight = null);

/// <summary>
/// Items of a lot, one a line: words, with an exclamation mark before what does not belong in it. A paste out of a spreadsheet has its
/// columns named in the first line: <c>item</c>, and <c>model</c>, <c>serial</c>, <c>worth</c>, <c>weight</c>, <c>apart</c> as one likes.
/// </summary>
public static class BatchLines
{
    /// <summary>Most items at once.</summary>
    public const int Most = 2000;

    /// <summary>Longest words of an item, characters.</summary>
    public const int LongestWords = 300;

    private const int LongestName = 120;
    private const decimal MostWorth = 1_000_000;

    private static readonly string[] Columns = ["item", "model", "serial", "worth", "weight", "apart"];

    /// <summary>Reads lines.</summary>
    /// <param name="text">What was typed or pasted.</param>
    /// <param name="problems">Every line that cannot be taken, with its number and field.</param>
    public static IReadOnlyList<BatchItem> Read(string? text, out IReadOnlyList<string> problems)
    {
        var lines = (text ?? "").Replace("\r", "", StringComparison.Ordinal);
        return IsTable(lines) ? CsvTable.Read(lines, Most, _ => null, Row, out problems) : Plain(lines, out problems);
    }

    private static bool IsTable(string text)
    {
        var head = text.Split('\n', 2)[0].Split('\t', ';', ',').Select(c => c.Trim().Trim('"').ToLowerInvariant()).ToList();
        return head.Count > 1 && head.Contains("item") && head.All(Columns.Contains);
    }

    private static List<BatchItem> Plain(string text, out IReadOnlyList<string> problems)
    {
        var (found, wrong) = (new List<BatchItem>(), new List<string>());
        var lines = text.Split('\n');
        for (var n = 0; n < lines.Length; n++)
        {
            var words = string.Join(", ", lines[n].Split('\t', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)).Trim();
            if (words.Length == 0)
                continue;
            var apart = words[0] == '!';
            if (found.Count + wrong.Count >= Most)
            {
                wrong.Add($"more than {Most} lines.");
                break;
            }

            var made = Item(apart ? words[1..].Trim() : words, apart, "", "", "", "");
            if (made.IsOk)
                found.Add(made.Value);
            else
                wrong.Add(FormattableString.Invariant($"line {n + 1}: {made.Problem}"));
        }

        problems = wrong;
        return found;
    }

    private static Outcome<BatchItem> Row(Func<string, string> field)
    {
        var said = field("apart");
        if (said.ToLowerInvariant() is not ("" or "no" or "0" or "yes" or "x" or "1" or "!"))
            return Outcome<BatchItem>.Fail($"apart: “{said}” is neither yes nor no.");
        var words = field("item");
        var apart = words.StartsWith('!') || said.ToLowerInvariant() is "yes" or "x" or "1" or "!";
        return Item(words.TrimStart('!').Trim(), apart, field("model"), field("serial"), field("worth"), field("weight"));
    }

    private static Outcome<BatchItem> Item(string words, bool apart, string model, string serial, string worth, string weight)
    {
        if (words.Length is 0 or > LongestWords)
            return Outcome<BatchItem>.Fail($"item: say what it is, in up to {LongestWords} characters.");
        if (!PlainText.IsPlain(words + model + serial))
            return Outcome<BatchItem>.Fail("item: a control character is in it.");
        if (model.Length > LongestName || serial.Length > LongestName)
            return Outcome<BatchItem>.Fail($"model and serial: up to {LongestName} characters.");
        if (!Number(worth, out var value))
            return Outcome<BatchItem>.Fail($"worth: “{worth}” is no amount such as 12.50.");
        if (!Number(weight, out var weighs))
            return Outcome<BatchItem>.Fail($"weight: “{weight}” is no number such as 2.");
        return Outcome<BatchItem>.Ok(new BatchItem(words, apart, model, serial, value, weighs));
    }

    private static bool Number(string text, out decimal? number)
    {
        number = null;
        if (text.Length == 0)
            return true;
        number = NumberText.ReadDecimal(text);
        return number <= MostWorth;
    }
}
