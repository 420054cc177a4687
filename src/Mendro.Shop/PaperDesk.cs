using System.Globalization;
using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Core.Papers;
using Mendro.Core.Profiles;
using Mendro.Core.Proving;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>Which paper.</summary>
public enum PaperKind
{
    /// <summary>For the owner: found, done, replaced, still wrong, minutes, cost.</summary>
    Job,

    /// <summary>For a buyer: grade, what works, honest faults.</summary>
    Sale,

    /// <summary>What was tried and measured, with the results.</summary>
    Test,
}

/// <summary>Draws up the papers that go with a unit.</summary>
public sealed class PaperDesk(RunDesk runs, CostDesk sums, SettingsStore settings, SaleStore sales, TimeProvider time)
{
    private const double Confidence = 0.95;

    /// <summary>Draws one up.</summary>
    /// <param name="view">The job.</param>
    /// <param name="kind">Which.</param>
    /// <param name="day">Writes a day by the shop's clock.</param>
    /// <param name="costs">True to show what the work costs; not to who may not see it.</param>
    public Paper Of(JobView view, PaperKind kind, Func<DateTimeOffset, string> day, bool costs = true) =>
        kind switch
        {
            PaperKind.Sale => Sale(view, day),
            PaperKind.Test => Test(view, day),
            _ => Job(view, day, costs),
        };

    private Paper Job(JobView view, Func<DateTimeOffset, string> day, bool costs)
    {
        var job = view.Job;
        var plan = ProveDesk.Plan(view);
        var changes = runs.Modifications(job);
        return new Paper(
            "Job sheet",
            job.Tag,
            job.Title,
            Head(job, day),
            Facts(
                ("Board revision", job.Revision.Length > 0 ? job.Revision : "not known"),
                ("Serial number", job.Serial),
                ("Owner", job.CustomerName ?? "shop stock"),
                ("Taken in", day(job.ReceivedAt)),
                ("With it", job.Accessories),
                ("Reported", job.Claim),
                ("Condition", Condition(view))
            ),
            [
                new PaperSection("Found", Found(view), "No cause confirmed."),
                new PaperSection("Done and replaced", Done(view, costs), "Nothing was changed.", IsTable: true),
                new PaperSection("Modified", [.. changes.Select(c => new PaperLine(Changed(c, day)))]),
                new PaperSection("Proved", Proved(view, plan), IsTable: true),
                new PaperSection("Proof in numbers", Numbers(view)),
                new PaperSection("Still wrong", StillWrong(view, plan)),
                new PaperSection("Not tried", NotTried(view, plan)),
                new PaperSection("Remarks", job.EndingNote.Length > 0 ? [new PaperLine(job.EndingNote)] : []),
                new PaperSection(costs ? "Time and cost" : "Time", costs ? Cost(view) : [Time(view)], IsTable: true),
                new PaperSection("Handed over", [.. view.All<HandedOver>().Select(h => new PaperLine(h.Record.Words))]),
            ]
        );
    }

    private Paper Sale(JobView view, Func<DateTimeOffset, string> day)
    {
        var job = view.Job;
        var plan = ProveDesk.Plan(view);
        var sale = sales.Find(job.Id);
        var grade = Honest(view, ConditionGrade.Find(sale?.Condition));
        var asking = job.In(sale?.Asking ?? job.Asking);
        return new Paper(
            "Sale sheet",
            job.Tag,
            job.Title,
            Head(job, day),
            Facts(
                ("Grade", $"{grade.Name}: {grade.Tell}"),
                ("Board revision", job.Revision.Length > 0 ? job.Revision : "not known"),
                ("With it", job.Accessories),
                ("Asking price", asking?.ToString() ?? "")
            ),
            [
                new PaperSection("Works, tried here", [.. plan.Items.Where(Worked).Select(i => new PaperLine(i.Name, "", PaperTone.Good))]),
                new PaperSection(
                    "Faults",
                    [.. StillWrong(view, plan), .. Condition(view) is { Length: > 0 } worn ? [new PaperLine(worn)] : Array.Empty<PaperLine>()],
                    "None known."
                ),
                new PaperSection("Not tried", NotTried(plan)),
                new PaperSection("Not original", [.. runs.Modifications(job).Select(c => new PaperLine(Changed(c, day)))]),
                new PaperSection("Renewed and repaired", [.. Done(view, costs: false).Select(d => d with { Value = "" })]),
                new PaperSection("Proof in numbers", Numbers(view)),
                new PaperSection("Remarks", job.EndingNote.Length > 0 ? [new PaperLine(job.EndingNote)] : []),
            ]
        );
    }

