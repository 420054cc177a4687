using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;
using Microsoft.Extensions.Logging;

namespace Mendro.Instruments;

/// <summary>One look at the meter.</summary>
/// <param name="Reading">The reading, or null when there is none.</param>
/// <param name="Problem">Why there is none.</param>
public sealed record MeterSample(Reading? Reading, string? Problem);

/// <summary>The bench meter: sets the function a probe needs, and reads. A lost link costs the reading of that moment and no
/// more.</summary>
public sealed class BenchMeter(Func<InstrumentAddress?> address, TimeProvider time, ILogger<BenchMeter> log, TimeSpan? patience = null)
    : IDisposable
{
    private readonly InstrumentKeeper _keeper = new("meter", time, log, patience);
    private string? _function;

    /// <summary>Ports of this machine that Mendro itself answers at; no instrument is looked for there.</summary>
    public IReadOnlyCollection<int> OwnPorts
    {
        get => _keeper.OwnPorts;
        set => _keeper.OwnPorts = value;
    }

    /// <summary>Where the meter is, or null when none is set.</summary>
    public InstrumentAddress? Address => address();

    /// <summary>Reads the meter.</summary>
    /// <param name="function">Measuring function as a SCPI node, or null when no meter answers.</param>
    /// <param name="kind">Kind of probe that is measured.</param>
    /// <param name="cancel">Gives up.</param>
    public async Task<MeterSample> ReadAsync(string? function, ProbeKind kind, CancellationToken cancel)
    {
        if (function is null)
            return new(null, "No meter answers this: look or press.");
        if (Address is not { } meter)
            return new(null, "No meter is set.");
        try
        {
            return await _keeper.UseAsync(
                meter,
                async (link, fresh) =>
                {
                    if (fresh || _function != function)
                    {
                        _function = null;
                        await link.SendAsync($"CONF:{function}", cancel);
                        var error = await link.QueryAsync("SYST:ERR?", cancel);
                        if (!error.TrimStart('+').StartsWith("0,", StringComparison.Ordinal))
                            return new MeterSample(null, $"The meter refused CONF:{function}: {error}");
                        _function = function;
                    }

                    var read = MeterDialect.Parse(await link.QueryAsync("READ?", cancel), kind);
                    return new MeterSample(read.Value, read.Problem);
                },
                cancel
            );
        }
        catch (InstrumentLinkException ex)
        {
            return new(null, ex.Message);
        }
    }

    /// <summary>Asks whether a SCPI instrument is at an address.</summary>
    /// <returns>True when it answers <c>*IDN?</c> as IEEE 488.2 wants it: maker, model, number and version between commas.</returns>
    /// <exception cref="InstrumentLinkException">Nobody answers there, or it is not asked.</exception>
    public async Task<bool> IsInstrumentAsync(InstrumentAddress address, CancellationToken cancel)
    {
        using var link = await ScpiLink.OpenAsync(
            await BenchNetwork.FindAsync(address, OwnPorts, cancel),
            _keeper.Patience,
            cancel
        );
        try
        {
            return (await link.QueryAsync("*IDN?", cancel)).Split(',').Length >= 2;
        }
        catch (InstrumentLinkException)
        {
            return false;
        }
    }

    /// <inheritdoc/>
    public void Dispose() => _keeper.Dispose();
}
