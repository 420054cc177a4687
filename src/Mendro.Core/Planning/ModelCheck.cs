using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <summary>Faults of several parts that every trial and every check of a model shows alike.</summary>
/// <param name="Faults">The faults, the most frequent first.</param>
/// <param name="Share">Chance that a faulty unit comes with one of them, 0 to 1.</param>
/// <param name="Telling">Checks that, added, would tell some of them apart; the most telling first.</param>
public sealed record AlikeFaults(IReadOnlyList<PartFault> Faults, double Share, IReadOnlyList<ProbeIdea> Telling);

/// <summary>A function without a check on its way.</summary>
/// <param name="Function">The function.</param>
/// <param name="Own">Parts that only it needs, two or more, none of which any check touches.</param>
/// <param name="Telling">Checks on its way that could be added.</param>
public sealed record UnledFunction(DeviceFunction Function, IReadOnlyList<Part> Own, IReadOnlyList<ProbeIdea> Telling);

/// <summary>How good a model is to diagnose with.</summary>
/// <param name="Alike">Faults that nothing tells apart, the most frequent first.</param>
/// <param name="Unled">Functions that no check leads to.</param>
/// <param name="Ideas">Checks that could be added, the most telling first.</param>
public sealed record ModelReport(IReadOnlyList<AlikeFaults> Alike, IReadOnlyList<UnledFunction> Unled, IReadOnlyList<ProbeIdea> Ideas);

/// <summary>
/// Looks at a model as a technician would before relying on it: which faults show alike in everything that can be tried, measured,
/// seen and pressed, and which functions fail with nothing on their way to look at.
/// </summary>
public static class ModelCheck
{
    /// <summary>Two faults are told apart by a finding that one shows this much more often than the other.</summary>
    public const double Telling = 0.3;

    private const int MostIdeas = 3;

    /// <summary>Checks a model.</summary>
    /// <param name="model">The model.</param>
    public static ModelReport Of(DeviceModel model)
    {
        var ideas = ProbeIdeas.For(model);
        var shown = Findings(model).Select(f => Spread(f, model.Faults.Count)).ToList();
        var alike = Groups(model, shown)
            .Select(g => new AlikeFaults(
                g.Select(f => model.Faults[f]).ToList(),
                1 - g.Aggregate(1.0, (none, f) => none * (1 - model.Faults[f].Prior)),
                ideas.Where(i => Splits(i, g)).Take(MostIdeas).ToList()
            ))
            .OrderByDescending(g => g.Share)
            .ToList();
        return new ModelReport(alike, Unled(model, ideas), ideas);
    }

    /// <summary>Everything that can be found on a unit of the model.</summary>
    private static IEnumerable<FindingTemplate> Findings(DeviceModel model)
    {
        foreach (var function in model.Profile.Functions)
        {
            yield return model.FunctionFails(function);
            foreach (var look in model.LooksOf(function))
                yield return model.FunctionLooks(function, look.Id);
            foreach (var how in Enum.GetValues<Provocation>())
                yield return model.ChangesWhen(function, how);
        }

        foreach (var probe in model.Profile.Probes)
        {
            yield return model.ProbeAbnormal(probe);
            yield return model.ProbeJumps(probe);
            if (TradeLibrary.Of(probe.Kind).ByEye)
            {
                // What an eye or a finger can say of each part names its failure.
                foreach (
                    var word in probe.PartIds().SelectMany(model.FaultsOf).SelectMany(f => model.Faults[f].Mode.Words ?? []).Distinct()
                )
                    yield return model.Shown(probe, new ProbeTaken(0, probe.Id, ProbeOutcome.Abnormal, word));
                continue;
            }

            foreach (var degree in Enum.GetValues<ReadingDegree>().Where(d => d != ReadingDegree.Untold))
                yield return model.Shown(probe, new ProbeTaken(0, probe.Id, ProbeOutcome.Abnormal, null, null, degree));
        }
    }

    private static double[] Spread(FindingTemplate finding, int faults)
    {
        var spread = new double[faults];
        foreach (var link in finding.Links)
            spread[link.Fault] = link.P;
        return spread;
    }

    /// <summary>Faults of more than one part that every finding shows alike, each group round its most frequent fault.</summary>
    private static List<List<int>> Groups(DeviceModel model, List<double[]> shown)
    {
        // Test gear is told by another piece of it, not by a probe.
        var left = Enumerable
            .Range(0, model.Faults.Count)
            .Where(f => model.Library.FindPartKind(model.Faults[f].Part.Kind)?.Gear != true && shown.Any(s => s[f] >= Telling))
            .OrderByDescending(f => model.Faults[f].Prior)
            .ToList();
        var groups = new List<List<int>>();
        while (left.Count > 0)
        {
            var first = left[0];
            var group = left.Where(f => shown.All(s => Math.Abs(s[f] - s[first]) < Telling)).ToList();
            left.RemoveAll(group.Contains);
            if (group.Select(f => model.Faults[f].Part.Id).Distinct().Count() > 1)
                groups.Add(group);
        }

        return groups;
    }

    private static bool Splits(ProbeIdea idea, List<int> group)
    {
        var shares = group.Select(f => idea.Shows.GetValueOrDefault(f)).ToList();
        return shares.Max() - shares.Min() >= Telling;
    }

    private static List<UnledFunction> Unled(DeviceModel model, IReadOnlyList<ProbeIdea> ideas)
    {
        var touched = model.Profile.Probes.SelectMany(p => p.NamedParts()).ToHashSet();
        var unled = new List<UnledFunction>();
        foreach (var function in model.Profile.Functions)
        {
            var way = model.Closure(function.Id);
            var others = model.Profile.Functions.Where(f => f.Id != function.Id).SelectMany(f => model.Closure(f.Id)).ToHashSet();
            var own = model
                .Profile.Parts.Where(p => way.Contains(p.Id) && !others.Contains(p.Id) && model.FaultsOf(p.Id).Count > 0)
                .Where(p => model.Library.FindPartKind(p.Kind)?.Gear != true)
                .ToList();
            // Of a single part of its own the trial itself tells.
            if (!way.Overlaps(touched) || own.Count > 1 && !own.Exists(p => touched.Contains(p.Id)))
                unled.Add(new UnledFunction(function, own, ideas.Where(i => own.Exists(p => p.Id == i.Part.Id)).Take(MostIdeas).ToList()));
        }

        return unled;
    }
}
