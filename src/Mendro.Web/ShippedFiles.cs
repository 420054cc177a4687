using Microsoft.Net.Http.Headers;

namespace Mendro.Web;

/// <summary>How long a browser may keep styles, scripts, fonts and drawings that ship with the program.</summary>
internal static class ShippedFiles
{
    // A year: the address of a style or script holds the hash of its content, so that another content has another address.
    private const string Always = "public, max-age=31536000, immutable";

    // What has one address for good changes with a new version of the program at most.
    private const string ADay = "public, max-age=86400";

    /// <summary>The files of <c>wwwroot</c>, so that a page asks for none of them twice.</summary>
    public static void UseShippedFiles(this IApplicationBuilder app) =>
        app.UseStaticFiles(
            new StaticFileOptions
            {
                OnPrepareResponse = served =>
                    served.Context.Response.Headers[HeaderNames.CacheControl] = served.Context.Request.Query.ContainsKey("v") ? Always : ADay,
            }
        );
}
