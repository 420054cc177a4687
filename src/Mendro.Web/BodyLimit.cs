namespace Mendro.Web;

/// <summary>Refuses what is too large before anything of it is read: read half, it would look like a broken form.</summary>
public sealed class BodyLimit(RequestDelegate next)
{
    /// <summary>Largest body taken, bytes; a profile or a file of good readings has a few thousand.</summary>
    public const long MostBytes = 2 * 1024 * 1024;

    /// <summary>Refuses or goes on.</summary>
    public Task InvokeAsync(HttpContext context)
    {
        if (!(context.Request.ContentLength > MostBytes))
            return next(context);
        context.Response.StatusCode = StatusCodes.Status413PayloadTooLarge;
        // What is still on its way is not waited for.
        context.Response.Headers.Connection = "close";
        return Task.CompletedTask;
    }
}
