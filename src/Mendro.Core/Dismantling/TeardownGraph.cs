using Mendro.Core.Profiles;

namespace Mendro.Core.Dismantling;

/// <summary>The steps of taking one model apart, by index, checked.</summary>
public sealed class TeardownGraph
{
    private readonly Dictionary<string, int> _index = [];
    private readonly Dictionary<string, List<int>> _freedBy = [];

    private TeardownGraph(IReadOnlyList<TeardownStep> steps, IReadOnlyList<Fastener> fasteners)
    {
        (Steps, Fasteners) = (steps, fasteners);
        for (var n = 0; n < steps.Count; n++)
        {
            _index[steps[n].Id] = n;
            foreach (var freed in steps[n].Frees ?? [])
                (_freedBy.TryGetValue(freed, out var by) ? by : _freedBy[freed] = []).Add(n);
        }

        Needs = steps.Select(s => (s.Needs ?? []).Select(id => _index[id]).Distinct().ToArray()).ToArray();
        AnyOf = steps.Select(s => (s.AnyOf ?? []).Select(g => g.Select(id => _index[id]).Distinct().ToArray()).ToArray()).ToArray();
    }

    /// <summary>Steps in the order of the profile.</summary>
    public IReadOnlyList<TeardownStep> Steps { get; }

    /// <summary>Fasteners.</summary>
    public IReadOnlyList<Fastener> Fasteners { get; }

    /// <summary>Steps that each step needs, by index.</summary>
    internal int[][] Needs { get; }

    /// <summary>Groups of each step, by index.</summary>
    internal int[][][] AnyOf { get; }

    /// <summary>Makes the graph of a model.</summary>
    /// <returns>The graph, or the first problem with its place.</returns>
    public static Outcome<TeardownGraph> Of(IReadOnlyList<TeardownStep>? steps, IReadOnlyList<Fastener>? fasteners)
    {
        var problem = Problems(steps ?? [], fasteners ?? []).Select(p => $"{p.Place}: {p.Message}").FirstOrDefault();
        return problem is null
            ? Outcome<TeardownGraph>.Ok(new TeardownGraph(steps ?? [], fasteners ?? []))
            : Outcome<TeardownGraph>.Fail(problem);
    }

    /// <summary>What is wrong with steps, whatever they free: ids used twice or unknown, empty groups, minutes below 0.</summary>
    public static IEnumerable<ProfileProblem> Problems(IReadOnlyList<TeardownStep> steps, IReadOnlyList<Fastener> fasteners)
    {
        var ids = steps.Select(s => s.Id).ToHashSet();
        for (var n = 0; n < steps.Count; n++)
        {
            var (step, place) = (steps[n], $"steps[{n}]");
            if (string.IsNullOrWhiteSpace(step.Id))
                yield return new ProfileProblem($"{place}.id", "a step needs an id.");
            if (steps.Take(n).Any(s => s.Id == step.Id))
                yield return new ProfileProblem($"{place}.id", $"the id “{step.Id}” is used twice.");
            foreach (var need in (step.Needs ?? []).Where(id => !ids.Contains(id)))
                yield return new ProfileProblem($"{place}.needs", $"there is no step “{need}”.");
            foreach (var group in step.AnyOf ?? [])
            {
                if (group.Count == 0)
                    yield return new ProfileProblem($"{place}.anyOf", "a group of no steps can never be met.");
                foreach (var one in group.Where(id => !ids.Contains(id)))
                    yield return new ProfileProblem($"{place}.anyOf", $"there is no step “{one}”.");
            }

            if (!(step.Minutes >= 0) || !(step.BackMinutes >= 0) || double.IsInfinity(step.Minutes + step.BackMinutes))
                yield return new ProfileProblem($"{place}.minutes", "minutes are 0 or more.");
        }

        foreach (var twice in fasteners.GroupBy(f => f.Id).Where(g => g.Count() > 1))
            yield return new ProfileProblem("fasteners", $"the id “{twice.Key}” is used twice.");
    }

    /// <summary>Index of a step; null when there is none.</summary>
    public int? Find(string step) => _index.TryGetValue(step, out var n) ? n : null;

    /// <summary>Steps that free something; none when it is reached at once.</summary>
    public IReadOnlyList<int> FreedBy(string id) => _freedBy.TryGetValue(id, out var by) ? by : [];

    /// <summary>True when a step may be done after some others.</summary>
    internal bool MayBeDone(int step, Func<int, bool> done) => Needs[step].All(done) && AnyOf[step].All(group => group.Any(done));
}
