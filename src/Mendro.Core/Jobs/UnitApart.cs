using Mendro.Core.Profiles;

namespace Mendro.Core.Jobs;

/// <summary>How a unit lies on the bench: which steps are done, and where its screws are.</summary>
/// <param name="Done">Steps done and not put back, in the order in which they were done.</param>
/// <param name="Out">Fasteners that are out.</param>
/// <param name="Odd">Fasteners that were not as they should be when they came out.</param>
/// <param name="Temporary">Things put on for a while that are still on.</param>
public sealed record UnitApart(
    IReadOnlyList<TeardownStep> Done,
    IReadOnlyList<Fastener> Out,
    IReadOnlyList<OddFastener> Odd,
    IReadOnlyList<string> Temporary
)
{
    /// <summary>Reads it from the records.</summary>
    /// <param name="profile">Model of the unit.</param>
    /// <param name="bodies">Records that hold, in order; closing the unit outright puts all back.</param>
    public static UnitApart Of(DeviceProfile profile, IEnumerable<RecordBody> bodies)
    {
        var (done, odd, on) = (new List<string>(), new Dictionary<string, OddFastener>(), new List<string>());
        foreach (var body in bodies)
        {
            if (body is AccessNoted { State: AccessState.Closed })
                done.Clear();
            if (body is TemporaryThing thing)
            {
                on.Remove(thing.What);
                if (!thing.Off)
                    on.Add(thing.What);
            }

            if (body is not StepTaken taken)
                continue;
            done.Remove(taken.StepId);
            if (!taken.Back)
                done.Add(taken.StepId);
            foreach (var one in taken.Odd ?? [])
                odd[one.Id] = one;
        }

        var steps = done.Select(profile.FindStep).OfType<TeardownStep>().ToList();
        var held = steps.SelectMany(s => s.Fasteners ?? []).ToHashSet();
        var known = (profile.Fasteners ?? []).Where(f => held.Contains(f.Id) && !f.NoScrew).ToList();
        return new UnitApart(steps, known, odd.Values.Where(o => held.Contains(o.Id)).ToList(), on);
    }

    /// <summary>Screws that lie in the tray: those out, but the missing ones.</summary>
    public int InTray => Out.Count(f => Odd.All(o => o.Id != f.Id || o.State != FastenerState.Missing));

    /// <summary>The steps to put back, the last done first; each may be put back before those under it.</summary>
    public IReadOnlyList<TeardownStep> WayBack => [.. Done.Reverse()];

    /// <summary>The step after which the unit can be switched on and tried before its screws go in: the outermost done step in which
    /// it can run; null when there is none.</summary>
    public TeardownStep? TestAfter => Done.FirstOrDefault(s => s.CanRun);

    /// <summary>Cables that are unplugged: to be ticked in again before power.</summary>
    public IReadOnlyList<string> Unplugged => Done.SelectMany(s => s.Cables ?? []).ToList();

    /// <summary>Places of the tray with their screws, those of the steps first done first.</summary>
    public IReadOnlyList<(string Place, IReadOnlyList<Fastener> Screws)> Tray =>
        Out.GroupBy(f => f.Group ?? f.Face ?? "back").Select(g => (g.Key, (IReadOnlyList<Fastener>)g.ToList())).ToList();

    /// <summary>Steps that may be put back now: nothing that is still off lies over them.</summary>
    public bool MayGoBack(TeardownStep step) => Done.All(other => other.Id == step.Id || !Rests(other, step.Id, Done));

    private static bool Rests(TeardownStep other, string on, IReadOnlyList<TeardownStep> done) =>
        other.Needs?.Contains(on) == true
        || (other.AnyOf ?? []).Any(g => g.Contains(on) && !g.Any(t => t != on && done.Any(d => d.Id == t)));
}
