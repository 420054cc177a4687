namespace Mendro.Core.Access;

/// <summary>
/// Slows down who guesses. By name: from the fifth wrong password in a row on the name is shut for a minute, twice as long each time, up
/// to a quarter of an hour; so one name stands at most some hundred tries a day from however many places. By address: from the
/// twentieth on likewise. Each wrong one is answered later than the one before. What is shut stays shut for the right password too, but for
/// who comes from where this name has signed in before: that place has a count of its own.
/// </summary>
public sealed class GuessGuard(TimeProvider time)
{
    /// <summary>Wrong ones in a row that a name bears.</summary>
    public const int MostByName = 5;

    /// <summary>Wrong ones in a row that an address bears.</summary>
    public const int MostByAddress = 20;

    /// <summary>How long it is shut at first.</summary>
    public static readonly TimeSpan First = TimeSpan.FromMinutes(1);

    /// <summary>How long it is shut at most.</summary>
    public static readonly TimeSpan Longest = TimeSpan.FromMinutes(15);

    private static readonly TimeSpan Forgotten = TimeSpan.FromHours(24);
    private static readonly TimeSpan LongestDelay = TimeSpan.FromSeconds(2);
    private const double DelayStepSeconds = 0.25;

    // More keys than that nobody types; the oldest are forgotten.
    private const int MostKeys = 10_000;

    private readonly Lock _lock = new();
    private readonly Dictionary<string, Tries> _tries = [];

    /// <summary>How long a name or address is still shut; zero when it is open.</summary>
    /// <param name="name">Name.</param>
    /// <param name="address">Where it comes from.</param>
    /// <param name="knownThere">True when this name has signed in from there before: guesses from elsewhere do not shut it out.</param>
    public TimeSpan Shut(string name, string address, bool knownThere = false)
    {
        lock (_lock)
        {
            // By the machine's own running time: a clock that is set back shuts nobody out, and one set on lets nobody in.
            var now = time.GetTimestamp();
            var left = Keys(name, address, knownThere).Max(k => _tries.TryGetValue(k.Key, out var t) ? t.Shut - time.GetElapsedTime(t.At, now) : TimeSpan.Zero);
            return left > TimeSpan.Zero ? left : TimeSpan.Zero;
        }
    }

    /// <summary>A wrong one.</summary>
    /// <param name="name">Name.</param>
    /// <param name="address">Where it comes from.</param>
    /// <param name="knownThere">True when this name has signed in from there before.</param>
    /// <returns>How long the answer is to wait.</returns>
    public TimeSpan Wrong(string name, string address, bool knownThere = false)
    {
        lock (_lock)
        {
            var now = time.GetTimestamp();
            if (_tries.Count >= MostKeys)
                foreach (var old in _tries.OrderBy(t => t.Value.At).Take(MostKeys / 4).Select(t => t.Key).ToList())
                    _tries.Remove(old);
            var worst = 0;
            foreach (var (key, most) in Keys(name, address, knownThere))
            {
                var before = _tries.GetValueOrDefault(key) is { } known && time.GetElapsedTime(known.At, now) < Forgotten ? known.Count : 0;
                var count = before + 1;
                var shut = count < most ? TimeSpan.Zero : Min(First * Math.Pow(2, Math.Min(count - most, 20)), Longest);
                _tries[key] = new Tries(count, now, shut);
                worst = Math.Max(worst, count);
            }

            return Min(TimeSpan.FromSeconds(DelayStepSeconds * worst), LongestDelay);
        }
    }

    /// <summary>A right one: what the name had against it is forgotten, and what a shared address had.</summary>
    public void Right(string name, string? address = null)
    {
        lock (_lock)
        {
            _tries.Remove(OfName(name));
            if (address is null)
                return;
            _tries.Remove(OfPlace(name, address));
            _tries.Remove(OfAddress(address));
        }
    }

    private static TimeSpan Min(TimeSpan a, TimeSpan b) => a < b ? a : b;

    private static string OfName(string name) => "name " + name.Trim().ToUpperInvariant();

    private static string OfPlace(string name, string address) => $"{OfName(name)} at {address}";

    private static string OfAddress(string address) => "address " + address;

    private static IEnumerable<(string Key, int Most)> Keys(string name, string address, bool knownThere) =>
        [(knownThere ? OfPlace(name, address) : OfName(name), MostByName), (OfAddress(address), MostByAddress)];

    private sealed record Tries(int Count, long At, TimeSpan Shut);
}
