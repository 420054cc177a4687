using System.Text;

namespace Mendro.Core.Papers;

/// <summary>A paper as plain text, to be pasted into a mail or a listing: lines of at most 72 characters, as mail has it (RFC 3676).</summary>
public static class PaperText
{
    /// <summary>Longest line, characters.</summary>
    public const int Width = 72;

    private const int FactWidth = 16;

    /// <summary>Writes it.</summary>
    public static string Write(Paper paper)
    {
        var text = new StringBuilder();
        Between(text, $"{paper.Kind} {paper.Tag}", paper.Shop);
        text.Append('\n');
        foreach (var line in Wrap(paper.Title, Width))
            text.Append(line).Append('\n');
        text.Append('\n');
        foreach (var (name, value) in paper.Facts)
            Hang(text, $"{name}:".PadRight(FactWidth), value);
        foreach (var section in paper.Sections.Where(s => s.Shows))
        {
            text.Append('\n').Append(section.Heading.ToUpperInvariant()).Append('\n');
            if (section.Lines.Count == 0)
                Hang(text, "  ", section.Empty!);
            foreach (var line in section.Lines)
                Line(text, line);
        }

        return text.ToString();
    }

    private static void Line(StringBuilder text, PaperLine line)
    {
        var mark = line.Tone switch
        {
            PaperTone.Good => "+ ",
            PaperTone.Bad => "! ",
            PaperTone.Open => "o ",
            _ => "- ",
        };
        if (line.Value.Length == 0)
        {
            Hang(text, mark, line.Words);
            return;
        }

        // A short value stands at the end of the last line, if there is room.
        var wrapped = Wrap(line.Words, Width - mark.Length).ToList();
        for (var n = 0; n < wrapped.Count; n++)
        {
            var start = n == 0 ? mark : "  ";
            var left = start + wrapped[n];
            if (n < wrapped.Count - 1)
                text.Append(left).Append('\n');
            else if (left.Length + line.Value.Length + 3 <= Width)
                Between(text, left, line.Value, '.');
            else
            {
                text.Append(left).Append('\n');
                Hang(text, "    ", line.Value);
            }
        }
    }

    private static void Between(StringBuilder text, string left, string right, char fill = ' ')
    {
        var gap = Width - left.Length - right.Length - 2;
        if (gap < 1)
        {
            text.Append(left).Append('\n');
            text.Append(right).Append('\n');
            return;
        }

        text.Append(left).Append(' ').Append(fill, gap).Append(' ').Append(right).Append('\n');
    }

    private static void Hang(StringBuilder text, string start, string words)
    {
        var first = true;
        foreach (var line in Wrap(words, Width - start.Length))
        {
            text.Append(first ? start : new string(' ', start.Length)).Append(line).Append('\n');
            first = false;
        }
    }

    /// <summary>Breaks words into lines; a word that is longer than a line is cut.</summary>
    private static IEnumerable<string> Wrap(string words, int width)
    {
        foreach (var paragraph in words.Replace("\r", "", StringComparison.Ordinal).Split('\n'))
        {
            var line = new StringBuilder();
            foreach (var told in paragraph.Replace('\u00A0', ' ').Split(' ', StringSplitOptions.RemoveEmptyEntries))
            {
                var word = told;
                if (line.Length > 0 && line.Length + 1 + word.Length > width)
                {
                    yield return line.ToString();
                    line.Clear();
                }

                for (; word.Length > width; word = word[width..])
                    yield return word[..width];
                if (line.Length > 0)
                    line.Append(' ');
                line.Append(word);
            }

            yield return line.ToString();
        }
    }
}
