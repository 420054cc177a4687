using System.Text.Json;
using Mendro.Core.Library;

namespace Mendro.Core.Planning;

/// <summary>What words stand for: functions, how they fail, and marks; data of the library (<c>said-concepts.json</c>).</summary>
internal sealed class SaidConcepts
{
    /// <summary>Words that name a function.</summary>
    /// <param name="Kinds">Kinds of function, the likeliest first.</param>
    /// <param name="Stems">Base forms of the words.</param>
    internal sealed record Named(IReadOnlyList<string> Kinds, IReadOnlySet<string> Stems);

    /// <summary>Words that say how a function fails.</summary>
    /// <param name="Look">Look it is.</param>
    /// <param name="Kinds">Kinds of function of which it may be said, the likeliest first.</param>
    /// <param name="Stems">Base forms of the words.</param>
    /// <param name="With">Words one of which has to stand in the same clause; none when empty.</param>
    /// <param name="Unless">Words beside which it is said of something else; none when empty.</param>
    /// <param name="Negated">True when a “not” has to stand before it; false when none may.</param>
    /// <param name="Alone">True when it is clear without the function named.</param>
    internal sealed record State(
        string Look, IReadOnlyList<string> Kinds, IReadOnlySet<string> Stems, IReadOnlySet<string> With, IReadOnlySet<string> Unless,
        bool Negated, bool Alone);

    /// <summary>Words that tell a mark.</summary>
    /// <param name="Mark">Mark of the library.</param>
    /// <param name="Things">Base forms of what it is on; none when the words alone tell it.</param>
    /// <param name="Stems">Base forms of what it is.</param>
    /// <param name="Unless">Words beside which it is no mark.</param>
    internal sealed record Marked(
        string Mark, IReadOnlySet<string> Things, IReadOnlySet<string> Stems, IReadOnlySet<string> Unless);

    /// <summary>Ways of saying that a unit gives up while it runs.</summary>
    /// <param name="Kinds">Kinds of function that fails so, the likeliest first.</param>
    /// <param name="Ways">Base forms of the words of each way.</param>
    /// <param name="Told">Ways by their very words: who switches it off says “I switch it off”.</param>
    /// <param name="Bare">Words that say so by themselves, where nothing is named behind them.</param>
    internal sealed record GivesUp(
        IReadOnlyList<string> Kinds, IReadOnlyList<IReadOnlyList<string>> Ways, IReadOnlySet<string> Told, IReadOnlySet<string> Bare);

    private sealed record FunctionRow(string Kinds, string Words);

    private sealed record StateRow(string Look, string Kinds, string Words, string? With, string? Unless, bool Negated, bool Alone);

    private sealed record MarkRow(string Mark, string? Things, string Words, string? Unless);

    private sealed record Data(
        string Source, List<FunctionRow> Functions, List<StateRow> States, List<MarkRow> Marks, string Complaints, string Up,
        string Own, string Press, string Dead, string Effects, string Answers, List<EndRow> Ends);

    private sealed record EndRow(string Kinds, string Ways, string? Told, string? Bare);

    private static readonly JsonSerializerOptions Options = new() { PropertyNameCaseInsensitive = true };

    /// <summary>What ships.</summary>
    public static SaidConcepts Shipped { get; } = new();

    private SaidConcepts()
    {
        var data = JsonSerializer.Deserialize<Data>(TradeLibrary.ReadText("said-concepts.json"), Options)!;
        Functions = [.. data.Functions.Select(f => new Named(f.Kinds.Split(' '), Stems(f.Words)))];
        States = [.. data.States.Select(s => new State(s.Look, s.Kinds.Split(' '), Stems(s.Words), Stems(s.With), Stems(s.Unless), s.Negated, s.Alone))];
        Marks = [.. data.Marks.Select(m => new Marked(m.Mark, Stems(m.Things), Stems(m.Words), Stems(m.Unless)))];
        (Complaints, Up) = (Stems(data.Complaints), Stems(data.Up));
        (Press, Dead, Effects, Answers) = (Stems(data.Press), Stems(data.Dead), Stems(data.Effects), Stems(data.Answers));
        Own = Split(data.Own).ToHashSet();
        Ends =
        [
            .. data.Ends.Select(e => new GivesUp(
                e.Kinds.Split(' '),
                [.. e.Ways.Split(", ").Select(way => (IReadOnlyList<string>)[.. Split(way).Select(Stem.Of)]).OrderByDescending(way => way.Count)],
                (e.Told ?? "").Split(", ").ToHashSet(),
                Split(e.Bare ?? "").ToHashSet()
            )),
        ];
        Words = data.Functions.Select(f => f.Words)
            .Concat([data.Complaints, data.Press, data.Dead, data.Effects, data.Answers])
            .Concat(data.States.Select(s => s.Words))
            .Concat(data.Marks.SelectMany(m => new[] { m.Words, m.Things ?? "" }))
            .Concat(data.Ends.Select(e => e.Ways.Replace(',', ' ')))
            .SelectMany(Split)
            .ToHashSet();
    }

    /// <summary>Words that name a function.</summary>
    public IReadOnlyList<Named> Functions { get; }

    /// <summary>Words that say how one fails.</summary>
    public IReadOnlyList<State> States { get; }

    /// <summary>Words that tell a mark.</summary>
    public IReadOnlyList<Marked> Marks { get; }

    /// <summary>Base forms of words that say of what is named that it is not as it should be, and not how.</summary>
    public IReadOnlySet<string> Complaints { get; }

    /// <summary>Base forms of words that say so with “up” behind them: “acts up”.</summary>
    public IReadOnlySet<string> Up { get; }

    /// <summary>Base forms of what hands do to a unit to make it work, or to make it fail.</summary>
    public IReadOnlySet<string> Press { get; }

    /// <summary>Base forms of words that say that nothing comes of what is named.</summary>
    public IReadOnlySet<string> Dead { get; }

    /// <summary>Base forms of what is missing behind a “no”: “no effect”.</summary>
    public IReadOnlySet<string> Effects { get; }

    /// <summary>Base forms of what a thing that works does, and of which a “not” says that it is dead.</summary>
    public IReadOnlySet<string> Answers { get; }

    /// <summary>Ways in which a unit gives up while it runs.</summary>
    public IReadOnlyList<GivesUp> Ends { get; }

    /// <summary>Words of everyday English that are no slip for another: “weeks” is not “reeks”.</summary>
    public IReadOnlySet<string> Own { get; }

    /// <summary>All words, as written.</summary>
    public IReadOnlySet<string> Words { get; }

    private static string[] Split(string words) => words.Split(' ', StringSplitOptions.RemoveEmptyEntries);

    private static HashSet<string> Stems(string? words) => [.. Split(words ?? "").Select(Stem.Of)];
}
