using Mendro.Storage;
using Mendro.Web.Live;

namespace Mendro.Web;

/// <summary>One connection to the database for all that a page or an action asks. A stream lasts too long to hold
/// one.</summary>
public sealed class OneConnection(RequestDelegate next, ShopDatabase database)
{
    /// <summary>Opens it when the first thing is asked, and goes on.</summary>
    public async Task InvokeAsync(HttpContext context)
    {
        if (context.Request.Path.Equals(EventEndpoint.Path) || Path.HasExtension(context.Request.Path))
        {
            await next(context);
            return;
        }

        using (database.OneConnection())
            await next(context);
    }
}
