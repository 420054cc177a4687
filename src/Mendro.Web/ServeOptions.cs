using System.Globalization;
using System.Net;

namespace Mendro.Web;

/// <summary>How the server was asked to run: by the command line, or by variables of the environment that begin with
/// <c>MENDRO_</c>.</summary>
/// <param name="DataDirectory">Folder of the database and keys.</param>
/// <param name="Demo">True to seed the demo world into an empty shop.</param>
/// <param name="Host">Address to listen on; loopback only.</param>
/// <param name="Port">Port, or null to leave it to the host.</param>
public sealed record ServeOptions(string DataDirectory, bool Demo, IPAddress Host, int? Port)
{
    /// <summary>How long the bench page waits for what is being worked out, before it shows what there is.</summary>
    public TimeSpan Patience { get; init; } = TimeSpan.FromMilliseconds(15);

    /// <summary>True to have the invented models of the demo world in the shop.</summary>
    public bool DemoModels { get; init; } = Demo;

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
        var host = told["host"] ?? "127.0.0.1";
        problem = null;
        var address = Loopback(host);
        if (address is null)
            problem = $"Mendro has no sign-in yet, so it listens on this machine only: “{host}” is not a loopback address; use 127.0.0.1.";
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
        static bool Yes(string? word) => word is "true" or "1" or "yes";
        var demo = Yes(told["demo"]);
        var options = new ServeOptions(Path.GetFullPath(told["data"] ?? ".data"), demo, address!, port)
        {
            DemoModels = demo || Yes(told["demo-models"]),
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

    private static IPAddress? Loopback(string host)
    {
        if (host.Equals("localhost", StringComparison.OrdinalIgnoreCase))
            return IPAddress.Loopback;
        return IPAddress.TryParse(host, out var address) && IPAddress.IsLoopback(address) ? address : null;
    }
}
