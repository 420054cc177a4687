namespace Mendro.Web.Live;

/// <summary>Who has which job open, told to the pages as it changes. A browser that is gone for a while has nothing open any more.</summary>
public sealed class Presence(EventStreams streams, TimeProvider time) : IHostedService
{
    /// <summary>How long a browser may be away before what it had open counts as closed: long enough to go from page to page.</summary>
    public static readonly TimeSpan Absence = TimeSpan.FromSeconds(15);

    // More pages than that nobody has open; the oldest are forgotten.
    private const int Most = 1000;

    private readonly Lock _lock = new();
    private readonly Dictionary<string, Place> _open = [];
    private long _order;

    /// <inheritdoc/>
    public Task StartAsync(CancellationToken cancellationToken)
    {
        streams.Closed += Away;
        streams.Opened += Greet;
        return Task.CompletedTask;
    }

    /// <inheritdoc/>
    public Task StopAsync(CancellationToken cancellationToken)
    {
        streams.Closed -= Away;
        streams.Opened -= Greet;
        return Task.CompletedTask;
    }

    /// <summary>A page has a job open.</summary>
    /// <param name="page">Page, by a random name of its own.</param>
    /// <param name="browser">Browser.</param>
    /// <param name="job">Number of the job.</param>
    /// <param name="name">Who it is; blank in a shop without accounts.</param>
    public void Here(string page, string browser, long job, string name)
    {
        lock (_lock)
        {
            if (_open.Count >= Most && !_open.ContainsKey(page))
                _open.Remove(_open.MinBy(p => p.Value.Order).Key);
            _open[page] = new Place(browser, job, name.Length > 0 ? name : "another bench", ++_order);
        }

        Tell(job);
    }

    /// <summary>A page was left.</summary>
    public void Gone(string page, string browser)
    {
        Place? was;
        lock (_lock)
            if (!_open.TryGetValue(page, out was) || was.Browser != browser || !_open.Remove(page))
                return;
        Tell(was.Job);
    }

    /// <summary>Who else has a job open, as one browser sees it.</summary>
    public IReadOnlyList<string> Others(long job, string? browser)
    {
        lock (_lock)
            return Names(_open.Values.Where(p => p.Job == job && p.Browser != browser));
    }

    /// <summary>All jobs that others have open, as one browser sees it.</summary>
    public IReadOnlyDictionary<long, IReadOnlyList<string>> Taken(string? browser)
    {
        lock (_lock)
            return _open.Values.Where(p => p.Browser != browser).GroupBy(p => p.Job).ToDictionary(g => g.Key, Names);
    }

    private static IReadOnlyList<string> Names(IEnumerable<Place> places) =>
        places.Select(p => p.Name).Distinct().Order(StringComparer.Ordinal).ToList();

    private void Tell(long job) => streams.SendEach("here", job, browser => Message(job, Others(job, browser)));

    private static object Message(long job, IReadOnlyList<string> names) => new { Number = job, Names = names };

    /// <summary>Who came between the writing of a page and the opening of its stream is told as the stream opens.</summary>
    private void Greet(string browser)
    {
        foreach (var (job, names) in Taken(browser))
            streams.Send(browser, "here", Message(job, names), job);
    }

    private void Away(string browser)
    {
        lock (_lock)
            if (_open.Values.All(p => p.Browser != browser))
                return;
        _ = LeaveAsync(browser);
    }

    private async Task LeaveAsync(string browser)
    {
        await Task.Delay(Absence, time);
        if (streams.IsOpen(browser))
            return;
        List<long> jobs;
        lock (_lock)
        {
            var pages = _open.Where(p => p.Value.Browser == browser).ToList();
            jobs = pages.Select(p => p.Value.Job).Distinct().ToList();
            foreach (var page in pages)
                _open.Remove(page.Key);
        }

        foreach (var job in jobs)
            Tell(job);
    }

    private sealed record Place(string Browser, long Job, string Name, long Order);
}
