using System.Security.Cryptography;
using System.Text;

namespace Mendro.Web;

/// <summary>Names of cookies by shop: a browser sends a cookie to every port of a machine, and two shops on one must not take each
/// other's.</summary>
public static class ShopCookies
{
    private const int MarkBytes = 4;

    /// <summary>Name of a cookie of the shop in a folder, such as <c>mendro.said.1f2e3d4c</c>.</summary>
    /// <param name="what">What it holds.</param>
    /// <param name="dataDirectory">Folder of the shop.</param>
    public static string Name(string what, string dataDirectory) => $"mendro.{what}.{Mark(dataDirectory)}";

    private static string Mark(string dataDirectory)
    {
        var path = Path.TrimEndingDirectorySeparator(Path.GetFullPath(dataDirectory));
        return Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(path)).AsSpan(0, MarkBytes)).ToLowerInvariant();
    }
}
