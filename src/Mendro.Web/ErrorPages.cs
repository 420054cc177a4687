using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Http.Features;

namespace Mendro.Web;

/// <summary>The error page is only ever read: what was sent may be what is broken, so it is not looked at again.</summary>
public sealed class ErrorPages(RequestDelegate next)
{
    /// <summary>Makes a visit of what is asked again on behalf of a failed request.</summary>
    public Task InvokeAsync(HttpContext context)
    {
        if (context.Features.Get<IStatusCodeReExecuteFeature>() is not null || context.Features.Get<IExceptionHandlerFeature>() is not null)
        {
            context.Request.Method = HttpMethods.Get;
            context.Request.ContentType = null;
            context.Request.ContentLength = null;
            context.Request.Body = Stream.Null;
            context.Features.Set<IFormFeature>(new FormFeature(FormCollection.Empty));
        }

        return next(context);
    }
}
