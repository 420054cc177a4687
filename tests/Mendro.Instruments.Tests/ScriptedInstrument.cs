using System.Net;
using System.Net.Sockets;
using System.Text;

namespace Mendro.Instruments.Tests;

/// <summary>An instrument that answers each line with the pieces it was told to, one packet a piece; an empty piece ends the
/// link.</summary>
internal sealed class ScriptedInstrument : IDisposable
{
    private readonly TcpListener _listener = new(IPAddress.Loopback, 0);
    private readonly Func<string, byte[][]> _script;

    public ScriptedInstrument(Func<string, byte[][]> script)
    {
        _script = script;
        _listener.Start();
        _ = ServeAsync();
    }

    public int Port => ((IPEndPoint)_listener.LocalEndpoint).Port;

    /// <summary>Lines received, in order.</summary>
    public List<string> Heard { get; } = [];

    public static byte[][] Text(params string[] pieces) => pieces.Select(Encoding.ASCII.GetBytes).ToArray();

    public void Dispose() => _listener.Dispose();

    private async Task ServeAsync()
    {
        try
        {
            while (true)
            {
                using var client = await _listener.AcceptTcpClientAsync();
                client.NoDelay = true;
                await using var stream = client.GetStream();
                using var reader = new StreamReader(stream, Encoding.ASCII, leaveOpen: true);
                while (await reader.ReadLineAsync() is { } line)
                {
                    Heard.Add(line);
                    var pieces = _script(line);
                    foreach (var piece in pieces.TakeWhile(p => p.Length > 0))
                    {
                        await stream.WriteAsync(piece);
                        await stream.FlushAsync();
                        // Lets the piece leave as a packet of its own.
                        await Task.Yield();
                    }

                    if (pieces.Any(p => p.Length == 0))
                        break;
                }
            }
        }
        catch (Exception ex) when (ex is SocketException or ObjectDisposedException or IOException)
        {
            // Switched off.
        }
    }
}
