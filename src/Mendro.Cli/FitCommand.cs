using System.Text.Json;
using Mendro.Core.Capacitors;
using Mendro.Core.Profiles;
using Mendro.Solver;

namespace Mendro.Cli;

/// <summary><c>fit</c>: where every capacitor of a board goes, upright or lying.</summary>
internal static class FitCommand
{
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(20);

    public static int Run(string[] args, TextWriter output, TextWriter error) =>
        Commands.OnFile("fit", args, error, (text, json) => Answer(text, json, output, error));

    private static int Answer(string text, bool json, TextWriter output, TextWriter error)
    {
        var task = FitFile.Read(text);
        if (!task.IsOk)
            return Commands.Refuse(error, task.Problem!);
        var told = task.Value;
        var puzzle = new FitPuzzle(told.Board, told.Choices, told.AngleStep, told.BendMm, told.GapMm);
        var plan = FitSolver.Solve(puzzle, Longest);
        if (json)
        {
            output.WriteLine(JsonSerializer.Serialize(plan, ProfileJson.Options));
            return Commands.Good;
        }

        foreach (var one in plan.Placements)
            output.WriteLine(
                one.Pose == FitPose.Upright
                    ? $"{one.Refdes}: {one.Part}, upright, {one.Top:0.#} mm high"
                    : $"{one.Refdes}: {one.Part}, lying toward {one.Angle:0}°, its legs {one.DistanceMm:0.#} mm long"
            );
        foreach (var one in plan.Unplaced)
            output.WriteLine($"{one.Refdes}: does not fit: {one.Reason}, by {one.ByMm:0.##} mm");
        return Commands.Good;
    }
}
