using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using System.Text.RegularExpressions;

namespace Mendro.Web.Tests;

/// <summary>SIGKILL to the real process between two posts: no answered write is lost.</summary>
public sealed partial class KillTests : IDisposable
{
    private readonly string _folder = Path.Combine(Path.GetTempPath(), "mendro-kill-" + Guid.NewGuid().ToString("N"));

    [GeneratedRegex("name=\"mendro-token\" content=\"([^\"]+)\"")]
    private static partial Regex Token();

    public void Dispose()
    {
        if (Directory.Exists(_folder)) Directory.Delete(_folder, true);
    }

    [Fact]
    public async Task Every_answered_write_survives_a_kill()
    {
        var answered = new List<string>();
        for (var round = 0; round < 3; round++)
        {
            var (server, address) = Start();
            using var client = new HttpClient(new HttpClientHandler { AllowAutoRedirect = false, CookieContainer = new CookieContainer() }) { BaseAddress = new Uri(address) };
            await Ready(client, server);
            // What was answered before the last kill is there.
            var list = await client.GetStringAsync("/Jobs", TestContext.Current.CancellationToken);
            foreach (var claim in answered) list.ShouldContain(claim);
            for (var n = 0; n < 4; n++)
            {
                var token = WebUtility.HtmlDecode(Token().Match(await client.GetStringAsync("/", TestContext.Current.CancellationToken)).Groups[1].Value);
                var claim = $"mark{round}x{n}";
                using var request = new HttpRequestMessage(HttpMethod.Post, "/?handler=Quick") { Content = new FormUrlEncodedContent([KeyValuePair.Create("line", $"quartet {claim}")]) };
                request.Headers.Add("X-Mendro-Antiforgery", token);
                using var response = await client.SendAsync(request, TestContext.Current.CancellationToken);
                response.StatusCode.ShouldBe(HttpStatusCode.Redirect);
                answered.Add(claim);
            }

            // Process.Kill is SIGKILL on Linux: no handler runs, nothing is flushed.
            server.Kill();
            await server.WaitForExitAsync(TestContext.Current.CancellationToken);
            server.ExitCode.ShouldBe(137);
        }
    }

    private (Process Server, string Address) Start()
    {
        var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        var port = ((IPEndPoint)listener.LocalEndpoint).Port;
        listener.Stop();
        var dll = Path.Combine(AppContext.BaseDirectory, "Mendro.Web.dll");
        var start = new ProcessStartInfo("dotnet", [dll, "--data", _folder, "--demo", "false", "--port", $"{port}"])
        {
            WorkingDirectory = AppContext.BaseDirectory, RedirectStandardOutput = true, RedirectStandardError = true,
        };
        var server = Process.Start(start)!;
        // Drained, so that a full pipe cannot stop the server.
        server.OutputDataReceived += (_, _) => { };
        server.ErrorDataReceived += (_, _) => { };
        server.BeginOutputReadLine();
        server.BeginErrorReadLine();
        return (server, $"http://127.0.0.1:{port}");
    }

    private static async Task Ready(HttpClient client, Process server)
    {
        var started = Stopwatch.StartNew();
        while (started.Elapsed < TimeSpan.FromSeconds(60))
        {
            server.HasExited.ShouldBeFalse("the server ended by itself");
            try
            {
                using var answer = await client.GetAsync("/health", TestContext.Current.CancellationToken);
                if (answer.IsSuccessStatusCode) return;
            }
            catch (HttpRequestException)
            {
                // Not listening yet: ask again until the time is up.
            }
        }

        throw new TimeoutException("The server did not come up within a minute.");
    }
}
