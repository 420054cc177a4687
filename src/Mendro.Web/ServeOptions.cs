namespace Mendro.Web;

/// <summary>How the server was asked to run.</summary>
/// <param name="DataDirectory">Folder of the database and keys.</param>
/// <param name="Demo">True to seed the demo world into an empty shop.</param>
/// <param name="Host">Address to listen on.</param>
/// <param name="Port">Port, or null to leave it to the host.</param>
public sealed record ServeOptions(string DataDirectory, bool Demo, string Host, int? Port)
{
    /// <summary>Reads the options from command line and environment.</summary>
    public static ServeOptions From(IConfiguration configuration) => new(
        Path.GetFullPath(configuration["data"] ?? ".data"),
        configuration["demo"] is "true" or "1" or "yes",
        configuration["host"] ?? "127.0.0.1",
        int.TryParse(configuration["port"], out var port) ? port : null);
}
