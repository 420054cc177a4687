using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Lots;
using Mendro.Core.Profiles;

namespace Mendro.Shop;

/// <summary>A part of the casing of one unit for another.</summary>
/// <param name="To">Unit that wants it.</param>
/// <param name="From">Unit that gives it.</param>
/// <param name="Part">What it is.</param>
/// <param name="Why">What is wrong with the other's.</param>
public sealed record CasingPart(long To, long From, string Part, string Why);

/// <summary>Which units of a lot may give parts to which.</summary>
internal static class LotDonors
{
    private const int MostPaired = 60;

    /// <summary>Open units of the model that most of them are, with what comes off in them.</summary>
    public static IReadOnlyList<DonorCandidate> Alike(IReadOnlyList<LotRow> rows, TradeLibrary library)
    {
        var like = rows.Where(r => r.Item.IsOpen && r.View.Diagnosis?.Target is not null && !r.Place.Apart)
            .GroupBy(r => r.View.Job.ProfileId)
            .OrderByDescending(g => g.Count())
            .FirstOrDefault();
        // Of hundreds those that are least likely to be cured by themselves have most to give and to get.
        var alike = like?.OrderBy(r => r.Item.Chance ?? 0).Take(MostPaired).OrderBy(r => r.Item.Number).ToList() ?? [];
        // Where the worth of one is not known all count alike.
        var known = alike.TrueForAll(r => r.Item.Working > r.Item.Otherwise);
        return alike
            .Select(r => Like(r.View, library, r.Item.Chance ?? 0) with { Worth = known ? (double)(r.Item.Working!.Value - r.Item.Otherwise) : 1 })
            .ToList();
    }

    /// <summary>Parts of the casing that open units want and that a dead or given-up one of the model has sound.</summary>
    public static IReadOnlyList<CasingPart> Casing(IReadOnlyList<LotRow> rows, TradeLibrary library)
    {
        static IEnumerable<string> MarksOf(LotRow row) => row.View.All<MarkNoted>().Select(m => m.Body.Mark);
        var given = rows.Where(r => r.Item.State == LotState.Failed || r.View.Worth is { GoOn: false }).Where(r => !r.Place.Apart).ToList();
        var used = new HashSet<(long, string)>();
        var found = new List<CasingPart>();
        foreach (var to in rows.Where(r => !r.Place.Apart && r.View.Job.ClosedAt is null && !given.Contains(r)))
            foreach (var mark in MarksOf(to).Select(library.FindMark).OfType<ConditionMark>().Where(m => m.Needs is not null).DistinctBy(m => m.Needs))
            {
                var from = given.Find(g =>
                    g.View.Job.ProfileId == to.View.Job.ProfileId
                    && !used.Contains((g.Item.Number, mark.Needs!))
                    && MarksOf(g).All(m => library.FindMark(m)?.Needs != mark.Needs)
                );
                if (from is null)
                    continue;
                used.Add((from.Item.Number, mark.Needs!));
                found.Add(new CasingPart(to.Item.Number, from.Item.Number, mark.Needs!, mark.Name));
            }

        return found;
    }

    /// <summary>The open units of the model that most of them are, as a pile; none where it is not known what curing adds.</summary>
    /// <param name="rows">Items of the lot.</param>
    /// <param name="library">What is known of parts.</param>
    /// <param name="perHour">What an hour is worth, in the lot's money.</param>
    public static IReadOnlyList<PileUnit> Pile(IReadOnlyList<LotRow> rows, TradeLibrary library, double perHour)
    {
        var items = rows.ToDictionary(r => r.Item.Number, r => r.Item);
        if (items.Values.Where(i => i is { IsOpen: true, Apart: false }).Any(i => i.Working is null))
            return [];
        return
        [
            .. Alike(rows, library)
                .Select(u => (Unit: u, Item: items[u.Number]))
                .Select(u => new PileUnit(
                    u.Unit with
                    {
                        Worth = (double)Math.Max(0, u.Item.Working!.Value - u.Item.Otherwise),
                    },
                    u.Item.MinutesMore * perHour / 60 + (double)u.Item.PartsMore
                )),
        ];
    }

    private static DonorCandidate Like(JobView view, TradeLibrary library, double alone)
    {
        var off = view.Profile
            .Parts.Where(p => !MakesItWhatItIs(view, p) && library.MethodsFor(p.Kind).Any(m => m.Type == MethodType.Replace))
            .Select(p => p.Id)
            .ToHashSet();
        var told = view.Diagnosis!;
        return new DonorCandidate(
            view.Job.Number,
            alone,
            told.Suspects.Where(s => off.Contains(s.Fault.Part.Id))
                .GroupBy(s => s.Fault.Part.Id.Value)
                .ToDictionary(g => g.Key, g => Math.Min(1, g.Sum(s => s.Share))),
            off.ToDictionary(p => p.Value, p => 1 - (told.Parts.GetValueOrDefault(p)?.Posterior ?? 0))
        );
    }

    // A cartridge is its chips: with those of another it would be another.
    private static bool MakesItWhatItIs(JobView view, Part part) => view.Profile.Kind == DeviceKind.Cartridge && part.Kind == "logic";
}
