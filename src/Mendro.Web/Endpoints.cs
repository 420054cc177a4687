using System.Net;
using Mendro.Core.Access;
using Mendro.Storage;
using Mendro.Web.Access;
using Mendro.Web.Live;

namespace Mendro.Web;

/// <summary>Addresses that are no pages.</summary>
public static class Endpoints
{
    /// <summary>Maps them.</summary>
    public static void MapShop(this WebApplication app)
    {
        app.MapGet(EventEndpoint.Path, (HttpContext context, EventEndpoint events) => events.StreamAsync(context))
            .WithMetadata(new EndpointRight(Right.LookAtCounter));
        app.MapGet(
                "/Pictures/{hash}",
                (string hash, bool? small, PictureFiles files, PictureStore pictures, HttpContext context) =>
                    // A phone sees the pictures of its own job.
                    (Viewer.Of(context).Session?.JobNumber is not { } job || pictures.IsOf(job, hash)) && files.Read(hash, small == true) is { } jpeg
                        ? Results.Bytes(jpeg, "image/jpeg")
                        : Results.NotFound()
            )
            .WithMetadata(new EndpointRight(Right.LookAtCounter));
        // How the shop is gets told to its own machine, and to who is signed in.
        app.MapHealthChecks("/health").WithMetadata(new EndpointRight(Right.LookAtCounter), new ToThisMachine());
    }

    /// <summary>True when a request comes from this machine itself, past no proxy.</summary>
    public static bool IsFromHere(HttpContext context) =>
        (context.Connection.RemoteIpAddress is not { } from || IPAddress.IsLoopback(from))
        && !context.Request.Headers.ContainsKey("X-Forwarded-For")
        && !context.Request.Headers.ContainsKey("X-Original-For");
}

/// <summary>An address that this machine itself may ask for without signing in.</summary>
public sealed record ToThisMachine;
