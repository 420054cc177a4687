using Mendro.Shop;

namespace Mendro.Web;

/// <summary>Brings into the books what an older shop has of them, behind the work: some tens of matters at a time.</summary>
public sealed partial class BookWorker(BookKeeper keeper, TimeProvider time, ILogger<BookWorker> log) : BackgroundService
{
    // So few that nobody who files waits for them.
    private const int AtOnce = 40;
    private static readonly TimeSpan First = TimeSpan.FromSeconds(2);
    private static readonly TimeSpan Between = TimeSpan.FromMilliseconds(10);

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        // Nothing is due in a shop that keeps its books: then there is no worker.
        if (!keeper.IsDue)
            return;
        try
        {
            await Task.Delay(First, time, stoppingToken);
            while (keeper.Settle(AtOnce) > 0)
                await Task.Delay(Between, time, stoppingToken);
        }
        catch (OperationCanceledException)
        {
            // The shop closes.
        }
        catch (Exception ex) when (ex is not OutOfMemoryException)
        {
            // A disk that is full, or another program that writes: they are brought in with the next look at them.
            NotBroughtIn(ex);
        }
    }

    [LoggerMessage(LogLevel.Warning, "The books could not be brought up to date")]
    private partial void NotBroughtIn(Exception ex);
}
