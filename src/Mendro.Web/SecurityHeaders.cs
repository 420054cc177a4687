namespace Mendro.Web;

/// <summary>Headers that keep a page to what the application itself ships.</summary>
public sealed class SecurityHeaders(RequestDelegate next)
{
    private const string Policy =
        "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; font-src 'self'; connect-src 'self'; "
        + "form-action 'self'; base-uri 'none'; frame-ancestors 'none'";

    /// <summary>Adds the headers to whatever is answered, errors too, and goes on.</summary>
    public Task InvokeAsync(HttpContext context)
    {
        // Set last: the error handler empties the headers, and antiforgery sets a rule of its own for caches.
        context.Response.OnStarting(() =>
        {
            var headers = context.Response.Headers;
            headers.ContentSecurityPolicy = Policy;
            headers.XContentTypeOptions = "nosniff";
            headers["Referrer-Policy"] = "same-origin";
            // Browsers heed it, and do not complain of it, where what comes cannot have been changed on the way.
            if (context.Request.IsHttps || ServeOptions.LocalNames.Contains(context.Request.Host.Host))
                headers["Cross-Origin-Opener-Policy"] = "same-origin";
            // Once it came by a certificate of the shop's own, browsers are to come so for a year (RFC 6797); by names only, as it says.
            if (context.Request.IsHttps && !ServeOptions.LocalNames.Contains(context.Request.Host.Host))
                headers.StrictTransportSecurity = "max-age=31536000";
            headers["Cross-Origin-Resource-Policy"] = "same-origin";
            headers["Permissions-Policy"] = "camera=(), microphone=(), geolocation=()";
            // Pages show the shop's data: no cache may keep them.
            if (!Path.HasExtension(context.Request.Path))
                headers.CacheControl = "no-store";
            return Task.CompletedTask;
        });
        return next(context);
    }
}
