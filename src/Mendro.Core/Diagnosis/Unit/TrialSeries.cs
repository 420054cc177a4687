using Mendro.Core.Library;

namespace Mendro.Core.Diagnosis;

/// <summary>One look at a finding.</summary>
/// <param name="At">Index of the event.</param>
/// <param name="Template">What was looked for.</param>
/// <param name="Links">Its links to the faults of the case.</param>
/// <param name="Present">True when it was there.</param>
/// <param name="Trials">How many times with this same result.</param>
/// <param name="Look">Look of a function that failed, when it was told and counts.</param>
/// <param name="Went">True when it was absent at another look with nothing done between.</param>
internal sealed record Trial(
    int At,
    FindingTemplate Template,
    IReadOnlyList<Link> Links,
    bool Present,
    int Trials,
    string? Look = null,
    bool Went = false
);

/// <summary>
/// All looks at one thing, in order of time, as findings of the network. Results alike in a row are one finding: a
/// lasting cause is the same cause each time. Only intermittent ones draw anew, so a run of good starts clears them
/// more with every start, and a run of failures speaks more and more for something solid. What was there and was not, with nothing
/// done between, came and went: that is one fact, whichever of the two was seen first.
/// </summary>
internal sealed class TrialSeries(Func<int, int, bool> repairBetween)
{
    /// <summary>Chance that a fault shows a face which the library does not know of it (value from memory).</summary>
    private const double AnotherFace = 0.02;

    private readonly List<Trial> _trials = [];

    /// <summary>True when it was absent when last looked for.</summary>
    public bool LastAbsent => _trials.Count > 0 && !_trials[^1].Present;

    /// <summary>When it was last looked for.</summary>
    public int LastAt => _trials[^1].At;

    /// <summary>Adds a look.</summary>
    public void Add(Trial trial) => _trials.Add(trial);

    /// <summary>The looks, those of a moment in which it came and went as one fact. A run of good starts that holds stands for
    /// itself.</summary>
    private List<Trial> CameAndWent()
    {
        var told = new List<Trial>();
        for (var n = 0; n < _trials.Count; )
        {
            var end = n;
            while (end + 1 < _trials.Count && !repairBetween(_trials[end].At, _trials[end + 1].At))
                end++;
            var moment = _trials.GetRange(n, end - n + 1);
            n = end + 1;
            var (failed, passed) = (moment.FindAll(t => t.Present), moment.FindAll(t => !t.Present));
            // What fails under a condition works without it: that is told by the look.
            var byCondition = failed.TrueForAll(t => Conditions.Is(t.Look));
            if (byCondition || passed.Count == 0 || passed.Sum(t => t.Trials) >= Complaints.StartsThatHold)
                told.AddRange(moment);
            else
                told.AddRange(failed.Select((t, k) => t with { Went = true, Trials = k == failed.Count - 1 ? 1 : 0 }));
        }

        return told;
    }

