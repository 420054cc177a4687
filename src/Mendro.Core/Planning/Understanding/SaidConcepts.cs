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
    /// <param name="Negated">True when a “not” has to stand before it; false when none may.</param>
    /// <param name="Alone">True when it is clear without the function named.</param>
    internal sealed record State(
        string Look, IReadOnlyList<string> Kinds, IReadOnlySet<string> Stems, IReadOnlySet<string> With, bool Negated, bool Alone);

    /// <summary>Words that tell a mark.</summary>
    /// <param name="Mark">Mark of the library.</param>
    /// <param name="Things">Base forms of what it is on; none when the words alone tell it.</param>
    /// <param name="Stems">Base forms of what it is.</param>
    /// <param name="Unless">Words beside which it is no mark.</param>
    internal sealed record Marked(
        string Mark, IReadOnlySet<string> Things, IReadOnlySet<string> Stems, IReadOnlySet<string> Unless);

    private sealed record FunctionRow(string Kinds, string Words);

    private sealed record StateRow(string Look, string Kinds, string Words, string? With, bool Negated, bool Alone);

    private sealed record MarkRow(string Mark, string? Things, string Words, string? Unless);

    private sealed record Data(
        string Source, List<FunctionRow> Functions, List<StateRow> States, List<MarkRow> Marks, string Complaints, string Up);

    private static readonly JsonSerializerOptions Options = new() { PropertyNameCaseInsensitive = true };

    /// <summary>What ships.</summary>
    public static SaidConcepts Shipped { get; } = new();

    private SaidConcepts()
    {
        var data = JsonSerializer.Deserialize<Data>(TradeLibrary.ReadText("said-concepts.json"), Options)!;
        Functions = [.. data.Functions.Select(f => new Named(f.Kinds.Split(' '), Stems(f.Words)))];
        States = [.. data.States.Select(s => new State(s.Look, s.Kinds.Split(' '), Stems(s.Words), Stems(s.With), s.Negated, s.Alone))];
        Marks = [.. data.Marks.Select(m => new Marked(m.Mark, Stems(m.Things), Stems(m.Words), Stems(m.Unless)))];
        (Complaints, Up) = (Stems(data.Complaints), Stems(data.Up));
        Words = data.Functions.Select(f => f.Words).Append(data.Complaints).Concat(data.States.Select(s => s.Words)).Concat(data.Marks.Select(m => m.Words))
            .Concat(data.Marks.Select(m => m.Things ?? "")).SelectMany(Split).ToHashSet();
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

    /// <summary>All words, as written.</summary>
    public IReadOnlySet<string> Words { get; }

    private static string[] Split(string words) => words.Split(' ', StringSplitOptions.RemoveEmptyEntries);

    private static HashSet<string> Stems(string? words) => [.. Split(words ?? "").Select(Stem.Of)];
}