    private Paper Test(JobView view, Func<DateTimeOffset, string> day)
    {
        var plan = ProveDesk.Plan(view);
        return new Paper(
            "Test record",
            view.Job.Tag,
            view.Job.Title,
            Head(view.Job, day),
            Facts(
                ("Board revision", view.Job.Revision.Length > 0 ? view.Job.Revision : "not known"),
                ("Serial number", view.Job.Serial),
                ("Repairs", Count(view.Records.Count(r => r.Body.Step == JobStep.Repaired)))
            ),
            [
                new PaperSection("Tried", Proved(view, plan), IsTable: true),
                new PaperSection("Proof in numbers", Numbers(view)),
                new PaperSection(
                    "Measured",
                    [
                        .. view.LastReadings.Values.Where(r => r.Body.Sign is RecordSign.Good or RecordSign.Bad)
                            .OrderBy(r => r.Record.Seq)
                            .Select(r => new PaperLine(
                                r.Body.Title(view.Model, r.Record.Words),
                                r.Body.Value(view.Model),
                                r.Body.Sign == RecordSign.Good ? PaperTone.Good : PaperTone.Bad
                            )),
                    ],
                    IsTable: true
                ),
                new PaperSection("Still wrong", StillWrong(view, plan)),
                new PaperSection("Not tried", NotTried(view, plan)),
            ]
        );
    }

    /// <summary>Grade by what is known of it: faulty while something fails, worn with marks, else good.</summary>
    public static ConditionGrade GradeOf(JobView view) =>
        view.Proof.Failures.Any() || view.Proof.Unproved.Any() ? ConditionGrade.Faulty
        : view.All<MarkNoted>().Any() ? ConditionGrade.Worn
        : ConditionGrade.Good;

    /// <summary>Condition marks and note in one line.</summary>
    public static string Condition(JobView view) =>
        string.Join(
            ", ",
            view.All<MarkNoted>().Select(m => m.Body.Words(view.Model.Library)).Append(view.Job.ConditionNote).Where(t => t.Length > 0)
        );

    private string Head(Job job, Func<DateTimeOffset, string> day) => $"{settings.Get().ShopName} · {day(job.ClosedAt ?? time.GetUtcNow())}";

    /// <summary>What was found, for one who owns the unit: the part and what was wrong with it; a reading with its number.</summary>
    private static List<PaperLine> Found(JobView view)
    {
        var seen = view.Records.Select(r => r.Body).OfType<CauseSeen>().Where(c => c.Present).Select(c => c.Part).ToHashSet();
        return view
            .Records.Select(r =>
                r.Body switch
                {
                    CauseSeen { Present: true } cause => Sentence(view, cause),
                    ProbeReading { Sign: RecordSign.Bad, IsMetered: true } => r.Words,
                    ProbeReading { Sign: RecordSign.Bad } look => NotRight(view, look, seen),
                    _ => null,
                }
            )
            .OfType<string>()
            // A cure whose cause nobody saw is still what was found.
            .Concat(
                CuredBy
                    .Of(view.Model, view.Records.Select(r => r.Body))
                    .Where(c => !c.Work.Any(w => seen.Contains(w.Part)))
                    .Select(c => c.Words(view.Model))
            )
            .Distinct()
            .Select(w => new PaperLine(w))
            .ToList();
    }

    /// <summary>“Volume wheel: dirty”.</summary>
    private static string Sentence(JobView view, CauseSeen cause) =>
        view.Profile.FindPart(cause.Part) is { } part
        && view.Model.Library.FindPartKind(part.Kind)?.Modes.FirstOrDefault(m => m.Id == cause.Mode) is { } mode
            ? $"{part.Name}: {MoveWords.Lower(mode.Name)}"
            : cause.Fault(view.Model);

    /// <summary>What a look or a press found bad, by the part it was about; null where its cause is told already.</summary>
    private static string? NotRight(JobView view, ProbeReading look, HashSet<PartId> seen)
    {
        if (view.Profile.FindProbe(look.Probe) is not { } probe)
            return null;
        var parts = (probe.At is { } at ? [at] : probe.Spans ?? []).Select(view.Profile.FindPart).OfType<Part>().ToList();
        return parts.Count == 0 || parts.Exists(p => seen.Contains(p.Id)) ? null : $"{string.Join(", ", parts.Select(p => p.Name))}: not as it should be";
    }

    /// <summary>The grade that may be told: of a unit that fails, or of which something was not tried, none that says “all works”.</summary>
    /// <param name="view">The job.</param>
    /// <param name="said">Grade that was chosen, or null.</param>
    public static ConditionGrade Honest(JobView view, ConditionGrade? said) =>
        GradeOf(view) is var known && known == ConditionGrade.Faulty ? known : said ?? known;

    private static List<PaperLine> Done(JobView view, bool costs) =>
        view
            .Records.Where(r => r.Body.Step == JobStep.Repaired)
            .Select(r => new PaperLine(
                r.Words + (r.Note.Length > 0 ? $". {r.Note}" : "") + (r.Body is RepairLogged { Used.Length: > 0 } used ? $" ({used.Used})" : ""),
                string.Create(CultureInfo.InvariantCulture, $"{Math.Round(r.Minutes)} min")
                    + (costs && view.Job.In(r.Cost) is { Value: > 0 } cost ? $", {cost}" : "")
            ))
            .ToList();

