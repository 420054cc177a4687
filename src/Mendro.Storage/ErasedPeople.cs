using System.Security.Cryptography;
using System.Text;

namespace Mendro.Storage;

/// <summary>
/// Who was taken out, as keyed hashes (HMAC-SHA256) in a file beside the database: after an older backup is restored they are taken out
/// again. The file names nobody; its first line is the key, one line for each follows.
/// </summary>
public sealed class ErasedPeople(string folder)
{
    private const string FileName = "erased.txt";
    private const int KeyBytes = 32;

    private string Path => System.IO.Path.Combine(folder, FileName);

    /// <summary>Remembers one.</summary>
    public void Add(string name)
    {
        if (!File.Exists(Path))
        {
            File.WriteAllText(Path, Convert.ToHexString(RandomNumberGenerator.GetBytes(KeyBytes)) + "\n");
            if (!OperatingSystem.IsWindows())
                File.SetUnixFileMode(Path, UnixFileMode.UserRead | UnixFileMode.UserWrite);
        }

        File.AppendAllText(Path, Hash(name, Key(File.ReadAllLines(Path))) + "\n");
    }

    /// <summary>True when somebody was taken out.</summary>
    public bool Any => File.Exists(Path);

    /// <summary>Those of some names that were taken out once.</summary>
    public IReadOnlyList<string> Among(IReadOnlyCollection<string> names)
    {
        if (!File.Exists(Path) || File.ReadAllLines(Path) is not { Length: > 1 } lines)
            return [];
        var (key, kept) = (Key(lines), lines.Skip(1).ToHashSet());
        return names.Where(n => kept.Contains(Hash(n, key))).ToList();
    }

    private static byte[] Key(string[] lines) => Encoding.ASCII.GetBytes(lines[0].Trim());

    private static string Hash(string name, byte[] key) =>
        Convert.ToHexString(HMACSHA256.HashData(key, Encoding.UTF8.GetBytes(name.Trim().ToUpperInvariant())));
}
