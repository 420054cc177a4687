namespace Mendro.Web;

/// <summary>Headers that keep a page to what the application itself ships.</summary>
public sealed class SecurityHeaders(RequestDelegate next)
{
    private const string Policy =
        "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; font-src 'self'; connect-src 'self'; "
        + "form-action 'self'; base-uri 'none'; frame-ancestors 'none'";

    /// <summary>Adds the headers and goes on.</summary>
    public Task InvokeAsync(HttpContext context)
    {
        var headers = context.Response.Headers;
        headers.ContentSecurityPolicy = Policy;
        headers.XContentTypeOptions = "nosniff";
        headers["Referrer-Policy"] = "same-origin";
        headers["Cross-Origin-Opener-Policy"] = "same-origin";
        headers["Permissions-Policy"] = "camera=(), microphone=(), geolocation=()";
        // Pages show the shop's data: no cache may keep them. Set last, because antiforgery sets a rule of its own.
        context.Response.OnStarting(() =>
        {
            if (!Path.HasExtension(context.Request.Path))
                context.Response.Headers.CacheControl = "no-store";
            return Task.CompletedTask;
        });
        return next(context);
    }
}
