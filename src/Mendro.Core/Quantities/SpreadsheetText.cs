namespace Mendro.Core.Quantities;

/// <summary>
/// Text in a CSV file that a spreadsheet will open: what it would take for a formula gets an apostrophe before it, which a
/// spreadsheet does not show (OWASP, CSV injection), and which is taken off again when the file is read.
/// </summary>
public static class SpreadsheetText
{
    /// <summary>True when the text may stand as it is.</summary>
    public static bool IsNeutral(string text)
    {
        if (text.Length == 0)
            return true;
        var first = text.AsSpan().TrimStart();
        // Formulas begin with one of four signs, also behind blanks and tabs; what begins with an apostrophe gets one more.
        return !((first.Length > 0 && first[0] is '=' or '+' or '-' or '@') || text[0] is '\t' or '\r' or '\n' or '\'');
    }

    /// <summary>The text as a field.</summary>
    public static string Write(string text) => IsNeutral(text) ? text : "'" + text;

    /// <summary>A field as text.</summary>
    public static string Read(string field) => field.StartsWith('\'') ? field[1..] : field;
}
