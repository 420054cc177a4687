using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>
/// What leaks eats the traces of its board. Where a leak was seen they are likelier gone than in any unit that comes in, and where the
/// part was seen clean they are less: what eats them there is mostly the leak.
/// </summary>
internal static class EatenBeside
{
    /// <summary>Times as likely, by fault index, for faults whose odds what was seen changes.</summary>
    /// <param name="model">The model.</param>
    /// <param name="events">What happened, in order of time; what was seen last at a part counts.</param>
    public static IReadOnlyDictionary<int, double> Odds(DeviceModel model, IReadOnlyList<BenchEvent> events)
    {
        var seen = new Dictionary<PartId, double>();
        foreach (var happened in events)
            switch (happened)
            {
                case ProbeTaken { On: not false } taken when model.Profile.FindProbe(taken.ProbeId) is { } probe && TradeLibrary.Of(probe.Kind).ByEye:
                    var named = taken is { Outcome: ProbeOutcome.Abnormal, Words: { } words } ? model.Named(probe, words) : [];
                    foreach (var part in probe.PartIds().Distinct())
                    {
                        if (named.Where(i => model.Faults[i].Part.Id == part).Select(i => model.Faults[i].Mode.Eats).Max() is { } times)
                            seen[part] = times;
                        else if (taken.Outcome == ProbeOutcome.Normal && model.FaultsOf(part).Select(i => model.Faults[i].Mode.Eats).Max() is { } less)
                            seen[part] = 1 / less;
                    }

                    break;
                case CauseConfirmed confirmed when Eats(model, confirmed) is { } times:
                    seen[confirmed.PartId] = confirmed.Present ? times : 1 / times;
                    break;
            }

        var boards = seen.Where(s => model.Profile.FindPart(s.Key)?.Board is not null)
            .GroupBy(s => model.Profile.FindPart(s.Key)!.Board!)
            .ToDictionary(g => g.Key, g => g.Max(s => s.Value));
        return Enumerable
            .Range(0, boards.Count == 0 ? 0 : model.Faults.Count)
            .Where(i => model.Faults[i].Mode.Eaten && model.Faults[i].Part.Board is { } board && boards.ContainsKey(board))
            .ToDictionary(i => i, i => boards[model.Faults[i].Part.Board!]);
    }

    /// <summary>A chance whose odds are so many times what they were.</summary>
    public static double Weighed(double chance, double times) => chance * times / (1 - chance + chance * times);

    private static double? Eats(DeviceModel model, CauseConfirmed confirmed) =>
        model.FaultsOf(confirmed.PartId).Select(i => model.Faults[i].Mode).FirstOrDefault(m => m.Id == confirmed.ModeId)?.Eats;
}
