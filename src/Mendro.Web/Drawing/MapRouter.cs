using System.Globalization;
using Mendro.Core.Profiles;

namespace Mendro.Web.Drawing;

/// <summary>A line with its way over the map.</summary>
/// <param name="Line">The line.</param>
/// <param name="Points">Corner points, from source to target.</param>
public sealed record RoutedLine(MapLine Line, IReadOnlyList<(double X, double Y)> Points)
{
    /// <summary>The way as SVG path data.</summary>
    public string PathData =>
        string.Concat(Points.Select((p, i) => string.Create(CultureInfo.InvariantCulture, $"{(i == 0 ? 'M' : 'L')}{p.X:0.#} {p.Y:0.#}")));
}

/// <summary>
/// Routes the lines through the gaps between columns and the alleys between rows, so that no line crosses a block.
/// Lines that leave the same block and carry the same thing share a lane; others get lanes of their own.
/// </summary>
public sealed class MapRouter
{
    private readonly MapLayout _layout;
    private readonly HashSet<(int Column, int Row)> _taken;

    /// <summary>Width and height of a block, and the pitch of the grid, in drawing units.</summary>
    public const double BlockWidth = 104,
        FunctionWidth = 122,
        BlockHeight = 50,
        RowPitch = 71,
        Margin = 8;

    /// <summary>Routes a layout.</summary>
    /// <param name="layout">Layout.</param>
    /// <param name="width">Width to fill, drawing units.</param>
    public MapRouter(MapLayout layout, double width)
    {
        _layout = layout;
        _taken = layout.Blocks.Select(b => (b.Column, b.Row)).ToHashSet();
        Width = width;
        Gap = layout.Columns > 1 ? (width - 2 * Margin - FunctionWidth - (layout.Columns - 1) * BlockWidth) / (layout.Columns - 1) : 0;
        Height = layout.Rows * RowPitch + Margin;
        Lines = Route();
    }

    /// <summary>Width of the drawing.</summary>
    public double Width { get; }

    /// <summary>Height of the drawing.</summary>
    public double Height { get; }

    /// <summary>Gap between two columns.</summary>
    public double Gap { get; }

    /// <summary>Lines with their ways.</summary>
    public IReadOnlyList<RoutedLine> Lines { get; }

    /// <summary>Left edge of a block.</summary>
    public double Left(MapBlock block) => Margin + block.Column * (BlockWidth + Gap);

    /// <summary>Top edge of a block.</summary>
    public double Top(MapBlock block) => Margin + 6 + block.Row * RowPitch;

    private double MiddleY(int row) => Margin + 6 + row * RowPitch + BlockHeight / 2;

    private double AlleyY(int row) => Margin + 6 + row * RowPitch - (RowPitch - BlockHeight) / 2;

    private double GapLeft(int column) => Margin + column * (BlockWidth + Gap) + BlockWidth;

    private List<RoutedLine> Route()
    {
        var routed = new List<RoutedLine>();
        var plans = new List<Plan>();
        foreach (var line in _layout.Lines)
        {
            var (a, b) = (line.From, line.To);
            if (a.Column == b.Column && b.Row == a.Row + 1)
            {
                var x = Left(a) + BlockWidth / 2;
                routed.Add(new RoutedLine(line, [(x, Top(a) + BlockHeight), (x, Top(b))]));
                continue;
            }

            plans.Add(MakePlan(line));
        }

        var exits = Ports(plans, p => (p.Line.From, p.Line.Carries), p => MiddleY(p.Line.To.Row), p => p.Line.From);
        // A line that stays in its column comes in from the right, like the ones that leave.
        var entries = Ports(
            plans.Where(p => p.LastGap != p.FirstGap || p.Line.To.Column > p.Line.From.Column),
            p => (p.Line.To, (p.Line.From, p.Line.Carries)),
            p => MiddleY(p.Line.From.Row),
            p => p.Line.To
        );
        foreach (var plan in plans)
        {
            plan.ExitY = exits[(plan.Line.From, plan.Line.Carries)];
            plan.EntryY = entries.TryGetValue((plan.Line.To, (plan.Line.From, plan.Line.Carries)), out var y)
                ? y
                : MiddleY(plan.Line.To.Row) + 9;
        }

        var lanes = Lanes(plans);
        var alleys = Alleys(plans);
        foreach (var plan in plans)
        {
            var (a, b) = (plan.Line.From, plan.Line.To);
            var net = (a, plan.Line.Carries);
            var x1 = lanes[(plan.FirstGap, net)];
            List<(double, double)> points = [(Left(a) + BlockWidth, plan.ExitY), (x1, plan.ExitY)];
            if (plan.LastGap == plan.FirstGap)
            {
                points.Add((x1, plan.EntryY));
                points.Add((b.Column == a.Column ? Left(b) + BlockWidth : Left(b), plan.EntryY));
            }
            else
            {
                var y = alleys[(plan.Alley, net)];
                var x2 = lanes[(plan.LastGap, net)];
                points.AddRange([(x1, y), (x2, y), (x2, plan.EntryY), (Left(b), plan.EntryY)]);
            }

            routed.Add(new RoutedLine(plan.Line, points));
        }

        return routed;
    }

