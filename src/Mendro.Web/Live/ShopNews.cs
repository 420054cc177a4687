using Mendro.Shop;
using Mendro.Storage;

namespace Mendro.Web.Live;

/// <summary>Tells the open pages what others did: that the bench was worked out again, and which job was changed.</summary>
public sealed class ShopNews(EventStreams streams, BenchRefresher refresher, JobBench bench, IHttpContextAccessor asking) : IHostedService
{
    /// <summary>Header by which a page names itself, so that it is not told of its own deeds.</summary>
    public const string PageHeader = "X-Mendro-Page";

    private const int LongestPage = 40;

    /// <inheritdoc/>
    public Task StartAsync(CancellationToken cancellationToken)
    {
        refresher.Refreshed += TellBench;
        bench.Changed += TellJob;
        return Task.CompletedTask;
    }

    /// <inheritdoc/>
    public Task StopAsync(CancellationToken cancellationToken)
    {
        refresher.Refreshed -= TellBench;
        bench.Changed -= TellJob;
        return Task.CompletedTask;
    }

    private void TellBench() => streams.SendAll("bench", new { });

    private void TellJob(long number)
    {
        var page = asking.HttpContext?.Request.Headers[PageHeader].ToString() ?? "";
        streams.SendAll("job", new { Number = number, By = page.Length <= LongestPage ? page : "", Who = Acting.Now }, number);
    }
}
