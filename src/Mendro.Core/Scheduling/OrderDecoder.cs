namespace Mendro.Core.Scheduling;

/// <summary>
/// Turns orders of the tasks of a workload into starts: each task at the first minute at which all it comes after has ended, and its place
/// and a person are free (the serial schedule generation of Kelley 1963; of all orders one gives a best plan, Kolisch, European Journal of
/// Operational Research 90, 1996). Made once, it decodes many orders.
/// </summary>
public sealed class OrderDecoder
{
    private readonly IReadOnlyList<WorkTask> _tasks;
    private readonly bool _handsCount;
    private readonly int[] _place;
    private readonly int[][] _after;
    private readonly int[][] _next;
    private readonly Occupancy _closed;
    private readonly Occupancy _people;
    private readonly Occupancy _there = new(1);
    private readonly List<Occupancy> _places;
    private readonly Occupancy _empty = new(1);
    private readonly double[] _starts;
    private readonly int[] _waits;
    private readonly PriorityQueue<int, int> _ready = new();
    private readonly int[] _turn;

    /// <summary>Makes it.</summary>
    /// <param name="load">Workload, without circles.</param>
    public OrderDecoder(Workload load)
    {
        _tasks = load.Tasks;
        var index = _tasks.Select((t, n) => (t.Id, n)).ToDictionary(x => x.Id, x => x.n);
        var places = load.Places.Select((p, n) => (p.Id, n)).ToDictionary(x => x.Id, x => x.n);
        _place = _tasks.Select(t => t.Place is { } place ? places[place] : -1).ToArray();
        _after = _tasks.Select(t => t.After.Select(a => index[a]).ToArray()).ToArray();
        var next = _after.SelectMany((after, n) => after.Select(a => (a, n))).ToLookup(x => x.a, x => x.n);
        _next = Enumerable.Range(0, _tasks.Count).Select(n => next[n].ToArray()).ToArray();
        _handsCount = load.Closed.Count > 0 || load.People < _tasks.Count;
        (_closed, _people) = (new Occupancy(load.People), new Occupancy(load.People));
        foreach (var closed in load.Closed)
        {
            _closed.Take(closed.From, closed.To, load.People);
            _there.Take(closed.From, closed.To, 1);
        }

        _places = load.Places.Select(p => new Occupancy(p.Count)).ToList();
        (_starts, _waits, _turn) = (new double[_tasks.Count], new int[_tasks.Count], new int[_tasks.Count]);
    }

    /// <summary>Starts by an order; the array is used again at the next call.</summary>
    /// <param name="order">Indexes of all tasks, the most urgent first.</param>
    public double[] Starts(IReadOnlyList<int> order)
    {
        _people.Become(_closed);
        foreach (var place in _places)
            place.Become(_empty);
        for (var n = 0; n < order.Count; n++)
            _turn[order[n]] = n;
        for (var n = 0; n < _tasks.Count; n++)
        {
            _waits[n] = _after[n].Length;
            if (_tasks[n].Begun is { } begun)
                Put(n, begun);
        }

        _ready.Clear();
        for (var n = 0; n < _tasks.Count; n++)
            if (_waits[n] == 0 || _tasks[n].Begun is not null)
                _ready.Enqueue(n, _turn[n]);
        while (_ready.TryDequeue(out var n, out _))
        {
            if (_tasks[n].Begun is null)
                Put(n, First(n));
            foreach (var later in _next[n])
                if (--_waits[later] == 0 && _tasks[later].Begun is null)
                    _ready.Enqueue(later, _turn[later]);
        }

        return _starts;
    }

    private double First(int n)
    {
        var task = _tasks[n];
        var start = task.Earliest;
        foreach (var before in _after[n])
            start = Math.Max(start, _starts[before] + _tasks[before].Minutes);
        for (var last = double.NaN; last != start; )
        {
            last = start;
            if (!task.Passive && _handsCount)
                start = _people.Free(start, task.Minutes);
            else if (task is { Passive: true, Attended: true })
                start = _there.Free(start, task.Minutes);
            if (_place[n] >= 0)
                start = _places[_place[n]].Free(start, task.Minutes);
        }

        return start;
    }

    private void Put(int n, double start)
    {
        _starts[n] = start;
        var end = start + _tasks[n].Minutes;
        if (!_tasks[n].Passive && _handsCount)
            _people.Take(start, end, 1);
        if (_place[n] >= 0)
            _places[_place[n]].Take(start, end, 1);
    }
}
