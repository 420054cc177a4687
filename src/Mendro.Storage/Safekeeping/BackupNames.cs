using System.Text.RegularExpressions;

namespace Mendro.Storage;

/// <summary>Which files a backup may hold: a closed list of names.</summary>
internal static partial class BackupNames
{
    /// <summary>The database.</summary>
    public const string Database = "shop.db";

    /// <summary>True for a file of a shop.</summary>
    public static bool Are(string name) => name is Database or "erased.txt" || Key().IsMatch(name) || Picture().IsMatch(name);

    [GeneratedRegex(@"\Akeys/(key|revocation)-[0-9A-Za-z-]{1,80}\.xml\z")]
    private static partial Regex Key();

    [GeneratedRegex(@"\Apictures/[0-9a-f]{2}/[0-9a-f]{64}(\.small)?\.jpg\z")]
    private static partial Regex Picture();
}
