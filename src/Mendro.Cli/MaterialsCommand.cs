using System.Text.Json;
using Mendro.Core.Methods;
using Mendro.Core.Profiles;

namespace Mendro.Cli;

/// <summary><c>materials</c>: what is put on a unit, step by step, checked against surfaces and against each other.</summary>
internal static class MaterialsCommand
{
    public static int Run(string[] args, TextWriter output, TextWriter error) =>
        Commands.OnFile("materials", args, error, (text, json) => Answer(text, json, output, error));

    private static int Answer(string text, bool json, TextWriter output, TextWriter error)
    {
        var steps = MaterialSequence.Read(text, MaterialLibrary.Shipped);
        if (!steps.IsOk)
            return Commands.Refuse(error, steps.Problem!);
        var report = MaterialCheck.Of(steps.Value, MaterialLibrary.Shipped);
        if (json)
        {
            output.WriteLine(JsonSerializer.Serialize(report, ProfileJson.Options));
            return Commands.Good;
        }

        foreach (var step in report.Steps.Where(s => s.Verdict != MaterialVerdict.Safe))
        {
            var told = steps.Value[step.Index];
            output.WriteLine(
                $"{step.Index + 1, 3}  {Word(step.Verdict), -10}  {told.Agent} on {told.Surface}: {string.Join("; ", step.Reasons)}"
            );
        }

        foreach (var stop in report.Stops)
            output.WriteLine($"{stop.Index + 1, 3}  STOP        {stop.Rule}: {stop.Reason}");
        if (report.Stops.Count == 0 && report.Steps.All(s => s.Verdict == MaterialVerdict.Safe))
            output.WriteLine("Nothing against it.");
        return Commands.Good;
    }

    private static string Word(MaterialVerdict verdict) =>
        verdict == MaterialVerdict.TestFirst ? "test first" : verdict.ToString().ToLowerInvariant();
}
