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

    // What a browser that does not read is behind by; the oldest is let go.
    private const int MostWaiting = 64;

    private readonly Lock _lock = new();
    private readonly Dictionary<string, Channel<ServerEvent>> _open = [];

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
    /// <returns>What it is told, or null when too many listen.</returns>
    public Channel<ServerEvent>? Open(string browser)
    {
        var mine = Channel.CreateBounded<ServerEvent>(
            new BoundedChannelOptions(MostWaiting) { FullMode = BoundedChannelFullMode.DropOldest }
        );
        lock (_lock)
        {
            if (_open.Remove(browser, out var before))
            {
                before.Writer.TryWrite(new ServerEvent("replaced", "{}"));
                before.Writer.TryComplete();
            }
            else if (_open.Count >= Most)
            {
                return null;
            }

            _open[browser] = mine;
        }

        Opened?.Invoke(browser);
        return mine;
    }

    /// <summary>A stream ended.</summary>
    public void Close(string browser, Channel<ServerEvent> stream)
    {
        lock (_lock)
        {
            if (_open.GetValueOrDefault(browser) != stream)
                return;
            _open.Remove(browser);
        }

        Closed?.Invoke(browser);
    }

    /// <summary>Tells one browser.</summary>
    public void Send(string browser, string name, object data)
    {
        var told = new ServerEvent(name, JsonSerializer.Serialize(data, JsonSerializerOptions.Web));
        lock (_lock)
            _open.GetValueOrDefault(browser)?.Writer.TryWrite(told);
    }

    /// <summary>Tells each browser what is meant for it.</summary>
    public void SendEach(string name, Func<string, object> data)
    {
        List<string> browsers;
        lock (_lock)
            browsers = [.. _open.Keys];
        foreach (var browser in browsers)
            Send(browser, name, data(browser));
    }

    /// <summary>Tells all.</summary>
    public void SendAll(string name, object data)
    {
        var told = new ServerEvent(name, JsonSerializer.Serialize(data, JsonSerializerOptions.Web));
        lock (_lock)
            foreach (var stream in _open.Values)
                stream.Writer.TryWrite(told);
    }
}
