using System.Globalization;
using System.Text;
using Serilog.Events;
using Serilog.Formatting;

namespace Mendro.Web;

/// <summary>
/// One event as one line: what came from outside can neither begin a line of its own nor steer the terminal. The lines of a
/// stack trace are set in, so that they are told from events.
/// </summary>
public sealed class LogLine : ITextFormatter
{
    private const int LongestValue = 2000;

    // Properties that help nobody at the bench.
    private static readonly string[] LeftOut = ["SourceContext", "ConnectionId", "EventId"];

    /// <inheritdoc/>
    public void Format(LogEvent logEvent, TextWriter output)
    {
        output.Write(logEvent.Timestamp.ToString("HH:mm:ss ", CultureInfo.InvariantCulture));
        output.Write(Level(logEvent.Level));
        output.Write(' ');
        output.Write(Plain(logEvent.RenderMessage(CultureInfo.InvariantCulture)));
        foreach (var (name, value) in logEvent.Properties.Where(p => !LeftOut.Contains(p.Key) && !IsInMessage(logEvent, p.Key)))
            output.Write($" {Plain(name)}={Plain(value.ToString(null, CultureInfo.InvariantCulture))}");
        output.WriteLine();
        if (logEvent.Exception is { } exception)
            foreach (var line in exception.ToString().Split('\n'))
                output.WriteLine($"    | {Plain(line.TrimEnd('\r'))}");
    }

    /// <summary>Text with everything escaped that is not to be seen: control characters, line and paragraph separators, and what turns
    /// the direction of writing.</summary>
    public static string Plain(string text)
    {
        var plain = new StringBuilder();
        foreach (var c in text.Length > LongestValue ? text.AsSpan(0, LongestValue) : text)
        {
            if (
                char.IsControl(c)
                || char.IsSurrogate(c)
                || char.GetUnicodeCategory(c)
                    is UnicodeCategory.Format
                        or UnicodeCategory.LineSeparator
                        or UnicodeCategory.ParagraphSeparator
            )
                plain.Append(CultureInfo.InvariantCulture, $"\\u{(int)c:x4}");
            else
                plain.Append(c);
        }

        return text.Length > LongestValue ? plain.Append('…').ToString() : plain.ToString();
    }

    private static bool IsInMessage(LogEvent logEvent, string name) =>
        logEvent.MessageTemplate.Tokens.OfType<Serilog.Parsing.PropertyToken>().Any(t => t.PropertyName == name);

    private static string Level(LogEventLevel level) =>
        level switch
        {
            LogEventLevel.Verbose => "VRB",
            LogEventLevel.Debug => "DBG",
            LogEventLevel.Information => "INF",
            LogEventLevel.Warning => "WRN",
            LogEventLevel.Error => "ERR",
            _ => "FTL",
        };
}
