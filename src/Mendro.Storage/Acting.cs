namespace Mendro.Storage;

/// <summary>
/// Who acts in this flow of work. What is written carries the name; work that nobody asked for, and a shop without accounts, have none.
/// </summary>
public static class Acting
{
    private static readonly AsyncLocal<string?> Name = new();

    /// <summary>Name of who acts; blank for nobody.</summary>
    public static string Now => Name.Value ?? "";

    /// <summary>Acts as somebody until the result is disposed.</summary>
    public static IDisposable As(string name)
    {
        var before = Name.Value;
        Name.Value = name;
        return new Back(before);
    }

    private sealed class Back(string? before) : IDisposable
    {
        public void Dispose() => Name.Value = before;
    }
}
