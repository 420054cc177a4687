using System.Globalization;
using Mendro.Core.Readings;
using Microsoft.Extensions.Logging;

namespace Mendro.Instruments;

/// <summary>What the bench supply is set to and what it gives.</summary>
/// <param name="SetVolts">Volts it is set to.</param>
/// <param name="LimitAmps">Current limit, amperes.</param>
/// <param name="On">True when its output is on.</param>
/// <param name="Volts">Volts at its terminals.</param>
/// <param name="Amps">Amperes it gives.</param>
public sealed record SupplyState(double SetVolts, double LimitAmps, bool On, double Volts, double Amps)
{
    /// <summary>True when the limit holds: the current stands at it, or the volts have fallen because of it.</summary>
    public bool Limited => On && (Amps >= 0.98 * LimitAmps || Volts < 0.9 * SetVolts);
}

/// <summary>The bench supply over SCPI: volts, current limit, output, read-back.</summary>
public sealed class BenchSupply(Func<InstrumentAddress?> address, TimeProvider time, ILogger<BenchSupply> log, TimeSpan? patience = null)
    : IDisposable
{
    private readonly InstrumentKeeper _keeper = new("supply", time, log, patience);

    /// <summary>Ports of this machine that Mendro itself answers at; no instrument is looked for there.</summary>
    public IReadOnlyCollection<int> OwnPorts
    {
        get => _keeper.OwnPorts;
        set => _keeper.OwnPorts = value;
    }

    /// <summary>Where the supply is, or null when none is set.</summary>
    public InstrumentAddress? Address => address();

    /// <summary>Reads it.</summary>
    /// <exception cref="InstrumentLinkException">It does not answer, or not with numbers.</exception>
    public Task<SupplyState> ReadAsync(CancellationToken cancel) => UseAsync(link => StateAsync(link, cancel), cancel);

    /// <summary>Sets volts and current limit; the limit first, so that it already holds when the volts rise.</summary>
    /// <exception cref="InstrumentLinkException">It does not answer, or refuses the values.</exception>
    public Task<SupplyState> SetAsync(double volts, double limitAmps, CancellationToken cancel) =>
        DoAsync(Settings(volts, limitAmps), cancel);

    /// <summary>Switches its output.</summary>
    /// <exception cref="InstrumentLinkException">It does not answer, or refuses.</exception>
    public Task<SupplyState> SwitchAsync(bool on, CancellationToken cancel) => DoAsync([on ? "OUTP ON" : "OUTP OFF"], cancel);

    /// <summary>Sets volts and current limit, and only then switches its output on.</summary>
    /// <exception cref="InstrumentLinkException">It does not answer, or refuses; after a refusal it is not switched on.</exception>
    public Task<SupplyState> FeedAsync(double volts, double limitAmps, CancellationToken cancel) =>
        DoAsync([.. Settings(volts, limitAmps), "OUTP ON"], cancel);

    /// <inheritdoc/>
    public void Dispose() => _keeper.Dispose();

    private static string[] Settings(double volts, double limitAmps) =>
        [FormattableString.Invariant($"CURR {limitAmps:0.####}"), FormattableString.Invariant($"VOLT {volts:0.####}")];

    private Task<SupplyState> DoAsync(string[] commands, CancellationToken cancel) =>
        UseAsync(
            async link =>
            {
                foreach (var command in commands)
                    await CommandAsync(link, command, cancel);
                return await StateAsync(link, cancel);
            },
            cancel
        );

    private Task<SupplyState> UseAsync(Func<ScpiLink, Task<SupplyState>> work, CancellationToken cancel) =>
        _keeper.UseAsync(Address ?? throw new InstrumentLinkException("No bench supply is set."), (link, _) => work(link), cancel);

    private static async Task<SupplyState> StateAsync(ScpiLink link, CancellationToken cancel)
    {
        async Task<double> Ask(string query)
        {
            var answer = await link.QueryAsync(query, cancel);
            return double.TryParse(answer, NumberStyles.Float, CultureInfo.InvariantCulture, out var value) && double.IsFinite(value)
                ? value
                : throw new InstrumentLinkException($"The supply answered “{answer}” to {query}.");
        }

        return new SupplyState(
            await Ask("VOLT?"),
            await Ask("CURR?"),
            await Ask("OUTP?") > 0,
            await Ask("MEAS:VOLT?"),
            await Ask("MEAS:CURR?")
        );
    }

    private static async Task CommandAsync(ScpiLink link, string command, CancellationToken cancel)
    {
        await link.SendAsync(command, cancel);
        var error = await link.QueryAsync("SYST:ERR?", cancel);
        if (!error.TrimStart('+').StartsWith("0,", StringComparison.Ordinal))
            throw new InstrumentLinkException($"The supply refused {command}: {error}");
    }
}
