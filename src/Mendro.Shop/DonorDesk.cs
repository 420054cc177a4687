using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>Parts of donor units: taken, found bad, put back.</summary>
public sealed class DonorDesk(DonorStore donors, Ledger ledger)
{
    private const int LongestWords = 200;

    /// <summary>Notes what became of a part.</summary>
    /// <param name="id">Part.</param>
    /// <param name="state"><c>taken</c>, <c>bad</c>, or <c>there</c> again.</param>
    /// <param name="words">Where it went, or what is wrong with it.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> Set(long id, string state, string words, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (donors.Find(id) is not { } part)
                    return Refusal.Missing;
                if (state is not ("there" or "taken" or "bad"))
                    return Refusal.Invalid("A part is there, taken or bad.");
                if (words.Length > LongestWords)
                    return Refusal.Invalid($"The words take {LongestWords} characters.");
                donors.Set(id, state, words);
                return new Done($"{part.Name} of {part.Number}: {(state == "there" ? "there again" : state)}.");
            }
        );
}
