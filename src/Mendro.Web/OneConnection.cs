using Mendro.Storage;

namespace Mendro.Web;

/// <summary>One connection to the database for all that a page or an action asks. A stream of the meter lasts too long to hold
/// one.</summary>
public sealed class OneConnection(RequestDelegate next, ShopDatabase database)
{
    /// <summary>Opens it when the first thing is asked, and goes on.</summary>
    public async Task InvokeAsync(HttpContext context)
    {
        if (context.Request.Path.Value?.EndsWith("/Live", StringComparison.Ordinal) == true || Path.HasExtension(context.Request.Path))
        {
            await next(context);
            return;
        }

        using (database.OneConnection())
            await next(context);
    }
}
