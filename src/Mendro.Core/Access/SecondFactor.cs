using OtpNet;

namespace Mendro.Core.Access;

/// <summary>
/// Codes that change with time, of an authenticator on a phone (TOTP, RFC 6238): SHA-1, six digits, 30 seconds, a secret of 160 bits; one
/// step early or late is taken, and each step once.
/// </summary>
public static class SecondFactor
{
    /// <summary>Codes with which one comes in without the phone, each once.</summary>
    public const int RecoveryCodes = 10;

    private const int SecretBytes = 20;
    private const int StepSeconds = 30;

    /// <summary>Makes a secret, in base 32 as authenticators take it.</summary>
    public static string MakeSecret() => Base32Encoding.ToString(KeyGeneration.GenerateRandomKey(SecretBytes)).TrimEnd('=');

    /// <summary>Address that an authenticator reads off a QR code (“otpauth”, common practice, no standard).</summary>
    public static string Address(string secret, string shop, string name) =>
        $"otpauth://totp/{Uri.EscapeDataString(shop)}:{Uri.EscapeDataString(name)}?secret={secret}&issuer={Uri.EscapeDataString(shop)}";

    /// <summary>The step of a code that fits now; null for one that does not, or that was used.</summary>
    /// <param name="secret">Secret in base 32.</param>
    /// <param name="code">As typed.</param>
    /// <param name="now">Now, UTC.</param>
    /// <param name="last">Step that was used last, or null.</param>
    public static long? Fits(string secret, string? code, DateTimeOffset now, long? last)
    {
        var digits = new string((code ?? "").Where(char.IsAsciiDigit).ToArray());
        if (digits.Length != 6)
            return null;
        var totp = new Totp(Base32Encoding.ToBytes(secret), StepSeconds);
        return totp.VerifyTotp(now.UtcDateTime, digits, out var step, new VerificationWindow(1, 1)) && (last is null || step > last) ? step : null;
    }
}
