using Mendro.Core.Diagnosis;
using Mendro.Core.Profiles;

namespace Mendro.Core.Capacitors;

/// <summary>What a function should do after a stage.</summary>
public enum StageExpectation
{
    /// <summary>It worked before and must go on.</summary>
    StillWorks,

    /// <summary>All that could keep it down is new: it should work from now on.</summary>
    WorksNow,

    /// <summary>Old ones on its way are still in: it may fail as before.</summary>
    MayStillFail,

    /// <summary>It was never tried.</summary>
    Unknown,
}

/// <summary>A group of positions with a power-up behind it.</summary>
/// <param name="Number">Number, 1 and up.</param>
/// <param name="Positions">Positions, of one board.</param>
/// <param name="Expects">What each function should do then.</param>
public sealed record RecapStage(
    int Number,
    IReadOnlyList<RecapPosition> Positions,
    IReadOnlyList<(DeviceFunction Function, StageExpectation Expects)> Expects
)
{
    /// <summary>Sections in it.</summary>
    public IReadOnlyList<string> Sections => Positions.Select(p => p.Section).Distinct().ToList();
}

/// <summary>
/// Puts the positions of a capacitor job into stages: sections stay together as far as the best size goes, and the section that most
/// likely explains what is wrong comes first.
/// </summary>
public static class StagePlan
{
    /// <summary>Puts positions into groups.</summary>
    /// <param name="positions">Positions to be renewed.</param>
    /// <param name="size">Most parts between two power-ups, 1 or more.</param>
    /// <param name="blame">How much a part of the profile is to blame for what is wrong, 0 to 1.</param>
    public static IReadOnlyList<IReadOnlyList<RecapPosition>> Groups(
        IReadOnlyList<RecapPosition> positions,
        int size,
        Func<PartId, double> blame
    )
    {
        double Blame(IEnumerable<RecapPosition> group) => group.Select(p => p.Part?.Id).OfType<PartId>().Distinct().Sum(blame);
        var groups = new List<List<RecapPosition>>();
        var boards = positions
            .GroupBy(p => p.Board.Id)
            .Select(b => b.GroupBy(p => p.Section).OrderByDescending(Blame).Select(s => s.ToList()).ToList())
            .OrderByDescending(b => b.Max(Blame));
        foreach (var sections in boards)
        {
            var first = groups.Count;
            foreach (var section in sections)
            {
                // Alike in size, so that none has a lone straggler; a small section joins the one before it on the same board.
                var parts = (section.Count + size - 1) / size;
                if (parts == 1 && groups.Count > first && groups[^1].Count + section.Count <= size)
                    groups[^1].AddRange(section);
                else
                    for (var n = 0; n < parts; n++)
                        groups.Add(section[(section.Count * n / parts)..(section.Count * (n + 1) / parts)]);
            }
        }

        return groups;
    }

    /// <summary>The groups as stages, with what each function should do once they are in.</summary>
    /// <param name="model">Model.</param>
    /// <param name="groups">Groups in the order of the work.</param>
    /// <param name="done">Keys of positions that are new already.</param>
    /// <param name="states">State of each function now.</param>
    public static IReadOnlyList<RecapStage> Stages(
        DeviceModel model,
        IReadOnlyList<IReadOnlyList<RecapPosition>> groups,
        IReadOnlySet<string> done,
        IReadOnlyDictionary<FunctionId, FunctionState> states
    )
    {
        var left = groups.SelectMany(g => g).Where(p => !done.Contains(p.Key)).ToDictionary(p => p.Key);
        return groups
            .Select(
                (group, n) =>
                {
                    foreach (var position in group)
                        left.Remove(position.Key);
                    var old = left.Values.Select(p => p.Part?.Id).OfType<PartId>().ToHashSet();
                    return new RecapStage(
                        n + 1,
                        group,
                        model.Profile.Functions.Select(f => (f, Expect(model, f, states.GetValueOrDefault(f.Id), old))).ToList()
                    );
                }
            )
            .ToList();
    }

    private static StageExpectation Expect(DeviceModel model, DeviceFunction function, FunctionState state, HashSet<PartId> old) =>
        state switch
        {
            FunctionState.Works => StageExpectation.StillWorks,
            _ when model.Graph.Closure(function).Overlaps(old) => state == FunctionState.Fails
                ? StageExpectation.MayStillFail
                : StageExpectation.Unknown,
            FunctionState.Fails => StageExpectation.WorksNow,
            _ => StageExpectation.Unknown,
        };
}
