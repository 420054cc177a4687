using Mendro.Storage;
using Mendro.Web.Access;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages;

/// <summary>What is shown instead of a stack trace.</summary>
[ResponseCache(Duration = 0, Location = ResponseCacheLocation.None, NoStore = true)]
public sealed class ErrorModel : PageModel
{
    /// <summary>Status code of the answer.</summary>
    public int Code { get; private set; } = 500;

    /// <summary>True when the thing asked for is not here.</summary>
    public bool NotFoundHere => Code == 404;

    /// <summary>Id to look up in the log; it stands there as <c>RequestId</c>.</summary>
    public string RequestId => HttpContext.TraceIdentifier;

    /// <summary>True when the log says more: only of what went wrong here.</summary>
    public bool IsLogged => Code >= 500 && Again is null;

    private bool LacksRight => HttpContext.Items.ContainsKey(AccessGate.RefusedItem);

    /// <summary>Heading.</summary>
    public string Heading =>
        Code switch
        {
            404 => "That is not here",
            400 or 405 => "That request could not be taken",
            403 => LacksRight ? "That is not yours to do" : "That came from somewhere else",
            401 => "Sign in first",
            503 => "The shop's file is in use",
            507 => "The disk is full",
            413 => "That was too much at once",
            _ => "Something went wrong",
        };

    /// <summary>What to do.</summary>
    public string Text =>
        Code switch
        {
            404 => "There is no such page or job. It may have been deleted; the list of jobs shows deleted ones too.",
            400 => "The page may have been open for too long. Go back, load it again and send it once more; nothing was changed.",
            401 => "You are signed out. Sign in, and send it once more; nothing was changed.",
            403 when HttpContext.Items.ContainsKey(AccessGate.PassedOnItem) =>
                "This came through a proxy, and the shop was told of none. Start it with --proxy ADDRESS, and it asks who comes (docs/operations.md).",
            403 when LacksRight => "Your account does not have the right to this. An owner of the shop can give you another role.",
            403 => "Only Mendro's own pages may ask for this. Nothing was changed.",
            405 => "Pages are read and forms are sent; nothing else is answered here.",
            503 => "Another program holds the shop's file for the moment. Nothing was changed, and what you typed is kept here.",
            507 => "Nothing can be filed until there is room again; looking works. Nothing was changed, and what you typed is kept here.",
            413 => "The limit for one request is 2 MB. Nothing was changed.",
            _ => "Nothing that was answered is lost. Go back and try again; if it stays, the log names the cause.",
        };

    /// <summary>Address that was asked for, to be asked again; null when that makes no sense.</summary>
    public string? Again { get; private set; }

    /// <summary>What was sent with it, to be sent again; null when nothing was.</summary>
    public IReadOnlyList<KeyValuePair<string, string>>? Sent { get; private set; }

    /// <summary>True when a file was sent too, which has to be chosen anew.</summary>
    public bool SentFile { get; private set; }

    /// <summary>Shows the page.</summary>
    public void OnGet(int? code)
    {
        Code = code ?? 500;
        if (HttpContext.Features.Get<IExceptionHandlerPathFeature>() is not { } busy)
            return;
        var now = ErrorCode.Of(busy.Error);
        if (now is not (StatusCodes.Status503ServiceUnavailable or StatusCodes.Status507InsufficientStorage))
            return;
        Code = now;
        Response.Headers.RetryAfter = "2";
        Again = busy.Path + Request.QueryString;
        if (HttpContext.Items[FormGate.Kept] is not IFormCollection form)
            return;
        SentFile = form.Files.Count > 0;
        Sent = form.Where(f => f.Key != Token).SelectMany(f => f.Value.Select(v => KeyValuePair.Create(f.Key, v ?? ""))).ToList();
    }

    // The page has its own.
    private const string Token = "__RequestVerificationToken";
}
