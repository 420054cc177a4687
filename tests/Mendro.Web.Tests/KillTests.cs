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
        if (Directory.Exists(_folder))
            Directory.Delete(_folder, true);
    }

    [Fact]
    public async Task Every_answered_write_survives_a_kill()
    {
        var answered = new List<string>();
        for (var round = 0; round < 3; round++)
        {
            using var server = await RealServer.Open(_folder);
            using var client = new HttpClient(new HttpClientHandler { AllowAutoRedirect = false, CookieContainer = new CookieContainer() })
            {
                BaseAddress = new Uri(server.Address),
            };
            // What was answered before the last kill is there.
            var list = await client.GetStringAsync("/Jobs", TestContext.Current.CancellationToken);
            foreach (var claim in answered)
                list.ShouldContain(claim);
            for (var n = 0; n < 4; n++)
            {
                var token = WebUtility.HtmlDecode(
                    Token().Match(await client.GetStringAsync("/", TestContext.Current.CancellationToken)).Groups[1].Value
                );
                var claim = $"mark{round}x{n}";
                using var request = new HttpRequestMessage(HttpMethod.Post, "/?handler=Quick")
                {
                    Content = new FormUrlEncodedContent([KeyValuePair.Create("line", $"quartet {claim}")]),
                };
                request.Headers.Add("X-Mendro-Antiforgery", token);
                using var response = await client.SendAsync(request, TestContext.Current.CancellationToken);
                response.StatusCode.ShouldBe(HttpStatusCode.Redirect);
                answered.Add(claim);
            }

            await server.Kill();
            server.ExitCode.ShouldBe(137);
        }
    }
}
