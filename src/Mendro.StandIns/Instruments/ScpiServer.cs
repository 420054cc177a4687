using System.Net;
using System.Net.Sockets;
using System.Text;

namespace Mendro.StandIns.Instruments;

/// <summary>
/// A small SCPI instrument on a loopback port: lines in, lines out, several clients, an error queue of its own
/// (SCPI-99, IEEE 488.2). Commands come in long or short form, joined with semicolons.
/// </summary>
public abstract class ScpiServer : IDisposable
{
    private const int LongestLine = 1024;
    private const int LongestQueue = 20;

    private static readonly Dictionary<string, string> ShortForms = new()
    {
        ["MEASURE"] = "MEAS",
        ["CONFIGURE"] = "CONF",
        ["VOLTAGE"] = "VOLT",
        ["RESISTANCE"] = "RES",
        ["CONTINUITY"] = "CONT",
        ["DIODE"] = "DIOD",
        ["CAPACITANCE"] = "CAP",
        ["CURRENT"] = "CURR",
        ["SYSTEM"] = "SYST",
        ["ERROR"] = "ERR",
        ["OUTPUT"] = "OUTP",
        ["SOURCE"] = "SOUR",
        ["STATE"] = "STAT",
    };

    // Nodes that may be left out: the default of their level.
    private static readonly HashSet<string> Optional = ["DC", "NEXT", "SOUR", "STAT", "LEV", "IMM", "AMPL"];

    private readonly CancellationTokenSource _stop = new();
    private readonly Queue<string> _errors = new();
    private readonly Lock _lock = new();
    private readonly HashSet<TcpClient> _clients = [];
    private TcpListener? _listener;

    /// <summary>Port it listens on; 0 before the start.</summary>
    public int Port => _listener is { } listener ? ((IPEndPoint)listener.LocalEndpoint).Port : 0;

    /// <summary>What it answers to <c>*IDN?</c>.</summary>
    protected abstract string Identity { get; }

    /// <summary>Begins to listen on 127.0.0.1.</summary>
    /// <param name="port">Port, or 0 for a free one.</param>
    /// <exception cref="SocketException">The port is taken.</exception>
    public void Start(int port = 0)
    {
        _listener = new TcpListener(IPAddress.Loopback, port);
        _listener.Start();
        _ = AcceptAsync(_listener);
    }

    /// <summary>Cuts all links, as when the cable is pulled; it goes on listening.</summary>
    public void CutLinks()
    {
        lock (_lock)
        {
            foreach (var client in _clients)
                client.Dispose();
            _clients.Clear();
        }
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        _stop.Cancel();
        _listener?.Dispose();
        CutLinks();
        GC.SuppressFinalize(this);
    }

    /// <summary>Carries out one command.</summary>
    /// <param name="header">Header in short form, upper case, such as <c>MEAS:VOLT?</c>.</param>
    /// <param name="argument">What follows it, or empty.</param>
    /// <returns>The answer of a query, an empty text for a command, null when there is no such header.</returns>
    protected abstract string? Do(string header, string argument);

    /// <summary>Puts an error into the queue.</summary>
    protected void Error(int code, string words)
    {
        lock (_lock)
        {
            if (_errors.Count < LongestQueue)
                _errors.Enqueue($"{code},\"{words}\"");
        }
    }

    /// <summary>Answers one line, which may hold several commands.</summary>
    /// <returns>The answers joined with semicolons, or null when nothing was asked.</returns>
    public string? Answer(string line)
    {
        var answers = new List<string>();
        foreach (var command in line.Split(';', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
        {
            var space = command.IndexOf(' ', StringComparison.Ordinal);
            var header = Short(space < 0 ? command : command[..space]);
            var answer = Common(header) ?? Do(header, space < 0 ? "" : command[(space + 1)..].Trim());
            if (answer is null)
                Error(-113, "Undefined header");
            else if (header.EndsWith('?'))
                answers.Add(answer);
        }

        return answers.Count > 0 ? string.Join(';', answers) : null;
    }

    private string? Common(string header)
    {
        switch (header)
        {
            case "*IDN?":
                return Identity;
            case "*RST" or "*CLS":
                lock (_lock)
                    _errors.Clear();
                return header == "*RST" ? Do("*RST", "") ?? "" : "";
            case "*OPC?":
                return "1";
            case "SYST:ERR?":
                lock (_lock)
                    return _errors.TryDequeue(out var error) ? error : "0,\"No error\"";
            default:
                return null;
        }
    }

    private static string Short(string header)
    {
        var query = header.EndsWith('?');
        var nodes = header
            .TrimEnd('?')
            .TrimStart(':')
            .ToUpperInvariant()
            .Split(':')
            .Select(n => ShortForms.GetValueOrDefault(n, n))
            .Where(n => !Optional.Contains(n));
        return string.Join(':', nodes) + (query ? "?" : "");
    }

    private async Task AcceptAsync(TcpListener listener)
    {
        try
        {
            while (!_stop.IsCancellationRequested)
            {
                var client = await listener.AcceptTcpClientAsync(_stop.Token);
                lock (_lock)
                    _clients.Add(client);
                _ = ServeAsync(client);
            }
        }
        catch (Exception ex) when (ex is OperationCanceledException or SocketException or ObjectDisposedException)
        {
            // Switched off.
        }
    }

    private async Task ServeAsync(TcpClient client)
    {
        try
        {
            client.NoDelay = true;
            var stream = client.GetStream();
            var buffer = new byte[512];
            var line = new StringBuilder();
            int got;
            while ((got = await stream.ReadAsync(buffer, _stop.Token)) > 0)
            {
                foreach (var b in buffer.Take(got))
                {
                    if (b != (byte)'\n')
                    {
                        if (line.Length < LongestLine)
                            line.Append((char)b);
                        continue;
                    }

                    var answer = Answer(line.ToString().Trim());
                    line.Clear();
                    if (answer is not null)
                        await stream.WriteAsync(Encoding.ASCII.GetBytes(answer + "\n"), _stop.Token);
                }
            }
        }
        catch (Exception ex) when (ex is IOException or SocketException or ObjectDisposedException or OperationCanceledException)
        {
            // The client went away.
        }
        finally
        {
            lock (_lock)
                _clients.Remove(client);
            client.Dispose();
        }
    }
}
