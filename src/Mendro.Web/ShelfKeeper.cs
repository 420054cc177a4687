using Mendro.Shop;
using Mendro.Storage;

namespace Mendro.Web;

/// <summary>Brings shelved jobs back to the bench on the day for which they wait.</summary>
public sealed class ShelfKeeper(HandOverDesk handOver, ShopCalendar calendar, TimeProvider time, ILogger<ShelfKeeper> log) : BackgroundService
{
    private static readonly TimeSpan Between = TimeSpan.FromMinutes(1);

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(Between, time);
        while (await timer.WaitForNextTickAsync(stoppingToken))
        {
            try
            {
                handOver.WakeDue(calendar.Today);
            }
            catch (ShopBusyException)
            {
                // The next minute will do.
            }
            catch (Exception ex) when (ex is not (OperationCanceledException or OutOfMemoryException))
            {
                log.LogWarning(ex, "Shelves could not be looked through");
            }
        }
    }
}
