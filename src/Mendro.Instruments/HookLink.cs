using System.Globalization;
using System.Net.Http.Headers;
using System.Security.Cryptography;
using System.Text;
using Mendro.Core.Readings;

namespace Mendro.Instruments;

/// <summary>
/// Tells another program in the shop's own network of something: a post of JSON, signed with the secret that only the two know
/// (HMAC-SHA256, RFC 2104, over the time in Unix seconds, a dot and the body).
/// </summary>
public sealed class HookLink(TimeSpan patience)
{
    /// <summary>Patience where nothing else is set.</summary>
    public static readonly TimeSpan UsualPatience = TimeSpan.FromSeconds(5);

    /// <summary>Header of the signature: <c>t=1767225600,v1=…hex…</c>.</summary>
    public const string SignatureHeader = "Mendro-Signature";

    /// <summary>Header of the event.</summary>
    public const string EventHeader = "Mendro-Event";

    /// <summary>Header of the post's own id: the same when it comes again.</summary>
    public const string IdHeader = "Mendro-Id";

    private const int LongestAnswer = 64 * 1024;

    /// <summary>Ports at which Mendro itself answers on this machine.</summary>
    public IReadOnlyCollection<int> OwnPorts { get; set; } = [];

    /// <summary>Why an address cannot be told, or null.</summary>
    public static string? Problem(string? url) =>
        !Uri.TryCreate(url, UriKind.Absolute, out var uri) || uri.Scheme is not ("http" or "https") ? "An address such as http://192.168.1.30:8080/mendro."
        : uri.UserInfo.Length > 0 ? "No name and password in the address: what is sent is signed instead."
        : System.Net.IPAddress.TryParse(uri.Host.Trim('[', ']'), out var ip) && !BenchNetwork.IsNear(ip)
            ? "Only this machine and private addresses are told."
        : null;

    /// <summary>The signature of a body at a time.</summary>
    public static string Sign(string secret, string body, DateTimeOffset at)
    {
        var seconds = at.ToUnixTimeSeconds().ToString(CultureInfo.InvariantCulture);
        var mark = HMACSHA256.HashData(Encoding.UTF8.GetBytes(secret), Encoding.UTF8.GetBytes($"{seconds}.{body}"));
        return $"t={seconds},v1={Convert.ToHexStringLower(mark)}";
    }

    /// <summary>Posts.</summary>
    /// <returns>The status code; 2xx is taken.</returns>
    /// <exception cref="InstrumentLinkException">Nobody answers, or the address is none of the shop's own network.</exception>
    public async Task<int> PostAsync(string url, string secret, string name, long id, string body, DateTimeOffset now, CancellationToken cancel)
    {
        if (Problem(url) is { } wrong)
            throw new InstrumentLinkException(wrong);
        var uri = new Uri(url);
        var address = new InstrumentAddress(uri.Host, uri.Port);
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        limit.CancelAfter(patience);
        try
        {
            using var handler = NearHttp.To(await BenchNetwork.FindAsync(address, OwnPorts, limit.Token));
            using var client = new HttpClient(handler) { MaxResponseContentBufferSize = LongestAnswer };
            using var request = new HttpRequestMessage(HttpMethod.Post, uri)
            {
                Content = new StringContent(body, Encoding.UTF8, new MediaTypeHeaderValue("application/json")),
            };
            request.Headers.Add(EventHeader, name);
            request.Headers.Add(IdHeader, id.ToString(CultureInfo.InvariantCulture));
            request.Headers.Add(SignatureHeader, Sign(secret, body, now));
            using var answer = await client.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, limit.Token);
            return (int)answer.StatusCode;
        }
        catch (Exception ex) when (ex is HttpRequestException or IOException or OperationCanceledException && !cancel.IsCancellationRequested)
        {
            throw new InstrumentLinkException(ex is OperationCanceledException ? "It did not answer in time." : "Nobody answers there.", ex);
        }
    }
}
