namespace Mendro.Core.Access;

/// <summary>
/// What a password has to be: long, and neither the name nor one of those tried first (NIST SP 800-63B, section 5.1.1.2: length counts,
/// no rules of composition, no expiry; known bad ones are refused).
/// </summary>
public static class PasswordRule
{
    /// <summary>Fewest characters.</summary>
    public const int Shortest = 10;

    /// <summary>Most characters.</summary>
    public const int Longest = 128;

    // Of those tried first the ones that are long enough (value from memory).
    private static readonly string[] TriedFirst =
    [
        "1234567890", "0123456789", "0987654321", "qwertyuiop", "qwertzuiop", "password12", "password123", "passwordpassword", "1q2w3e4r5t",
        "administrator", "letmeinplease", "iloveyou12", "welcome123", "qwerty12345", "changeme123", "consolerepair", "workshop123",
    ];

    /// <summary>Why a password cannot be taken, or null when it can.</summary>
    /// <param name="password">Password.</param>
    /// <param name="name">Name of the account.</param>
    public static string? Problem(string? password, string name)
    {
        if (password is null || password.Length < Shortest)
            return $"A password has at least {Shortest} characters; four words that do not belong together are easy to keep in mind.";
        if (password.Length > Longest)
            return $"A password has up to {Longest} characters.";
        if (password.Distinct().Count() < 4)
            return "That password has too few different characters.";
        if (TriedFirst.Contains(password.ToLowerInvariant()) || (name.Length > 2 && password.Contains(name, StringComparison.OrdinalIgnoreCase)))
            return "That password is among the first that are tried. Choose another.";
        return null;
    }
}
