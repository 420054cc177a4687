using Mendro.Core;
using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Lots;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>Items were taken in.</summary>
/// <param name="Numbers">Numbers on their tags.</param>
public sealed record BatchTaken(IReadOnlyList<long> Numbers);

/// <summary>A name in some lines that the shop does not know yet.</summary>
/// <param name="Name">Name, as on the label.</param>
/// <param name="Lines">Lines that it stands in.</param>
/// <param name="Builds">Builds that it may be, the nearest by what was said first.</param>
public sealed record NewLotName(string Name, int Lines, IReadOnlyList<DeviceProfile> Builds);

/// <summary>Items of a lot or batch: taken in by the line.</summary>
public sealed class LotItemsDesk(
    LotStore lots,
    JobBench jobBench,
    IntakeDesk intake,
    ModelShelf models,
    ProfileStore profiles,
    TradeLibrary library,
    DoorWords door,
    Ledger ledger
)
{
    private const int LongestWhy = 120;

    /// <summary>How a line would be taken in.</summary>
    public Outcome<Understanding> Heard(Lot lot, BatchItem item)
    {
        var named = item.Model.Length > 0 ? door.Hear(item.Model).Profile : null;
        if (item.Model.Length > 0 && named is null)
            return Outcome<Understanding>.Fail($"model: no model is known by “{item.Model}”.");
        // A line may name its model itself: a pad among cartridges.
        var profile = named ?? models.Latest(lot.ProfileId)?.Model.Profile;
        // In a lot with a model that model holds, whatever kind of thing a word of the complaint is.
        if (named is null && door.Hear(item.Words) is { Profile: { } said } own && !(said.Generic && profile is not null))
            return Outcome<Understanding>.Ok(own);
        return profile is null
            ? Outcome<Understanding>.Fail($"“{item.Words}” names no model that is known, and the lot has none.")
            : Outcome<Understanding>.Ok(door.Hear(item.Words, profile));
    }

    /// <summary>Names in lines that the shop does not know, with what each may be; none in a lot with a model of its own.</summary>
    public IReadOnlyList<NewLotName> NewNames(Lot lot, IReadOnlyList<BatchItem> items) =>
        items
            .Where(i => !Heard(lot, i).IsOk)
            .GroupBy(NameIn, StringComparer.OrdinalIgnoreCase)
            .Where(g => g.Key.Length > 0)
            .Select(g => new NewLotName(
                g.Key,
                g.Count(),
                BuildChoice.Nearest(
                    library,
                    new BuildQuestion(
                        Words: string.Join(' ', g.Select(i => NewName.Tells(i.Words, library))),
                        Claim: string.Join(", ", g.Select(i => i.Words))
                    )
                )
            ))
            .ToList();

    // Of a new model the words that tell its build say nothing of its faults.
    private Understanding HearNew(string words, DeviceProfile model) =>
        library.Archetypes.FirstOrDefault(a => a.Id == model.BuildId) is { } build
            ? door.HearAs(BuildChoice.WithoutBuild(build, words), model) with
            {
                Claim = words,
            }
            : door.HearAs(words, model);

    private string NameIn(BatchItem item) => item.Model.Length > 0 ? item.Model : NewName.In(item.Words, library).Name;

    // A name that was new is the shop's own model from then on.
    private Dictionary<string, DeviceProfile> Make(IReadOnlyDictionary<string, string> names, IReadOnlyList<BatchItem> items)
    {
        var made = new Dictionary<string, DeviceProfile>(StringComparer.OrdinalIgnoreCase);
        foreach (var (name, build) in names.Where(n => n.Key.Length is > 0 and <= LongestWhy))
        {
            if (library.Archetypes.FirstOrDefault(a => a.Id == build) is not { } nearest)
                continue;
            var said = string.Join(' ', items.Where(i => string.Equals(NameIn(i), name, StringComparison.OrdinalIgnoreCase)).Select(i => i.Words));
            profiles.Save(made[name] = BuildChoice.Named(nearest, name, profiles.Ids(), said));
        }

        return made;
    }

    /// <summary>Takes items in: all of them, or none with every reason.</summary>
    /// <param name="lotId">Lot.</param>
    /// <param name="text">Lines.</param>
    /// <param name="once">Key of the form.</param>
    /// <param name="names">Names that are new, each with the build that it is nearest to.</param>
    public Deed<BatchTaken> TakeIn(long lotId, string? text, string? once = null, IReadOnlyDictionary<string, string>? names = null) =>
        ledger.Once<BatchTaken>(
            once,
            () =>
            {
                if (lots.Find(lotId) is not { } lot)
                    return Refusal.Missing;
                var items = BatchLines.Read(text, out var problems);
                var made = Make(names ?? new Dictionary<string, string>(), items);
                Outcome<Understanding> Hear(BatchItem item) =>
                    Heard(lot, item) is { IsOk: true } known && !made.ContainsKey(NameIn(item)) ? known
                    : made.GetValueOrDefault(NameIn(item)) is { } model ? Outcome<Understanding>.Ok(HearNew(item.Words, model))
                    : Heard(lot, item);
                var heard = items.Select(i => (Item: i, Said: Hear(i))).ToList();
                var wrong = problems.Concat(heard.Where(h => !h.Said.IsOk).Select(h => h.Said.Problem!)).ToList();
                if (wrong.Count > 0)
                    return Refusal.Lines(wrong);
                if (items.Count == 0)
                    return Refusal.Invalid("Type one item a line: what is wrong with it, as you see it.");
                var taken = new List<long>();
                foreach (var (item, said) in heard)
                {
                    var job = new Job
                    {
                        ProfileId = said.Value!.Profile!.Id,
                        Lot = lot.Name,
                        Serial = item.Serial,
                        Currency = lot.Currency,
                        ValueWorking = item.Worth ?? lot.Working,
                        ValueAsIs = lot.Otherwise,
                    };
                    var deed = intake.TakeIn(
                        IntakeDesk.AsHeard(said.Value, job) with
                        {
                            OwnerName = lot.OwnerName,
                            OwnerContact = lot.OwnerContact,
                        }
                    );
                    if (deed.Done is not { } done)
                        return deed.Refusal!;
                    taken.Add(done.Number);
                    if (item.Apart || item.Weight is not null)
                        lots.Place(jobBench.Find(done.Number)!.Job.Id, new LotPlace(item.Apart, "", item.Weight));
                }

                LotShares.Spread(lots, lot);
                return new BatchTaken(taken);
            }
        );

    /// <summary>Sets an item apart from its lot, or back into it; its share of the price goes to the others.</summary>
    public Deed<Done> Place(long number, bool apart, string why, decimal? weight, string? once = null) =>
        jobBench.OnAny<Done>(
            number,
            once,
            job =>
            {
                if (lots.Find(job.Lot) is not { } lot)
                    return Refusal.Invalid("This unit belongs to no lot.");
                if (why.Length > LongestWhy)
                    return Refusal.Invalid($"The reason takes {LongestWhy} characters.");
                if (weight < 0)
                    return Refusal.Invalid("A weight is nothing or more.");
                lots.Place(job.Id, new LotPlace(apart, why, weight));
                LotShares.Spread(lots, lot);
                return new Done(apart ? $"{job.Tag} is set apart: it is not counted." : $"{job.Tag} belongs to the lot.");
            }
        );
}
