using System.Net;
using System.Net.NetworkInformation;
using Mendro.Storage;
using Microsoft.AspNetCore.HttpOverrides;

namespace Mendro.Web.Access;

/// <summary>What a shop needs that is reached from beyond its machine: by which names, and through which proxy.</summary>
public static class NetworkSetup
{
    /// <summary>Key of the proxy in the settings.</summary>
    public const string ProxyKey = "network-proxy";

    /// <summary>Key of the names in the settings.</summary>
    public const string NamesKey = "network-names";

    private static readonly TimeSpan Soon = TimeSpan.FromDays(14);

    /// <summary>Options with what the shop's settings add; the command line comes first.</summary>
    public static ServeOptions WithSettings(ServeOptions options)
    {
        var file = Path.Combine(options.DataDirectory, "shop.db");
        if (!File.Exists(file))
            return options;
        try
        {
            var settings = new SettingsStore(new ShopDatabase(file));
            return options with
            {
                Proxy = options.Proxy ?? (IPAddress.TryParse(settings.Value(ProxyKey), out var proxy) ? proxy : null),
                Names = [.. options.Names, .. Names(settings.Value(NamesKey))],
            };
        }
        catch (Microsoft.Data.Sqlite.SqliteException)
        {
            // What is wrong with the file is said where it is opened.
            return options;
        }
    }

    /// <summary>Names out of a line.</summary>
    public static IReadOnlyList<string> Names(string? line) =>
        (line ?? "").Split([',', ' '], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);

    /// <summary>True for a name that a browser could ask for.</summary>
    public static bool IsName(string name) => Uri.CheckHostName(name) is UriHostNameType.Dns or UriHostNameType.IPv4 && !name.Contains('*');

    /// <summary>Names and addresses that browsers may ask for. Another name that leads here is somebody else's page at work.</summary>
    public static IReadOnlyList<string> Hosts(ServeOptions options)
    {
        List<string> names = [.. ServeOptions.LocalNames, .. options.Names];
        if (!IPAddress.IsLoopback(options.Host))
        {
            names.Add(Environment.MachineName);
            var own = options.Host.Equals(IPAddress.Any) || options.Host.Equals(IPAddress.IPv6Any) ? Addresses() : [options.Host];
            names.AddRange(own.Select(a => a.AddressFamily == System.Net.Sockets.AddressFamily.InterNetworkV6 ? $"[{a}]" : a.ToString()));
        }

        return names.Distinct(StringComparer.OrdinalIgnoreCase).ToList();
    }

    /// <summary>Takes forwarded headers from the one proxy. Whoever comes past it in the clear is sent away.</summary>
    public static void UseProxy(this WebApplication app, ServeOptions options)
    {
        if (options.Proxy is not { } proxy)
            return;
        if (options is { Certificate: null, PlainHttp: false })
            app.Use(
                (context, next) =>
                {
                    var from = context.Connection.RemoteIpAddress;
                    if (from is null || IPAddress.IsLoopback(from) || Plain(from).Equals(Plain(proxy)))
                        return next(context);
                    context.Response.StatusCode = StatusCodes.Status403Forbidden;
                    return Task.CompletedTask;
                }
            );
        var forwarded = new ForwardedHeadersOptions
        {
            ForwardedHeaders = ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto,
            ForwardLimit = 1,
        };
        forwarded.KnownProxies.Clear();
        forwarded.KnownIPNetworks.Clear();
        forwarded.KnownProxies.Add(proxy);
        app.UseForwardedHeaders(forwarded);
    }

    /// <summary>What the terminal is told of a shop on the network.</summary>
    public static IEnumerable<string> Words(ServeOptions options, DateTimeOffset now)
    {
        if (options.IsNetwork && options is { Certificate: null, Proxy: null })
            yield return "WARNING: plain HTTP. Everybody in the network can read passwords and owners' data as they go by.";
        if (options.Certificate is { } certificate && certificate.NotAfter < now.LocalDateTime + Soon)
            yield return $"WARNING: the certificate ends on {certificate.NotAfter:yyyy-MM-dd}.";
    }

    private static IPAddress Plain(IPAddress address) => address.IsIPv4MappedToIPv6 ? address.MapToIPv4() : address;

    private static IEnumerable<IPAddress> Addresses() =>
        NetworkInterface.GetAllNetworkInterfaces().SelectMany(n => n.GetIPProperties().UnicastAddresses).Select(a => a.Address);
}
