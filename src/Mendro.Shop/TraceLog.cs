using Mendro.Core.Boards;
using Mendro.Core.Jobs;

namespace Mendro.Shop;

/// <summary>What the records of a job say of its nets, read in order: tests, and wires laid, warmed, beeped again and fallen off.</summary>
internal sealed class TraceLog
{
    private readonly Dictionary<string, string> _netOf;
    private readonly Dictionary<string, BoardPoint> _placeOf;
    private readonly List<(string Net, BeepResult Result, bool Bridged)> _results = [];
    private readonly Dictionary<string, HashSet<string>> _proved = [];
    private readonly List<WireInPlace> _wires = [];
    private readonly Dictionary<string, bool> _told = [];

    private TraceLog(IReadOnlyList<NetTree> nets)
    {
        var points = nets.SelectMany(n => n.Points.Select(p => (Net: n.Id, Point: p))).DistinctBy(p => p.Point.Key).ToList();
        _netOf = points.ToDictionary(p => p.Point.Key, p => p.Net);
        _placeOf = points.ToDictionary(p => p.Point.Key, p => p.Point.At);
    }

    /// <summary>Wires in place.</summary>
    public IReadOnlyList<WireInPlace> Wires => _wires;

    /// <summary>What pairs of points said last.</summary>
    public IReadOnlyDictionary<string, bool> Told => _told;

    /// <summary>Reads the records.</summary>
    public static TraceLog Of(JobView view, IReadOnlyList<NetTree> nets, double reheatMm)
    {
        var log = new TraceLog(nets);
        foreach (var record in view.Records)
            switch (record.Body)
            {
                case LineBeeped beeped:
                    log.Heard(beeped);
                    break;
                case WireLaid laid when log._netOf.ContainsKey(laid.From) && log._netOf.ContainsKey(laid.To):
                    log.Laid(laid, reheatMm);
                    break;
                case WireChecked check:
                    log.Checked(check);
                    break;
            }
        return log;
    }

    /// <summary>Tests that tell of the copper itself: those made while a wire bridged it do not.</summary>
    public IReadOnlyList<BeepResult> Results(NetTree net) => _results.Where(r => r.Net == net.Id && !r.Bridged).Select(r => r.Result).ToList();

    /// <summary>Tests over the wires of a net that were not made since the last one was soldered.</summary>
    public IReadOnlyList<BeepTest> Unproved(NetSearch search)
    {
        var ends = search
            .Pieces([])
            .Select(piece => piece.Where(p => p.IsThere).OrderBy(p => p.IsContact ? 0 : 1).ThenBy(p => p.State == "sound" ? 0 : 1).First().Key)
            .ToList();
        var proved = _proved.GetValueOrDefault(search.Net.Id) ?? [];
        return ends.Skip(1).Where(e => !proved.Contains(TraceSheet.Pair(ends[0], e))).Select(e => new BeepTest(ends[0], e)).ToList();
    }

    private void Heard(LineBeeped beeped)
    {
        _told[TraceSheet.Pair(beeped.A, beeped.B)] = beeped.Beeps;
        if (!_netOf.TryGetValue(beeped.A, out var net) || _netOf.GetValueOrDefault(beeped.B) != net)
            return;
        var bridged = _wires.Any(w => _netOf[w.From] == net);
        _results.Add((net, new BeepResult(beeped.A, beeped.B, beeped.Beeps), bridged));
        if (!bridged)
            return;
        var proved = _proved.TryGetValue(net, out var own) ? own : _proved[net] = [];
        if (beeped.Beeps)
            proved.Add(TraceSheet.Pair(beeped.A, beeped.B));
        else
            proved.Remove(TraceSheet.Pair(beeped.A, beeped.B));
    }

    private void Laid(WireLaid laid, double reheatMm)
    {
        for (var n = 0; n < _wires.Count; n++)
            if (Warms(laid, _wires[n], reheatMm))
                _wires[n] = _wires[n] with { ToBeep = true };
        _wires.RemoveAll(w => w.From == laid.From && w.To == laid.To);
        _wires.Add(new WireInPlace(laid.Line, laid.From, laid.To, laid.Side, laid.CutMm, laid.Wire, laid.Path, false));
        _proved.Remove(_netOf[laid.From]);
    }

    private bool Warms(WireLaid laid, WireInPlace other, double reheatMm) =>
        ((string[])[laid.From, laid.To]).Any(a =>
            ((string[])[other.From, other.To]).Any(b => BoardOf(a) == BoardOf(b) && _placeOf[a].To(_placeOf[b]) < reheatMm)
        );

    private void Checked(WireChecked check)
    {
        var at = _wires.FindIndex(w => w.From == check.From && w.To == check.To);
        if (at < 0)
            return;
        if (check.Holds)
            _wires[at] = _wires[at] with { ToBeep = false };
        else
        {
            _proved.Remove(_netOf[check.From]);
            _wires.RemoveAt(at);
        }
    }

    private static string BoardOf(string key) => key[..key.IndexOf('/', StringComparison.Ordinal)];
}
