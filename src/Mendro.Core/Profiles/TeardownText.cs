using System.Globalization;
using System.Text.RegularExpressions;

namespace Mendro.Core.Profiles;

/// <summary>
/// Fasteners and steps as lines of text, as one writes them at the bench: <c>s1: cross 00, 8 mm, at 12 80, on back, under foot, tray
/// long</c>, a hole as <c>h1: no screw, at 50 50</c>, and a step as <c>shell: Back off; frees cells, psu; after bay; one of hook, lift;
/// takes out s1, s2; unplugs ribbon; care mains; check pegs; 4 min, back 3 min; runs</c>.
/// </summary>
public static partial class TeardownText
{
    [GeneratedRegex("^(?<id>[a-z0-9][a-z0-9-]*)\\s*:\\s*(?<rest>.+)$")]
    private static partial Regex LinePattern();

    [GeneratedRegex("^at\\s+(?<x>[0-9.]+)\\s+(?<y>[0-9.]+)$")]
    private static partial Regex PlacePattern();

    [GeneratedRegex("^(?<mm>[0-9.]+)\\s*mm$")]
    private static partial Regex LengthPattern();

    [GeneratedRegex("^(?<out>[0-9.]+)\\s*min(\\s*,\\s*back\\s+(?<back>[0-9.]+)\\s*min)?$")]
    private static partial Regex MinutesPattern();

    /// <summary>Writes fasteners.</summary>
    public static string Write(IEnumerable<Fastener> fasteners) =>
        string.Join(
            '\n',
            fasteners.Select(f =>
                $"{f.Id}: "
                + string.Join(
                    ", ",
                    new[]
                    {
                        f.NoScrew ? "no screw"
                        : f.Size is { } size ? $"{f.Head} {size}"
                        : f.Head,
                        f.LengthMm is { } mm ? $"{N(mm)} mm" : null,
                        f is { X: { } x, Y: { } y } ? $"at {N(x)} {N(y)}" : null,
                        f.Face is { } face ? $"on {face}" : null,
                        f.Under is { } under ? $"under {under}" : null,
                        f.Group is { } group ? $"tray {group}" : null,
                    }.OfType<string>()
                )
            )
        );

    /// <summary>Reads fasteners; blank lines are skipped.</summary>
    public static IReadOnlyList<Fastener> ReadFasteners(string? text, out IReadOnlyList<ProfileProblem> problems)
    {
        var (found, wrong) = (new List<Fastener>(), new List<ProfileProblem>());
        foreach (var (place, id, clauses) in Lines(text, "fasteners", ',', wrong))
        {
            var head = clauses[0];
            var hole = head == "no screw";
            var space = hole ? -1 : head.IndexOf(' ');
            var made = new Fastener(
                id,
                hole ? "none"
                    : space < 0 ? head
                    : head[..space],
                space < 0 ? null : head[(space + 1)..].Trim(),
                NoScrew: hole
            );
            foreach (var clause in clauses.Skip(1))
            {
                Fastener? told = clause switch
                {
                    _ when LengthPattern().Match(clause) is { Success: true } m => made with { LengthMm = D(m.Groups["mm"].Value) },
                    _ when PlacePattern().Match(clause) is { Success: true } m => made with
                    {
                        X = D(m.Groups["x"].Value),
                        Y = D(m.Groups["y"].Value),
                    },
                    _ when After(clause, "on ") is { } face => made with { Face = face },
                    _ when After(clause, "under ") is { } under => made with { Under = under },
                    _ when After(clause, "tray ") is { } group => made with { Group = group },
                    _ => null,
                };
                if (told is null)
                    wrong.Add(new ProfileProblem(place, $"“{clause}” is none of: 8 mm, at 12 80, on back, under foot, tray long."));
                made = told ?? made;
            }

            found.Add(made);
        }

        problems = wrong;
        return found;
    }

