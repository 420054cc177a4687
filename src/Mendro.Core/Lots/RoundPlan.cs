using System.Text.Json;
using Mendro.Core.Diagnosis;
using Mendro.Core.Library;

namespace Mendro.Core.Lots;

/// <summary>Something that is laid out or heated once for several units.</summary>
/// <param name="Id">Id.</param>
/// <param name="Name">What is done.</param>
/// <param name="Tools">Tools of methods that ask for it.</param>
/// <param name="Minutes">Minutes it takes.</param>
public sealed record BenchStation(string Id, string Name, IReadOnlyList<string> Tools, double Minutes)
{
    private static readonly Lazy<IReadOnlyList<BenchStation>> Known = new(() =>
    {
        using var stream = typeof(BenchStation).Assembly.GetManifestResourceStream("Library/setups.json")!;
        return JsonSerializer.Deserialize<Kept>(stream, JsonSerializerOptions.Web)!.Stations;
    });

    /// <summary>All of them (minutes: common practice, no source).</summary>
    public static IReadOnlyList<BenchStation> All => Known.Value;

    /// <summary>Those that a move asks for.</summary>
    public static IReadOnlyList<BenchStation> For(Move move)
    {
        IEnumerable<string> tools =
            move.Repair is { } repair ? repair.Method.Tools
            : move.Probe is { } probe && !TradeLibrary.Of(probe.Kind).ByEye ? ["meter"]
            : [];
        return All.Where(s => tools.Any(t => s.Tools.Contains(t.Split(',')[0]))).ToList();
    }

    private sealed record Kept(IReadOnlyList<BenchStation> Stations);
}

/// <summary>A move that could be made on a unit in a round.</summary>
/// <param name="Number">Number of its job.</param>
/// <param name="Move">The move.</param>
/// <param name="IsBest">True when it is the best move of the unit by itself.</param>
public sealed record RoundItem(long Number, Move Move, bool IsBest);

/// <summary>The same move for several units in turn.</summary>
/// <param name="Key">What they have in common: kind of check or method, and kind of part.</param>
/// <param name="Title">What to do.</param>
/// <param name="Stations">What is laid out for it once.</param>
/// <param name="Items">Units, by number.</param>
/// <param name="SetUpMinutes">Minutes to lay it out.</param>
/// <param name="Minutes">Minutes for all of them, laying out included.</param>
/// <param name="Promise">Units to be expected to come on by it, for an hour.</param>
public sealed record LotRound(
    string Key,
    string Title,
    IReadOnlyList<BenchStation> Stations,
    IReadOnlyList<RoundItem> Items,
    double SetUpMinutes,
    double Minutes,
    double Promise
)
{
    /// <summary>Minutes spared against laying it out for each by itself.</summary>
    public double Saved => SetUpMinutes * (Items.Count - 1);
}

/// <summary>
/// Rounds over the units of a lot: first clean all, then the legs of all. A unit takes part in a round with its best move, or with one
/// that costs no more by the time that is spared because things are laid out already.
/// </summary>
public static class RoundPlan
{
    /// <summary>Plans the rounds that can be made now, those of one unit too, the one that promises most an hour first.</summary>
    /// <param name="units">Units with their moves, best first.</param>
    /// <param name="kindOf">Kind of the part that a move touches, for its key.</param>
    public static IReadOnlyList<LotRound> Of(IReadOnlyList<(long Number, IReadOnlyList<Move> Moves)> units, Func<long, Move, string> kindOf)
    {
        var offered = units
            .SelectMany(u => u.Moves.Select((m, n) => (Item: new RoundItem(u.Number, m, n == 0), Best: u.Moves[0], Key: KeyOf(m, kindOf(u.Number, m)))))
            .ToList();
        return offered
            .GroupBy(o => o.Key)
            .Where(g => g.Any(o => o.Item.IsBest))
            .Select(g =>
            {
                var stations = BenchStation.For(g.First().Item.Move);
                var setUp = stations.Sum(s => s.Minutes);
                var joins = g.Where(o => o.Item.IsBest || o.Item.Move.ExpectedMinutes - setUp <= o.Best.ExpectedMinutes)
                    .GroupBy(o => o.Item.Number)
                    .Select(u => u.OrderByDescending(o => o.Item.IsBest).First().Item)
                    .OrderBy(i => i.Number)
                    .ToList();
                var minutes = setUp + joins.Sum(i => i.Move.Minutes);
                var title = joins.First(i => i.IsBest).Move.Title;
                return new LotRound(g.Key, title, stations, joins, setUp, minutes, joins.Sum(i => Comes(i.Move)) / Math.Max(minutes, 0.1) * 60);
            })
            .OrderByDescending(r => r.Promise)
            .ThenBy(r => r.Key, StringComparer.Ordinal)
            .ToList();
    }

    /// <summary>What moves of like units have in common.</summary>
    public static string KeyOf(Move move, string kind) =>
        move.Repair is { } repair ? $"fix:{repair.Method.Id}:{kind}"
        : move.Probe is { } probe ? $"check:{probe.Kind}:{kind}".ToLowerInvariant()
        : move.Function is { } function ? $"try:{function.Kind}:{move.Provoke?.ToString().ToLowerInvariant() ?? (move.SwapOut is null ? "" : "swap")}"
        : move.Id;

    // A repair brings a unit on by the chance that it works then; a look by its part of the way to the end.
    private static double Comes(Move move) =>
        move.ChanceToWork
        ?? (move.Outlook is { WorkMinutes: > 0 } outlook ? outlook.ChanceToCure * Math.Min(1, move.Minutes / outlook.WorkMinutes) : 0.5);
}
