using System.Security.Cryptography;
using System.Text;

namespace Mendro.Core.Access;

/// <summary>
/// Codes that are read out, scanned or typed once: twelve signs of Crockford's base 32 (no I, L, O, U), 60 bits by chance. Only their
/// SHA-256 is kept; of a secret with so much chance in it no slow hash is needed.
/// </summary>
public static class OneTimeCode
{
    private const string Signs = "0123456789ABCDEFGHJKMNPQRSTVWXYZ";
    private const int Length = 12;
    private const int Group = 4;

    // 32 bytes: what programs and cookies carry, never read by people.
    private const int SecretBytes = 32;

    /// <summary>Makes a code such as <c>7Q2M-XK4T-9B0D</c>.</summary>
    public static string Make()
    {
        var code = RandomNumberGenerator.GetString(Signs, Length);
        return string.Join('-', Enumerable.Range(0, Length / Group).Select(n => code.Substring(n * Group, Group)));
    }

    /// <summary>Makes a secret for machines, in the URL-safe base 64 of RFC 4648, section 5.</summary>
    public static string MakeSecret() =>
        Convert.ToBase64String(RandomNumberGenerator.GetBytes(SecretBytes)).TrimEnd('=').Replace('+', '-').Replace('/', '_');

    /// <summary>A code as it was meant: letters that look like digits are digits, and what lies between does not count.</summary>
    /// <param name="typed">As typed.</param>
    public static string Plain(string? typed) =>
        new(
            (typed ?? "")
                .ToUpperInvariant()
                .Where(char.IsAsciiLetterOrDigit)
                .Select(c => c switch
                {
                    'O' => '0',
                    'I' or 'L' => '1',
                    _ => c,
                })
                .ToArray()
        );

    /// <summary>What is kept of a code.</summary>
    public static string Mark(string? typed) => MarkOf(Plain(typed));

    /// <summary>What is kept of a secret, sign by sign.</summary>
    public static string MarkOf(string secret) => Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(secret)));

    /// <summary>True when two are the same; how long it takes tells nothing.</summary>
    public static bool Same(string mark, string other) =>
        CryptographicOperations.FixedTimeEquals(Encoding.UTF8.GetBytes(mark), Encoding.UTF8.GetBytes(other));
}
