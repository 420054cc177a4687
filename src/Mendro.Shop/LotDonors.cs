using Mendro.Core.Library;
using Mendro.Core.Lots;
using Mendro.Core.Profiles;

namespace Mendro.Shop;

/// <summary>Which units of a lot may give parts to which.</summary>
internal static class LotDonors
{
    /// <summary>Open units of the model that most of them are, with what comes off in them.</summary>
    public static IReadOnlyList<DonorCandidate> Alike(IReadOnlyList<LotRow> rows, TradeLibrary library)
    {
        var like = rows.Where(r => r.Item.IsOpen && r.View.Diagnosis?.Target is not null && !r.Place.Apart)
            .GroupBy(r => r.View.Job.ProfileId)
            .OrderByDescending(g => g.Count())
            .FirstOrDefault();
        var alike = like?.ToList() ?? [];
        // Where the worth of one is not known all count alike.
        var known = alike.TrueForAll(r => r.Item.Working > r.Item.Otherwise);
        return alike
            .Select(r => Like(r.View, library, r.Item.Chance ?? 0) with { Worth = known ? (double)(r.Item.Working!.Value - r.Item.Otherwise) : 1 })
            .ToList();
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
