using System.Net;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;
using Microsoft.Extensions.Logging.Abstractions;
using Microsoft.Extensions.Time.Testing;

namespace Mendro.Instruments.Tests;

/// <summary>The SCPI protocol over a real socket: pieces, garbage, silence, a link that breaks in the middle.</summary>
public class ScpiLinkTests
{
    private static readonly TimeSpan Short = TimeSpan.FromMilliseconds(400);

    // Where an answer comes, a busy machine may take its time over it.
    private static readonly TimeSpan Long = TimeSpan.FromSeconds(20);

    [Fact]
    public async Task An_answer_in_pieces_is_put_together()
    {
        using var instrument = new ScriptedInstrument(_ => ScriptedInstrument.Text("+5.0", "2310", "000E+", "00\r", "\n"));
        using var link = await ScpiLink.OpenAsync(new(IPAddress.Loopback, instrument.Port), Long, TestContext.Current.CancellationToken);
        (await link.QueryAsync("READ?", TestContext.Current.CancellationToken)).ShouldBe("+5.02310000E+00");
        (await link.QueryAsync("READ?", TestContext.Current.CancellationToken)).ShouldBe("+5.02310000E+00");
        instrument.Heard.ShouldBe(["READ?", "READ?"]);
    }

    [Fact]
    public async Task Two_lines_in_one_packet_answer_two_queries()
    {
        var asked = 0;
        using var instrument = new ScriptedInstrument(_ => ++asked == 1 ? ScriptedInstrument.Text("1\n2\n") : ScriptedInstrument.Text());
        using var link = await ScpiLink.OpenAsync(new(IPAddress.Loopback, instrument.Port), Long, TestContext.Current.CancellationToken);
        (await link.QueryAsync("A?", TestContext.Current.CancellationToken)).ShouldBe("1");
        (await link.QueryAsync("B?", TestContext.Current.CancellationToken)).ShouldBe("2");
    }

    [Theory]
    [InlineData("garbage", "not text")]
    [InlineData("endless", "does not end")]
    [InlineData("silent", "No answer within")]
    [InlineData("cut", "closed the link")]
    public async Task What_is_no_answer_says_what_it_is(string what, string words)
    {
        using var instrument = new ScriptedInstrument(_ =>
            what switch
            {
                "garbage" =>
                [
                    [0x16, 0x03, 0x01, 0xFF],
                ],
                "endless" => [.. Enumerable.Repeat(System.Text.Encoding.ASCII.GetBytes(new string('1', 1000)), 6)],
                "silent" => [],
                _ => [System.Text.Encoding.ASCII.GetBytes("+5.0"), []],
            }
        );
        using var link = await ScpiLink.OpenAsync(
            new(IPAddress.Loopback, instrument.Port),
            what == "silent" ? Short : Long,
            TestContext.Current.CancellationToken
        );
        (
            await Should.ThrowAsync<InstrumentLinkException>(link.QueryAsync("READ?", TestContext.Current.CancellationToken))
        ).Message.ShouldContain(words);
    }

    [Fact]
    public async Task Nobody_there_is_said_with_what_to_look_at()
    {
        int port;
        using (var gone = new ScriptedInstrument(_ => []))
            port = gone.Port;
        (
            await Should.ThrowAsync<InstrumentLinkException>(
                ScpiLink.OpenAsync(new(IPAddress.Loopback, port), Short, TestContext.Current.CancellationToken)
            )
        ).Message.ShouldContain("Is the instrument on");
    }

    [Fact]
    public async Task The_meter_is_set_to_what_the_probe_needs_and_only_when_it_changes()
    {
        using var instrument = new ScriptedInstrument(line =>
            line switch
            {
                "READ?" => ScriptedInstrument.Text("5.0\n"),
                "SYST:ERR?" => ScriptedInstrument.Text("+0,\"No error\"\n"),
                _ => [],
            }
        );
        using var shop = new MeterShop(instrument.Port);
        (await shop.Read(ProbeKind.Volts)).Reading!.Unit.ShouldBe(ReadingUnit.Volts);
        await shop.Read(ProbeKind.Volts);
        (await shop.Read(ProbeKind.Continuity)).Reading!.Unit.ShouldBe(ReadingUnit.Ohms);
        instrument.Heard.ShouldBe(["*CLS", "CONF:VOLT:DC", "SYST:ERR?", "READ?", "READ?", "CONF:CONT", "SYST:ERR?", "READ?"]);
    }

    [Fact]
    public async Task A_refused_function_is_reported_in_the_meters_own_words()
    {
        using var instrument = new ScriptedInstrument(line =>
            line == "SYST:ERR?" ? ScriptedInstrument.Text("-113,\"Undefined header\"\n") : []
        );
        using var shop = new MeterShop(instrument.Port);
        (await shop.Read(ProbeKind.Capacitance)).Problem!.ShouldContain("Undefined header");
    }

    [Fact]
    public async Task A_link_cut_in_mid_answer_loses_one_reading_and_comes_back_by_itself()
    {
        var reads = 0;
        using var instrument = new ScriptedInstrument(line =>
            line switch
            {
                "READ?" when ++reads == 2 => [System.Text.Encoding.ASCII.GetBytes("+4.9"), []],
                "READ?" => ScriptedInstrument.Text("5.0\n"),
                "SYST:ERR?" => ScriptedInstrument.Text("0,\"No error\"\n"),
                _ => [],
            }
        );
        using var shop = new MeterShop(instrument.Port);
        (await shop.Read(ProbeKind.Volts)).Reading!.Value.ShouldBe(5);
        var lost = await shop.Read(ProbeKind.Volts);
        lost.Reading.ShouldBeNull();
        lost.Problem!.ShouldContain("closed the link");
        // It is not tried again at once, but soon.
        (await shop.Read(ProbeKind.Volts)).Problem.ShouldBe(lost.Problem);
        shop.Clock.Advance(TimeSpan.FromSeconds(1));
        (await shop.Read(ProbeKind.Volts)).Reading!.Value.ShouldBe(5);
        instrument.Heard.Count(l => l == "CONF:VOLT:DC").ShouldBe(2);
    }

    [Fact]
    public async Task Without_a_meter_nothing_is_asked()
    {
        using var shop = new MeterShop(null);
        (await shop.Read(ProbeKind.Volts)).Problem.ShouldBe("No meter is set.");
        (await shop.Read(ProbeKind.Look)).Problem!.ShouldContain("look or press");
    }

    /// <summary>A meter with settings of its own and a clock that stands still.</summary>
    private sealed class MeterShop : IDisposable
    {
        private readonly BenchMeter _meter;

        public MeterShop(int? port)
        {
            _meter = new BenchMeter(
                () => port is { } p ? new InstrumentAddress("127.0.0.1", p) : null,
                Clock,
                NullLogger<BenchMeter>.Instance,
                Long
            );
        }

        public FakeTimeProvider Clock { get; } = new();

        public Task<MeterSample> Read(ProbeKind kind) =>
            _meter.ReadAsync(Mendro.Core.Readings.MeterDialect.Function(kind), kind, TestContext.Current.CancellationToken);

        public void Dispose()
        {
            _meter.Dispose();
        }
    }
}
