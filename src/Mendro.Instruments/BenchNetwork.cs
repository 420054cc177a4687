using System.Net;
using System.Net.Sockets;
using Mendro.Core.Readings;

namespace Mendro.Instruments;

/// <summary>
/// Where an instrument may be: on this machine or in the shop's own network, never at a port of Mendro itself. Without this,
/// whoever reaches the settings could have the shop's machine knock at any door.
/// </summary>
public static class BenchNetwork
{
    /// <summary>Finds an instrument's address, to be connected to as it stands: asked again, a name could lead elsewhere.</summary>
    /// <param name="address">Address as set.</param>
    /// <param name="own">Ports that Mendro itself answers at on this machine.</param>
    /// <param name="cancel">Gives up.</param>
    /// <exception cref="InstrumentLinkException">It is none of the shop's own network, or no such name is known.</exception>
    public static async Task<IPEndPoint> FindAsync(InstrumentAddress address, IReadOnlyCollection<int> own, CancellationToken cancel)
    {
        IPAddress[] found;
        try
        {
            found = IPAddress.TryParse(address.Host.Trim('[', ']'), out var told)
                ? [told]
                : await Dns.GetHostAddressesAsync(address.Host, cancel);
        }
        catch (SocketException ex)
        {
            throw new InstrumentLinkException($"No machine is known as {address.Host}.", ex);
        }

        // Where a name stands for several, all must be near.
        if (found.Length == 0 || !found.All(IsNear))
            throw new InstrumentLinkException("Instruments are asked in the shop's own network only, such as 192.168.1.40.");
        if (IPAddress.IsLoopback(found[0]) && own.Contains(address.Port))
            throw new InstrumentLinkException("That is Mendro itself.");
        return new IPEndPoint(found[0], address.Port);
    }

    /// <summary>True for this machine and for private and link-local addresses (RFC 1918, RFC 3927, RFC 4193, RFC 4291).</summary>
    public static bool IsNear(IPAddress address)
    {
        if (address.IsIPv4MappedToIPv6)
            address = address.MapToIPv4();
        if (IPAddress.IsLoopback(address))
            return true;
        if (address.AddressFamily == AddressFamily.InterNetworkV6)
            return address.IsIPv6LinkLocal || address.IsIPv6UniqueLocal;
        var b = address.GetAddressBytes();
        return b[0] == 10 || (b[0] == 172 && b[1] is >= 16 and < 32) || (b[0] == 192 && b[1] == 168) || (b[0] == 169 && b[1] == 254);
    }
}
