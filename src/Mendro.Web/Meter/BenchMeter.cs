using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;
using Mendro.Storage;

namespace Mendro.Web.Meter;

/// <summary>One look at the meter.</summary>
/// <param name="Reading">The reading, or null when there is none.</param>
/// <param name="Problem">Why there is none.</param>
public sealed record MeterSample(Reading? Reading, string? Problem);

/// <summary>
/// The bench meter: keeps one link, sets the function a probe needs, reads. A lost link is opened again by itself, at
/// first soon and then every few seconds; nothing but the reading of that moment is lost.
/// </summary>
public sealed class BenchMeter(SettingsStore settings, TimeProvider time) : IDisposable
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(2);
    private static readonly TimeSpan LongestPause = TimeSpan.FromSeconds(4);

    private readonly SemaphoreSlim _turn = new(1, 1);
    private ScpiLink? _link;
    private InstrumentAddress? _linkedTo;
    private ProbeKind? _function;
    private TimeSpan _pause = TimeSpan.FromMilliseconds(250);
    private long _lostAt;
    private string? _lost;

    /// <summary>Where the meter is, or null when none is set.</summary>
    public InstrumentAddress? Address => settings.Get().Meter;

    /// <summary>Reads the meter in the function that a kind of probe needs.</summary>
    public async Task<MeterSample> ReadAsync(ProbeKind kind, CancellationToken cancel)
    {
        if (MeterDialect.Function(kind) is not { } function) return new(null, "No meter answers this: look or press.");
        if (Address is not { } address) return new(null, "No meter is set.");
        await _turn.WaitAsync(cancel);
        try
        {
            if (_linkedTo != address) Drop();
            if (_link is null && _lost is not null && time.GetElapsedTime(_lostAt) < _pause) return new(null, _lost);
            if (_link is null)
            {
                _link = await ScpiLink.OpenAsync(address.Host, address.Port, Patience, cancel);
                _linkedTo = address;
                // Old errors in its queue are not about us.
                await _link.SendAsync("*CLS", cancel);
            }

            if (_function != kind)
            {
                await _link.SendAsync($"CONF:{function}", cancel);
                var error = await _link.QueryAsync("SYST:ERR?", cancel);
                if (!error.TrimStart('+').StartsWith("0,", StringComparison.Ordinal)) return new(null, $"The meter refused CONF:{function}: {error}");
                _function = kind;
            }

            var read = MeterDialect.Parse(await _link.QueryAsync("READ?", cancel), kind);
            (_lost, _pause) = (null, TimeSpan.FromMilliseconds(250));
            return new(read.Value, read.Problem);
        }
        catch (InstrumentLinkException ex)
        {
            Drop();
            (_lost, _lostAt) = (ex.Message, time.GetTimestamp());
            _pause = _pause * 2 < LongestPause ? _pause * 2 : LongestPause;
            return new(null, ex.Message);
        }
        catch (OperationCanceledException)
        {
            // Given up in the middle of an answer: the next line would be the wrong one.
            Drop();
            throw;
        }
        finally
        {
            _turn.Release();
        }
    }

    /// <summary>Asks an instrument who it is.</summary>
    /// <returns>Its <c>*IDN?</c> line.</returns>
    /// <exception cref="InstrumentLinkException">It does not answer.</exception>
    public static async Task<string> WhoAsync(InstrumentAddress address, CancellationToken cancel)
    {
        using var link = await ScpiLink.OpenAsync(address.Host, address.Port, Patience, cancel);
        return await link.QueryAsync("*IDN?", cancel);
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        Drop();
        _turn.Dispose();
    }

    private void Drop()
    {
        _link?.Dispose();
        (_link, _function) = (null, null);
    }
}
