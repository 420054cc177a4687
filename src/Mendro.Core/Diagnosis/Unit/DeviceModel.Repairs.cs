using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <content>What methods do on a part, and what the check at their end shows.</content>
public sealed partial class DeviceModel
{
    /// <summary>Methods that may be carried out on a part of this model, in the order of the library.</summary>
    public IEnumerable<Method> MethodsFor(Part part) =>
        Library
            .MethodsFor(part.Kind)
            .Where(m =>
                m.NotFor?.Contains(Profile.Kind) != true
                && (m.ComesOff is not { } off || off == part.ComesOff)
                && (m.Together is not { } shares || InOneGo(part, m).Count == shares.Count)
            );

    /// <summary>What a method on a part consists of: itself, or the methods done in one go with the parts beside that part. Parts that
    /// are not there are left out.</summary>
    public IReadOnlyList<(Part Part, Method Method)> InOneGo(Part part, Method method)
    {
        if (method.Together is not { } shares)
            return [(part, method)];
        var beside = Profile
            .Parts.Where(p =>
                p.Id == part.Id || Profile.Feeds.Any(f => f.From == part.Id && f.To == p.Id || f.From == p.Id && f.To == part.Id)
            )
            .OrderByDescending(p => p.Id == part.Id)
            .ToList();
        return shares
            .Select(s => (Part: beside.FirstOrDefault(p => p.Kind == s.Kind), Method: Library.FindMethod(s.Method)))
            .Where(x => x is { Part: not null, Method: not null })
            .Select(x => (x.Part!, x.Method!))
            .ToList();
    }

    /// <summary>The probe of the model that is the check at a method's end on a part, the nearest kind first; null when there is
    /// none.</summary>
    public Probe? CheckProbe(PartId part, MethodId method) =>
        (Library.FindMethod(method)?.Check?.By ?? [])
            .Select(kind => Profile.Probes.FirstOrDefault(p => p.Kind == kind && p.PartIds().Distinct().SequenceEqual([part])))
            .OfType<Probe>()
            .FirstOrDefault();

    /// <summary>“The check at the method's end is bad”: what the method was to cure is still there. Null when the method has no
    /// check.</summary>
    public FindingTemplate? LeftUncured(PartId part, MethodId method) =>
        Library.FindMethod(method) is not { Check: not null } known
            ? null
            : _templates.GetOrAdd(
                $"held:{part}:{method}",
                id => new FindingTemplate(
                    id,
                    EvidenceWeights.CheckDoubts,
                    FaultsOf(part)
                        .Where(f => EvidenceWeights.Success(known, Faults[f], 0) > 0)
                        .Select(f => new Link(f, ShowsAtEnd(known, Faults[f].Mode) ?? EvidenceWeights.CheckFinds))
                        .ToList()
                )
            );

    /// <summary>Chance that the check at a method's end shows a failure mode that is still there; null where the library tells none for
    /// that way of looking.</summary>
    public static double? ShowsAtEnd(Method method, FailureMode mode)
    {
        var most = (method.Check?.By ?? []).Select(kind => Detects(mode, kind)).DefaultIfEmpty(0).Max();
        return most > 0 ? most : null;
    }
}
