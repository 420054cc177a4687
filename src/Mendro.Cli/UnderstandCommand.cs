using System.Text.Json;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;

namespace Mendro.Cli;

/// <summary><c>understand</c>: what a line typed at the door says, as evidence.</summary>
internal static class UnderstandCommand
{
    public static int Run(string[] args, TextWriter output, TextWriter error)
    {
        var json = args.Contains("--json");
        var rest = args.Where(a => a != "--json").ToList();
        var at = rest.IndexOf("--profile");
        var id = at >= 0 && at + 1 < rest.Count ? rest[at + 1] : null;
        if (at >= 0)
            rest.RemoveRange(at, Math.Min(2, rest.Count - at));
        if (rest is not [var text] || at >= 0 && id is null)
            return Commands.Refuse(error, "understand wants one text: understand \"TEXT\" [--profile ID] --json");
        var library = TradeLibrary.Shipped;
        var model = id is null ? null : library.Profiles.Concat(library.Archetypes).FirstOrDefault(p => p.Id == id);
        if (id is not null && model is null)
            return Commands.Refuse(error, $"no model or build is known by “{id}”");
        var said = model is null ? Understanding.Of(text, library.Profiles, library) : Understanding.Of(text, model, library);
        if (json)
        {
            output.WriteLine(
                JsonSerializer.Serialize(
                    new
                    {
                        profile = said.Profile?.Id,
                        facts = said.Facts.Select((f, n) => Entry(f, said.Grounds.ElementAtOrDefault(n) ?? "", Condition(f, said.Facts))),
                        marks = said.Facts.Select(f => f.Mark).OfType<string>(),
                        told = said.Facts.Where(f => f.Part is not null).Select(f => new { part = f.Part.ToString(), method = f.Method.ToString() }),
                        said.Unsure,
                        // The words as they were typed, whatever was made of them.
                        claim = text,
                    },
                    Options
                )
            );
            return Commands.Good;
        }

        output.WriteLine($"model: {said.Profile?.FullName ?? "not named"}");
        foreach (var fact in said.Facts)
            output.WriteLine(JsonSerializer.Serialize(Entry(fact, "", null), ProfileJson.Options));
        if (said.Unsure.Count > 0)
            output.WriteLine($"not sure: {string.Join(", ", said.Unsure)}");
        return Commands.Good;
    }

    // “profile”: null is an answer and must be told.
    private static readonly JsonSerializerOptions Options = new(ProfileJson.Options)
    {
        DefaultIgnoreCondition = System.Text.Json.Serialization.JsonIgnoreCondition.Never,
    };

    /// <summary>On what it depends, in a word: pressed, warm, or that it comes and goes; null for a plain fact.</summary>
    private static string? Condition(SaidFact fact, IReadOnlyList<SaidFact> all) =>
        fact.Provoked || fact.Look == "pressed" ? "pressed"
        : fact.Look == "warm" ? "warm"
        : fact.Function is { } function && all.Any(f => function.Equals(f.Function) && f.Passed != fact.Passed) ? "comes and goes"
        : null;

    private static Dictionary<string, object> Entry(SaidFact fact, string words, string? condition)
    {
        var entry = new Dictionary<string, object>();
        if (words.Length > 0)
            entry["words"] = words;
        if (condition is not null)
            entry["condition"] = condition;
        if (fact.Mark is { } mark)
            entry["mark"] = mark;
        if (fact.Grade is { } grade)
            entry["grade"] = MarkNoted.WordOf(grade);
        if (fact.Part is { } part)
        {
            entry["part"] = part;
            entry["method"] = fact.Method!;
            entry["claimed"] = true;
        }

        if (fact.Function is not { } function)
            return entry;
        entry["function"] = function;
        if (fact.Provoked)
        {
            entry["provoked"] = "pressed";
            entry["changed"] = true;
            return entry;
        }

        entry["result"] = fact.Passed ? "pass" : "fail";
        if (fact.Look is { } look)
            entry["look"] = look;
        if (fact.Starts > 1)
            entry["starts"] = fact.Starts;
        return entry;
    }
}
