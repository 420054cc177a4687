using Mendro.Shop;

namespace Mendro.Web;

/// <summary>Runs what works the bench out behind the answers.</summary>
public sealed class BenchWorker(BenchRefresher refresher) : BackgroundService
{
    /// <inheritdoc/>
    protected override Task ExecuteAsync(CancellationToken stoppingToken) => refresher.RunAsync(stoppingToken);
}
