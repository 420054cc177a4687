using Mendro.Shop;
using Mendro.Web.Api;
using Mendro.Web.Live;
using Microsoft.AspNetCore.Http.Features;

namespace Mendro.Web;

/// <summary>
/// Refuses what no page of the shop sends, before anything of it is read: methods that nothing answers, bodies that are too
/// large or no form, and whatever another site's page asks to have written or streamed (Fetch Metadata, W3C).
/// </summary>
public sealed class Gate(RequestDelegate next)
{
    /// <summary>Largest body taken, bytes; a profile or a file of good readings has a few thousand.</summary>
    public const long MostBytes = 2 * 1024 * 1024;

    /// <summary>Largest body of the form that takes pictures, bytes: some pictures of a phone at once.</summary>
    public const long MostBytesOfPictures = 64 * 1024 * 1024;

    private const string Form = "application/x-www-form-urlencoded";
    private const string FormWithFiles = "multipart/form-data";

    /// <summary>Refuses or goes on.</summary>
    public Task InvokeAsync(HttpContext context)
    {
        var request = context.Request;
        var writes = HttpMethods.IsPost(request.Method);
        if (request.Path.StartsWithSegments(ApiEndpoints.Root))
        {
            // Programs have tokens, and what goes wrong there is told in their own way; no page of another site can send one.
            if (request.Path.Value!.EndsWith("/pictures", StringComparison.OrdinalIgnoreCase))
                Widen(context, PictureDesk.MostBytes);
            return next(context);
        }

        if (!writes && !HttpMethods.IsGet(request.Method) && !HttpMethods.IsHead(request.Method))
        {
            context.Response.Headers.Allow = "GET, HEAD, POST";
            return Refuse(context, StatusCodes.Status405MethodNotAllowed);
        }

        var pictures = TakesPictures(request);
        var most = pictures ? MostBytesOfPictures : MostBytes;
        if (pictures)
            Widen(context, most);
        if (request.ContentLength > most)
        {
            // What is still on its way is not waited for.
            context.Response.Headers.Connection = "close";
            return Refuse(context, StatusCodes.Status413PayloadTooLarge);
        }

        if ((writes || request.Path.Equals(EventEndpoint.Path)) && !IsOwnPage(request))
            return Refuse(context, StatusCodes.Status403Forbidden);
        if (writes && !IsForm(request))
            return Refuse(context, StatusCodes.Status400BadRequest);
        return next(context);
    }

    /// <summary>
    /// A browser says where a request comes from: from a page of this very address, or from the address bar. One that says nothing is
    /// no browser of this decade, and has the antiforgery token to show.
    /// </summary>
    private static bool IsOwnPage(HttpRequest request)
    {
        if (request.Headers.TryGetValue("Sec-Fetch-Site", out var site) && site.ToString() is not ("same-origin" or "none"))
            return false;
        return !request.Headers.TryGetValue("Origin", out var origin)
            || (Uri.TryCreate(origin.ToString(), UriKind.Absolute, out var from) && from.Authority == request.Host.Value);
    }

    private static void Widen(HttpContext context, long most)
    {
        if (context.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } limit)
            limit.MaxRequestBodySize = most;
    }

    private static bool TakesPictures(HttpRequest request) =>
        HttpMethods.IsPost(request.Method)
        && request.Path.StartsWithSegments("/Jobs", StringComparison.OrdinalIgnoreCase, out var rest)
        && rest.Value?.EndsWith("/Pictures", StringComparison.OrdinalIgnoreCase) == true;

    private static bool IsForm(HttpRequest request)
    {
        if (request.ContentLength is 0 or null && string.IsNullOrEmpty(request.ContentType) && request.Headers.TransferEncoding.Count == 0)
            return true;
        var kind = (request.ContentType ?? "").Split(';')[0].Trim();
        return kind.Equals(Form, StringComparison.OrdinalIgnoreCase) || kind.Equals(FormWithFiles, StringComparison.OrdinalIgnoreCase);
    }

    private static Task Refuse(HttpContext context, int code)
    {
        context.Response.StatusCode = code;
        return Task.CompletedTask;
    }
}
