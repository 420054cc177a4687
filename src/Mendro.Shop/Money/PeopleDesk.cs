using Mendro.Core;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>People: how they are reached, who of them are one, who has not been here for long.</summary>
public sealed class PeopleDesk(OwnerStore owners, SettingsStore settings, JobBench bench, Ledger ledger, TimeProvider time)
{
    /// <summary>Most ways to reach one person.</summary>
    public const int MostWays = 8;

    private const string YearsKey = "people-years";
    private const int UsualYears = 3;
    private const int LongestName = 120;
    private const int LongestWay = 200;
    private const int SameListed = 6;
    private const int MostNear = 400;

    /// <summary>Years after which somebody who was not here is listed.</summary>
    public int Years => int.TryParse(settings.Value(YearsKey), out var years) && years is > 0 and <= 50 ? years : UsualYears;

    /// <summary>Keeps those years.</summary>
    public Deed<Done> SetYears(int years, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (years is < 1 or > 50)
                    return Refusal.Invalid("1 to 50 years.");
                settings.SetValue(YearsKey, years.ToString(System.Globalization.CultureInfo.InvariantCulture));
                return new Done($"Who has not been here for {years} {(years == 1 ? "year" : "years")} is listed.");
            }
        );

    /// <summary>People, those who were here last first.</summary>
    /// <param name="words">Words of name or contact; blank for all.</param>
    /// <param name="gone">Only those who have not been here for the years that are set.</param>
    /// <param name="skip">How many to leave out.</param>
    /// <param name="most">How many.</param>
    public IReadOnlyList<PersonLine> List(string words, bool gone, int skip, int most) =>
        owners.People(words, gone ? time.GetUtcNow().AddYears(-Years) : null, skip, most);

    /// <summary>People whose name is this one's, or a slip away: perhaps the same.</summary>
    public IReadOnlyList<PersonLine> Alike(Owner owner)
    {
        var (key, first) = (Key(owner.Name), owner.Name.Split(' ')[0]);
        return owners
            // A slip is seldom in the first letters.
            .Near(owner.Name[..Math.Min(2, owner.Name.Length)], owner.Contact, MostNear)
            .Where(p => p.Id != owner.Id && (Key(p.Name) == key || Spelling.IsSlip(Key(p.Name), key) || owner.Contact.Length > 4 && p.Contact == owner.Contact))
            .OrderByDescending(p => p.Name.StartsWith(first, StringComparison.OrdinalIgnoreCase))
            .Take(SameListed)
            .ToList();
    }

    /// <summary>Keeps name and ways of a person.</summary>
    public Deed<Done> Save(long id, string name, IReadOnlyList<ContactWay> ways, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (owners.Find(id) is not { } owner || owners.MergedInto(id) is not null)
                    return Refusal.Missing;
                if (owner.Name.StartsWith(OwnerStore.ErasedName, StringComparison.Ordinal))
                    return Refusal.Invalid("This person was taken out: nothing is kept of them again.");
                if (name.Length is 0 or > LongestName || name.StartsWith(OwnerStore.ErasedName, StringComparison.Ordinal))
                    return Refusal.Invalid($"A name has 1 to {LongestName} characters.");
                if (ways.Count > MostWays)
                    return Refusal.Invalid($"Up to {MostWays} phones, mails and addresses are kept.");
                foreach (var way in ways)
                    if (Wrong(way) is { } wrong)
                        return Refusal.Invalid(wrong);
                owners.Save(id, name, ways);
                return new Done("Kept.");
            }
        );

    /// <summary>Two are one person: all jobs of the first go to the other. It can be taken back.</summary>
    public Deed<Done> Merge(long from, long into, string? once = null)
    {
        var deed = ledger.Once<Done>(
            once,
            () =>
            {
                if (owners.Find(from) is not { } one || owners.Find(into) is not { } other || from == into)
                    return Refusal.Missing;
                if (owners.MergedInto(from) is not null || owners.MergedInto(into) is not null)
                    return Refusal.Invalid("One of them was merged already. Look at the person they are now.");
                if (new[] { one, other }.Any(o => o.Name.StartsWith(OwnerStore.ErasedName, StringComparison.Ordinal)))
                    return Refusal.Invalid("Who was taken out is nobody any more.");
                owners.Merge(from, into);
                return new Done($"{one.Name} is {other.Name} now, with all jobs.");
            }
        );
        Tell(into);
        return deed;
    }

    /// <summary>Takes a merging back.</summary>
    public Deed<Done> Part(long from, string? once = null)
    {
        var into = owners.MergedInto(from);
        var deed = ledger.Once<Done>(
            once,
            () =>
            {
                if (into is null || owners.Find(from) is not { } one)
                    return Refusal.Missing;
                owners.Part(from);
                return new Done($"{one.Name} stands alone again, with the jobs that came along.");
            }
        );
        Tell(into);
        Tell(from);
        return deed;
    }

    private void Tell(long? owner)
    {
        if (owner is { } id)
            foreach (var job in owners.Jobs(id).Where(j => j.ClosedAt is null))
                bench.Tell(job.Number);
    }

    private static string Key(string name) => name.Trim().ToLowerInvariant();

    private static string? Wrong(ContactWay way) =>
        way.Value.Length is 0 or > LongestWay ? $"A way to reach somebody has 1 to {LongestWay} characters."
        : way.Kind == "mail" && (way.Value.Count(c => c == '@') != 1 || way.Value.Contains(' ')) ? $"“{way.Value}” is no mail address."
        : way.Kind == "phone" && way.Value.Count(char.IsAsciiDigit) < 3 ? $"“{way.Value}” is no phone number."
        : way.Kind is not ("phone" or "mail" or "address") ? "It is a phone, a mail or an address."
        : null;
}
