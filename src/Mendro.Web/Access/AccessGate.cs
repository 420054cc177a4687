using Mendro.Core.Access;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Access;

/// <summary>What an address that is no page asks for.</summary>
/// <param name="Right">The right.</param>
public sealed record EndpointRight(Right Right);

/// <summary>An address that other programs come to with a token of their own; no cookie counts there.</summary>
public sealed record ForPrograms;

/// <summary>
/// Lets in who may, and says at each page who asks. What is not listed is the owner's alone. What is done is done under the name of who
/// asks.
/// </summary>
public sealed class AccessGate(RequestDelegate next, ShopDoor door, ProgramDesk programs, AccessLog log)
{
    /// <summary>Item of a request that was refused for want of a right.</summary>
    public const string RefusedItem = "mendro.refused";

    /// <summary>Item of a request that came through a proxy nobody named.</summary>
    public const string PassedOnItem = "mendro.passed-on";

    private static readonly string[] PassedOn = ["X-Forwarded-For", "X-Forwarded-Host", "X-Forwarded-Proto", "Forwarded"];

    private const string First = "/First";
    private const string SignIn = "/SignIn";

    /// <summary>Lets in or refuses.</summary>
    public async Task InvokeAsync(HttpContext context)
    {
        var endpoint = context.GetEndpoint();
        if (endpoint?.Metadata.GetMetadata<ForPrograms>() is not null)
        {
            await next(context);
            return;
        }

        var viewer = door.Who(context);
        viewer.Keep(context);
        var page = endpoint?.Metadata.GetMetadata<PageActionDescriptor>()?.ViewEnginePath;
        var toThisMachine = endpoint?.Metadata.GetMetadata<ToThisMachine>() is not null && Endpoints.IsFromHere(context);
        // In a shop of the house whoever asks may everything: what others pass on from elsewhere is not this machine.
        if (viewer.IsHouse && page is not "/Error" && PassedOn.Any(context.Request.Headers.ContainsKey))
        {
            context.Items[PassedOnItem] = true;
            context.Response.StatusCode = StatusCodes.Status403Forbidden;
            return;
        }

        if (door.WaitsForOwner && page is not ("/Access/First" or "/Error") && !toThisMachine)
        {
            Refuse(context, First);
            return;
        }

        if (viewer.Session is { } session && door.Lacks(session) && page is not ("/Access/Me" or "/Error") && !toThisMachine)
        {
            Refuse(context, "/Me");
            return;
        }

        // Nobody learns which addresses there are.
        if (endpoint is null && !viewer.IsKnown)
        {
            Refuse(context, SignIn + Back(context));
            return;
        }

        if (endpoint is not null && !toThisMachine && !May(context, endpoint, page, viewer))
        {
            if (viewer.IsKnown)
            {
                context.Items[RefusedItem] = true;
                context.Response.StatusCode = StatusCodes.Status403Forbidden;
            }
            else
            {
                Refuse(context, SignIn + Back(context));
            }

            return;
        }

        using (Acting.As(viewer.Name))
            await next(context);
        Note(context, page, viewer);
    }

    /// <summary>
    /// What is done to a job stands in its records and its timeline. What is done to the shop besides, to stock, orders, models, money, is
    /// noted here: who, where, what.
    /// </summary>
    private void Note(HttpContext context, string? page, Viewer viewer)
    {
        if (page is null || viewer.Session is null || !HttpMethods.IsPost(context.Request.Method) || context.Response.StatusCode >= 400)
            return;
        if (page.StartsWith("/Jobs/", StringComparison.Ordinal) || page.StartsWith("/Access/", StringComparison.Ordinal))
            return;
        var handler = Handler(context);
        if (PageRights.Of(page).For(true, handler) == Right.Own)
            return;
        try
        {
            var what = page.Replace("/Index", "", StringComparison.Ordinal) + (handler.Length > 0 ? ": " + handler : "");
            log.Add(viewer.Name, what, ShopDoor.Visitor(context).Address);
        }
        catch (ShopBusyException)
        {
            // It was done and answered; that the file is busy now must not undo the answer.
        }
    }

    /// <summary>The handler, chosen as Razor Pages itself chooses it.</summary>
    private static string Handler(HttpContext context) =>
        Convert.ToString(context.Request.RouteValues["handler"], null) is { Length: > 0 } named ? named : context.Request.Query["handler"].ToString();

    private bool May(HttpContext context, Endpoint endpoint, string? page, Viewer viewer)
    {
        if (page is null)
            return viewer.Has(endpoint.Metadata.GetMetadata<EndpointRight>()?.Right ?? Right.Rule);
        var changes = !HttpMethods.IsGet(context.Request.Method) && !HttpMethods.IsHead(context.Request.Method);
        // A calendar program cannot sign in; it brings its token along.
        if (page == "/CalendarFeed" && !viewer.IsKnown && context.Request.Query["token"].ToString() is { Length: > 0 } token)
            return programs.Check(token)?.May(ProgramScope.Calendar) == true;
        // Of two the framework would take the first; our pages never name two.
        if (context.Request.Query["handler"].Count > 1)
            return false;
        var handler = Handler(context);
        if (viewer.Session is { JobNumber: { } job })
            return PageRights.PhoneMay(page, changes, handler, Convert.ToString(context.Request.RouteValues["number"], null) == $"{job}", viewer.Session.Role);
        return viewer.Has(PageRights.Of(page).For(changes, handler));
    }

    private static string Back(HttpContext context) =>
        HttpMethods.IsGet(context.Request.Method) && context.Request.Path != "/"
            ? "?to=" + Uri.EscapeDataString(context.Request.Path + context.Request.QueryString)
            : "";

    /// <summary>A look is led to where one comes in; whatever else asks is told so.</summary>
    private static void Refuse(HttpContext context, string to)
    {
        var request = context.Request;
        if (request.Headers.ContainsKey("HX-Request"))
        {
            context.Response.StatusCode = StatusCodes.Status401Unauthorized;
            context.Response.Headers["HX-Redirect"] = to.Split('?')[0];
        }
        else if (HttpMethods.IsGet(request.Method) && request.Headers.Accept.ToString() is var accept && (accept.Contains("html") || accept is "" or "*/*"))
        {
            context.Response.Redirect(to);
        }
        else
        {
            context.Response.StatusCode = StatusCodes.Status401Unauthorized;
        }
    }
}
