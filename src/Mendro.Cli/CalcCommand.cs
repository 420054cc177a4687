using System.Text.Json;
using Mendro.Core.Calculators;
using Mendro.Core.Profiles;

namespace Mendro.Cli;

/// <summary><c>calc</c>: one bench calculator.</summary>
internal static class CalcCommand
{
    public static int Run(string[] args, TextWriter output, TextWriter error)
    {
        var names = string.Join(", ", CalculatorShelf.All.Select(c => c.Name));
        var json = args.Contains("--json");
        var rest = args.Where(a => a != "--json").ToList();
        if (rest.Count == 0)
            return Commands.Refuse(error, $"calc wants a name: {names}.");
        if (CalculatorShelf.Find(rest[0]) is not { } calculator)
            return Commands.Refuse(error, $"“{rest[0]}” is not a calculator. Known: {names}.");
        var given = new Dictionary<string, string>();
        foreach (var pair in rest.Skip(1))
        {
            var mark = pair.IndexOf('=', StringComparison.Ordinal);
            if (mark < 1)
                return Commands.Refuse(
                    error,
                    $"“{pair}” is not of the form key=value. Keys: {string.Join(", ", calculator.Keys.Select(k => k.Name))}."
                );
            if (!given.TryAdd(pair[..mark], pair[(mark + 1)..]))
                return Commands.Refuse(error, $"{pair[..mark]}: is given twice.");
            // An empty value on the command line is a slip, not a field left empty.
            if (mark == pair.Length - 1)
                return Commands.Refuse(error, $"{pair[..mark]}: lacks its value.");
        }

        var run = calculator.Run(given);
        if (!run.IsOk)
            return Commands.Refuse(error, run.Problem!);
        var answer = run.Value.Answer;
        if (json)
        {
            output.WriteLine(
                JsonSerializer.Serialize(
                    new
                    {
                        name = calculator.Name,
                        inputs = run.Value.Inputs,
                        outputs = answer.Outputs.ToDictionary(o => o.Name, o => o.Value),
                        verdict = answer.Verdict,
                        source = run.Value.Source,
                    },
                    ProfileJson.Options
                )
            );
            return Commands.Good;
        }

        output.WriteLine(calculator.Title);
        foreach (var result in answer.Outputs)
            output.WriteLine($"  {result.Label}: {CalculatorWords.Value(result.Name, result.Value, result.Unit)}");
        output.WriteLine($"  {calculator.Formula} ({run.Value.Source})");
        return Commands.Good;
    }
}