    private Plan MakePlan(MapLine line)
    {
        var (a, b) = (line.From, line.To);
        if (a.Column >= b.Column || b.Column == a.Column + 1)
            return new Plan(line, a.Column, a.Column, 0);
        // Over several columns: through the alley on the near side of the target's row.
        var alley =
            b.Row < a.Row ? b.Row + 1
            : b.Row > a.Row ? b.Row
            : Crowded(a, b) ? a.Row
            : a.Row + 1;
        return new Plan(line, a.Column, b.Column - 1, alley);
    }

    private bool Crowded(MapBlock a, MapBlock b) =>
        Enumerable.Range(a.Column + 1, b.Column - a.Column - 1).Any(c => _taken.Contains((c, a.Row + 1)));

    private Dictionary<TKey, double> Ports<TKey>(
        IEnumerable<Plan> plans,
        Func<Plan, TKey> key,
        Func<Plan, double> aim,
        Func<Plan, MapBlock> block
    )
        where TKey : notnull
    {
        var ports = new Dictionary<TKey, double>();
        foreach (var side in plans.GroupBy(block))
        {
            var order = side.GroupBy(key).Select(g => (g.Key, Aim: g.Average(aim))).OrderBy(g => g.Aim).ToList();
            for (var n = 0; n < order.Count; n++)
                ports[order[n].Key] = Top(side.Key) + BlockHeight * (n + 1) / (order.Count + 1);
        }

        return ports;
    }

    private Dictionary<(int, (MapBlock, Carries)), double> Lanes(List<Plan> plans)
    {
        var spans = new List<(int Gap, (MapBlock, Carries) Net, double From, double To)>();
        foreach (var plan in plans)
        {
            var net = (plan.Line.From, plan.Line.Carries);
            var alley = AlleyY(plan.Alley);
            if (plan.FirstGap == plan.LastGap)
                spans.Add(Span(plan.FirstGap, net, plan.ExitY, plan.EntryY));
            else
                spans.AddRange([Span(plan.FirstGap, net, plan.ExitY, alley), Span(plan.LastGap, net, alley, plan.EntryY)]);
        }

        var lanes = new Dictionary<(int, (MapBlock, Carries)), double>();
        foreach (var gap in spans.GroupBy(s => s.Gap))
        {
            var slots = Colour(gap.GroupBy(s => s.Net).Select(g => (g.Key, From: g.Min(s => s.From), To: g.Max(s => s.To))), out var count);
            foreach (var (net, slot) in slots)
                lanes[(gap.Key, net)] = GapLeft(gap.Key) + Gap * (slot + 1) / (count + 1);
        }

        return lanes;
    }

    private Dictionary<(int, (MapBlock, Carries)), double> Alleys(List<Plan> plans)
    {
        var alleys = new Dictionary<(int, (MapBlock, Carries)), double>();
        foreach (var alley in plans.Where(p => p.FirstGap != p.LastGap).GroupBy(p => p.Alley))
        {
            var slots = Colour(
                alley
                    .GroupBy(p => (p.Line.From, p.Line.Carries))
                    .Select(g => (g.Key, From: (double)g.Min(p => p.FirstGap), To: (double)g.Max(p => p.LastGap))),
                out var count
            );
            // Lanes of an alley keep clear of the blocks above and below it.
            var room = RowPitch - BlockHeight - 8;
            foreach (var (net, slot) in slots)
                alleys[(alley.Key, net)] = AlleyY(alley.Key) - room / 2 + room * (slot + 1) / (count + 1);
        }

        return alleys;
    }

    private static (int, (MapBlock, Carries), double, double) Span(int gap, (MapBlock, Carries) net, double a, double b) =>
        (gap, net, Math.Min(a, b), Math.Max(a, b));

    /// <summary>Greedy interval colouring: spans that overlap get different slots, others may share one.</summary>
    private static List<((MapBlock, Carries) Net, int Slot)> Colour(
        IEnumerable<((MapBlock, Carries) Net, double From, double To)> spans,
        out int count
    )
    {
        var ends = new List<double>();
        var slots = new List<((MapBlock, Carries), int)>();
        foreach (var (net, from, to) in spans.OrderBy(s => s.From).ThenBy(s => s.To))
        {
            var slot = ends.FindIndex(end => end < from - 3);
            if (slot < 0)
            {
                slot = ends.Count;
                ends.Add(to);
            }
            else
            {
                ends[slot] = to;
            }

            slots.Add((net, slot));
        }

        count = ends.Count;
        return slots;
    }

    private sealed class Plan(MapLine line, int firstGap, int lastGap, int alley)
    {
        public MapLine Line { get; } = line;

        public int FirstGap { get; } = firstGap;

        public int LastGap { get; } = lastGap;

        public int Alley { get; } = alley;

        public double ExitY { get; set; }

        public double EntryY { get; set; }
    }
}
