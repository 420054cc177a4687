using System.Net;
using System.Net.Sockets;
using System.Text;

namespace Mendro.StandIns.Suppliers;

/// <summary>How a stand-in supplier answers.</summary>
public enum SupplierMood
{
    /// <summary>As it should.</summary>
    Well,

    /// <summary>Never.</summary>
    Silent,

    /// <summary>It takes what was asked, and answers only when it is told to (<see cref="StandInSupplier.AnswerNow"/>).</summary>
    Late,

    /// <summary>With half an answer, then it hangs up.</summary>
    Half,

    /// <summary>With an error of its own.</summary>
    Fails,

    /// <summary>With something that is no price list.</summary>
    Nonsense,
}

/// <summary>A supplier on a loopback port: its prices as <c>GET /prices</c>, an order as <c>POST /orders</c>.</summary>
public sealed class StandInSupplier : IDisposable
{
    private const int LongestRequest = 256 * 1024;

    private readonly CancellationTokenSource _stop = new();
    private readonly TcpListener _listener = new(IPAddress.Loopback, 0);
    private readonly List<string> _orders = [];
    private readonly SemaphoreSlim _asked = new(0);
    private readonly SemaphoreSlim _mayAnswer = new(0);

    /// <summary>Begins to listen on 127.0.0.1.</summary>
    /// <param name="prices">What it answers to a question for its prices.</param>
    public StandInSupplier(string prices)
    {
        Prices = prices;
        _listener.Start();
        _ = Task.Run(ListenAsync);
    }

    /// <summary>Port.</summary>
    public int Port => ((IPEndPoint)_listener.LocalEndpoint).Port;

    /// <summary>What it answers to a question for its prices.</summary>
    public string Prices { get; set; }

    /// <summary>How it answers.</summary>
    public SupplierMood Mood { get; set; }

    /// <summary>Orders that came in, as they were sent; one that comes twice is taken once.</summary>
    public IReadOnlyList<string> Orders
    {
        get
        {
            lock (_orders)
                return [.. _orders];
        }
    }

    /// <summary>Waits until somebody has asked.</summary>
    public Task Asked(CancellationToken cancel) => _asked.WaitAsync(cancel);

    /// <summary>Lets a late one answer once.</summary>
    public void AnswerNow() => _mayAnswer.Release();

    /// <inheritdoc/>
    public void Dispose()
    {
        _stop.Cancel();
        _listener.Stop();
        _stop.Dispose();
    }

    private async Task ListenAsync()
    {
        try
        {
            while (!_stop.IsCancellationRequested)
            {
                var client = await _listener.AcceptTcpClientAsync(_stop.Token);
                _ = AnswerAsync(client);
            }
        }
        catch (Exception ex) when (ex is OperationCanceledException or SocketException or ObjectDisposedException)
        {
            // It was told to stop.
        }
    }

    private async Task AnswerAsync(TcpClient client)
    {
        using (client)
        {
            try
            {
                var stream = client.GetStream();
                var (line, body) = await ReadAsync(stream);
                _asked.Release();
                if (Mood == SupplierMood.Silent)
                {
                    await Task.Delay(Timeout.Infinite, _stop.Token);
                    return;
                }

                var (status, text) =
                    Mood == SupplierMood.Fails ? ("500 Internal Server Error", "")
                    : Mood == SupplierMood.Nonsense ? ("200 OK", "<html>closed for stocktaking</html>")
                    : line.StartsWith("GET /prices ", StringComparison.Ordinal) ? ("200 OK", Prices)
                    : line.StartsWith("POST /orders ", StringComparison.Ordinal) ? Take(body)
                    : ("404 Not Found", "");
                if (Mood == SupplierMood.Late)
                    await _mayAnswer.WaitAsync(_stop.Token);
                var content = Encoding.UTF8.GetBytes(text);
                var head = $"HTTP/1.1 {status}\r\nContent-Type: application/json\r\nContent-Length: {content.Length}\r\nConnection: close\r\n\r\n";
                await stream.WriteAsync(Encoding.ASCII.GetBytes(head), _stop.Token);
                await stream.WriteAsync(Mood == SupplierMood.Half ? content.AsMemory(0, content.Length / 2) : content, _stop.Token);
            }
            catch (Exception ex) when (ex is IOException or OperationCanceledException or ObjectDisposedException)
            {
                // The other side is gone.
            }
        }
    }

    private (string Status, string Text) Take(string body)
    {
        lock (_orders)
            if (!_orders.Contains(body))
                _orders.Add(body);
        return ("201 Created", """{"accepted":true}""");
    }

    private async Task<(string Line, string Body)> ReadAsync(NetworkStream stream)
    {
        var held = new List<byte>();
        var buffer = new byte[4096];
        var end = -1;
        var length = 0;
        while (held.Count < LongestRequest)
        {
            var read = await stream.ReadAsync(buffer, _stop.Token);
            if (read == 0)
                break;
            held.AddRange(buffer.AsSpan(0, read));
            var text = Encoding.UTF8.GetString([.. held]);
            if (end < 0 && (end = text.IndexOf("\r\n\r\n", StringComparison.Ordinal)) >= 0)
                length = text[..end]
                    .Split("\r\n")
                    .Where(h => h.StartsWith("Content-Length:", StringComparison.OrdinalIgnoreCase))
                    .Select(h => int.Parse(h.Split(':')[1], System.Globalization.CultureInfo.InvariantCulture))
                    .FirstOrDefault();
            if (end >= 0 && held.Count >= end + 4 + length)
                break;
        }

        var all = Encoding.UTF8.GetString([.. held]);
        return (all.Split("\r\n")[0], end >= 0 ? all[(end + 4)..] : "");
    }
}
