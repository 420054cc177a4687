using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;

namespace Mendro.Web;

/// <summary>A post that a page does not answer is refused (405): the page itself was not prepared for it.</summary>
public sealed class NoHandler : IPageFilter
{
    /// <inheritdoc/>
    public void OnPageHandlerSelected(PageHandlerSelectedContext context) { }

    /// <inheritdoc/>
    public void OnPageHandlerExecuting(PageHandlerExecutingContext context)
    {
        if (context.HandlerMethod is not null || !HttpMethods.IsPost(context.HttpContext.Request.Method))
            return;
        context.HttpContext.Response.Headers.Allow = "GET, HEAD";
        context.Result = new StatusCodeResult(StatusCodes.Status405MethodNotAllowed);
    }

    /// <inheritdoc/>
    public void OnPageHandlerExecuted(PageHandlerExecutedContext context) { }
}
