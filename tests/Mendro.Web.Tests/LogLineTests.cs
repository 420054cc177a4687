using System.Text.RegularExpressions;
using CsCheck;
using Serilog.Events;
using Serilog.Parsing;

namespace Mendro.Web.Tests;

/// <summary>What is told from outside stays within its line of the log.</summary>
public sealed partial class LogLineTests
{
    [GeneratedRegex(@"^\d\d:\d\d:\d\d WRN ")]
    private static partial Regex Begins();

    [Fact]
    public void Whatever_is_told_one_event_is_one_line_without_a_sign_that_steers_the_terminal() =>
        Gen.String.Sample(
            told =>
            {
                var line = Written("The {Thing} is gone", told, null);
                line[^1].ShouldBe('\n');
                line.TrimEnd('\r', '\n')
                    .ShouldAllBe(c => c >= ' ' && c != '\u007f' && !char.IsControl(c) && c != '\u2028' && c != '\u202e');
            },
            iter: 2000
        );

    [Fact]
    public void A_forged_line_and_an_escape_sequence_are_seen_for_what_they_are()
    {
        var line = Written(
            "The {Thing} is gone",
            "meter\n12:00:00 ERR All money is gone\u001b[31m\u202e",
            new InvalidOperationException("a\n12:00:00 ERR b")
        );
        var lines = line.TrimEnd().Split('\n');
        lines[0].ShouldEndWith(@"The ""meter\u000a12:00:00 ERR All money is gone\u001b[31m\u202e"" is gone");
        lines.Skip(1).ShouldAllBe(l => l.StartsWith("    | ", StringComparison.Ordinal));
        lines.Count(l => Begins().IsMatch(l)).ShouldBe(1);
    }

    private static string Written(string template, string told, Exception? exception)
    {
        var written = new StringWriter();
        new LogLine().Format(
            new LogEvent(
                DateTimeOffset.UnixEpoch,
                LogEventLevel.Warning,
                exception,
                new MessageTemplateParser().Parse(template),
                [new LogEventProperty("Thing", new ScalarValue(told))]
            ),
            written
        );
        return written.ToString();
    }
}
