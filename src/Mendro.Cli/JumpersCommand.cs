using System.Globalization;
using System.Text.Json;
using Mendro.Core.Boards;
using Mendro.Core.Profiles;
using Mendro.Solver;

namespace Mendro.Cli;

/// <summary><c>jumpers</c>: which wires join the pieces of broken nets, and by which way.</summary>
internal static class JumpersCommand
{
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(20);

    public static int Run(string[] args, TextWriter output, TextWriter error) =>
        Commands.OnFile("jumpers", args, error, (text, json) => Answer(text, json, output, error));

    private static int Answer(string text, bool json, TextWriter output, TextWriter error)
    {
        var task = JumperFile.Read(text);
        if (!task.IsOk)
            return Commands.Refuse(error, task.Problem!);
        var told = task.Value;
        var puzzle = new JumperPuzzle(told.Router, told.Points, told.Broken, told.ReheatMm);
        var answer = told.Answer(puzzle, JumperSolver.Solve(puzzle, Longest));
        if (json)
        {
            output.WriteLine(JsonSerializer.Serialize(answer, ProfileJson.Options));
            return Commands.Good;
        }

        foreach (var n in answer.Order)
            output.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{answer.Wires[n].Net}: {answer.Wires[n].From} to {answer.Wires[n].To}, "
                        + $"{answer.Wires[n].LengthMm:0.#} mm, cut {answer.Wires[n].CutMm:0} mm"
                )
            );
        foreach (var lost in answer.Unreachable)
            output.WriteLine($"{lost.Net}: cannot be joined: {lost.Reason}");
        return Commands.Good;
    }
}
