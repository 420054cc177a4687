using System.Globalization;
using System.Xml.Linq;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Profiles;

namespace Mendro.Web.Drawing;

/// <summary>What the path map shows of one moment.</summary>
/// <param name="Model">Model drawn.</param>
/// <param name="Diagnosis">Diagnosis, or null for the bare profile.</param>
/// <param name="Readings">Last reading at each probe, as text.</param>
/// <param name="Looks">Words of the last look of each failing function.</param>
/// <param name="SelectedProbe">Probe to take now.</param>
/// <param name="ProbeUrl">Address that selects a probe, or null when the map is only to be read.</param>
/// <param name="PartUrl">Address that opens a part, or null.</param>
/// <param name="FunctionUrl">Address that selects a function, or null.</param>
public sealed record MapScene(
    DeviceModel Model,
    UnitVerdict? Diagnosis,
    IReadOnlyDictionary<string, string> Readings,
    IReadOnlyDictionary<string, string> Looks,
    string? SelectedProbe,
    Func<string, string>? ProbeUrl,
    Func<string, string>? PartUrl,
    Func<string, string>? FunctionUrl
);

/// <summary>Draws the path map as SVG. Every state has a shape and a word besides its colour.</summary>
public static partial class PathMapSvg
{
    private const double DrawingWidth = 690;
    private const int LongestName = 14;
    private static readonly XNamespace Svg = "http://www.w3.org/2000/svg";

    /// <summary>The drawing as markup; all text is encoded.</summary>
    public static string Draw(MapScene scene)
    {
        var layout = MapLayout.Of(scene.Model.Profile);
        var router = new MapRouter(layout, DrawingWidth);
        var root = new XElement(
            Svg + "svg",
            new XAttribute("class", "map"),
            new XAttribute("role", "group"),
            new XAttribute("aria-label", $"Path map of {scene.Model.Profile.FullName}"),
            new XAttribute("viewBox", string.Create(CultureInfo.InvariantCulture, $"0 0 {router.Width:0} {router.Height:0}"))
        );
        foreach (var routed in router.Lines.OrderBy(r => Rank(scene, r.Line)))
            root.Add(Line(scene, routed));
        foreach (var block in layout.Blocks)
            root.Add(block.IsFunction ? Function(scene, router, block) : Part(scene, router, block));
        if (scene.Diagnosis?.Stretch is { } stretch)
            root.Add(Stretch(layout, router, stretch));
        root.Add(Probes(scene, layout, router));
        return root.ToString(SaveOptions.DisableFormatting);
    }

    private static int Rank(MapScene scene, MapLine line) =>
        LineState(scene, line) switch
        {
            "line-proved" => 1,
            "line-suspect" => 2,
            _ => 0,
        };

    private static XElement Line(MapScene scene, RoutedLine routed) =>
        Element(
            "path",
            ("class", $"line carries-{routed.Line.Carries.ToString().ToLowerInvariant()} {LineState(scene, routed.Line)}"),
            ("d", routed.PathData)
        );

    /// <summary>A line is proved when what it leaves is; suspect when it leaves a suspect.</summary>
    private static string LineState(MapScene scene, MapLine line) =>
        StateOf(scene, line.From.Id) switch
        {
            PartState.Proved => "line-proved",
            PartState.Suspect or PartState.Failed => "line-suspect",
            _ => "line-unknown",
        };

    private static PartState StateOf(MapScene scene, string partId) =>
        scene.Diagnosis?.Parts.GetValueOrDefault(partId)?.State ?? PartState.Unknown;

