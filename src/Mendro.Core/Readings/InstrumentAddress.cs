using System.Globalization;

namespace Mendro.Core.Readings;

/// <summary>Where an instrument listens for SCPI over TCP.</summary>
/// <param name="Host">Name or address.</param>
/// <param name="Port">Port, 1 to 65535; 5025 is usual.</param>
public sealed record InstrumentAddress(string Host, int Port)
{
    /// <summary>Reads <c>host:port</c>; a missing port is 5025, the usual one.</summary>
    /// <returns>The address, or null when the text is none.</returns>
    public static InstrumentAddress? Parse(string text)
    {
        var typed = text.Trim();
        var mark = typed.LastIndexOf(':');
        var (host, port) = mark < 0 ? (typed, "5025") : (typed[..mark], typed[(mark + 1)..]);
        return
            host.Length is > 0 and <= 200
            && Uri.CheckHostName(host) != UriHostNameType.Unknown
            && int.TryParse(port, NumberStyles.None, CultureInfo.InvariantCulture, out var number)
            && number is >= 1 and <= 65535
            ? new InstrumentAddress(host, number)
            : null;
    }

    /// <inheritdoc/>
    public override string ToString() => string.Create(CultureInfo.InvariantCulture, $"{Host}:{Port}");
}
