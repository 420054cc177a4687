using Mendro.Web.Access;

namespace Mendro.Web.Live;

/// <summary>The stream of server-sent events (HTML Standard, section 9.2) of one browser. It starts nothing and takes nothing:
/// what a page wants of the meter it asks for with a post.</summary>
public sealed class EventEndpoint(EventStreams streams, IHostApplicationLifetime lifetime, TimeProvider time)
{
    /// <summary>Address.</summary>
    public const string Path = "/Events";

    private static readonly TimeSpan KeepAlive = TimeSpan.FromSeconds(10);

    /// <summary>Streams until the browser goes away, opens another, or the server stops.</summary>
    public async Task StreamAsync(HttpContext context)
    {
        if (BrowserId.Of(context.Request) is not { } browser)
        {
            context.Response.StatusCode = StatusCodes.Status403Forbidden;
            return;
        }

        var session = Viewer.Of(context).Session;
        if (streams.Open(browser, session?.AccountId, session?.JobNumber) is not { } stream)
        {
            context.Response.StatusCode = StatusCodes.Status503ServiceUnavailable;
            context.Response.Headers.RetryAfter = "10";
            return;
        }

        context.Response.ContentType = "text/event-stream";
        using var stop = CancellationTokenSource.CreateLinkedTokenSource(context.RequestAborted, lifetime.ApplicationStopping);
        try
        {
            await Write(context, ": open\n\n", stop.Token);
            var next = stream.Reader.WaitToReadAsync(stop.Token).AsTask();
            while (true)
            {
                if (await Task.WhenAny(next, Task.Delay(KeepAlive, time, stop.Token)) != next)
                {
                    await Write(context, ": still here\n\n", stop.Token);
                    continue;
                }

                if (!await next)
                    return;
                while (stream.Reader.TryRead(out var told))
                    await Write(context, $"event: {told.Name}\ndata: {told.Data}\n\n", stop.Token);
                next = stream.Reader.WaitToReadAsync(stop.Token).AsTask();
            }
        }
        catch (OperationCanceledException)
        {
            // The browser is gone, or the server stops.
        }
        finally
        {
            streams.Close(browser, stream);
        }
    }

    private static async Task Write(HttpContext context, string text, CancellationToken stop)
    {
        await context.Response.WriteAsync(text, stop);
        await context.Response.Body.FlushAsync(stop);
    }
}
