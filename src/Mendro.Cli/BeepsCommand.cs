using System.Text.Json;
using Mendro.Core.Boards;
using Mendro.Core.Profiles;

namespace Mendro.Cli;

/// <summary><c>beeps</c>: which continuity test to make next to find the break in a net.</summary>
internal static class BeepsCommand
{
    public static int Run(string[] args, TextWriter output, TextWriter error) =>
        Commands.OnFile("beeps", args, error, (text, json) => Answer(text, json, output, error));

    private static int Answer(string text, bool json, TextWriter output, TextWriter error)
    {
        var answer = BeepsFile.Answer(text);
        if (!answer.IsOk)
            return Commands.Refuse(error, answer.Problem!);
        if (json)
        {
            output.WriteLine(JsonSerializer.Serialize(answer.Value, ProfileJson.Options));
            return Commands.Good;
        }

        output.WriteLine(
            answer.Value.Test is [var a, var b]
                ? FormattableString.Invariant($"Test {a} to {b}; about {answer.Value.ExpectedTests:0.#} tests to go.")
                : "Enclosed as closely as these points allow."
        );
        foreach (var one in answer.Value.Suspects)
            output.WriteLine($"{one.P, 8:p1}  {one.A} – {one.B}");
        return Commands.Good;
    }
}
