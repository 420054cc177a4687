using System.Net;
using System.Net.Sockets;
using System.Text;

namespace Mendro.Instruments;

/// <summary>The link to an instrument is gone or what came over it makes no sense; the message is for the technician.</summary>
public sealed class InstrumentLinkException(string message, Exception? inner = null) : Exception(message, inner);

/// <summary>
/// One SCPI instrument over TCP: a line out, a line back. Lines may come in pieces or several at once. Not for several
/// callers at a time.
/// </summary>
public sealed class ScpiLink : IDisposable
{
    private const int LongestLine = 4096;

    private readonly TcpClient _client;
    private readonly TimeSpan _patience;
    private readonly byte[] _buffer = new byte[1024];
    private readonly StringBuilder _line = new();
    private int _next;
    private int _held;

    private ScpiLink(TcpClient client, TimeSpan patience) => (_client, _patience) = (client, patience);

    /// <summary>Opens a link.</summary>
    /// <param name="where">Where it is.</param>
    /// <param name="patience">How long to wait for the connection and for every answer.</param>
    /// <param name="cancel">Gives up.</param>
    /// <exception cref="InstrumentLinkException">Nobody answers there.</exception>
    public static async Task<ScpiLink> OpenAsync(IPEndPoint where, TimeSpan patience, CancellationToken cancel)
    {
        var client = new TcpClient(where.AddressFamily) { NoDelay = true };
        try
        {
            using var limit = CancellationTokenSource.CreateLinkedTokenSource(cancel);
            limit.CancelAfter(patience);
            await client.ConnectAsync(where, limit.Token);
            return new ScpiLink(client, patience);
        }
        catch (Exception ex) when (ex is SocketException or IOException or OperationCanceledException && !cancel.IsCancellationRequested)
        {
            client.Dispose();
            throw new InstrumentLinkException(
                $"No answer at {where.Address}, port {where.Port}. Is the instrument on, and its LAN or raw socket switched on?",
                ex
            );
        }
        catch
        {
            client.Dispose();
            throw;
        }
    }

    /// <summary>Sends a command that has no answer.</summary>
    /// <exception cref="InstrumentLinkException">The link is gone.</exception>
    public Task SendAsync(string command, CancellationToken cancel) =>
        Guarded(
            async token =>
            {
                await _client.GetStream().WriteAsync(Encoding.ASCII.GetBytes(command + "\n"), token);
                return "";
            },
            cancel
        );

    /// <summary>Sends a query and waits for its line.</summary>
    /// <returns>The line without its end.</returns>
    /// <exception cref="InstrumentLinkException">The link is gone, the answer is late, or it is no line of text.</exception>
    public async Task<string> QueryAsync(string query, CancellationToken cancel)
    {
        await SendAsync(query, cancel);
        return await Guarded(ReadLineAsync, cancel);
    }

    /// <inheritdoc/>
    public void Dispose() => _client.Dispose();

    private async Task<string> ReadLineAsync(CancellationToken token)
    {
        _line.Clear();
        while (true)
        {
            if (_next == _held)
            {
                _held = await _client.GetStream().ReadAsync(_buffer, token);
                _next = 0;
                if (_held == 0)
                    throw new InstrumentLinkException("The instrument closed the link.");
            }

            var c = (char)_buffer[_next++];
            if (c == '\n')
                return _line.ToString().TrimEnd('\r');
            if (c is not ('\r' or '\t') && c is < ' ' or > '~')
                throw new InstrumentLinkException("What came back is not text: is this port a SCPI socket?");
            if (_line.Length >= LongestLine)
                throw new InstrumentLinkException("The answer does not end: is this port a SCPI socket?");
            _line.Append(c);
        }
    }

    private async Task<string> Guarded(Func<CancellationToken, Task<string>> work, CancellationToken cancel)
    {
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        limit.CancelAfter(_patience);
        try
        {
            return await work(limit.Token);
        }
        catch (OperationCanceledException ex) when (!cancel.IsCancellationRequested)
        {
            throw new InstrumentLinkException($"No answer within {_patience.TotalSeconds:0.#} s.", ex);
        }
        catch (Exception ex) when (ex is IOException or SocketException or ObjectDisposedException)
        {
            throw new InstrumentLinkException("The link to the instrument is lost.", ex);
        }
    }
}
