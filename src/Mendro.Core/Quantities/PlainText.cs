using System.Globalization;
using System.Text;

namespace Mendro.Core.Quantities;

/// <summary>
/// The one gate for text from outside. Control characters, as a scanner of bar codes sends them between its fields, halves of
/// surrogate pairs and code points that are no characters (Unicode 16, section 23.7) are left out: nobody typed them, and XML,
/// JSON and terminals choke on them.
/// </summary>
public static class PlainText
{
    /// <summary>The text without them. Tabs and line ends stay.</summary>
    public static string Clean(string text)
    {
        if (IsPlain(text))
            return text;
        var clean = new StringBuilder(text.Length);
        for (var at = 0; at < text.Length; )
        {
            if (Rune.TryGetRuneAt(text, at, out var rune))
            {
                if (IsPlain(rune))
                    clean.Append(text, at, rune.Utf16SequenceLength);
                at += rune.Utf16SequenceLength;
            }
            else
            {
                at++;
            }
        }

        return clean.ToString();
    }

    /// <summary>True when there is nothing to leave out.</summary>
    public static bool IsPlain(string text)
    {
        for (var at = 0; at < text.Length; )
        {
            if (!Rune.TryGetRuneAt(text, at, out var rune) || !IsPlain(rune))
                return false;
            at += rune.Utf16SequenceLength;
        }

        return true;
    }

    private static bool IsPlain(Rune rune) =>
        rune.Value is '\t' or '\n' or '\r'
        || (
            Rune.GetUnicodeCategory(rune) != UnicodeCategory.Control
            && (rune.Value & 0xFFFE) != 0xFFFE
            && rune.Value is not (>= 0xFDD0 and <= 0xFDEF)
        );
}
