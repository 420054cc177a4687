using Mendro.Core.Access;
using OtpNet;

namespace Mendro.Core.Tests.Access;

/// <summary>Codes that change with time, held against the vectors of RFC 6238, appendix B.</summary>
public sealed class SecondFactorTests
{
    // “12345678901234567890” in ASCII, as the appendix has it.
    private static readonly string Secret = Base32Encoding.ToString("12345678901234567890"u8.ToArray());

    // The last six of the eight digits of the table, SHA-1.
    [Theory]
    [InlineData(59, "287082")]
    [InlineData(1111111109, "081804")]
    [InlineData(1111111111, "050471")]
    [InlineData(1234567890, "005924")]
    [InlineData(2000000000, "279037")]
    [InlineData(20000000000, "353130")]
    public void The_codes_of_the_standard_fit(long seconds, string code)
    {
        var at = DateTimeOffset.FromUnixTimeSeconds(seconds);
        SecondFactor.Fits(Secret, code, at, null).ShouldBe(seconds / 30);
        SecondFactor.Fits(Secret, code[..3] + " " + code[3..], at, null).ShouldBe(seconds / 30);
        // One step early or late is taken, two are not; a step that was used, or an earlier one, is not.
        SecondFactor.Fits(Secret, code, at.AddSeconds(30), null).ShouldBe(seconds / 30);
        SecondFactor.Fits(Secret, code, at.AddSeconds(90), null).ShouldBeNull();
        SecondFactor.Fits(Secret, code, at, seconds / 30).ShouldBeNull();
        SecondFactor.Fits(Secret, code, at, seconds / 30 - 1).ShouldBe(seconds / 30);
    }

    [Fact]
    public void A_secret_has_160_bits_and_its_address_is_read_by_authenticators()
    {
        var secrets = Enumerable.Range(0, 50).Select(_ => SecondFactor.MakeSecret()).ToList();
        secrets.ShouldBeUnique();
        secrets.ShouldAllBe(s => Base32Encoding.ToBytes(s).Length == 20);
        SecondFactor.Address("ABC", "My shop & Co", "Ann O").ShouldBe("otpauth://totp/My%20shop%20%26%20Co:Ann%20O?secret=ABC&issuer=My%20shop%20%26%20Co");
        foreach (var none in (string?[])[null, "", "12345", "abcdef", "1234567"])
            SecondFactor.Fits("GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ", none, DateTimeOffset.UnixEpoch, null).ShouldBeNull();
    }
}