    /// <summary>The findings with what was seen of them.</summary>
    public IEnumerable<(Finding Finding, bool Present, int At)> Findings(
        IReadOnlyList<PartFault> faults,
        IReadOnlyList<List<int>> piecesOf,
        IReadOnlyList<FaultPiece> pieces
    )
    {
        var trials = CameAndWent();
        for (var n = 0; n < trials.Count; )
        {
            var end = n;
            while (end + 1 < trials.Count && trials[end + 1].Present == trials[n].Present && !Worse(trials[end], trials[end + 1]))
                end++;
            var run = trials.GetRange(n, end - n + 1);
            var last = run[^1];
            var links = last.Present ? Failed(run, n > 0 ? trials[n - 1] : null) : Passed(run);
            var leak = last.Template.Leak * (last.Present && run.Exists(t => t.Went) ? EvidenceWeights.UnknownComesAndGoes : 1);
            yield return (new Finding($"{last.Template.Id}#{last.At}", leak, links), last.Present, last.At);
            n = end + 1;
        }

        // What was bad and is dead after work is a new finding: the work may have done it.
        bool Worse(Trial before, Trial after) =>
            after.Look == "nothing" && before.Look is not (null or "nothing") && repairBetween(before.At, after.At);

        // The last failure holds, with what was cured before it taken out.
        List<Link> Failed(List<Trial> run, Trial? passed)
        {
            var last = run[^1];
            var went = run.Exists(t => t.Went);
            var links = new List<Link>(last.Links.Count);
            foreach (var link in Faces(run))
            {
                foreach (var piece in piecesOf[link.Fault].Where(p => pieces[p].AliveAt(last.At)))
                {
                    var p = EvidenceWeights.InARow(
                        faults[link.Fault].Mode,
                        link.P,
                        EvidenceWeights.Fails(faults[link.Fault].Mode),
                        run.Where(t => pieces[piece].AliveAt(t.At)).Sum(t => t.Trials)
                    );
                    if (went)
                        p *= DeviceModel.Flickers(faults[link.Fault].Mode);
                    if (pieces[piece].CreatedAt >= run[0].At)
                        p *= CuredSince(pieces[piece].CreatedAt, last);
                    // A lasting fault that let it work a moment ago does not draw anew: it fails now only if it has grown worse.
                    if (passed is { Present: false } && faults[link.Fault].Mode.Effect != ModeEffect.Intermittent && pieces[piece].AliveAt(passed.At))
                        p *= EvidenceWeights.WorseSincePass;
                    links.Add(new Link(piece, p));
                }
            }

            return links;
        }

        // One that showed several faces is weighed by all of them, whatever their order; what was told before a repair is another moment.
        IReadOnlyList<Link> Faces(List<Trial> run)
        {
            var last = run[^1];
            var faces = run
                .Where(t => t.Look is not null && !repairBetween(t.At, last.At))
                .GroupBy(t => t.Look)
                .Select(g => g.Last().Links.GroupBy(l => l.Fault).ToDictionary(l => l.Key, l => l.Max(x => x.P)))
                .ToList();
            if (faces.Count < 2)
                return last.Links;
            var top = faces.Max(f => f.Values.DefaultIfEmpty(0).Max());
            var weights = faces
                .SelectMany(f => f.Keys)
                .Distinct()
                .ToDictionary(fault => fault, fault => faces.Aggregate(1.0, (w, f) => w * (AnotherFace + f.GetValueOrDefault(fault))));
            var most = weights.Values.Max();
            return weights.Select(w => new Link(w.Key, top * w.Value / most)).OrderBy(l => l.Fault).ToList();
        }

        // What a step broke while the failure was there already can explain that it goes on only if the first cause was
        // cured meanwhile; its weight is what the repairs since then are believed to have cured.
        double CuredSince(int step, Trial last) =>
            Math.Min(
                1,
                last.Links.Sum(l =>
                    piecesOf[l.Fault].Where(p => pieces[p].CuredAt >= step && pieces[p].CuredAt < last.At).Sum(p => pieces[p].Prior * l.P)
                )
            );

        // A pass clears whatever was there at any pass of the run: lasting faults once, intermittent ones at each trial.
        List<Link> Passed(List<Trial> run)
        {
            var best = new Dictionary<int, (double P, int Trials, int Fault)>();
            foreach (var trial in run)
            {
                foreach (var link in trial.Links)
                {
                    foreach (var piece in piecesOf[link.Fault].Where(p => pieces[p].AliveAt(trial.At)))
                    {
                        var before = best.GetValueOrDefault(piece);
                        best[piece] = (Math.Max(before.P, link.P), before.Trials + trial.Trials, link.Fault);
                    }
                }
            }

            return best.Select(b => new Link(
                    b.Key,
                    faults[b.Value.Fault].Mode.Effect == ModeEffect.Intermittent ? 1 - Math.Pow(1 - b.Value.P, b.Value.Trials) : b.Value.P
                ))
                .ToList();
        }
    }
}
