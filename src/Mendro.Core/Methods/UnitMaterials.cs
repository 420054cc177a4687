namespace Mendro.Core.Methods;

/// <summary>Something that was done to a unit, and when.</summary>
/// <param name="Step">What.</param>
/// <param name="At">When, UTC.</param>
public sealed record MaterialMoment(SequenceStep Step, DateTimeOffset At);

/// <summary>
/// What was put on a unit so far, over all its jobs, and whether a next step may be taken. Time that went by counts as drying in air;
/// what needs a rinse is not lifted by it.
/// </summary>
public static class UnitMaterials
{
    // Shorter gaps are the work itself.
    private const double LeastGapMinutes = 1;

    /// <summary>The steps with the drying in air between them.</summary>
    /// <param name="moments">What was done, in order.</param>
    /// <param name="now">The moment of the next step, UTC.</param>
    public static IReadOnlyList<SequenceStep> Sequence(IReadOnlyList<MaterialMoment> moments, DateTimeOffset now)
    {
        var steps = new List<SequenceStep>();
        for (var n = 0; n < moments.Count; n++)
        {
            steps.Add(moments[n].Step);
            var gap = ((n + 1 < moments.Count ? moments[n + 1].At : now) - moments[n].At).TotalMinutes;
            // A drying that was logged is not counted once more as time gone by.
            if (n + 1 < moments.Count && moments[n + 1].Step.Dry is { } logged)
                gap -= logged;
            if (gap >= LeastGapMinutes)
                steps.Add(new SequenceStep(Dry: gap));
        }

        return steps;
    }

    /// <summary>Why a next step must not be taken yet, and what the material check says of its surfaces.</summary>
    /// <param name="moments">What was done, in order.</param>
    /// <param name="next">The next step.</param>
    /// <param name="now">Now, UTC.</param>
    /// <param name="library">Agents, surfaces and rules.</param>
    public static SequenceReport Before(
        IReadOnlyList<MaterialMoment> moments,
        IReadOnlyList<SequenceStep> next,
        DateTimeOffset now,
        MaterialLibrary library
    )
    {
        var past = Sequence(moments, now);
        var report = MaterialCheck.Of([.. past, .. next], library);
        return new SequenceReport(
            report.Steps.Where(s => s.Index >= past.Count).Select(s => s with { Index = s.Index - past.Count }).ToList(),
            report.Stops.Where(s => s.Index >= past.Count).Select(s => s with { Index = s.Index - past.Count }).ToList()
        );
    }
}
