using System.Threading.RateLimiting;
using Mendro.Core.Access;
using Mendro.Shop;
using Mendro.Storage;
using Mendro.Web.Access;

namespace Mendro.Web.Api;

/// <summary>The scope that an address of the interface asks for.</summary>
/// <param name="Scope">Scope.</param>
public sealed record ProgramRight(string Scope);

/// <summary>
/// Lets other programs in by their tokens (bearer tokens, RFC 6750), and says what is wrong as problem details (RFC 9457). No cookie
/// counts here, so that no page of another site can ask in somebody's name.
/// </summary>
public sealed class ProgramGate(RequestDelegate next, ProgramDesk programs, ShopDoor door, ILogger<ProgramGate> log)
{
    private const string Key = "mendro.program";
    private const string Bearer = "Bearer ";

    /// <summary>The program that asks, or null.</summary>
    public static KnownProgram? Of(HttpContext context) => context.Items[Key] as KnownProgram;

    /// <summary>Finds out who asks, and goes on.</summary>
    public async Task InvokeAsync(HttpContext context)
    {
        if (context.GetEndpoint()?.Metadata.GetMetadata<ForPrograms>() is null)
        {
            await next(context);
            return;
        }

        try
        {
            var told = context.Request.Headers.Authorization.ToString();
            if (!door.WaitsForOwner && told.StartsWith(Bearer, StringComparison.OrdinalIgnoreCase))
                context.Items[Key] = programs.Check(told[Bearer.Length..].Trim());
            using (Acting.As(Of(context) is { } program ? $"program {program.Name}" : ""))
                await next(context);
        }
        catch (ShopBusyException)
        {
            context.Response.Headers.RetryAfter = "2";
            await Problems.Of(StatusCodes.Status503ServiceUnavailable, "The shop's file is in use. Nothing was changed.").ExecuteAsync(context);
        }
        catch (BadHttpRequestException ex)
        {
            await Problems.Of(ex.StatusCode, "The request could not be read.").ExecuteAsync(context);
        }
        catch (Exception ex) when (!context.Response.HasStarted && !context.RequestAborted.IsCancellationRequested)
        {
            log.LogError(ex, "The interface failed at {Path}", context.Request.Path);
            await Problems.Of(StatusCodes.Status500InternalServerError, $"Something went wrong here; the log names it as {context.TraceIdentifier}.")
                .ExecuteAsync(context);
        }
    }

    /// <summary>Refuses who has no token, or too small a one.</summary>
    public static async ValueTask<object?> Check(EndpointFilterInvocationContext call, EndpointFilterDelegate next)
    {
        var context = call.HttpContext;
        if (Of(context) is not { } program)
        {
            context.Response.Headers.WWWAuthenticate = "Bearer";
            return Problems.Of(StatusCodes.Status401Unauthorized, "A token of a program of this shop is wanted: Authorization: Bearer …");
        }

        var scope = context.GetEndpoint()!.Metadata.GetMetadata<ProgramRight>()?.Scope;
        if (scope is null || !program.May(scope))
        {
            context.Response.Headers.WWWAuthenticate = $"Bearer error=\"insufficient_scope\", scope=\"{scope}\"";
            return Problems.Of(StatusCodes.Status403Forbidden, $"The token of {program.Name} does not have the right {scope}.");
        }

        return await next(call);
    }

    /// <summary>Name of the limit for all that is asked.</summary>
    public const string UsualLimit = "programs";

    /// <summary>Name of the limit for taking the whole shop out.</summary>
    public const string ExportLimit = "export";

    /// <summary>Requests a minute that a program has.</summary>
    public const int AMinute = 300;

    /// <summary>Requests a minute that an address has which shows no token that holds.</summary>
    public const int AMinuteWithout = 30;

    /// <summary>Exports an hour.</summary>
    public const int ExportsAnHour = 6;

    /// <summary>Adds the limits, by the framework's limiter.</summary>
    public static void AddLimits(IServiceCollection services) =>
        services.AddRateLimiter(limits =>
        {
            limits.AddPolicy(UsualLimit, context => Limit(context, Of(context) is null ? AMinuteWithout : AMinute, TimeSpan.FromMinutes(1)));
            limits.AddPolicy(ExportLimit, context => Limit(context, ExportsAnHour, TimeSpan.FromHours(1)));
            limits.OnRejected = async (rejected, _) =>
            {
                if (rejected.Lease.TryGetMetadata(MetadataName.RetryAfter, out var wait))
                    rejected.HttpContext.Response.Headers.RetryAfter = $"{Math.Ceiling(wait.TotalSeconds):0}";
                await Problems.Of(StatusCodes.Status429TooManyRequests, "Too many requests; wait a little.").ExecuteAsync(rejected.HttpContext);
            };
        });

    private static RateLimitPartition<string> Limit(HttpContext context, int most, TimeSpan window) =>
        RateLimitPartition.GetFixedWindowLimiter(
            Of(context) is { } program ? $"program {program.Id} {most}" : $"address {context.Connection.RemoteIpAddress}",
            _ => new FixedWindowRateLimiterOptions { PermitLimit = most, Window = window }
        );
}

/// <summary>What is wrong, as problem details.</summary>
public static class Problems
{
    /// <summary>A problem of a status code.</summary>
    public static IResult Of(int code, string detail) => Results.Problem(detail, statusCode: code);

    /// <summary>Why an action was not done.</summary>
    public static IResult Of(Refusal refusal) =>
        Of(
            refusal.Kind switch
            {
                RefusalKind.Missing => StatusCodes.Status404NotFound,
                RefusalKind.Locked or RefusalKind.Changed => StatusCodes.Status409Conflict,
                _ => StatusCodes.Status422UnprocessableEntity,
            },
            refusal.Problem
        );

    /// <summary>Fields that cannot be taken, each with why.</summary>
    public static IResult Of(IDictionary<string, string[]> errors) =>
        Results.ValidationProblem(errors, "Some of it cannot be taken; nothing was changed.", statusCode: StatusCodes.Status422UnprocessableEntity);
}
