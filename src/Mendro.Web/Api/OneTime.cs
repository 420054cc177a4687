using System.Security.Cryptography;
using System.Text;
using Mendro.Core.Access;
using Mendro.Storage;

namespace Mendro.Web.Api;

/// <summary>
/// The key under which a request is done once (draft standard “The Idempotency-Key HTTP Header Field”, IETF HTTPAPI): one that is no key, and
/// one that came with another request before, are refused with 422.
/// </summary>
public static class OneTime
{
    /// <summary>Longest key.</summary>
    public const int Longest = 200;

    /// <summary>Checks the key of a post before it is done.</summary>
    public static async ValueTask<object?> Check(EndpointFilterInvocationContext call, EndpointFilterDelegate next)
    {
        var context = call.HttpContext;
        if (!HttpMethods.IsPost(context.Request.Method) || !context.Request.Headers.TryGetValue(ApiEndpoints.KeyHeader, out var told))
            return await next(call);
        if (told.Count != 1 || told[0] is not { Length: > 0 and <= Longest } key || key.Any(c => c is < ' ' or > '~'))
            return Refuse($"An {ApiEndpoints.KeyHeader} is one word of 1 to {Longest} printable characters of ASCII.");
        context.Request.EnableBuffering();
        var hash = Convert.ToHexString(await SHA256.HashDataAsync(context.Request.Body, context.RequestAborted));
        context.Request.Body.Position = 0;
        var request = $"{context.Request.Path}{context.Request.QueryString} {context.Request.ContentType} {hash}";
        var actions = context.RequestServices.GetRequiredService<ActionStore>();
        // Kept before it is done: of two that come at once with one key, only one sort of request goes on.
        return actions.Claim("api:" + Of(context), request) == request
            ? await next(call)
            : Refuse($"This {ApiEndpoints.KeyHeader} came with another request before. A new request wants a new key.");
    }

    /// <summary>The key of a request, for its program alone; null without one.</summary>
    public static string? Of(HttpContext context) =>
        context.Request.Headers[ApiEndpoints.KeyHeader].ToString() is { Length: > 0 and <= Longest } key && ProgramGate.Of(context) is { } program
            ? OneTimeCode.MarkOf($"{program.Id} {key}")
            : null;

    private static IResult Refuse(string why) => Problems.Of(StatusCodes.Status422UnprocessableEntity, why);
}
