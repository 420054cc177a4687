using System.Text.Json;
using Mendro.Core.Profiles;
using Mendro.Core.Scheduling;
using Mendro.Solver;

namespace Mendro.Cli;

/// <summary><c>plan</c>: when to do what, and by whom.</summary>
internal static class PlanCommand
{
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(8.5);

    public static int Run(string[] args, TextWriter output, TextWriter error) =>
        Commands.OnFile("plan", args, error, (text, json) => Answer(text, json, output, error));

    private static int Answer(string text, bool json, TextWriter output, TextWriter error)
    {
        var load = PlanFile.Read(text);
        if (!load.IsOk)
            return Commands.Refuse(error, load.Problem!);
        var plan = DaySolver.Solve(load.Value, Longest);
        if (json)
        {
            var said = new
            {
                tasks = plan.Tasks.Select(Said),
                objective = plan.Objective,
                optimal = plan.Optimal,
            };
            output.WriteLine(JsonSerializer.Serialize(said, ProfileJson.Options));
            return Commands.Good;
        }

        foreach (var task in plan.Tasks.OrderBy(t => t.Start))
        {
            var who = task.Person is { } person ? $", person {person}" : "";
            output.WriteLine(FormattableString.Invariant($"{task.Start,6:0.##} to {task.End,6:0.##}  {task.Id}{who}"));
        }

        output.WriteLine(FormattableString.Invariant($"{plan.Objective:0.##}{(plan.Optimal ? ", proved" : "")}"));
        return Commands.Good;
    }

    // A passive task says that it has nobody: the member is there, and empty.
    private static Dictionary<string, object?> Said(PlannedTask task) =>
        new()
        {
            ["id"] = task.Id,
            ["start"] = task.Start,
            ["end"] = task.End,
            ["person"] = task.Person,
        };
}
