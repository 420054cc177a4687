using System.Net;
using System.Net.Http.Headers;
using System.Text;
using Mendro.Core.Readings;

namespace Mendro.Instruments;

/// <summary>
/// A supplier that answers over HTTP in the shop's own network: its prices, and an order. What it sends is text of a bounded length;
/// whoever reads it checks it.
/// </summary>
/// <param name="patience">How long an answer is waited for.</param>
/// <param name="time">Clock of that patience; null for the machine's.</param>
public sealed class SupplierLink(TimeSpan patience, TimeProvider? time = null)
{
    /// <summary>Patience where nothing else is set.</summary>
    public static readonly TimeSpan UsualPatience = TimeSpan.FromSeconds(5);

    private const int LongestAnswer = 2 * 1024 * 1024;

    /// <summary>Ports at which Mendro itself answers on this machine.</summary>
    public IReadOnlyCollection<int> OwnPorts { get; set; } = [];

    /// <summary>Asks for the prices.</summary>
    /// <param name="address">Where it answers.</param>
    /// <param name="cancel">Gives up.</param>
    /// <exception cref="InstrumentLinkException">It does not answer as it should; the message says what to do.</exception>
    public Task<string> PricesAsync(InstrumentAddress address, CancellationToken cancel) =>
        SendAsync(address, HttpMethod.Get, "/prices", null, cancel);

    /// <summary>Sends an order.</summary>
    /// <param name="address">Where it answers.</param>
    /// <param name="order">The order as JSON; its number in it lets a supplier know one that comes twice.</param>
    /// <param name="cancel">Gives up.</param>
    /// <exception cref="InstrumentLinkException">It was not accepted, or nobody knows; the message says which.</exception>
    public Task<string> OrderAsync(InstrumentAddress address, string order, CancellationToken cancel) =>
        SendAsync(address, HttpMethod.Post, "/orders", order, cancel);

    private async Task<string> SendAsync(InstrumentAddress address, HttpMethod method, string path, string? body, CancellationToken cancel)
    {
        var at = await BenchNetwork.FindAsync(address, OwnPorts, cancel);
        using var late = new CancellationTokenSource(patience, time ?? TimeProvider.System);
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(cancel, late.Token);
        using var handler = NearHttp.To(at);
        using var client = new HttpClient(handler) { MaxResponseContentBufferSize = LongestAnswer };
        using var request = new HttpRequestMessage(method, new UriBuilder("http", address.Host, address.Port, path).Uri);
        request.Headers.Accept.Add(new MediaTypeWithQualityHeaderValue("application/json"));
        if (body is not null)
            request.Content = new StringContent(body, Encoding.UTF8, "application/json");
        try
        {
            using var answer = await client.SendAsync(request, HttpCompletionOption.ResponseContentRead, limit.Token);
            if (answer.StatusCode is not (HttpStatusCode.OK or HttpStatusCode.Created or HttpStatusCode.Accepted))
                throw new InstrumentLinkException(
                    $"It answers with {(int)answer.StatusCode}: its side fails. Try again later, or take its price list as a file."
                );
            return await answer.Content.ReadAsStringAsync(limit.Token);
        }
        catch (Exception ex) when (ex is HttpRequestException or IOException or OperationCanceledException && !cancel.IsCancellationRequested)
        {
            throw new InstrumentLinkException(
                body is null
                    ? "It does not answer, or only half. Its last prices stay; try again later, or take its price list as a file."
                    : "It did not answer to the order. Nobody knows whether it came through: ask there before sending it again.",
                ex
            );
        }
    }
}
