using System.Text.Json;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>
/// One action of the user is one transaction, and is done once. A form carries a key of its own; when it comes twice, by a
/// double click or a retry, the second is answered with what the first came to.
/// </summary>
public sealed class Ledger(ShopDatabase database, ActionStore actions)
{
    private const int LongestKey = 64;

    /// <summary>Does something in one transaction, once for a key. When it is refused, nothing of it is kept.</summary>
    /// <param name="once">Key of the form; null or blank to do it every time it is asked.</param>
    /// <param name="work">What to do.</param>
    public Deed<T> Once<T>(string? once, Func<Deed<T>> work)
        where T : class
    {
        var key = Key<T>(once);
        try
        {
            return database.InOneTransaction<Deed<T>>(() =>
            {
                if (key is not null && actions.Find(key) is { } before)
                    return JsonSerializer.Deserialize<T>(before)!;
                var deed = work();
                if (deed.Refusal is { } refusal)
                    throw new RefusedException(refusal);
                if (key is not null)
                    actions.Add(key, JsonSerializer.Serialize(deed.Done));
                return deed;
            });
        }
        catch (RefusedException refused)
        {
            return refused.Refusal;
        }
    }

    /// <summary>What a key was answered with before; null when it is new. For work that begins outside of the shop's file.</summary>
    public T? Answered<T>(string? once)
        where T : class =>
        Key<T>(once) is { } key && actions.Find(key) is { } before ? JsonSerializer.Deserialize<T>(before) : null;

    private static string? Key<T>(string? once) =>
        once is { Length: > 0 and <= LongestKey } && once.All(char.IsAsciiLetterOrDigit) ? $"{typeof(T).Name}:{once}" : null;

    /// <summary>Does something that has nothing to tell.</summary>
    public Deed<Done> Once(string? once, Action work) =>
        Once<Done>(
            once,
            () =>
            {
                work();
                return new Done("");
            }
        );

    /// <summary>Takes a refused action's transaction back.</summary>
    private sealed class RefusedException(Refusal refusal) : Exception
    {
        public Refusal Refusal { get; } = refusal;
    }
}

/// <summary>Something was done.</summary>
/// <param name="Words">What to tell of it.</param>
public sealed record Done(string Words);
