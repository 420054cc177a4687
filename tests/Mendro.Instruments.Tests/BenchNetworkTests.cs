using System.Net;
using Mendro.Core.Readings;

namespace Mendro.Instruments.Tests;

/// <summary>Instruments are asked near by only (RFC 1918, 3927, 4193, 4291), and nobody learns what else listens there.</summary>
public sealed class BenchNetworkTests
{
    [Theory]
    [InlineData("127.0.0.1", true)]
    [InlineData("127.8.9.1", true)]
    [InlineData("10.1.2.3", true)]
    [InlineData("172.16.0.1", true)]
    [InlineData("172.31.255.255", true)]
    [InlineData("192.168.1.40", true)]
    [InlineData("169.254.3.4", true)]
    [InlineData("::1", true)]
    [InlineData("fe80::1", true)]
    [InlineData("fd12::1", true)]
    [InlineData("::ffff:192.168.1.40", true)]
    [InlineData("172.15.0.1", false)]
    [InlineData("172.32.0.1", false)]
    [InlineData("192.169.0.1", false)]
    [InlineData("11.0.0.1", false)]
    [InlineData("8.8.8.8", false)]
    [InlineData("0.0.0.0", false)]
    [InlineData("255.255.255.255", false)]
    [InlineData("2001:db8::1", false)]
    [InlineData("::ffff:8.8.8.8", false)]
    public void Only_the_shops_own_network_is_near(string address, bool near) =>
        BenchNetwork.IsNear(IPAddress.Parse(address)).ShouldBe(near);

    [Fact]
    public async Task Far_addresses_and_our_own_ports_are_not_asked()
    {
        var far = await Should.ThrowAsync<InstrumentLinkException>(() =>
            BenchNetwork.FindAsync(new InstrumentAddress("203.0.113.9", 5025), [], TestContext.Current.CancellationToken)
        );
        far.Message.ShouldContain("own network only");
        var own = await Should.ThrowAsync<InstrumentLinkException>(() =>
            BenchNetwork.FindAsync(new InstrumentAddress("localhost", 5080), [5080], TestContext.Current.CancellationToken)
        );
        own.Message.ShouldBe("That is Mendro itself.");
        (
            await BenchNetwork.FindAsync(new InstrumentAddress("127.0.0.1", 5025), [5080], TestContext.Current.CancellationToken)
        ).Port.ShouldBe(5025);
    }
}
