using System.Globalization;
using System.Text.Json;
using Mendro.Core;
using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.StandIns;

namespace Mendro.Cli;

/// <summary><c>casebook</c>: cases of practice played against the advice.</summary>
internal static class CasebookCommand
{
    public static int Run(string[] args, TextWriter output, TextWriter error)
    {
        if (args is not [var file, .. var rest] || file.StartsWith("--", StringComparison.Ordinal))
            return Commands.Refuse(error, "casebook wants a file first: casebook FILE [--profiles DIR] --json");
        var options = CommandOptions.Read(rest, ["--profiles"], out var problem);
        if (options is null)
            return Commands.Refuse(error, problem!);
        if (Commands.ReadText(file, out var text) is { } unreadable)
            return Commands.Refuse(error, unreadable);
        var book = CasebookFile.Read(text);
        if (!book.IsOk)
            return Commands.Refuse(error, book.Problem!);
        var models = Models(options.Value("--profiles"));
        if (!models.IsOk)
            return Commands.Refuse(error, models.Problem!);
        if (book.Value.FirstOrDefault(c => !models.Value.ContainsKey(c.Profile)) is { } lost)
            return Commands.Refuse(error, $"case “{lost.Id}”: there is no profile “{lost.Profile}”.");

        var player = new CasebookPlayer(new BenchCosts());
        var results = book.Value.AsParallel().AsOrdered().Select(c => player.Play(c, models.Value[c.Profile])).ToList();
        if (results.FirstOrDefault(r => r.Problem is not null) is { } bad)
            return Commands.Refuse(error, $"case “{bad.Id}”: {bad.Problem}");
        var result = new CasebookResult(results);
        if (options.Json)
        {
            output.WriteLine(JsonSerializer.Serialize(Answer(result), ProfileJson.Options));
            return Commands.Good;
        }

        foreach (var one in results)
        {
            var never = one.Forbidden.Count > 0 ? $", never: {string.Join(", ", one.Forbidden)}" : "";
            var held = one.Held ? "held" : "LOST";
            output.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{held, -5}{one.Id}: {one.Ended}, {one.Moves.Count} moves, {one.Minutes:0} min{never}"
                )
            );
        }

        output.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"{result.Held} of {results.Count} held ({result.ShareHeld:p0}), {result.WithForbidden} with something forbidden first"
            )
        );
        return Commands.Good;
    }

    private static object Answer(CasebookResult result) =>
        new
        {
            cases = result.Cases,
            totals = new
            {
                cases = result.Cases.Count,
                result.Held,
                result.ShareHeld,
                result.Finished,
                result.WithForbidden,
                meanMinutes = result.Cases.Count == 0 ? 0 : Math.Round(result.Cases.Average(c => c.Minutes), 2),
            },
        };

    /// <summary>The shipped models, and those of a folder, which come before a shipped one of the same id.</summary>
    private static Outcome<IReadOnlyDictionary<string, DeviceModel>> Models(string? folder)
    {
        var library = TradeLibrary.Shipped;
        var models = library.Profiles.Concat(library.Archetypes).ToDictionary(p => p.Id.ToString(), p => new DeviceModel(p, library));
        if (folder is not null)
        {
            if (!Directory.Exists(folder))
                return Outcome<IReadOnlyDictionary<string, DeviceModel>>.Fail($"There is no folder “{folder}”.");
            foreach (var file in Directory.EnumerateFiles(folder, "*.json").Order(StringComparer.Ordinal))
            {
                if (Commands.ReadText(file, out var text) is { } unreadable)
                    return Outcome<IReadOnlyDictionary<string, DeviceModel>>.Fail(unreadable);
                var read = ProfileJson.Read(text);
                if (!read.IsOk)
                    return Outcome<IReadOnlyDictionary<string, DeviceModel>>.Fail($"“{Path.GetFileName(file)}”: {read.Problem}");
                models[read.Value.Id.ToString()] = new DeviceModel(read.Value, library);
            }
        }

        return Outcome<IReadOnlyDictionary<string, DeviceModel>>.Ok(models);
    }
}
