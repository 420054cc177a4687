namespace Mendro.Web.Access;

/// <summary>The shop listens where its own settings say and nowhere else: what the framework would read besides is refused.</summary>
public static class OwnListener
{
    /// <summary>Port where none is told.</summary>
    public const int UsualPort = 5080;

    private static readonly string[] Names = ["URLS", "HTTP_PORTS", "HTTPS_PORTS"];
    private static readonly string[] Prefixes = ["ASPNETCORE_", "DOTNET_"];

    /// <summary>Why the shop is not opened, in one sentence; null when nothing else says where to listen.</summary>
    /// <param name="args">Command line.</param>
    /// <param name="environment">Variables of the environment.</param>
    /// <param name="settings">What the framework has read, for files beside the program.</param>
    public static string? Refuse(string[] args, System.Collections.IDictionary environment, IConfiguration settings)
    {
        foreach (System.Collections.DictionaryEntry variable in environment)
        {
            var name = (string)variable.Key;
            if (string.IsNullOrWhiteSpace(variable.Value as string))
                continue;
            if (Prefixes.Any(p => Names.Any(n => name.Equals(p + n, StringComparison.OrdinalIgnoreCase))) || IsKestrel(Bare(name)))
                return Sentence(name);
        }

        foreach (var arg in args)
        {
            var name = arg.TrimStart('-', '/').Split('=')[0];
            if (Names.Contains(name.Replace('-', '_'), StringComparer.OrdinalIgnoreCase) || IsKestrel(name.Replace(":", "__", StringComparison.Ordinal)))
                return Sentence(arg.Split('=')[0]);
        }

        return settings.GetSection("Kestrel").GetChildren().FirstOrDefault() is { } told ? Sentence(told.Path) : null;
    }

    private static string Bare(string name) =>
        Prefixes.FirstOrDefault(p => name.StartsWith(p, StringComparison.OrdinalIgnoreCase)) is { } prefix ? name[prefix.Length..] : name;

    private static bool IsKestrel(string name) => name.StartsWith("Kestrel__", StringComparison.OrdinalIgnoreCase);

    private static string Sentence(string name) =>
        $"“{name}” says where to listen, and that is said to Mendro only: take it away, and use --host and --port (docs/operations.md).";
}
