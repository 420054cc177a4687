using Mendro.Core.Quantities;
using Mendro.Storage;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.Extensions.Primitives;

namespace Mendro.Web;

/// <summary>All text of an address passes the gate (<see cref="PlainText"/>), before anything is chosen by it.</summary>
public sealed class QueryGate(RequestDelegate next)
{
    /// <summary>Cleans and goes on.</summary>
    public Task InvokeAsync(HttpContext context)
    {
        context.Request.Query = new QueryCollection(FormGate.Clean(context.Request.Query));
        return next(context);
    }
}

/// <summary>
/// Reads a form once, before any page does: what is broken is refused with our page, and all text passes the gate
/// (<see cref="PlainText"/>).
/// </summary>
public sealed class FormGate(RequestDelegate next)
{
    /// <summary>Most fields of a form.</summary>
    public const int MostFields = 1024;

    /// <summary>Most fields of the profile editor.</summary>
    public const int MostFieldsOfEditor = 8192;

    /// <summary>Where the form stays for a page that sends it again.</summary>
    public static readonly object Kept = new();

    /// <summary>Reads, cleans and goes on.</summary>
    public async Task InvokeAsync(HttpContext context)
    {
        var request = context.Request;
        if (HttpMethods.IsPost(request.Method) && request.HasFormContentType)
        {
            IFormCollection form;
            try
            {
                var options = new FormOptions { ValueCountLimit = IsEditor(request) ? MostFieldsOfEditor : MostFields };
                form = await new FormFeature(request, options).ReadFormAsync(context.RequestAborted);
            }
            catch (BadHttpRequestException ex)
            {
                context.Response.StatusCode = ex.StatusCode;
                return;
            }
            catch (Exception ex) when (ex is InvalidDataException or ArgumentException || ex is IOException && ShopFullException.Reason(ex) is null)
            {
                context.Response.StatusCode = StatusCodes.Status400BadRequest;
                return;
            }

            if (form.Keys.Any(key => !IsWhole(key)))
            {
                context.Response.StatusCode = StatusCodes.Status400BadRequest;
                return;
            }

            var clean = new FormCollection(Clean(form), form.Files);
            context.Features.Set<IFormFeature>(new FormFeature(clean));
            context.Items[Kept] = clean;
        }

        await next(context);
    }

    /// <summary>A model has some rows of parts, feeds and probes, each of several fields; no other form comes near.</summary>
    private static bool IsEditor(HttpRequest request) =>
        request.Path.StartsWithSegments("/Models/Edit", StringComparison.OrdinalIgnoreCase);

    internal static Dictionary<string, StringValues> Clean(IEnumerable<KeyValuePair<string, StringValues>> told) =>
        told.GroupBy(t => PlainText.Clean(t.Key), StringComparer.OrdinalIgnoreCase)
            .ToDictionary(
                g => g.Key,
                g => new StringValues(g.SelectMany(t => t.Value.ToArray()).Select(v => PlainText.Clean(v ?? "")).ToArray()),
                StringComparer.OrdinalIgnoreCase
            );

    /// <summary>Names such as <c>Form.Result[power-light]</c>: every bracket is closed.</summary>
    private static bool IsWhole(string key)
    {
        var open = 0;
        foreach (var c in key)
        {
            open += c switch
            {
                '[' => 1,
                ']' => -1,
                _ => 0,
            };
            if (open is < 0 or > 1)
                return false;
        }

        return open == 0;
    }
}
