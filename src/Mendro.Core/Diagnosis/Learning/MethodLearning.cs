using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>A repair in a closed job, with what became of the unit.</summary>
/// <param name="Part">Part treated.</param>
/// <param name="Kind">Its kind.</param>
/// <param name="Method">Method.</param>
public sealed record RepairMade(PartId Part, string Kind, MethodId Method);

/// <summary>A closed job as the methods learn from it.</summary>
/// <param name="Unit">Which unit it was: jobs with the same text are of one unit; unique where it has no serial number.</param>
/// <param name="Cured">True when the unit left working.</param>
/// <param name="Repairs">Repairs in order.</param>
public sealed record JobOutcome(string Unit, bool Cured, IReadOnlyList<RepairMade> Repairs);

/// <summary>How often a method held on a kind of part.</summary>
/// <param name="Held">Times it held.</param>
/// <param name="Failed">Times it did not, or the unit came back for the same part.</param>
/// <param name="CameBack">Times among the failed in which the unit had left as cured and came back for the same part.</param>
public sealed record MethodTally(int Held, int Failed, int CameBack = 0)
{
    /// <summary>Times it was done.</summary>
    public int Times => Held + Failed;

    /// <summary>Units that left as cured by it.</summary>
    public int Left => Held + CameBack;
}

/// <summary>
/// What the shop's own work says of its methods. The last repair of a part in a job that ended well held; one after which the same part
/// was worked on again, in that job or when the unit came back, did not. The library's success counts as the mean of a Beta with a stated
/// strength, and the shop's cases are added to it (conjugate prior, textbook).
/// </summary>
public static class MethodLearning
{
    /// <summary>Cases that the library's figure is worth.</summary>
    public const double Strength = 20;

    // Hundredths: in a large shop one more case then moves nothing, and nothing has to be worked out anew.
    private const int Digits = 2;

    /// <summary>Tallies by method and kind of part.</summary>
    /// <param name="jobs">Closed jobs in the order in which they were closed.</param>
    public static IReadOnlyDictionary<(MethodId Method, string Kind), MethodTally> Tally(IEnumerable<JobOutcome> jobs)
    {
        var book = new MethodBook();
        foreach (var job in jobs)
            book.Add(job);
        return book.Tallies;
    }

    /// <summary>Success with the shop's cases added: the mean of the Beta after them.</summary>
    /// <param name="library">Success by the library, 0 to 1.</param>
    /// <param name="tally">The shop's cases.</param>
    public static double Success(double library, MethodTally tally) => (library * Strength + tally.Held) / (Strength + tally.Times);

    /// <summary>The methods with what the shop learned of them in their cures.</summary>
    public static IReadOnlyList<Method> Apply(
        IEnumerable<Method> methods,
        IReadOnlyDictionary<(MethodId Method, string Kind), MethodTally> tallies
    ) =>
        methods
            .Select(m =>
                m.Cures.Any(c => tallies.ContainsKey((m.Id, c.Kind)))
                    ? m with
                    {
                        Cures = m
                            .Cures.Select(c =>
                                tallies.TryGetValue((m.Id, c.Kind), out var tally)
                                    ? c with { Success = Math.Round(Success(c.Success, tally), Digits) }
                                    : c
                            )
                            .ToList(),
                    }
                    : m
            )
            .ToList();
}

/// <summary>The tallies of a shop, written on job by job as they are closed. Not for several threads at a time.</summary>
public sealed class MethodBook
{
    private readonly Dictionary<(MethodId Method, string Kind), MethodTally> _tallies = [];

    // What counted as held on a part of a unit, until it comes back.
    private readonly Dictionary<(string Unit, PartId Part), RepairMade> _standing = [];

    /// <summary>Tallies by method and kind of part.</summary>
    public IReadOnlyDictionary<(MethodId Method, string Kind), MethodTally> Tallies => _tallies;

    /// <summary>Counts a job that was closed after all those before.</summary>
    public void Add(JobOutcome job)
    {
        foreach (var part in job.Repairs.GroupBy(r => r.Part))
        {
            var made = part.ToList();
            if (_standing.Remove((job.Unit, part.Key), out var before))
                Count(before, -1, 1, 1);
            foreach (var repair in made.SkipLast(1))
                Count(repair, 0, 1);
            var last = made[^1];
            Count(last, job.Cured ? 1 : 0, job.Cured ? 0 : 1);
            if (job.Cured)
                _standing[(job.Unit, part.Key)] = last;
        }
    }

    private void Count(RepairMade repair, int held, int failed, int cameBack = 0)
    {
        var key = (repair.Method, repair.Kind);
        var now = _tallies.GetValueOrDefault(key) ?? new MethodTally(0, 0);
        _tallies[key] = new MethodTally(now.Held + held, now.Failed + failed, now.CameBack + cameBack);
    }
}
