using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <content>What works speaks: a failure that looks a certain way clears what it could not do without.</content>
public sealed partial class DeviceModel
{
    /// <summary>“What this look could not do without is broken”: absent whenever the look was seen. Null when it proves nothing.</summary>
    public FindingTemplate? Contradicted(DeviceFunction function, string? lookId)
    {
        var proves = Library.FindLook(function.Kind, lookId)?.Proves ?? LookProves.Nothing;
        return proves == LookProves.Nothing
            ? null
            : _templates.GetOrAdd($"proves:{function.Id}:{lookId}", id => MakeContradicted(id, function, lookId!, proves));
    }

    /// <summary>Parts whose supply a picture that stands proves, however it looks otherwise; none where the look shows no picture.</summary>
    public IReadOnlySet<PartId> Shown(DeviceFunction function, string? lookId) =>
        Library.FindLook(function.Kind, lookId)?.Proves == LookProves.Shown
            ? ShownBy(function, lookId)
            : new HashSet<PartId>();

    /// <summary>Parts that the unit could not do without to fail the way it was told: a picture with a line missing is a picture, and a
    /// speaker that crackles has its supply.</summary>
    public IReadOnlySet<PartId> ShownBy(DeviceFunction function, string? lookId) =>
        Library.FindLook(function.Kind, lookId) is not { } look ? new HashSet<PartId>()
        : look.Proves is LookProves.Start or LookProves.Shown ? Started(Closure(function.Id)).Union(Supplying(Closure(function.Id))).ToHashSet()
        : look is { Proves: LookProves.Path, Own: true } ? Supplying(Closure(function.Id))
        : new HashSet<PartId>();

    private FindingTemplate MakeContradicted(string id, DeviceFunction function, string lookId, LookProves proves)
    {
        var closure = Closure(function.Id);
        IReadOnlySet<PartId> proved = proves switch
        {
            LookProves.Power => Supplying(closure),
            LookProves.Start => Started(closure),
            LookProves.Shown => Shown(function, lookId),
            _ => closure,
        };
        var links = new List<Link>();
        for (var i = 0; i < Faults.Count; i++)
        {
            var (part, mode) = (Faults[i].Part, Faults[i].Mode);
            var listed = (mode.Looks ?? []).Any(l => l.Look == lookId && (l.Function == function.Kind || l.Function == "*"));
            if (listed)
                continue;
            if (mode.Effect == ModeEffect.Short)
            {
                // A rail that is pulled down shows as dim or as on, then off; other looks say that it stands.
                if (lookId is not ("dim" or "on-then-off" or "one-second") && _rails[part.Id].Heads.Overlaps(proved))
                    links.Add(new Link(i, EvidenceWeights.ProvedShort));
            }
            else if (proved.Contains(part.Id) && mode.Effect == ModeEffect.Intermittent && proves != LookProves.Path)
            {
                links.Add(new Link(i, EvidenceWeights.ClearsAtTheMoment));
            }
            else if (proved.Contains(part.Id) && mode.Effect is ModeEffect.Open or ModeEffect.Dead)
            {
                links.Add(new Link(i, mode.Resistive ? EvidenceWeights.ProvedResistive : EvidenceWeights.ProvedLasting));
            }
        }

        return new FindingTemplate(id, EvidenceWeights.FunctionLeak, links);
    }

    /// <summary>Of some parts those that pass the supply on to others of them.</summary>
    private HashSet<PartId> Supplying(IReadOnlySet<PartId> closure) =>
        closure.Where(id => Graph.OutOf(id).Any(f => f.Carries == Carries.Power && closure.Contains(f.To))).ToHashSet();

    /// <summary>Of some parts those the unit needs to start; where no start is told of, those that supply.</summary>
    private HashSet<PartId> Started(IReadOnlySet<PartId> closure)
    {
        var starts = Profile.Functions.Where(f => f.Kind is "start-up" or "power-light" or "cartridge").ToList();
        return starts.Count == 0 ? Supplying(closure) : starts.SelectMany(f => Closure(f.Id)).Where(closure.Contains).ToHashSet();
    }
}
