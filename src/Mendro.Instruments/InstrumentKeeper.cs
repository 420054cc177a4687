using Mendro.Core.Readings;
using Microsoft.Extensions.Logging;

namespace Mendro.Instruments;

/// <summary>
/// Keeps one link to an instrument for several callers in turn. A lost link is opened again by itself, at first soon and
/// then every few seconds, so that nobody waits for a dead instrument at every look.
/// </summary>
public sealed partial class InstrumentKeeper(string name, TimeProvider time, ILogger log, TimeSpan? patience = null) : IDisposable
{
    /// <summary>Ports of this machine that Mendro itself answers at; no instrument is looked for there.</summary>
    public IReadOnlyCollection<int> OwnPorts { get; set; } = [];

    /// <summary>How long a connection or an answer may take, where nothing else is said.</summary>
    public static readonly TimeSpan UsualPatience = TimeSpan.FromSeconds(2);

    private static readonly TimeSpan FirstPause = TimeSpan.FromMilliseconds(250);
    private static readonly TimeSpan LongestPause = TimeSpan.FromSeconds(4);

    /// <summary>How long a connection or an answer may take.</summary>
    public TimeSpan Patience { get; } = patience ?? UsualPatience;

    private readonly SemaphoreSlim _turn = new(1, 1);
    private ScpiLink? _link;
    private InstrumentAddress? _linkedTo;
    private TimeSpan _pause = FirstPause;
    private long _lostAt;
    private string? _lost;

    /// <summary>Does something with the instrument.</summary>
    /// <param name="address">Where it is.</param>
    /// <param name="work">What to do; it is told whether the link is new, so that the instrument has to be set up.</param>
    /// <param name="cancel">Gives up.</param>
    /// <exception cref="InstrumentLinkException">It does not answer, or did not a moment ago.</exception>
    public async Task<T> UseAsync<T>(InstrumentAddress address, Func<ScpiLink, bool, Task<T>> work, CancellationToken cancel)
    {
        await _turn.WaitAsync(cancel);
        try
        {
            if (_linkedTo != address)
            {
                Drop();
                (_lost, _pause) = (null, FirstPause);
            }

            if (_link is null && _lost is not null && time.GetElapsedTime(_lostAt) < _pause)
                throw new InstrumentLinkException(_lost);
            var fresh = _link is null;
            if (_link is null)
            {
                _linkedTo = address;
                _link = await ScpiLink.OpenAsync(await BenchNetwork.FindAsync(address, OwnPorts, cancel), Patience, cancel);
                // Old errors in its queue are not about us.
                await _link.SendAsync("*CLS", cancel);
            }

            var done = await work(_link, fresh);
            if (_lost is not null)
                Back(name, address);
            (_lost, _pause) = (null, FirstPause);
            return done;
        }
        catch (InstrumentLinkException ex)
        {
            // Told once when it goes, not at every look.
            if (_lost is null)
                Gone(name, address, ex.Message);
            if (_link is not null || _lost is null || time.GetElapsedTime(_lostAt) >= _pause)
            {
                (_lost, _lostAt) = (ex.Message, time.GetTimestamp());
                _pause = _pause * 2 < LongestPause ? _pause * 2 : LongestPause;
            }

            Drop();
            throw;
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

    /// <inheritdoc/>
    public void Dispose()
    {
        Drop();
        _turn.Dispose();
    }

    [LoggerMessage(LogLevel.Warning, "The {Name} at {Address} does not answer: {Why}")]
    private partial void Gone(string name, InstrumentAddress address, string why);

    [LoggerMessage(LogLevel.Information, "The {Name} at {Address} answers again")]
    private partial void Back(string name, InstrumentAddress address);

    private void Drop()
    {
        _link?.Dispose();
        _link = null;
    }
}
