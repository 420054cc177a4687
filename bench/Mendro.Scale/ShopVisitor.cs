using System.Diagnostics;
using System.Net;
using System.Text.RegularExpressions;

namespace Mendro.Scale;

/// <summary>Asks a running shop as a browser would: one connection, cookies, the token of the page.</summary>
internal sealed partial class ShopVisitor : IDisposable
{
    private readonly HttpClient _client;
    private string? _token;

    public ShopVisitor(Uri address) =>
        _client = new HttpClient(new HttpClientHandler { AllowAutoRedirect = false, CookieContainer = new CookieContainer() })
        {
            BaseAddress = address,
        };

    [GeneratedRegex("name=\"mendro-token\" content=\"([^\"]+)\"")]
    private static partial Regex Token();

    /// <summary>Gets a page.</summary>
    /// <returns>Milliseconds until its last byte, and its bytes.</returns>
    public async Task<(double Milliseconds, int Bytes)> Get(string path)
    {
        var begun = Stopwatch.GetTimestamp();
        using var answer = await _client.GetAsync(path);
        var body = await answer.Content.ReadAsByteArrayAsync();
        var took = Stopwatch.GetElapsedTime(begun).TotalMilliseconds;
        return answer.IsSuccessStatusCode || answer.StatusCode == HttpStatusCode.Redirect
            ? (took, body.Length)
            : throw new InvalidOperationException($"{path}: {(int)answer.StatusCode}");
    }

    /// <summary>Signs in.</summary>
    public async Task SignIn(string name, string password)
    {
        await TokenOf("/SignIn");
        var (_, code) = await Post("/SignIn", ("name", name), ("password", password));
        if (code != 302)
            throw new InvalidOperationException($"Signing in was answered with {code}.");
        _token = null;
    }

    /// <summary>Takes the token of a page.</summary>
    public async Task TokenOf(string path) => _token = WebUtility.HtmlDecode(Token().Match(await _client.GetStringAsync(path)).Groups[1].Value);

    /// <summary>Listens to the stream until it is told to stop.</summary>
    /// <returns>Bytes heard.</returns>
    public async Task<long> Listen(CancellationToken stop)
    {
        var heard = 0L;
        try
        {
            await using var stream = await _client.GetStreamAsync("/Events", stop);
            var buffer = new byte[4096];
            while (await stream.ReadAsync(buffer, stop) is > 0 and var read)
                heard += read;
        }
        catch (OperationCanceledException)
        {
            // Heard enough.
        }

        return heard;
    }

    /// <summary>Posts a form.</summary>
    /// <returns>Milliseconds, and the answer's code.</returns>
    public async Task<(double Milliseconds, int Code)> Post(string path, params (string Name, string Value)[] fields)
    {
        if (_token is null)
            await TokenOf("/Gear");
        using var request = new HttpRequestMessage(HttpMethod.Post, path)
        {
            Content = new FormUrlEncodedContent(fields.Select(f => KeyValuePair.Create(f.Name, f.Value))),
        };
        request.Headers.Add("X-Mendro-Antiforgery", _token);
        var begun = Stopwatch.GetTimestamp();
        using var answer = await _client.SendAsync(request);
        await answer.Content.ReadAsByteArrayAsync();
        return (Stopwatch.GetElapsedTime(begun).TotalMilliseconds, (int)answer.StatusCode);
    }

    public void Dispose() => _client.Dispose();
}
