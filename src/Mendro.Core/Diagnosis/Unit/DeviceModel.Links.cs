using System.Collections.Concurrent;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <content>Which faults a finding can come of, and how surely.</content>
public sealed partial class DeviceModel
{
    private static Dictionary<PartId, double> Damage(IEnumerable<PartId> parts, double p) =>
        parts.Distinct().ToDictionary(id => id, _ => p);

    /// <summary>What a function can fail of. A picture without its light is there, and seen under a lamp; who does not hold one to it
    /// says that there is none, so what gives light takes a part of a picture that fails, as the light would fail.</summary>
    /// <param name="function">Function.</param>
    /// <param name="p">Chance, by the fault, the function in which it shows and how often it fails that.</param>
    private List<Link> LinksTo(DeviceFunction function, Func<PartFault, DeviceFunction, double, double> p)
    {
        var closure = Closure(function.Id);
        var light = LightOf(function);
        var charges = ChargesOf(function.Id);
        var links = new List<Link>();
        for (var i = 0; i < Faults.Count; i++)
        {
            var fault = Faults[i];
            var needed = closure.Contains(fault.Part.Id);
            // A pack that nothing charges is empty: that is a consequence and no fault of its own.
            if (charges.Contains(fault.Part.Id))
            {
                if (fault.Mode.Effect is ModeEffect.Open or ModeEffect.Dead)
                    links.Add(new Link(i, EvidenceWeights.EmptyForWantOfCharge * p(fault, function, 1)));
                continue;
            }

            // A short takes its whole rail along, also for functions that do not need the part itself.
            if (!needed && fault.Mode.Effect == ModeEffect.Short)
                needed = _rails[fault.Part.Id].Heads.Overlaps(closure);
            if (needed)
                links.Add(new Link(i, p(fault, function, EvidenceWeights.FailsIn(fault.Mode, function.Kind))));
            else if (light.Contains(fault.Part.Id))
                links.Add(new Link(i, EvidenceWeights.DarkToldAsNoPicture * p(fault, _backlight!, EvidenceWeights.FailsIn(fault.Mode, _backlight!.Kind))));
        }

        return links;
    }

    // Only a chip that asks the game who it is starts the console over and over. Without one, what would blink there just stays dark.
    private double? Listed(PartFault fault, DeviceFunction function, string lookId)
    {
        var listed = Of(lookId);
        if (MayBlink(function))
            return listed;
        return lookId switch
        {
            "blinks" when listed is not null => EvidenceWeights.OtherLook,
            "nothing" when Profile.Kind == DeviceKind.Console && function.Kind != "picture" && Of("blinks") is { } blinks => Math.Min(
                1,
                blinks + (listed ?? 0)
            ),
            _ => listed,
        };

        double? Of(string look) =>
            (fault.Mode.Looks ?? [])
                .Where(l => l.Look == look && (l.Function == function.Kind || l.Function == "*"))
                .Select(l => (double?)l.Share)
                .Max();
    }

    // Only a picture blinks for want of a game; a light may for other reasons, and a game does in the console it is tried in.
    private bool MayBlink(DeviceFunction function) =>
        function.Kind is not ("start-up" or "picture" or "video-out")
        || Profile.Generic
        || Profile.Parts.Any(p => Library.Has(p.Kind, PartRole.Restarts));

    private double Share(PartFault fault, DeviceFunction function, string lookId)
    {
        if (Listed(fault, function, lookId) is { } share)
            return WouldShowInOthers(fault, function, lookId) ? share * EvidenceWeights.SharedLook : share;
        var looks = (fault.Mode.Looks ?? []).Where(l => l.Function == function.Kind || l.Function == "*").Sum(l => l.Share);
        var left = Math.Max(0, 1 - looks);
        if (lookId == "warm" && fault.Mode.Effect != ModeEffect.Intermittent)
            return EvidenceWeights.LastingMindsWarmth;
        if (fault.Mode.Effect == ModeEffect.Short && (lookId is "dim" or "on-then-off"))
            return EvidenceWeights.SaggingLook * left;
        if (lookId == "nothing" && CutsPower(fault))
            return Math.Max(
                EvidenceWeights.OtherLook,
                (fault.Mode.Effect == ModeEffect.Short ? 1 - 2 * EvidenceWeights.SaggingLook - 0.1 : EvidenceWeights.NothingForWantOfPower)
                    * left
            );
        if (CutsPower(fault))
            return EvidenceWeights.OtherLook;
        // Where the library says how it looks in such a function, it hardly looks otherwise.
        if (looks > 0)
            return EvidenceWeights.OtherLook;
        // What a hand feels comes of what it moves: a board behind it that is dead lets nothing through at all.
        if (fault.Mode.Effect is ModeEffect.Open or ModeEffect.Dead && Library.FindLook(function.Kind, lookId)?.Own == true)
            return EvidenceWeights.OtherLook;
        var others = Math.Max(1, Library.FindFunctionKind(function.Kind)?.Looks.Count ?? 1);
        return Math.Clamp(left / others, EvidenceWeights.OtherLook, 0.5);
    }

