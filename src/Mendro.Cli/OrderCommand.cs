using System.Text.Json;
using Mendro.Core.Profiles;
using Mendro.Core.Stock;
using Mendro.Solver;

namespace Mendro.Cli;

/// <summary><c>order</c>: what to buy where, as much as can be had at the least total.</summary>
internal static class OrderCommand
{
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(60);

    public static int Run(string[] args, TextWriter output, TextWriter error) =>
        Commands.OnFile("order", args, error, (text, json) => Answer(text, json, output, error));

    private static int Answer(string text, bool json, TextWriter output, TextWriter error)
    {
        var task = OrderFile.Read(text);
        if (!task.IsOk)
            return Commands.Refuse(error, task.Problem!);
        var plan = OrderSolver.Solve(task.Value, Longest);
        if (!plan.Proved)
            return Commands.Refuse(error, "No split could be proved the cheapest within a minute; take fewer parts or suppliers.");
        if (json)
        {
            output.WriteLine(JsonSerializer.Serialize(plan, ProfileJson.Options));
            return Commands.Good;
        }

        foreach (var line in plan.Lines)
            output.WriteLine($"{line.Count} × {line.Part} from {line.Supplier}");
        foreach (var lost in plan.Missing)
            output.WriteLine($"{lost.Count} × {lost.Part}: nobody has it");
        output.WriteLine(FormattableString.Invariant($"{plan.Total} with postage"));
        return Commands.Good;
    }
}
