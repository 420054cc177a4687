using System.Net;
using System.Net.Sockets;

namespace Mendro.Instruments;

/// <summary>HTTP to an address that was looked at: no redirect, no proxy, no cookie leads elsewhere.</summary>
internal static class NearHttp
{
    /// <summary>A handler that connects there and nowhere else.</summary>
    public static SocketsHttpHandler To(IPEndPoint at) =>
        new()
        {
            AllowAutoRedirect = false,
            UseProxy = false,
            UseCookies = false,
            // As it was looked at: asked again, a name could lead elsewhere.
            ConnectCallback = async (_, token) =>
            {
                var socket = new Socket(at.AddressFamily, SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
                try
                {
                    await socket.ConnectAsync(at, token);
                    return new NetworkStream(socket, ownsSocket: true);
                }
                catch
                {
                    socket.Dispose();
                    throw;
                }
            },
        };
}
