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

    /// <summary>Lays a profile out.</summary>
    public MapLayout(DeviceProfile profile)
    {
        var graph = new ProfileGraph(profile);
        var layers = Layers(profile, graph);
        var columns = Fold(layers);
        var rows = Math.Max(columns.Max(c => c.Sum(l => l.Count)), profile.Functions.Count);
        var blocks = new Dictionary<string, MapBlock>();
        var centre = new Dictionary<string, double>();
        for (var c = 0; c < columns.Count; c++)
        {
            var count = columns[c].Sum(l => l.Count);
            var row = (rows - count) / 2;
            foreach (var layer in columns[c])
            {
                // Barycentre of what feeds them keeps lines short; ties keep the profile's order.
                foreach (var id in layer.OrderBy(id => Barycentre(graph.Into(id).Select(f => f.From), centre)))
                {
                    blocks["p:" + id] = new MapBlock(id, false, c, row);
                    centre["p:" + id] = row++;
                }
            }
        }

        var first = (rows - profile.Functions.Count) / 2;
        // Functions keep the order of the baseline test, which is the order of the flow.
        for (var n = 0; n < profile.Functions.Count; n++)
            blocks["f:" + profile.Functions[n].Id] = new MapBlock(profile.Functions[n].Id, true, columns.Count, first + n);

        Rows = rows;
        Columns = columns.Count + 1;
        Blocks = [.. blocks.Values];
        Lines = MakeLines(profile, graph, blocks);
    }

    /// <summary>Rows of the grid.</summary>
    public int Rows { get; }

    /// <summary>Columns of the grid, the functions' column included.</summary>
    public int Columns { get; }

    /// <summary>Blocks; no two share a cell.</summary>
    public IReadOnlyList<MapBlock> Blocks { get; }

    /// <summary>Lines between blocks.</summary>
    public IReadOnlyList<MapLine> Lines { get; }

    private static List<List<string>> Layers(DeviceProfile profile, ProfileGraph graph)
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
            if (!moved) break;
        }

        // From the end back, so that a chain of sources moves as a whole next to what it feeds.
        foreach (var id in ids.OrderByDescending(id => layer[id]))
            if (graph.OutOf(id).Count > 0)
                layer[id] = Math.Max(layer[id], graph.OutOf(id).Min(f => layer[f.To]) - 1);
        return ids.GroupBy(id => layer[id]).OrderBy(g => g.Key).Select(g => g.ToList()).ToList();
    }

    /// <summary>Splits the layers into consecutive groups so that the fullest column is as short as can be.</summary>
    private static List<List<List<string>>> Fold(List<List<string>> layers)
    {
        var count = Math.Min(PartColumns, Math.Max(1, layers.Count));
        var capacity = layers.Max(l => l.Count);
        while (Pack(layers, capacity).Count > count) capacity++;
        return Pack(layers, capacity);
    }

    private static List<List<List<string>>> Pack(List<List<string>> layers, int capacity)
    {
        var columns = new List<List<List<string>>> { new() };
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

    private static double Barycentre(IEnumerable<string> neighbours, Dictionary<string, double> centre) =>
        neighbours.Select(id => centre.TryGetValue("p:" + id, out var row) ? row : (double?)null).OfType<double>().DefaultIfEmpty(1e6).Average();

    private static List<MapLine> MakeLines(DeviceProfile profile, ProfileGraph graph, Dictionary<string, MapBlock> blocks)
    {
        var lines = new List<MapLine>();
        foreach (var feed in profile.Feeds)
            if (feed.From != feed.To && blocks.TryGetValue("p:" + feed.From, out var from) && blocks.TryGetValue("p:" + feed.To, out var to))
                lines.Add(new MapLine(from, to, feed.Carries));
        foreach (var function in profile.Functions)
        {
            // A need that is upstream of another need is drawn through it.
            var needs = function.Needs.Where(n => blocks.ContainsKey("p:" + n)
                && !function.Needs.Any(m => m != n && graph.Upstream(m).Contains(n))).Distinct();
            foreach (var need in needs) lines.Add(new MapLine(blocks["p:" + need], blocks["f:" + function.Id], CarriesTo(function)));
        }

        return lines;
    }

    private static Carries CarriesTo(DeviceFunction function) => function.Kind switch
    {
        "power-light" or "charging" => Carries.Power,
        "speaker" or "phones" => Carries.Audio,
        "picture" or "video-out" or "backlight" => Carries.Video,
        "buttons" or "reset" or "wheel" or "tray" => Carries.Input,
        _ => Carries.Data,
    };
}
