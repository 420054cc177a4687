using System.Globalization;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>What is corrected of items of a lot.</summary>
public enum LotCorrection
{
    /// <summary>They do not belong in it.</summary>
    Apart,

    /// <summary>They count again.</summary>
    Count,

    /// <summary>They belong to another lot, by its id; 0 for none.</summary>
    Lot,

    /// <summary>They are of another model, by its id.</summary>
    Model,

    /// <summary>Taken in twice: they are taken away.</summary>
    Remove,

    /// <summary>They are brought back.</summary>
    BringBack,
}

/// <summary>An item and what it becomes.</summary>
/// <param name="Number">Number of its job.</param>
/// <param name="To">Id of the lot or model; blank elsewhere.</param>
public sealed record LotItemTo(long Number, string To = "");

/// <summary>Items of a lot were corrected.</summary>
/// <param name="Words">What was done.</param>
/// <param name="Back">The correction that takes it back.</param>
/// <param name="Items">The items with what they were.</param>
public sealed record LotCorrected(string Words, LotCorrection Back, IReadOnlyList<LotItemTo> Items);

/// <summary>Corrects several items of a lot at once; each correction names the one that takes it back.</summary>
public sealed class LotCorrectDesk(
    LotStore lots,
    LotItemsDesk lotItems,
    JobStore jobs,
    JobBench bench,
    HandOverDesk handOver,
    ModelChangeDesk modelChanges,
    ProfileStore profiles,
    Ledger ledger
)
{
    private static readonly IReadOnlyDictionary<FunctionId, FunctionId> AsNamed = new Dictionary<FunctionId, FunctionId>();

    /// <summary>Corrects items: all of them, or none.</summary>
    public Deed<LotCorrected> Do(LotCorrection what, IReadOnlyList<LotItemTo> items, string? once = null) =>
        ledger.Once<LotCorrected>(
            once,
            () =>
            {
                if (items.Count == 0)
                    return Refusal.Invalid("Choose items first: Space turns the box of a line.");
                var held = items.Select(i => (To: i.To, Job: jobs.Find(i.Number))).ToList();
                if (held.Exists(h => h.Job is null))
                    return Refusal.Missing;
                foreach (var (to, job) in held)
                    if (Correct(what, job!, to) is { } refusal)
                        return refusal;
                foreach (var name in held.SelectMany(h => (string[])[h.Job!.Lot, NameOf(what, h.To)]).Where(n => n.Length > 0).Distinct().ToList())
                    if (lots.Find(name) is { } lot)
                        LotShares.Spread(lots, lot);
                return new LotCorrected(Words(what, held[0].To, items), Back(what), [.. held.Select(h => new LotItemTo(h.Job!.Number, Was(what, h.Job!)))]);
            }
        );

    private Refusal? Correct(LotCorrection what, Job job, string to)
    {
        switch (what)
        {
            case LotCorrection.Apart or LotCorrection.Count:
                var place = LotShares.Of(lots.Places(job.Lot), job);
                return lotItems.Place(job.Number, what == LotCorrection.Apart, place.Why, place.Weight).Refusal;
            case LotCorrection.Lot:
                return ToLot(job, to);
            case LotCorrection.Model:
                var changed = modelChanges.Change(job.Number, new OtherModel(to, "", "", AsNamed));
                return changed.Refusal is { } refused ? refused with { Problem = $"{job.Tag}: {refused.Problem}" } : null;
            case LotCorrection.Remove:
                return job.ClosedAt is not null
                    ? Refusal.Invalid($"{job.Tag} is closed: reopen it before it is taken away.")
                    : handOver.Delete(job.Number).Refusal;
            case LotCorrection.BringBack:
                return handOver.BringBack(job.Number).Refusal;
            default:
                return Refusal.Invalid("Say what is to be corrected.");
        }
    }

    private Refusal? ToLot(Job job, string to)
    {
        var lot = long.TryParse(to, CultureInfo.InvariantCulture, out var id) && id > 0 ? lots.Find(id) : null;
        if (lot is null && to != "0")
            return Refusal.Invalid("Choose the lot that they belong to.");
        if (lot is not null && lot.CustomerId != job.CustomerId)
            return Refusal.Invalid(
                lot.IsBatch
                    ? $"{job.Tag} is not {lot.OwnerName}'s: change its owner under Intake first."
                    : $"{job.Tag} is an owner's: it was not bought with {lot.Name}."
            );
        if (lot is not null && lot.Currency != job.Currency)
            return Refusal.Invalid($"{job.Tag} is reckoned in {job.Currency}, {lot.Name} in {lot.Currency}.");
        lots.MoveTo(job.Id, lot?.Name ?? "");
        bench.Note(job, lot is null ? "Belongs to no lot" : $"Belongs to lot {lot.Name}");
        return null;
    }

    private string NameOf(LotCorrection what, string to) =>
        what == LotCorrection.Lot && long.TryParse(to, CultureInfo.InvariantCulture, out var id) ? lots.Find(id)?.Name ?? "" : "";

    private string Was(LotCorrection what, Job job) =>
        what switch
        {
            LotCorrection.Lot => (lots.Find(job.Lot)?.Id ?? 0).ToString(CultureInfo.InvariantCulture),
            LotCorrection.Model => job.ProfileId,
            _ => "",
        };

    private static LotCorrection Back(LotCorrection what) =>
        what switch
        {
            LotCorrection.Apart => LotCorrection.Count,
            LotCorrection.Count => LotCorrection.Apart,
            LotCorrection.Remove => LotCorrection.BringBack,
            LotCorrection.BringBack => LotCorrection.Remove,
            _ => what,
        };

    private string Words(LotCorrection what, string to, IReadOnlyList<LotItemTo> items)
    {
        var which = string.Join(", ", items.Take(6).Select(i => i.Number)) + (items.Count > 6 ? $" and {items.Count - 6} more" : "");
        var verb = items.Count == 1 ? "is" : "are";
        return what switch
        {
            LotCorrection.Apart => $"{which} {verb} set apart and not counted.",
            LotCorrection.Count => $"{which} {(items.Count == 1 ? "counts" : "count")} again.",
            LotCorrection.Lot => $"{which} {verb} in {(NameOf(what, to) is { Length: > 0 } name ? name : "no lot")} now.",
            LotCorrection.Model => $"{which} {verb} {profiles.All().FirstOrDefault(p => p.Id == to)?.FullName ?? to} now; what was said was heard again.",
            LotCorrection.Remove => $"{which} {verb} taken away.",
            _ => $"{which} {verb} back.",
        };
    }
}