    private static XElement Part(MapScene scene, MapRouter router, MapBlock block)
    {
        var part = scene.Model.Profile.FindPart(block.Id)!;
        var verdict = scene.Diagnosis?.Parts.GetValueOrDefault(part.Id);
        var state = verdict?.State ?? PartState.Unknown;
        var (x, y) = (router.Left(block), router.Top(block));
        var share = verdict is { Share: >= 0.005 } && state is PartState.Suspect or PartState.Failed ? Percent(verdict!.Share) : "";
        var place = string.Join(
            ", ",
            new[] { part.Refdes, part.Board is { } on ? on + " board" : null }.Where(t => !string.IsNullOrEmpty(t))
        );
        var group = Group(
            scene.PartUrl?.Invoke(part.Id),
            $"part {state.ToString().ToLowerInvariant()}",
            part.Id,
            $"{part.Name}: {MapWords.Of(state)}{(share.Length > 0 ? ", share of blame " + share : "")}{(place.Length > 0 ? "; " + place : "")}"
                + MapWords.Flow(scene.Model.Profile, part)
        );
        group.Add(Rect(x, y, MapRouter.BlockWidth, MapRouter.BlockHeight, 4, "block"));
        // The lower right corner belongs to the mark or the share.
        var room =
            share.Length > 0 ? 7
            : state == PartState.Proved ? 10
            : 13;
        var both = $"{part.Refdes} {part.Board}".Trim();
        Label(group, x + 8, y, part.Name, both.Length <= room ? both : Cut(part.Refdes ?? "", room));
        if (share.Length > 0)
        {
            group.Add(Text(x + MapRouter.BlockWidth - 7, y + 41, share, "share", "end"));
            group.Add(Rect(x + 7, y + 4, MapRouter.BlockWidth - 14, 4, 0, "bar"));
            group.Add(Rect(x + 7, y + 4, (MapRouter.BlockWidth - 14) * verdict!.Share, 4, 0, "bar-fill"));
        }

        Mark(
            group,
            x + MapRouter.BlockWidth - 13,
            y + 37,
            share.Length > 0 ? null
                : state == PartState.Proved ? true
                : state == PartState.Failed ? false
                : null
        );
        return group;
    }

    private static XElement Function(MapScene scene, MapRouter router, MapBlock block)
    {
        var function = scene.Model.Profile.FindFunction(block.Id)!;
        var state = scene.Diagnosis?.Functions.GetValueOrDefault(function.Id) ?? FunctionState.NotTried;
        var (x, y) = (router.Left(block), router.Top(block));
        // What failed before it was worked on is open, and no failure.
        var open = scene.Diagnosis?.Waits(function) == true;
        var words = state switch
        {
            _ when open => "not tried since",
            FunctionState.Works => "works",
            FunctionState.Fails => scene.Looks.GetValueOrDefault(function.Id, "fails"),
            _ => "not tried",
        };
        var group = Group(
            scene.FunctionUrl?.Invoke(function.Id),
            open ? "function since" : $"function {state.ToString().ToLowerInvariant()}",
            function.Id,
            $"{function.Name}: {words}{MapWords.Flow(scene.Model.Profile, function)}"
        );
        group.Add(Rect(x, y, MapRouter.FunctionWidth, MapRouter.BlockHeight, 18, "block"));
        Label(group, x + 12, y, function.Name, Cut(words, state == FunctionState.Fails ? 14 : 15));
        Mark(
            group,
            x + MapRouter.FunctionWidth - 17,
            y + 36,
            open ? null
                : state == FunctionState.Works ? true
                : state == FunctionState.Fails ? false
                : null
        );
        return group;
    }

    private static XElement Stretch(MapLayout layout, MapRouter router, FaultStretch stretch)
    {
        var group = Element("g", ("class", "stretch"));
        var ids = stretch.Parts.Select(p => p.Id).ToHashSet();
        var blocks = layout.Blocks.Where(b => !b.IsFunction && ids.Contains(b.Id)).ToList();
        foreach (var block in blocks)
            group.Add(
                Rect(router.Left(block) - 5, router.Top(block) - 5, MapRouter.BlockWidth + 10, MapRouter.BlockHeight + 10, 6, "stretch-box")
            );
        if (blocks.OrderByDescending(b => b.Row).FirstOrDefault() is not { } lowest)
            return group;
        if (lowest.Column == 0)
        {
            // In the first column the readings stand between the blocks: the words go above it, with a line down the margin.
            var (left, top) = (router.Left(lowest), layout.Blocks.Where(b => b.Column == 0).Min(router.Top));
            var (x, y) = (N(left - 9), N(router.Top(lowest) + MapRouter.BlockHeight / 2));
            group.Add(Element("path", ("class", "stretch-box"), ("d", $"M{N(left - 5)} {y}H{x}V{N(top - 8)}")));
            group.Add(Text(left - 3, top - 4, "the fault lies in here", "stretch-words"));
        }
        else
        {
            group.Add(
                Text(
                    router.Left(lowest) + MapRouter.BlockWidth / 2,
                    router.Top(lowest) + MapRouter.BlockHeight + 17,
                    "the fault lies in here",
                    "stretch-words",
                    "middle"
                )
            );
        }

        return group;
    }

