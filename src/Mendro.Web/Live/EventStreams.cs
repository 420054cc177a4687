using System.Text.Json;
using System.Threading.Channels;

namespace Mendro.Web.Live;

/// <summary>One thing that the pages are told.</summary>
/// <param name="Name">Sort: meter, ask, bench, job, here or replaced.</param>
/// <param name="Data">What, as JSON.</param>
public sealed record ServerEvent(string Name, string Data);

/// <summary>
/// The open streams: one a browser, for everything that its pages are told. A browser that opens another has its first one
/// ended; in all there are only so many.
/// </summary>
public sealed class EventStreams
{
    /// <summary>Most browsers at once; a shop has a handful of benches, each with some, and phones.</summary>
    public const int Most = 256;

    /// <summary>Most streams of one account: the oldest ends for one more.</summary>
    public const int MostOfOne = 8;

    // What a browser that does not read is behind by; the oldest is let go.
    private const int MostWaiting = 64;

    private readonly Lock _lock = new();
    private readonly Dictionary<string, Listener> _open = [];
    private long _opened;

    /// <summary>A browser listens no more; it may be on its way from one page to another.</summary>
    public event Action<string>? Closed;

    /// <summary>A browser begins to listen.</summary>
    public event Action<string>? Opened;

    /// <summary>Browsers that listen.</summary>
    public int Count
    {
        get
        {
            lock (_lock)
                return _open.Count;
        }
    }

    /// <summary>True while a browser listens.</summary>
    public bool IsOpen(string browser)
    {
        lock (_lock)
            return _open.ContainsKey(browser);
    }

    /// <summary>Opens the stream of a browser.</summary>
    /// <param name="browser">Browser.</param>
    /// <param name="account">Account that listens; null in a shop of the house.</param>
    /// <param name="job">The one job that it hears of, for a phone; null for all.</param>
    /// <returns>What it is told, or null when too many listen.</returns>
    public Channel<ServerEvent>? Open(string browser, long? account = null, long? job = null)
    {
        var mine = Channel.CreateBounded<ServerEvent>(
            new BoundedChannelOptions(MostWaiting) { FullMode = BoundedChannelFullMode.DropOldest }
        );
        lock (_lock)
        {
            if (!End(browser))
            {
                var own = account is null ? [] : _open.Where(o => o.Value.Account == account).OrderBy(o => o.Value.Order).Select(o => o.Key).ToList();
                foreach (var oldest in own.Take(Math.Max(0, own.Count - MostOfOne + 1)))
                    End(oldest);
                if (_open.Count >= Most)
                    return null;
            }

            _open[browser] = new Listener(mine, account, job, _opened++);
        }

        Opened?.Invoke(browser);
        return mine;
    }

    private bool End(string browser)
    {
        if (!_open.Remove(browser, out var before))
            return false;
        before.Channel.Writer.TryWrite(new ServerEvent("replaced", "{}"));
        before.Channel.Writer.TryComplete();
        return true;
    }

    /// <summary>A stream ended.</summary>
    public void Close(string browser, Channel<ServerEvent> stream)
    {
        lock (_lock)
        {
            if (_open.GetValueOrDefault(browser)?.Channel != stream)
                return;
            _open.Remove(browser);
        }

        Closed?.Invoke(browser);
    }

    /// <summary>Tells one browser.</summary>
    /// <param name="browser">Browser.</param>
    /// <param name="name">Sort.</param>
    /// <param name="data">What.</param>
    /// <param name="job">Job that it is about; null for the whole shop. A phone hears of its own only.</param>
    public void Send(string browser, string name, object data, long? job = null)
    {
        var told = new ServerEvent(name, JsonSerializer.Serialize(data, JsonSerializerOptions.Web));
        lock (_lock)
            if (_open.GetValueOrDefault(browser) is { } listener && listener.Hears(job))
                listener.Channel.Writer.TryWrite(told);
    }

    /// <summary>Tells each browser what is meant for it.</summary>
    public void SendEach(string name, long job, Func<string, object> data)
    {
        List<string> browsers;
        lock (_lock)
            browsers = [.. _open.Keys];
        foreach (var browser in browsers)
            Send(browser, name, data(browser), job);
    }

    /// <summary>Tells all.</summary>
    public void SendAll(string name, object data, long? job = null)
    {
        var told = new ServerEvent(name, JsonSerializer.Serialize(data, JsonSerializerOptions.Web));
        lock (_lock)
            foreach (var listener in _open.Values.Where(l => l.Hears(job)))
                listener.Channel.Writer.TryWrite(told);
    }

    private sealed record Listener(Channel<ServerEvent> Channel, long? Account, long? Job, long Order)
    {
        public bool Hears(long? job) => Job is null || job == Job;
    }
}
