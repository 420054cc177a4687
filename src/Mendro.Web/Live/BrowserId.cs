using System.Security.Cryptography;

namespace Mendro.Web.Live;

/// <summary>
/// Tells browsers apart by a random cookie of our own, given with the first page. It names nobody and opens nothing by itself.
/// </summary>
public sealed class BrowserId(RequestDelegate next)
{
    /// <summary>Name of the cookie.</summary>
    public const string Cookie = "mendro.browser";

    private const int Bytes = 16;

    /// <summary>The browser that asks, or null when it has not been given a page yet.</summary>
    public static string? Of(HttpRequest request) =>
        request.Cookies[Cookie] is { Length: 2 * Bytes } id && id.All(char.IsAsciiHexDigit) ? id : null;

    /// <summary>Gives the cookie with a page, and goes on.</summary>
    public Task InvokeAsync(HttpContext context)
    {
        if (HttpMethods.IsGet(context.Request.Method) && Of(context.Request) is null && !Path.HasExtension(context.Request.Path))
            context.Response.OnStarting(() =>
            {
                if (context.Response.ContentType?.StartsWith("text/html", StringComparison.Ordinal) == true)
                    context.Response.Cookies.Append(
                        Cookie,
                        Convert.ToHexString(RandomNumberGenerator.GetBytes(Bytes)),
                        new CookieOptions
                        {
                            HttpOnly = true,
                            SameSite = SameSiteMode.Strict,
                            IsEssential = true,
                        }
                    );
                return Task.CompletedTask;
            });
        return next(context);
    }
}