    /// <summary>Writes steps.</summary>
    public static string Write(IEnumerable<TeardownStep> steps) =>
        string.Join(
            '\n',
            steps.Select(s =>
                $"{s.Id}: "
                + string.Join(
                    "; ",
                    new[] { (s.Name ?? s.Id).Replace(';', ',') }
                        .Concat(List("frees", s.Frees))
                        .Concat(List("after", s.Needs))
                        .Concat((s.AnyOf ?? []).SelectMany(g => List("one of", g)))
                        .Concat(List("takes out", s.Fasteners))
                        .Concat(List("unplugs", s.Cables))
                        .Concat(List("care", s.Cautions))
                        .Concat(List("check", s.Seats))
                        .Append($"{N(s.Minutes)} min, back {N(s.BackMinutes)} min")
                        .Concat(s.CanRun ? ["runs"] : [])
                )
            )
        );

    /// <summary>Reads steps; blank lines are skipped.</summary>
    public static IReadOnlyList<TeardownStep> ReadSteps(string? text, out IReadOnlyList<ProfileProblem> problems)
    {
        var (found, wrong) = (new List<TeardownStep>(), new List<ProfileProblem>());
        foreach (var (place, id, clauses) in Lines(text, "steps", ';', wrong))
        {
            var made = new TeardownStep(id, clauses[0]);
            foreach (var clause in clauses.Skip(1))
            {
                TeardownStep? told = clause switch
                {
                    "runs" => made with { CanRun = true },
                    _ when MinutesPattern().Match(clause) is { Success: true } m => made with
                    {
                        Minutes = D(m.Groups["out"].Value),
                        BackMinutes = m.Groups["back"].Success ? D(m.Groups["back"].Value) : D(m.Groups["out"].Value),
                    },
                    _ when After(clause, "frees ") is { } said => made with { Frees = Split(said) },
                    _ when After(clause, "after ") is { } said => made with { Needs = Split(said) },
                    _ when After(clause, "one of ") is { } said => made with { AnyOf = [.. made.AnyOf ?? [], Split(said)] },
                    _ when After(clause, "takes out ") is { } said => made with { Fasteners = Split(said) },
                    _ when After(clause, "unplugs ") is { } said => made with { Cables = Split(said) },
                    _ when After(clause, "care ") is { } said => made with { Cautions = Split(said) },
                    _ when After(clause, "check ") is { } said => made with { Seats = Split(said) },
                    _ => null,
                };
                if (told is null)
                    wrong.Add(
                        new ProfileProblem(
                            place,
                            $"“{clause}” begins with none of: frees, after, one of, takes out, unplugs, care, check, 4 min, runs."
                        )
                    );
                made = told ?? made;
            }

            found.Add(made);
        }

        problems = wrong;
        return found;
    }

    internal static IEnumerable<(string Place, string Id, List<string> Clauses)> Lines(
        string? text,
        string section,
        char between,
        List<ProfileProblem> wrong
    )
    {
        var lines = (text ?? "").Split('\n');
        for (var n = 0; n < lines.Length; n++)
        {
            var line = lines[n].Trim();
            if (line.Length == 0)
                continue;
            var place = $"{section}, line {n + 1}";
            var read = LinePattern().Match(line);
            var clauses = read.Groups["rest"].Value.Split(between, StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
            if (!read.Success || clauses.Length == 0)
                wrong.Add(new ProfileProblem(place, "begin with an id in lower case and a colon."));
            else
                yield return (place, read.Groups["id"].Value, [.. clauses]);
        }
    }

    /// <summary>Minutes of a clause such as <c>12 min</c>; null when it is none.</summary>
    internal static double? Minutes(string clause) =>
        MinutesPattern().Match(clause) is { Success: true } m && !m.Groups["back"].Success ? D(m.Groups["out"].Value) : null;

    internal static IEnumerable<string> List(string word, IReadOnlyList<string>? items) =>
        items is { Count: > 0 } ? [$"{word} {string.Join(", ", items.Select(i => i.Replace(';', ' ').Replace(',', ' ')))}"] : [];

    internal static string[] Split(string list) => list.Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);

    internal static string? After(string clause, string word) =>
        clause.StartsWith(word, StringComparison.Ordinal) ? clause[word.Length..].Trim() : null;

    internal static string N(double value) => value.ToString("0.###", CultureInfo.InvariantCulture);

    // A figure that is none is caught by the rules of the format.
    internal static double D(string text) =>
        double.TryParse(text, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var value) ? value : double.NaN;
}