    private static string Changed(Modification change, Func<DateTimeOffset, string> day) =>
        $"{change.Words}, {day(change.At)}" + (change.Originals.Length > 0 ? $"; original parts: {change.Originals}" : "");

    private static bool Worked(TestItem item) => item.State == ProofState.Proved && !item.IsAgain;

    private static List<PaperLine> Proved(JobView view, TestPlan plan) =>
        plan.Items.Where(i => i.State is ProofState.Proved or ProofState.Fails)
            .Select(i => new PaperLine(
                i.Name + (i.IsAgain ? ", screws in" : ""),
                i.State == ProofState.Fails ? "✕ fails"
                : i.Function is null ? "✓ good"
                : "✓ works",
                i.State == ProofState.Fails ? PaperTone.Bad : PaperTone.Good
            ))
            .ToList();

    private static List<PaperLine> Numbers(JobView view) =>
        [
            .. view.All<StartRunFiled>()
                .Select(r => new PaperLine(
                    r.Record.Words
                        + string.Create(CultureInfo.InvariantCulture, $"; at most {Bound(r.Body):0.#} % of starts fail, with 95 % certainty")
                )),
            .. view.All<SoakRun>().Select(r => new PaperLine(r.Record.Words)),
            .. view.All<ColourMeasured>().Select(r => new PaperLine(r.Record.Words)),
        ];

    private static double Bound(StartRunFiled run) =>
        100 * StartRun.UpperFailureRate(run.Starts - run.Failures, run.Failures, Confidence);

    private static List<PaperLine> StillWrong(JobView view, TestPlan plan)
    {
        var kept = plan.ButFor.Select(b => new PaperLine(b, "", PaperTone.Bad)).ToList();
        var other = plan.Items.Where(i => i is { State: ProofState.Fails, Kept: null, ScrewsIn: false }).Select(i => i.Name).Distinct().ToList();
        var why = view.Job.StatedReason;
        if (other.Count > 0)
            kept.Add(new PaperLine(string.Join(", ", other) + (why.Length > 0 ? $" ({why})" : ""), "", PaperTone.Bad));
        else if (why.Length > 0 && NotTried(plan).Count == 0)
            kept.Add(new PaperLine(why, "", PaperTone.Bad));
        return kept;
    }

    private static List<PaperLine> NotTried(TestPlan plan) =>
        plan.NotTried.Select(i => new PaperLine(i.Name + (i.State == ProofState.Stale ? ", since the last repair" : ""), "", PaperTone.Open))
            .ToList();

    /// <summary>What was not tried; why it goes all the same stands with it, unless something fails for that reason.</summary>
    private static List<PaperLine> NotTried(JobView view, TestPlan plan)
    {
        var lines = NotTried(plan);
        var failing = plan.Items.Any(i => i is { State: ProofState.Fails, Kept: null, ScrewsIn: false });
        if (lines.Count > 0 && !failing && view.Job.StatedReason.Length > 0)
            lines.Add(new PaperLine($"It goes all the same: {view.Job.StatedReason}"));
        return lines;
    }

    private static PaperLine Time(JobView view) => new("Bench time", Minutes(view.MinutesSpent));

    private List<PaperLine> Cost(JobView view)
    {
        var cost = sums.Of(view);
        var lines = new List<PaperLine>
        {
            Time(view),
            new("Work", cost.Labour?.ToString() ?? $"at {cost.PerHour} an hour; not reckoned in {view.Job.Currency}"),
            new("Parts", cost.Parts.ToString()),
        };
        if (cost.WorkAndParts is { } sum)
            lines.Add(new PaperLine("Together", sum.ToString()));
        if (!view.Job.ShopStock && cost is { Charged: { } charged, Owed: { } owed })
        {
            var onTop = cost.TaxRule is { Percent: > 0, Inclusive: false } && cost.Tax.Value != 0;
            if (onTop && charged.Why.Length > 0)
                lines.Add(new PaperLine($"Charged, {charged.Why}", charged.Sum.ToString()));
            if (onTop)
                lines.Add(new PaperLine(FormattableString.Invariant($"Tax, {cost.TaxRule.Percent:0.##} %"), cost.Tax.ToString()));
            // Where it is another sum than work and parts.
            if (onTop || charged.Why.Length > 0)
                lines.Add(new PaperLine(onTop || charged.Why.Length == 0 ? "To pay" : $"To pay, {charged.Why}", owed.ToString()));
        }

        if (view.Job.In(view.Job.Asking) is { } asking)
            lines.Add(new PaperLine("Asking price", asking.ToString()));
        return lines;
    }

    private static string Minutes(double minutes) => Count((int)Math.Round(minutes)) + " min";

    private static string Count(int number) => number.ToString(CultureInfo.InvariantCulture);

    private static List<(string, string)> Facts(params (string Name, string Value)[] facts) => facts.Where(f => f.Value.Length > 0).ToList();
}