    /// <summary>True for a look of something weak that all functions share: what hums in one hums in the others.</summary>
    internal bool WouldShowInOthers(PartFault fault, DeviceFunction function, string lookId) =>
        fault.Mode.Effect == ModeEffect.Degraded
        && IsShared(fault.Part.Id)
        && function.Kind is not ("power-light" or "start-up")
        && HasLook(fault, function, lookId);

    /// <summary>True when the library names this look of a function for a way of failing.</summary>
    internal bool HasLook(PartFault fault, DeviceFunction function, string lookId) => Listed(fault, function, lookId) is not null;

    /// <summary>True for what the unit needs to start or to light up at all: supply and board, not a section of its own.</summary>
    private bool IsShared(PartId part) => _shared.Value.Contains(part);

    private bool CutsPower(PartFault fault) =>
        fault.Mode.Effect == ModeEffect.Short
        || fault.Mode.Effect is ModeEffect.Open or ModeEffect.Dead or ModeEffect.Intermittent
            && Graph.OutOf(fault.Part.Id).Any(f => f.Carries == Carries.Power);

    private List<Link> VoltsLinks(Probe probe)
    {
        if (probe.At is not { } at)
            return [];
        var upstream = Graph.Upstream(at, powerOnly: true);
        var charge = Graph.ChargeWays(upstream);
        var rail = Graph.RailOf(at).Members;
        var bay = Graph.OutOf(at).Select(f => f.To).Where(p => Library.Has(Profile.FindPart(p)!.Kind, PartRole.Bay)).ToHashSet();
        var links = new List<Link>();
        for (var i = 0; i < Faults.Count; i++)
        {
            var (part, mode) = (Faults[i].Part, Faults[i].Mode);
            if (bay.Contains(part.Id))
            {
                // What comes and goes in a spring is not seen by a moment's reading.
                if (mode.Effect != ModeEffect.Intermittent)
                    links.Add(new Link(i, EvidenceWeights.AtTheCells * EvidenceWeights.VoltsAbnormal(mode)));
                continue;
            }

            if (!upstream.Contains(part.Id) && charge.Contains(part.Id))
            {
                if (mode.Effect is ModeEffect.Open or ModeEffect.Dead)
                    links.Add(new Link(i, EvidenceWeights.EmptyForWantOfCharge));
                continue;
            }

            var here = part.Id == at && mode.Detect?.TryGetValue(ProbeKind.Volts, out var seen) == true ? seen : (double?)null;
            if (mode.Effect == ModeEffect.Short)
            {
                // With the load unplugged a short behind the point does not pull it down; one at the point itself does.
                if (_rails[part.Id].Members.Contains(at) && (!probe.Unloaded || upstream.Contains(part.Id)))
                    links.Add(new Link(i, EvidenceWeights.VoltsAbnormal(mode)));
            }
            else if (upstream.Contains(part.Id))
            {
                // What is lost in a contact is lost all along its rail; behind a regulator it may be made good again.
                var along =
                    mode.Effect == ModeEffect.Degraded && rail.Contains(part.Id) ? mode.Detect?.GetValueOrDefault(ProbeKind.Volts) : null;
                links.Add(new Link(i, here ?? (along > 0 ? along.Value : EvidenceWeights.VoltsAbnormal(mode))));
            }
        }

        return links;
    }

    private List<Link> RailLinks(Probe probe)
    {
        var members = Graph.RailOf(probe.Rail!.Value).Members;
        return Faults
            .Select((fault, i) => (fault, i))
            .Where(x => x.fault.Mode.Effect == ModeEffect.Short && members.Contains(x.fault.Part.Id))
            .Select(x => new Link(x.i, x.fault.Mode.Detect?.GetValueOrDefault(ProbeKind.Ohms, 0.9) ?? 0.9))
            .ToList();
    }

    private List<Link> SpanLinks(Probe probe)
    {
        var spans = probe.PartIds().ToHashSet();
        var links = new List<Link>();
        for (var i = 0; i < Faults.Count; i++)
        {
            if (!spans.Contains(Faults[i].Part.Id))
                continue;
            var p = Detects(Faults[i].Mode, probe.Kind);
            if (p > 0)
                links.Add(new Link(i, p));
        }

        return links;
    }

    internal static double Detects(FailureMode mode, ProbeKind kind)
    {
        if (mode.Detect?.TryGetValue(kind, out var listed) == true)
            return listed;
        return (kind, mode.Effect) switch
        {
            (ProbeKind.Continuity or ProbeKind.Ohms or ProbeKind.Diode, ModeEffect.Open) => 0.95,
            (ProbeKind.Continuity or ProbeKind.Ohms or ProbeKind.Diode, ModeEffect.Intermittent) => 0.4,
            (ProbeKind.Press, ModeEffect.Intermittent) => EvidenceWeights.JumpsWhenIntermittent,
            _ => 0,
        };
    }
}
