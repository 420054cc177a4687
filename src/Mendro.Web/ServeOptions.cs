using System.Globalization;
using System.Net;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using Mendro.Web.Access;

namespace Mendro.Web;

/// <summary>How the server was asked to run: by the command line, or by variables of the environment that begin with
/// <c>MENDRO_</c>.</summary>
/// <param name="DataDirectory">Folder of the database and keys.</param>
/// <param name="Demo">True to seed the demo world into an empty shop.</param>
/// <param name="Host">Address to listen on.</param>
/// <param name="Port">Port, or null for the usual one.</param>
public sealed record ServeOptions(string DataDirectory, bool Demo, IPAddress Host, int? Port)
{
    /// <summary>How long the bench page waits for what is being worked out, before it shows what there is.</summary>
    public TimeSpan Patience { get; init; } = TimeSpan.FromMilliseconds(15);

    /// <summary>True to have the invented models of the demo world in the shop.</summary>
    public bool DemoModels { get; init; } = Demo;

    /// <summary>True to work out a shipped model soon after the start, so that the first reading is answered as quickly as the second.</summary>
    public bool WarmUp { get; init; } = true;

    /// <summary>Certificate with its key, or null for plain HTTP.</summary>
    public X509Certificate2? Certificate { get; init; }

    /// <summary>True when plain HTTP beyond this machine was confirmed.</summary>
    public bool PlainHttp { get; init; }

    /// <summary>Proxy before the shop, the only one whose forwarded headers count; null for what the settings say.</summary>
    public IPAddress? Proxy { get; init; }

    /// <summary>Names by which browsers ask for the shop, beside those of the machine.</summary>
    public IReadOnlyList<string> Names { get; init; } = [];

    /// <summary>True when others than this machine reach the shop: by the address it listens on, or by a proxy.</summary>
    public bool IsNetwork => !IPAddress.IsLoopback(Host) || Proxy is not null;

    /// <summary>Prefix of the variables that are read; bare ones such as <c>HOST</c> belong to others.</summary>
    public const string Prefix = "MENDRO_";

    // Milliseconds; more would be a page that hangs.
    private const int MostPatience = 60_000;

    /// <summary>Names a browser may ask for: the machine's own. Another name that leads here is somebody else's page at work.</summary>
    public static IReadOnlyList<string> LocalNames { get; } = ["localhost", "127.0.0.1", "[::1]"];

    /// <summary>Reads the options.</summary>
    /// <param name="args">Command line.</param>
    /// <param name="problem">Why they cannot be followed, in one sentence; null when they can.</param>
    public static ServeOptions? Read(string[] args, out string? problem)
    {
        var told = new ConfigurationBuilder().AddEnvironmentVariables(Prefix).AddCommandLine(args).Build();
        // A variable of the environment has no dash in its name.
        string? Told(string name) => told[name] ?? told[name.Replace('-', '_')];
        var host = told["host"] ?? "127.0.0.1";
        problem = null;
        var address = host.Equals("localhost", StringComparison.OrdinalIgnoreCase) ? IPAddress.Loopback
            : IPAddress.TryParse(host, out var parsed) ? parsed
            : null;
        if (address is null)
            problem = $"“{host}” is no address to listen on. Say this machine's address in the network, or 0.0.0.0 for all of them.";
        IPAddress? proxy = null;
        if (told["proxy"] is { Length: > 0 } named && !IPAddress.TryParse(named, out proxy))
            problem ??= $"The proxy is named by its address; “{named}” is none.";
        var certificate = ReadCertificate(told["cert"], Told("cert-key"), Told("cert-password-file"), ref problem);
        var plain = Yes(Told("plain-http"));
        if (problem is null && address is not null && !IPAddress.IsLoopback(address) && certificate is null && proxy is null && !plain)
            problem =
                "Over plain HTTP everybody in the network can read passwords and owners' data. Give a certificate (--cert FILE --cert-key FILE), "
                + "put a proxy with one before it (--proxy ADDRESS), or confirm that you want it all the same: --plain-http yes";
        int? port = null;
        if (told["port"] is { } text)
        {
            if (int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var number) && number is >= 0 and <= 65535)
                port = number;
            else
                problem ??= $"The port must be a number from 1 to 65535; “{text}” is not.";
        }

        if (problem is not null)
            return null;
        var demo = Yes(told["demo"]);
        var options = new ServeOptions(Path.GetFullPath(told["data"] ?? ".data"), demo, address!, port)
        {
            DemoModels = demo || Yes(Told("demo-models")),
            WarmUp = Told("warm-up") is not ("no" or "false" or "0"),
            Certificate = certificate,
            PlainHttp = plain,
            Proxy = proxy,
            Names = NetworkSetup.Names(told["names"]),
        };
        return
            int.TryParse(told["patience"], NumberStyles.None, CultureInfo.InvariantCulture, out var milliseconds)
            && milliseconds <= MostPatience
            ? options with
            {
                Patience = TimeSpan.FromMilliseconds(milliseconds),
            }
            : options;
    }

    private static bool Yes(string? word) => word is "true" or "1" or "yes";

    private static X509Certificate2? ReadCertificate(string? file, string? key, string? passwordFile, ref string? problem)
    {
        if (file is not { Length: > 0 })
        {
            if (key is { Length: > 0 })
                problem ??= "A key without its certificate: say --cert FILE too.";
            return null;
        }

        try
        {
            var password = passwordFile is { Length: > 0 } ? File.ReadAllText(passwordFile).TrimEnd('\r', '\n') : null;
            var certificate =
                Path.GetExtension(file).ToLowerInvariant() is ".pfx" or ".p12" ? X509CertificateLoader.LoadPkcs12FromFile(file, password)
                : password is null ? X509Certificate2.CreateFromPemFile(file, key ?? file)
                : X509Certificate2.CreateFromEncryptedPemFile(file, password, key ?? file);
            if (!certificate.HasPrivateKey)
                problem ??= $"“{file}” has no private key. Say --cert-key FILE too.";
            return certificate;
        }
        catch (Exception ex) when (ex is CryptographicException or IOException or UnauthorizedAccessException)
        {
            problem ??= $"The certificate “{file}” cannot be used: {ex.Message}";
            return null;
        }
    }
}
