using System.Text.Json;
using Mendro.Core.Dismantling;
using Mendro.Core.Profiles;

namespace Mendro.Cli;

/// <summary><c>teardown</c>: the cheapest steps of taking a unit apart that reach some parts or probes.</summary>
internal static class TeardownCommand
{
    private const string Usage = "teardown wants: teardown --profile FILE --to ID[,ID…] [--done ID,…] --json";

    public static int Run(string[] args, TextWriter output, TextWriter error)
    {
        var options = CommandOptions.Read(args, ["--profile", "--to", "--done"], out var problem);
        if (options is null)
            return Commands.Refuse(error, problem!);
        if (options.Value("--profile") is not { } file || options.Value("--to") is not { } to)
            return Commands.Refuse(error, Usage);
        if (Commands.ReadText(file, out var text) is { } unreadable)
            return Commands.Refuse(error, unreadable);
        Sections? sections;
        try
        {
            // Only what is planned with is read: a profile under way may lack everything else.
            sections = JsonSerializer.Deserialize<Sections>(text, ProfileJson.Options);
        }
        catch (JsonException ex)
        {
            return Commands.Refuse(error, $"{file}: {ex.Path}: this is not valid JSON for the format.");
        }

        if (sections?.Format is not null and not DeviceProfile.FormatName)
            return Commands.Refuse(error, $"format: expected “{DeviceProfile.FormatName}”.");
        var graph = TeardownGraph.Of(sections?.Steps, sections?.Fasteners);
        if (!graph.IsOk)
            return Commands.Refuse(error, graph.Problem!);
        var plan = TeardownPlanner.Plan(graph.Value, Ids(to), Ids(options.Value("--done") ?? ""));
        if (!plan.IsOk)
            return Commands.Refuse(error, plan.Problem!);
        if (options.Json)
        {
            output.WriteLine(
                JsonSerializer.Serialize(
                    new
                    {
                        steps = plan.Value.Steps.Select(s => s.Id),
                        plan.Value.Minutes,
                        plan.Value.BackMinutes,
                        fasteners = plan.Value.FastenerCount,
                        plan.Value.Drivers,
                        plan.Value.Cautions,
                    },
                    ProfileJson.Options
                )
            );
            return Commands.Good;
        }

        foreach (var step in plan.Value.Steps)
            output.WriteLine(FormattableString.Invariant($"{step.Minutes, 5:0.#} min  {step.Name ?? step.Id}"));
        var (made, drivers) = (plan.Value, string.Join(", ", plan.Value.Drivers));
        output.WriteLine(
            FormattableString.Invariant(
                $"{made.Minutes:0.#} min, {made.BackMinutes:0.#} min back; {made.FastenerCount} fasteners; {drivers}"
            )
        );
        return Commands.Good;
    }

    private static string[] Ids(string list) => list.Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);

    private sealed record Sections(string? Format, IReadOnlyList<Fastener>? Fasteners, IReadOnlyList<TeardownStep>? Steps);
}
