using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using System.Text;
using Mendro.Tests.Shared;

namespace Mendro.Web.Tests;

/// <summary>The application as a process of its own, with its own web server, environment and data folder.</summary>
internal sealed class RealServer : IDisposable
{
    private readonly Process _process;
    private readonly StringBuilder _said = new();
    private readonly SemaphoreSlim _more = new(0);
    private volatile bool _ended;

    private RealServer(Process process, string address) => (_process, Address) = (process, address);

    public string Address { get; }

    public int Port => new Uri(Address).Port;

    public string Said
    {
        get
        {
            lock (_said)
                return _said.ToString();
        }
    }

    public int ExitCode => _process.ExitCode;

    /// <summary>
    /// Waits until it has said this: its answer and its log come by two ways, and either may be first.
    /// </summary>
    public async Task Hears(string text)
    {
        while (!Said.Contains(text, StringComparison.Ordinal))
        {
            var more = await _more.WaitAsync(TimeSpan.FromSeconds(120), TestContext.Current.CancellationToken);
            (more && !(_ended && !Said.Contains(text, StringComparison.Ordinal))).ShouldBeTrue($"It never said {text}, but: {Said}");
        }
    }

    /// <summary>Starts a server on a prepared shop and waits until it says that it is open.</summary>
    public static async Task<RealServer> Open(string folder, Dictionary<string, string>? environment = null, params string[] more)
    {
        if (more.Contains("--demo"))
            PreparedShop.DemoIn(folder);
        else if (!File.Exists(Path.Combine(folder, "shop.db")))
            PreparedShop.In(folder);
        var server = Start(folder, environment, more);
        await server.Hears("Mendro is open");
        return server;
    }

    /// <summary>Starts a server that is expected to end by itself, and gives what it said.</summary>
    public static async Task<(int ExitCode, string Said)> Refused(
        string folder,
        Dictionary<string, string>? environment = null,
        params string[] more
    )
    {
        using var server = Start(folder, environment, more);
        await server._process.WaitForExitAsync(TestContext.Current.CancellationToken);
        return (server.ExitCode, server.Said);
    }

    /// <summary>Starts a server without waiting until it is open.</summary>
    public static RealServer Launch(string folder, Dictionary<string, string>? environment = null, params string[] more) =>
        Start(folder, environment, more);

    /// <summary>Ends it as a power cut would: no handler runs, nothing is flushed.</summary>
    public async Task Kill()
    {
        _process.Kill();
        await _process.WaitForExitAsync(TestContext.Current.CancellationToken);
    }

    public void Dispose()
    {
        if (!_process.HasExited)
            _process.Kill();
        _process.WaitForExit();
        _process.Dispose();
    }

    private static RealServer Start(string folder, Dictionary<string, string>? environment, string[] more)
    {
        var port = FreePort();
        string[] args =
        [
            Path.Combine(Environment.GetEnvironmentVariable("MENDRO_TEST_PROGRAM") ?? AppContext.BaseDirectory, "Mendro.Web.dll"),
            "--data",
            folder,
            "--port",
            $"{port}",
            "--demo-models",
            "true",
            "--warm-up",
            "no",
            .. more,
        ];
        var start = new ProcessStartInfo("dotnet", args)
        {
            WorkingDirectory = AppContext.BaseDirectory,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        foreach (var (name, value) in environment ?? [])
            start.Environment[name] = value;
        var process = Process.Start(start)!;
        var server = new RealServer(process, $"http://127.0.0.1:{port}");
        // Drained, so that a full pipe cannot stop the server.
        process.OutputDataReceived += (_, line) => server.Hear(line.Data);
        process.ErrorDataReceived += (_, line) => server.Hear(line.Data);
        process.BeginOutputReadLine();
        process.BeginErrorReadLine();
        return server;
    }

    /// <summary>A port that nobody listens at.</summary>
    public static int FreePort()
    {
        var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        var port = ((IPEndPoint)listener.LocalEndpoint).Port;
        listener.Stop();
        return port;
    }

    /// <summary>A line it said, or null when it will say no more.</summary>
    private void Hear(string? line)
    {
        if (line is null)
            _ended = true;
        else
            lock (_said)
                _said.AppendLine(line);
        _more.Release();
    }
}