    private static XElement Probes(MapScene scene, MapLayout layout, MapRouter router)
    {
        var all = Element("g", ("class", "probes"));
        var freshReadings = scene.Diagnosis?.Fresh;
        var volts = 0;
        var besides = new Dictionary<string, int>();
        foreach (var probe in scene.Model.Profile.Probes)
        {
            var selected = probe.Id == scene.SelectedProbe;
            var reading = scene.Readings.GetValueOrDefault(probe.Id);
            // What was read before a repair on its way holds no longer.
            var taken =
                reading is null ? "open"
                : freshReadings?.TryGetValue(probe.Id, out var fresh) == true
                    ? fresh == ProbeOutcome.Normal ? "good"
                        : "bad"
                : "stale";
            var group = Group(
                scene.ProbeUrl?.Invoke(probe.Id),
                $"probe {taken}{(selected ? " selected" : "")}",
                probe.Id,
                $"Probe: {probe.Name}{(reading is null ? "" : ", " + reading)}{(taken == "stale" ? ", before the last repair" : "")}; {probe.Where}"
            );
            if (selected)
                group.SetAttributeValue("aria-current", "true");
            if (probe is { Kind: ProbeKind.Volts or ProbeKind.Current, At: not null } && Place(layout, router, probe) is { } at)
            {
                var label = (++volts).ToString(CultureInfo.InvariantCulture);
                if (selected)
                    group.Add(Circle(at.X, at.Y, 13, "ring"));
                group.Add(Circle(at.X, at.Y, 8.5, "dot"));
                group.Add(Text(at.X, at.Y + 3.8, label, "number", "middle"));
                if (reading is not null)
                    group.Add(
                        at.Falls ? Text(at.X + 14, at.Y + 4, reading, "reading") : Text(at.X, at.Y + 20, reading, "reading", "middle")
                    );
            }
            else
            {
                var host = layout.Blocks.FirstOrDefault(b => !b.IsFunction && probe.Shown is { } shown && shown == b.Id);
                if (host is null)
                    continue;
                var n = besides[host.Id] = besides.GetValueOrDefault(host.Id) + 1;
                var (x, y) = (router.Left(host) + 16 * n - 3, router.Top(host) + MapRouter.BlockHeight);
                if (selected)
                    group.Add(Circle(x, y, 10, "ring"));
                group.Add(
                    Element(
                        "path",
                        ("class", "dot"),
                        ("d", string.Create(CultureInfo.InvariantCulture, $"M{x:0.#} {y - 7:0.#}l7 7l-7 7l-7 -7z"))
                    )
                );
                if (taken is "good" or "bad")
                    group.Add(
                        Element(
                            "path",
                            ("class", "sign"),
                            (
                                "d",
                                taken == "good"
                                    ? string.Create(CultureInfo.InvariantCulture, $"M{x - 3:0.#} {y:0.#}l2.2 2.6l3.8 -4.8")
                                    : string.Create(CultureInfo.InvariantCulture, $"M{x - 2.6:0.#} {y - 2.6:0.#}l5.2 5.2m0 -5.2l-5.2 5.2")
                            )
                        )
                    );
            }

            all.Add(group);
        }

        return all;
    }

    /// <summary>A volts point sits on the line that leaves its part towards the next, or on the part's right edge.</summary>
    private static (double X, double Y, bool Falls)? Place(MapLayout layout, MapRouter router, Probe probe)
    {
        var line =
            router.Lines.FirstOrDefault(l =>
                !l.Line.To.IsFunction && probe.At is { } at && at == l.Line.From.Id && probe.Toward is { } to && to == l.Line.To.Id
            ) ?? router.Lines.FirstOrDefault(l => probe.At is { } at && at == l.Line.From.Id && !l.Line.From.IsFunction);
        if (line is null)
        {
            var block = layout.Blocks.FirstOrDefault(b => !b.IsFunction && probe.At is { } at && at == b.Id);
            return block is null ? null : (router.Left(block) + MapRouter.BlockWidth, router.Top(block) + MapRouter.BlockHeight / 2, false);
        }

        var (a, b) = (line.Points[0], line.Points[1]);
        return line.Points.Count == 2 ? ((a.X + b.X) / 2, (a.Y + b.Y) / 2, true) : (a.X + Math.Min(10, (b.X - a.X) * 0.8), a.Y, false);
    }
}
