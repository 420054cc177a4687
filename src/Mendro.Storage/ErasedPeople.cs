using System.Security.Cryptography;
using System.Text;

namespace Mendro.Storage;

/// <summary>
/// Who was taken out, as salted hashes in a file beside the database: after an older backup is restored they are taken out again. Nobody
/// can be read from it.
/// </summary>
public sealed class ErasedPeople(string folder)
{
    private const string FileName = "erased.txt";
    private const int SaltBytes = 16;
    private const int Rounds = 20_000;

    private string Path => System.IO.Path.Combine(folder, FileName);

    /// <summary>Remembers one.</summary>
    public void Add(string name)
    {
        var salt = RandomNumberGenerator.GetBytes(SaltBytes);
        File.AppendAllText(Path, $"{Convert.ToHexString(salt)} {Convert.ToHexString(Hash(name, salt))}\n");
        if (!OperatingSystem.IsWindows())
            File.SetUnixFileMode(Path, UnixFileMode.UserRead | UnixFileMode.UserWrite);
    }

    /// <summary>Those of some names that were taken out once.</summary>
    public IReadOnlyList<string> Among(IReadOnlyCollection<string> names)
    {
        if (!File.Exists(Path))
            return [];
        var kept = File.ReadAllLines(Path).Select(l => l.Split(' ')).Where(l => l.Length == 2).ToList();
        return names
            .Where(n => kept.Exists(k => CryptographicOperations.FixedTimeEquals(Hash(n, Convert.FromHexString(k[0])), Convert.FromHexString(k[1]))))
            .ToList();
    }

    // Slow on purpose: a list of names is not tried against it in passing.
    private static byte[] Hash(string name, byte[] salt) =>
        Rfc2898DeriveBytes.Pbkdf2(Encoding.UTF8.GetBytes(name.Trim().ToUpperInvariant()), salt, Rounds, HashAlgorithmName.SHA256, 32);
}
