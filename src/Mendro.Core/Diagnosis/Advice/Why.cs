namespace Mendro.Core.Diagnosis;

/// <summary>How one finding moves the odds of one suspect.</summary>
/// <param name="Event">Index of the event that made the finding; of several alike the last.</param>
/// <param name="OddsFactor">Factor on the odds of the suspect, above 1 speaks for it, below 1 against it.</param>
public sealed record Weight(int Event, double OddsFactor);

/// <summary>What speaks for and against a suspect.</summary>
/// <param name="Suspect">The suspect.</param>
/// <param name="Prior">Chance before anything was seen, 0 to 1.</param>
/// <param name="For">Findings for it, the strongest first.</param>
/// <param name="Against">Findings against it, the strongest first.</param>
public sealed record SuspectReasons(Suspect Suspect, double Prior, IReadOnlyList<Weight> For, IReadOnlyList<Weight> Against);

/// <summary>A possible cause of a finding.</summary>
/// <param name="Fault">Fault.</param>
/// <param name="CuredSince">True for the part of it that a later repair is believed to have cured.</param>
/// <param name="Share">Share of the explanation, 0 to 1.</param>
public sealed record Explanation(PartFault Fault, bool CuredSince, double Share);

/// <summary>What would explain a finding.</summary>
/// <param name="Event">Index of the event that made it.</param>
/// <param name="Causes">Causes, the likeliest first.</param>
/// <param name="Otherwise">Share left to bench error or a cause that the profile lacks, 0 to 1.</param>
public sealed record FindingReasons(int Event, IReadOnlyList<Explanation> Causes, double Otherwise);

/// <summary>
/// Why the diagnosis says what it says. The weight of a finding for a suspect is how its odds change when that finding
/// alone is taken away: exact, and it counts what the other findings already tell.
/// </summary>
/// <param name="Suspects">Leading suspects with their reasons.</param>
/// <param name="Findings">Present findings with what would explain them.</param>
public sealed record Why(IReadOnlyList<SuspectReasons> Suspects, IReadOnlyList<FindingReasons> Findings)
{
    /// <summary>A finding that moves the odds by less than this factor either way is not told.</summary>
    private const double Telling = 1.05;

    /// <summary>Explains a diagnosis.</summary>
    /// <param name="diagnosis">Diagnosis.</param>
    /// <param name="most">How many suspects to explain.</param>
    public static Why Make(UnitDiagnosis diagnosis, int most = 6)
    {
        var unit = diagnosis.Case;
        var leading = diagnosis.Suspects.Where(s => diagnosis.Target is null || s.Share >= 0.01).Take(most).ToList();
        var factors = leading.Select(_ => new List<Weight>()).ToList();
        for (var j = 0; j < unit.Observed.Count; j++)
        {
            var without = NoisyOrInference.Infer(unit.Network, unit.Observed.Where((_, n) => n != j).ToList());
            if (!without.IsOk)
                continue;
            for (var n = 0; n < leading.Count; n++)
            {
                var piece = unit.UncuredPiece(leading[n].FaultIndex);
                factors[n].Add(new Weight(unit.EventOf(j), Odds(diagnosis.Posterior.Fault(piece)) / Odds(without.Value.Fault(piece))));
            }
        }

        var suspects = leading
            .Select(
                (s, n) =>
                    new SuspectReasons(
                        s,
                        s.Fault.Prior,
                        factors[n].Where(w => w.OddsFactor > Telling).OrderByDescending(w => w.OddsFactor).ToList(),
                        factors[n].Where(w => w.OddsFactor < 1 / Telling).OrderBy(w => w.OddsFactor).ToList()
                    )
            )
            .ToList();
        return new Why(
            suspects,
            Enumerable
                .Range(0, unit.Observed.Count)
                .Where(j => unit.Observed[j].Present && unit.Network.Findings[j].Links.Count > 0)
                .Select(j => Explain(diagnosis, j))
                .ToList()
        );
    }

    private static FindingReasons Explain(UnitDiagnosis diagnosis, int finding)
    {
        var unit = diagnosis.Case;
        var causes = unit
            .Network.Findings[finding]
            .Links.Where(l => unit.FaultOf(l.Fault) >= 0)
            .Select(l => (Piece: l.Fault, Share: diagnosis.Posterior.Fault(l.Fault) * l.P))
            .ToList();
        var unknown = unit.UnknownPiece(finding) is { } piece ? diagnosis.Posterior.Fault(piece) : unit.Network.Findings[finding].Leak;
        var sum = causes.Sum(c => c.Share) + unknown;
        return new FindingReasons(
            unit.EventOf(finding),
            causes
                .Where(c => c.Share / sum >= 0.02)
                .OrderByDescending(c => c.Share)
                .Take(4)
                .Select(c => new Explanation(
                    unit.Faults[unit.FaultOf(c.Piece)],
                    unit.UncuredPiece(unit.FaultOf(c.Piece)) != c.Piece,
                    c.Share / sum
                ))
                .ToList(),
            unknown / sum
        );
    }

    private static double Odds(double p) => Math.Max(p, 1e-12) / Math.Max(1 - p, 1e-12);
}
