using System.Globalization;
using System.Text.RegularExpressions;

namespace Mendro.Core.Library;

/// <summary>
/// Steps of a method as lines, as one writes them at the bench: <c>Flood the slot. | put contact-cleaner on plated-contacts | care
/// alcohol-fire</c>, <c>Let it dry. | wait dry 2-10</c>, <c>Heat both ends. | iron 350 | 2 min</c>; <c>rinse</c> and <c>power</c> stand
/// alone. What it cures: <c>power-switch dirty 0.72</c>.
/// </summary>
public static partial class MethodText
{
    /// <summary>Most steps.</summary>
    public const int MostSteps = 40;

    [GeneratedRegex("^wait\\s+(?<kind>[a-z]+)\\s+(?<low>[0-9.]+)(\\s*-\\s*(?<high>[0-9.]+))?$")]
    private static partial Regex WaitPattern();

    [GeneratedRegex("^put\\s+(?<agent>\\S+)\\s+on\\s+(?<surface>\\S+)$")]
    private static partial Regex PutPattern();

    [GeneratedRegex("^iron\\s+(?<c>[0-9.]+)$")]
    private static partial Regex IronPattern();

    [GeneratedRegex("^(?<m>[0-9.]+)\\s*min$")]
    private static partial Regex MinutesPattern();

    /// <summary>Writes steps.</summary>
    public static string Write(IEnumerable<MethodStep> steps) => string.Join('\n', steps.Select(Line));

    /// <summary>Reads steps; blank lines are skipped.</summary>
    /// <param name="text">Lines.</param>
    /// <param name="problem">What is wrong, with its line; null when all was read.</param>
    public static IReadOnlyList<MethodStep> Read(string? text, out string? problem)
    {
        var steps = new List<MethodStep>();
        var lines = (text ?? "").Split('\n').Select(l => l.Trim()).ToList();
        for (var n = 0; n < lines.Count; n++)
        {
            if (lines[n].Length == 0)
                continue;
            var step = Step(lines[n], out var wrong);
            if (wrong is not null)
            {
                problem = $"Line {n + 1}: {wrong}";
                return [];
            }

            steps.Add(step!);
        }

        problem =
            steps.Count == 0 ? "A method has a step at least."
            : steps.Count > MostSteps ? $"A method has at most {MostSteps} steps."
            : null;
        return problem is null ? steps : [];
    }

    /// <summary>Writes what a method cures.</summary>
    public static string Write(IEnumerable<Cure> cures) =>
        string.Join('\n', cures.Select(c => string.Create(CultureInfo.InvariantCulture, $"{c.Kind} {c.Mode} {c.Success:0.###}")));

    /// <summary>Reads what a method cures.</summary>
    /// <param name="text">Lines.</param>
    /// <param name="library">Kinds of part and their modes.</param>
    /// <param name="problem">What is wrong, with its line; null when all was read.</param>
    public static IReadOnlyList<Cure> ReadCures(string? text, TradeLibrary library, out string? problem)
    {
        var cures = new List<Cure>();
        var lines = (text ?? "").Split('\n').Select(l => l.Trim()).ToList();
        for (var n = 0; n < lines.Count; n++)
        {
            if (lines[n].Length == 0)
                continue;
            problem = $"Line {n + 1}: kind of part, mode and chance, such as: power-switch dirty 0.7";
            if (lines[n].Split(' ', StringSplitOptions.RemoveEmptyEntries) is not [var kind, var mode, var chance])
                return [];
            if (Number(chance) is not { } success || success > 1)
                return [];
            if (kind != "*" && library.FindPartKind(kind) is not { } known)
            {
                problem = $"Line {n + 1}: there is no kind of part “{kind}”.";
                return [];
            }

            if (kind != "*" && mode != "*" && library.FindPartKind(kind)!.Modes.All(m => m.Id != mode))
            {
                problem = $"Line {n + 1}: “{kind}” does not fail as “{mode}”.";
                return [];
            }

            cures.Add(new Cure(kind, mode, success));
        }

        problem = null;
        return cures;
    }

    private static string Line(MethodStep step)
    {
        var clauses = new List<string> { step.Do };
        if (step.Wait is { } wait)
            clauses.Add($"wait {wait.Kind.ToString().ToLowerInvariant()} {N(wait.Minutes)}{(wait.Most is { } most ? "-" + N(most) : "")}");
        if (step.Agent is { } agent)
            clauses.Add($"put {agent} on {step.Surface}");
        if (step.Rinse)
            clauses.Add("rinse");
        if (step.Heat is { } celsius)
            clauses.Add($"iron {N(celsius)}");
        if (step.Power)
            clauses.Add("power");
        if (step.Minutes is { } minutes)
            clauses.Add($"{N(minutes)} min");
        if (step.Cautions is { Count: > 0 } cautions)
            clauses.Add("care " + string.Join(", ", cautions));
        return string.Join(" | ", clauses);
    }

    private static MethodStep? Step(string line, out string? problem)
    {
        var clauses = line.Split('|').Select(c => c.Trim()).ToList();
        var step = new MethodStep(clauses[0]);
        problem = clauses[0].Length is 0 or > 300 ? "say in up to 300 characters what to do." : null;
        foreach (var clause in clauses.Skip(1))
        {
            if (clause == "rinse")
                step = step with { Rinse = true };
            else if (clause == "power")
                step = step with { Power = true };
            else if (WaitPattern().Match(clause) is { Success: true } wait && Number(wait.Groups["low"].Value) is > 0 and var low)
            {
                if (!Enum.TryParse<WaitKind>(wait.Groups["kind"].Value, true, out var kind))
                {
                    problem = $"“{wait.Groups["kind"].Value}” is none of soak, boil, dry, cure, sun, charge, play.";
                    return null;
                }

                var high = Number(wait.Groups["high"].Value);
                step = step with { Wait = new StepWait(kind, low, high > low ? high : null) };
            }
            else if (PutPattern().Match(clause) is { Success: true } put)
                step = step with { Agent = put.Groups["agent"].Value, Surface = put.Groups["surface"].Value };
            else if (IronPattern().Match(clause) is { Success: true } iron && Number(iron.Groups["c"].Value) is <= 500 and var celsius)
                step = step with { Heat = celsius };
            else if (MinutesPattern().Match(clause) is { Success: true } minutes && Number(minutes.Groups["m"].Value) is { } spent)
                step = step with { Minutes = spent };
            else if (clause.StartsWith("care ", StringComparison.Ordinal))
                step = step with { Cautions = clause["care ".Length..].Split(',').Select(c => c.Trim()).Where(c => c.Length > 0).ToList() };
            else
            {
                problem = $"“{clause}” is not understood. Try: wait dry 5, put vinegar on battery-contacts, iron 350, rinse, power, 2 min, care acid";
                return null;
            }
        }

        return step;
    }

    private static double? Number(string text) =>
        double.TryParse(text, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var told) && told < 100_000 ? told : null;

    private static string N(double value) => value.ToString("0.###", CultureInfo.InvariantCulture);
}
