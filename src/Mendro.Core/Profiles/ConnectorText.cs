using System.Globalization;
using System.Text.RegularExpressions;

namespace Mendro.Core.Profiles;

/// <summary>
/// Connectors as lines of text: <c>slot: Cartridge slot, part slot, probe slot-beep</c>, then a line for each row of
/// contacts, <c>left 1 +2: supply 5 V, address A0, data D0</c>: its name, the first number, the step, and what they carry.
/// </summary>
public static partial class ConnectorText
{
    [GeneratedRegex(
        "^(?<id>[a-z0-9][a-z0-9-]*)\\s*:\\s*(?<name>[^,]+),\\s*part\\s+(?<part>[a-z0-9-]+)\\s*(,\\s*probe\\s+(?<probe>[a-z0-9-]+)\\s*)?$"
    )]
    private static partial Regex HeadPattern();

    [GeneratedRegex("^(?<name>[^\\s:]+)\\s+(?<first>-?[0-9]{1,4})\\s+(?<step>[-−+][0-9]{1,3})\\s*:\\s*(?<lines>.+)$")]
    private static partial Regex RowPattern();

    /// <summary>Writes connectors.</summary>
    public static string Write(IEnumerable<Connector> connectors) =>
        string.Join(
            '\n',
            connectors.SelectMany(c =>
                c.Rows.Select(r =>
                        string.Create(CultureInfo.InvariantCulture, $"{r.Name} {r.First} {r.Step:+0;-0;+0}: {string.Join(", ", r.Lines)}")
                    )
                    .Prepend($"{c.Id}: {c.Name}, part {c.Part}{(c.Probe is { } probe ? $", probe {probe}" : "")}")
            )
        );

    /// <summary>Reads connectors.</summary>
    /// <param name="text">Lines of text; blank ones are skipped.</param>
    /// <param name="problems">What could not be read, with its line.</param>
    public static IReadOnlyList<Connector> Read(string? text, out IReadOnlyList<ProfileProblem> problems)
    {
        var (found, wrong) = (new List<Connector>(), new List<ProfileProblem>());
        var lines = (text ?? "").Split('\n');
        for (var n = 0; n < lines.Length; n++)
        {
            var line = lines[n].Trim();
            if (line.Length == 0)
                continue;
            var place = $"connectors, line {n + 1}";
            if (HeadPattern().Match(line) is { Success: true } head)
            {
                found.Add(
                    new Connector(
                        head.Groups["id"].Value,
                        head.Groups["name"].Value.Trim(),
                        head.Groups["part"].Value,
                        head.Groups["probe"].Success ? new ProbeId(head.Groups["probe"].Value) : default(ProbeId?),
                        []
                    )
                );
            }
            else if (RowPattern().Match(line) is { Success: true } row)
            {
                if (found.Count == 0)
                {
                    wrong.Add(new ProfileProblem(place, "begin with the connector: “slot: Cartridge slot, part slot, probe slot-beep”."));
                    continue;
                }

                var carried = row.Groups["lines"].Value.Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
                var step = int.Parse(
                    row.Groups["step"].Value.Replace('−', '-'),
                    NumberStyles.AllowLeadingSign,
                    CultureInfo.InvariantCulture
                );
                found[^1] = found[^1] with
                {
                    Rows =
                    [
                        .. found[^1].Rows,
                        new ContactRow(
                            row.Groups["name"].Value,
                            int.Parse(row.Groups["first"].Value, CultureInfo.InvariantCulture),
                            step,
                            carried
                        ),
                    ],
                };
            }
            else
            {
                wrong.Add(
                    new ProfileProblem(
                        place,
                        "neither a connector (“slot: Cartridge slot, part slot, probe slot-beep”) nor a row of it (“left 1 +2: "
                            + "supply 5 V, address A0”)."
                    )
                );
            }
        }

        foreach (var empty in found.Where(c => c.Rows.Count == 0))
            wrong.Add(new ProfileProblem("connectors", $"“{empty.Name}” has no row of contacts."));
        problems = wrong;
        return found;
    }
}
