using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <summary>How a thing can be turned over.</summary>
/// <param name="Value">Empty for as heard; <c>pass</c>, <c>fail</c>, <c>fail:look</c>, <c>there</c> or <c>none</c>.</param>
/// <param name="Words">In words.</param>
/// <param name="Sign"><c>ok</c>, <c>bad</c>, <c>doubt</c>, <c>mark</c> or <c>none</c>.</param>
public sealed record SaidChoice(string Value, string Words, string Sign);

/// <summary>One thing heard in a line, which can be turned over before the line is filed.</summary>
/// <param name="Key"><c>fn.</c> and a function, <c>mark.</c> and a mark, or <c>told.</c> and a part.</param>
/// <param name="Name">What it is about.</param>
/// <param name="Chosen">Value that holds now.</param>
/// <param name="Choices">What it can be; the first is as it was heard.</param>
public sealed record SaidChip(string Key, string Name, string Chosen, IReadOnlyList<SaidChoice> Choices)
{
    private const string Function = "fn.";
    private const string Mark = "mark.";

    /// <summary>The things heard, and those that were turned or added since, in the order of the line.</summary>
    /// <param name="heard">What was heard of a model.</param>
    /// <param name="turns">What was turned, by key.</param>
    /// <param name="library">The trade library.</param>
    public static IReadOnlyList<SaidChip> Of(Understanding heard, IReadOnlyDictionary<string, string> turns, TradeLibrary library)
    {
        if (heard.Profile is not { } profile)
            return [];
        var keys = heard.Facts.Select(KeyOf).Concat(turns.Where(t => t.Value.Length > 0).Select(t => t.Key)).Distinct();
        return [.. keys.Select(k => Make(k, heard, profile, turns.GetValueOrDefault(k, ""), library)).OfType<SaidChip>()];
    }

    /// <summary>What is left to say of functions of which nothing was heard.</summary>
    public static IReadOnlyList<(DeviceFunction Function, IReadOnlyList<SaidChoice> Choices)> More(
        Understanding heard, IReadOnlyDictionary<string, string> turns, TradeLibrary library) =>
        heard.Profile is { } profile
            ?
            [
                .. profile
                    .Functions.Where(f => heard.Facts.All(s => KeyOf(s) != Function + f.Id) && turns.GetValueOrDefault(Function + f.Id, "").Length == 0)
                    .Select(f => (f, (IReadOnlyList<SaidChoice>)ChoicesOf(f, library).ToList())),
            ]
            : [];

    /// <summary>The line as it was turned.</summary>
    /// <param name="heard">What was heard.</param>
    /// <param name="turns">What was turned, by key; what its model does not have is left out.</param>
    /// <param name="library">The trade library.</param>
    public static Understanding Turn(Understanding heard, IReadOnlyDictionary<string, string> turns, TradeLibrary library)
    {
        if (heard.Profile is not { } profile)
            return heard;
        var facts = heard.Facts.ToList();
        foreach (var (key, to) in turns.Where(t => t.Value.Length > 0))
        {
            if (key.StartsWith(Mark, StringComparison.Ordinal) && library.FindMark(key[Mark.Length..]) is { } mark)
            {
                facts.RemoveAll(f => f.Mark == mark.Id);
                if (to == "there")
                    facts.Add(new SaidFact(null, Mark: mark.Id));
            }
            else if (key.StartsWith(Function, StringComparison.Ordinal) && profile.FindFunction(key[Function.Length..]) is { } function)
            {
                facts.RemoveAll(f => KeyOf(f) == key);
                var look = to.StartsWith("fail:", StringComparison.Ordinal) ? library.FindLook(function.Kind, to[5..])?.Id : null;
                if (to == "pass" || to.StartsWith("fail", StringComparison.Ordinal))
                    facts.Add(new SaidFact(function.Id, to == "pass", look));
            }
        }

        return heard with { Facts = facts };
    }

    private static string KeyOf(SaidFact fact) =>
        fact.Mark is { } mark ? Mark + mark
        : fact.Part is { } part ? "told." + part
        : Function + fact.Function;

    private static SaidChip? Make(string key, Understanding heard, DeviceProfile profile, string chosen, TradeLibrary library)
    {
        var facts = heard.Facts.Where(f => KeyOf(f) == key).ToList();
        if (key.StartsWith(Mark, StringComparison.Ordinal))
        {
            if (library.FindMark(key[Mark.Length..]) is not { } mark)
                return null;
            var seen = facts.Count > 0;
            var words = MarkNoted.WordOf(facts.FirstOrDefault()?.Grade) is { Length: > 0 } grade ? grade : "seen";
            return new SaidChip(
                key,
                mark.Name,
                chosen,
                seen ? [new("", words, "mark"), NotSaid] : [new("", "not said", "none"), new("there", "seen", "mark")]
            );
        }

        if (key.StartsWith("told.", StringComparison.Ordinal))
            return profile.FindPart(key[5..]) is { } part ? new SaidChip(key, part.Name, "", [new("", "worked on before; stays in the claim", "doubt")]) : null;
        if (profile.FindFunction(key[Function.Length..]) is not { } function)
            return null;
        var first = AsHeard(function, facts, library);
        return new SaidChip(
            key,
            function.Name,
            chosen,
            [first, .. ChoicesOf(function, library).Where(c => c.Words != first.Words), .. facts.Count > 0 ? [NotSaid] : (SaidChoice[])[]]
        );
    }

    private static readonly SaidChoice NotSaid = new("none", "not said", "none");

    private static SaidChoice AsHeard(DeviceFunction function, List<SaidFact> facts, TradeLibrary library)
    {
        if (facts.Count == 0)
            return new("", "not said", "none");
        if (facts[0].Provoked)
            return new("", "changes when pressed; stays in the claim", "doubt");
        var words = facts.Select(f => Words(function, f, library)).Distinct().ToList();
        return new("", string.Join(" · ", words), facts.Exists(f => !f.Passed) ? "bad" : "ok");
    }

    private static string Words(DeviceFunction function, SaidFact fact, TradeLibrary library) =>
        (fact.Passed ? "works" : library.FindLook(function.Kind, fact.Look)?.Name ?? "fails")
        + (fact.Starts > 1 ? FormattableString.Invariant($", {fact.Starts} times") : "");

    private static IEnumerable<SaidChoice> ChoicesOf(DeviceFunction function, TradeLibrary library) =>
        [
            new("pass", "works", "ok"),
            new("fail", "fails", "bad"),
            .. library.FindFunctionKind(function.Kind)?.Looks.Select(l => new SaidChoice("fail:" + l.Id, l.Name, "bad")) ?? [],
        ];
}
