using System.Runtime.CompilerServices;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Web.Drawing;

/// <summary>A block on the path map: a part or a function, in its grid cell.</summary>
/// <param name="Id">Part or function id.</param>
/// <param name="IsFunction">True for a function.</param>
/// <param name="Column">Column, from the source at the left.</param>
/// <param name="Row">Row from the top.</param>
public sealed record MapBlock(string Id, bool IsFunction, int Column, int Row);

/// <summary>A line on the map from one block to the next.</summary>
/// <param name="From">Block the flow leaves.</param>
/// <param name="To">Block it enters.</param>
/// <param name="Carries">What flows.</param>
public sealed record MapLine(MapBlock From, MapBlock To, Carries Carries);

/// <summary>
/// Places a profile on a grid: parts in columns along the flow, functions in the last column. Layers are longest-path
/// layers pulled towards what they feed (the layering step of Sugiyama, Tagawa and Toda 1981); consecutive thin layers
/// share a column, so that a long supply chain folds downwards and the map stays as wide as the screen.
/// </summary>
public sealed class MapLayout
{
    /// <summary>Most columns of parts; more would not be legible beside the facts and the moves.</summary>
    public const int PartColumns = 4;

    private static readonly ConditionalWeakTable<DeviceProfile, MapLayout> Made = [];

    /// <summary>The layout of a profile, made when it is first drawn and kept as long as the profile is.</summary>
    public static MapLayout Of(DeviceProfile profile) => Made.GetValue(profile, p => new MapLayout(p));

    /// <summary>Lays a profile out.</summary>
    public MapLayout(DeviceProfile profile)
    {
        var graph = ProfileGraph.Of(profile, TradeLibrary.Shipped);
        var layers = Layers(profile, graph);
        var columns = Fold(layers);
        var rows = Math.Max(columns.Max(c => c.Sum(l => l.Count)), profile.Functions.Count);
        var cells = new Dictionary<string, (int Column, int Row)>();
        for (var c = 0; c < columns.Count; c++)
        {
            var row = (rows - columns[c].Sum(l => l.Count)) / 2;
            // Barycentre of what feeds them is a good start; ties keep the profile's order.
            foreach (var layer in columns[c])
            foreach (var id in layer.OrderBy(id => Barycentre(graph.Into(id).Select(f => f.From.Value), cells)))
                cells["p:" + id] = (c, row++);
        }

        // Functions keep the order of the baseline test, which is the order of the flow.
        var first = (rows - profile.Functions.Count) / 2;
        for (var n = 0; n < profile.Functions.Count; n++)
            cells["f:" + profile.Functions[n].Id] = (columns.Count, first + n);

        var lines = FindLines(profile, graph);
        MapOrdering.Refine(cells, cells.Keys.Where(k => k[0] == 'p').ToList(), lines, rows);
        var blocks = cells.ToDictionary(c => c.Key, c => new MapBlock(c.Key[2..], c.Key[0] == 'f', c.Value.Column, c.Value.Row));
        Rows = rows;
        Columns = columns.Count + 1;
        Blocks = [.. blocks.Values];
        Lines = lines.Select(l => new MapLine(blocks[l.From], blocks[l.To], l.Carries)).ToList();
    }

    /// <summary>Rows of the grid.</summary>
    public int Rows { get; }

    /// <summary>Columns of the grid, the functions' column included.</summary>
    public int Columns { get; }

    /// <summary>Blocks; no two share a cell.</summary>
    public IReadOnlyList<MapBlock> Blocks { get; }

    /// <summary>Lines between blocks.</summary>
    public IReadOnlyList<MapLine> Lines { get; }

    private static List<List<PartId>> Layers(DeviceProfile profile, ProfileGraph graph)
    {
        var ids = profile.Parts.Select(p => p.Id).Distinct().ToList();
        var layer = ids.ToDictionary(id => id, _ => 0);
        // Bounded relaxation: a profile with a circle still gets a drawing, and its problem is listed elsewhere.
        for (var pass = 0; pass < ids.Count; pass++)
        {
            var moved = false;
            foreach (var id in ids)
            foreach (var feed in graph.OutOf(id))
                if (layer[feed.To] <= layer[id] && layer[id] < ids.Count)
                    (layer[feed.To], moved) = (layer[id] + 1, true);
            if (!moved)
                break;
        }

        // From the end back, so that a chain of sources moves as a whole next to what it feeds.
        foreach (var id in ids.OrderByDescending(id => layer[id]))
            if (graph.OutOf(id).Count > 0)
                layer[id] = Math.Max(layer[id], graph.OutOf(id).Min(f => layer[f.To]) - 1);
        return ids.GroupBy(id => layer[id]).OrderBy(g => g.Key).Select(g => g.ToList()).ToList();
    }

    /// <summary>Splits the layers into consecutive groups so that the fullest column is as short as can be.</summary>
    private static List<List<List<PartId>>> Fold(List<List<PartId>> layers)
    {
        var count = Math.Min(PartColumns, Math.Max(1, layers.Count));
        var capacity = layers.Max(l => l.Count);
        while (Pack(layers, capacity).Count > count)
            capacity++;
        return Pack(layers, capacity);
    }

    private static List<List<List<PartId>>> Pack(List<List<PartId>> layers, int capacity)
    {
        var columns = new List<List<List<PartId>>> { new() };
        var used = 0;
        foreach (var layer in layers)
        {
            if (used + layer.Count > capacity && used > 0)
            {
                columns.Add([]);
                used = 0;
            }

            columns[^1].Add(layer);
            used += layer.Count;
        }

        return columns;
    }

    private static double Barycentre(IEnumerable<string> neighbours, Dictionary<string, (int Column, int Row)> cells) =>
        neighbours
            .Select(id => cells.TryGetValue("p:" + id, out var cell) ? cell.Row : (double?)null)
            .OfType<double>()
            .DefaultIfEmpty(1e6)
            .Average();

    private static List<(string From, string To, Carries Carries)> FindLines(DeviceProfile profile, ProfileGraph graph)
    {
        var parts = profile.Parts.Select(p => p.Id).ToHashSet();
        var lines = new List<(string, string, Carries)>();
        foreach (var feed in profile.Feeds)
            if (feed.From != feed.To && parts.Contains(feed.From) && parts.Contains(feed.To))
                lines.Add(("p:" + feed.From, "p:" + feed.To, feed.Carries));
        foreach (var function in profile.Functions)
        {
            // A need that is upstream of another need is drawn through it; so is a board that a button reports to.
            var needs = function.Needs.Where(parts.Contains).Distinct().ToList();
            var drawn = needs.Where(n =>
                !needs.Any(m =>
                    m != n && (graph.Upstream(m).Contains(n) || graph.OutOf(m).Any(f => f.To == n && f.Carries == Carries.Input))
                )
            );
            foreach (var need in drawn)
                lines.Add(("p:" + need, "f:" + function.Id, CarriesTo(function)));
        }

        return lines.Distinct().ToList();
    }

    private static Carries CarriesTo(DeviceFunction function) =>
        function.Kind switch
        {
            "power-light" or "charging" => Carries.Power,
            "speaker" or "phones" => Carries.Audio,
            "picture" or "video-out" or "backlight" => Carries.Video,
            "buttons" or "reset" or "wheel" or "tray" => Carries.Input,
            _ => Carries.Data,
        };
}
