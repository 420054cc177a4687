using Mendro.Core.Readings;
using Mendro.Instruments;
using Mendro.Storage;

namespace Mendro.Web.Access;

/// <summary>Tells other programs what is due, and again later what was not taken: six tries within a day.</summary>
public sealed class HookWorker(HookStore hooks, HookLink link, ShopDatabase database, TimeProvider time, ILogger<HookWorker> log)
    : BackgroundService
{
    /// <summary>Waits between the tries.</summary>
    public static IReadOnlyList<TimeSpan> Waits { get; } =
        [TimeSpan.FromMinutes(1), TimeSpan.FromMinutes(5), TimeSpan.FromMinutes(30), TimeSpan.FromHours(3), TimeSpan.FromHours(20)];

    private static readonly TimeSpan Pace = TimeSpan.FromSeconds(30);
    private const int AtOnce = 20;

    private readonly SemaphoreSlim _news = new(0, 1);

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        database.Committed += Wake;
        try
        {
            while (true)
            {
                try
                {
                    if (hooks.Any)
                        await TellAsync(stoppingToken);
                }
                catch (Exception ex) when (ex is not (OperationCanceledException or OutOfMemoryException))
                {
                    // A file that is in use, a disk that is full: the next round asks again.
                    if (ex is not ShopBusyException)
                        log.LogWarning(ex, "Other programs could not be told");
                }

                await _news.WaitAsync(Pace, stoppingToken);
            }
        }
        catch (OperationCanceledException)
        {
            // The shop closes.
        }
        finally
        {
            database.Committed -= Wake;
        }
    }

    /// <summary>Tells what is due.</summary>
    internal async Task TellAsync(CancellationToken cancel)
    {
        foreach (var post in hooks.Due(AtOnce))
        {
            var (answer, taken) = await TryAsync(post, cancel);
            var next = taken || post.Tries >= Waits.Count ? (DateTimeOffset?)null : time.GetUtcNow() + Waits[post.Tries];
            hooks.Tried(post.Id, answer, taken, next);
            if (!taken && next is null)
                log.LogWarning("{Url} did not take {Event} in {Tries} tries: {Answer}", post.Url, post.Event, post.Tries + 1, answer);
        }
    }

    private async Task<(string Answer, bool Taken)> TryAsync(HookPost post, CancellationToken cancel)
    {
        try
        {
            var code = await link.PostAsync(post.Url, post.Secret, post.Event, post.Id, post.Body, time.GetUtcNow(), cancel);
            return ($"{code}", code is >= 200 and < 300);
        }
        catch (InstrumentLinkException ex)
        {
            return (ex.Message, false);
        }
    }

    private void Wake()
    {
        if (hooks.Any && _news.CurrentCount == 0)
            try
            {
                _news.Release();
            }
            catch (SemaphoreFullException)
            {
                // Somebody else was quicker.
            }
    }
}
