using Mendro.Shop;

namespace Mendro.Web;

/// <summary>Takes the daily backup while the shop is open: a minute after it opened, and then looked for every hour.</summary>
public sealed class BackupKeeper(DailyBackup backups, TimeProvider time, ILogger<BackupKeeper> log) : BackgroundService
{
    private static readonly TimeSpan First = TimeSpan.FromMinutes(1);
    private static readonly TimeSpan Pace = TimeSpan.FromHours(1);

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        try
        {
            for (var wait = First; ; wait = Pace)
            {
                await Task.Delay(wait, time, stoppingToken);
                try
                {
                    if (backups.TakeWhenDue())
                        log.LogInformation("The daily backup was taken");
                    else if (backups.Problem is { } problem)
                        log.LogWarning("The daily backup could not be taken: {Problem}", problem);
                }
                catch (Exception ex) when (ex is not (OperationCanceledException or OutOfMemoryException))
                {
                    log.LogWarning(ex, "The daily backup could not be taken");
                }
            }
        }
        catch (OperationCanceledException)
        {
            // The shop closes.
        }
    }
}
