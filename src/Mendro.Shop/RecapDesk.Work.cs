using Mendro.Core.Capacitors;
using Mendro.Core.Diagnosis;
using Mendro.Core.Electrical;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Shop;

/// <content>What is decided and done.</content>
public sealed partial class RecapDesk
{
    /// <summary>Most units of one shopping list.</summary>
    public const int MostUnits = 200;

    /// <summary>Tells the revision of a unit.</summary>
    public Deed<Done> TellRevision(long number, string revision, string? once = null) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                if (job.Model.Profile.Revisions.All(r => r.Id != revision))
                    return Refusal.Missing;
                jobs.SetRevision(job.Job.Id, revision);
                return new Done($"Revision {revision}.");
            }
        );

    /// <summary>Decides something of the plan.</summary>
    /// <param name="number">Number of the job.</param>
    /// <param name="change">Changes the plan.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> Decide(long number, Func<RecapPlan, RecapPlan> change, string? once = null) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                var before = store.Plan(job.Job.Id);
                var plan = change(before);
                if (before.Groups.Count > 0 && (plan.Scope != before.Scope || !plan.Sections.SequenceEqual(before.Sections)))
                    return Refusal.Invalid("The work has begun: its stages stay as they are. End them first, then choose anew.");
                if (!(plan.AgeYears is > 0 and <= 200))
                    return Refusal.Invalid("An age is above 0 and up to 200 years.");
                if (!(plan.FaultChance is > 0 and < 1))
                    return Refusal.Invalid("The chance that one goes in badly is above 0 and below 100 %.");
                if (!(plan.TestMinutes is > 0 and <= 1000) || !(plan.InspectMinutes is > 0 and <= 1000))
                    return Refusal.Invalid("Minutes are above 0 and up to 1000.");
                if (plan.Units is < 1 or > MostUnits)
                    return Refusal.Invalid($"One list is for 1 to {MostUnits} units.");
                if (plan.Sources.Count == 0)
                    return Refusal.Invalid("Parts come from somewhere: tick stock, kit or catalogue.");
                store.Save(job.Job.Id, plan);
                return new Done("Kept.");
            }
        );

    /// <summary>Begins to place what is renewed, behind the page.</summary>
    public Deed<Done> Place(JobView view)
    {
        if (Open(view) is not { WantsRevision: false } sheet)
            return Refusal.Invalid("The revision comes first.");
        if (sheet.Tasks.Count == 0)
            return Refusal.Invalid("Nothing to place: no position with measured pads is renewed.");
        fits.Start(view.Job.Id, sheet.Tasks);
        return new Done("");
    }

    /// <summary>Stops placing.</summary>
    public void Stop(JobView view) => fits.Stop(view.Job.Id);

    /// <summary>Begins the work: the stages stand from now on.</summary>
    public Deed<Done> Begin(JobView view, string? once = null) =>
        bench.On<Done>(
            view.Job.Number,
            once,
            job =>
            {
                if (Open(view) is not { WantsRevision: false } sheet)
                    return Refusal.Invalid("The revision comes first.");
                if (!sheet.Renewed.Any())
                    return Refusal.Invalid("Nothing is renewed: choose what goes in first.");
                if (sheet.HasBegun)
                    return Refusal.Invalid("The stages stand already.");
                IReadOnlyList<string> Keys(RecapStage stage) => stage.Positions.Select(p => p.Key).ToList();
                store.Save(job.Job.Id, sheet.Plan with { Groups = sheet.Stages.Select(Keys).ToList() });
                return new Done($"{sheet.Stages.Count} stages.");
            }
        );

    /// <summary>Ends the stages, so that something else can be chosen; what is in stays in.</summary>
    public Deed<Done> End(long number, string? once = null) =>
        Change(number, once, plan => plan with { Groups = [] }, "The stages are open again; what is in stays in.");

    /// <summary>Boards that were typed, pasted or tapped for this unit; none to go back to the model's.</summary>
    public Deed<Done> UseOwn(long number, IReadOnlyList<Board>? boards, string? once = null) =>
        Change(
            number,
            once,
            plan => plan with { Own = boards, Groups = [], Fits = [], Chosen = new Dictionary<string, string>() },
            boards is null ? "Back to the model's boards."
                : $"{boards.Sum(b => b.Capacitors?.Count ?? 0)} positions, {boards.Sum(b => b.Nets?.Count ?? 0)} nets."
        );

    /// <summary>Tells of an old capacitor.</summary>
    /// <param name="number">Number of the job.</param>
    /// <param name="old">What is known of it; without a verdict it is judged by what was measured.</param>
    /// <param name="position">Its position.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> Old(long number, CapacitorOut old, BoardCapacitor position, string? once = null) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                if (old is { Way: null, Farads: null, EsrOhms: null, Verdict: null })
                    return Refusal.Invalid("Say what it measured, how it looked, or which way it pointed.");
                var judged =
                    old is { Verdict: null, Farads: { } farads } && position.Farads is { } rated
                        ? old with { Verdict = Judge(rated, farads, old.EsrOhms) }
                        : old;
                return new Done(bench.File(job, judged, WorkStage.Fix, r => r with { Minutes = 0 }).Words);
            }
        );

    /// <summary>Tells which way old ones point, all at once.</summary>
    public Deed<Done> Ways(long number, IReadOnlyList<CapacitorOut> told, string? once = null) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                if (told.Count == 0)
                    return Refusal.Invalid("Nothing new was told: tap or tick which way they point.");
                foreach (var one in told)
                    bench.File(job, one, WorkStage.Fix, r => r with { Minutes = 0 });
                var turned = told.Where(o => o.Way == "turned").Select(o => o.Refdes).ToList();
                return new Done($"{told.Count} noted{(turned.Count > 0 ? $"; turned against the drawing: {string.Join(" ", turned)}" : "")}.");
            }
        );

    /// <summary>A group is in, and the unit was powered up.</summary>
    /// <param name="view">The job.</param>
    /// <param name="stage">Number of the stage that was shown.</param>
    /// <param name="looked">Positions whose polarity was looked at a second time.</param>
    /// <param name="tried">What each function did; what was not tried is left out.</param>
    /// <param name="minutes">Minutes it took; null for the usual ones.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<StageDone> Finish(
        JobView view,
        int stage,
        IReadOnlySet<string> looked,
        IReadOnlyDictionary<FunctionId, bool> tried,
        double? minutes,
        string? once = null
    ) =>
        bench.On<StageDone>(
            view.Job.Number,
            once,
            job =>
            {
                if (Open(view) is not { HasBegun: true, Now: { } now } sheet || now.Number != stage)
                    return Refusal.Invalid("That stage is done already; this is where it stands now.");
                if (now.Positions.FirstOrDefault(p => !looked.Contains(p.Key)) is { } unseen)
                    return Refusal.Invalid($"Look at {unseen.Capacitor.Refdes} once more, plus and stripe, and tick it: a turned one bursts.");
                if (tried.Count == 0)
                    return Refusal.Invalid("Power up and try at least one function before the next stage.");
                if (minutes is { } told && !(told is >= 0 and <= RepairDesk.MostMinutes))
                    return Refusal.Invalid("Minutes are 0 to 1000.");
                var each = (minutes ?? now.Positions.Count * Known.MinutesEach) / now.Positions.Count;
                foreach (var group in now.Positions.GroupBy(p => p.Part?.Id))
                {
                    var method = group.Key is { } part ? MethodFor(job.Model, part, Whole(sheet, part, now)) : null;
                    var filed = new CapacitorsFitted(
                        group.First().Board.Id,
                        group.Select(p => p.Capacitor.Refdes).ToList(),
                        method is null ? null : group.Key,
                        method?.Id
                    );
                    bench.File(job, filed, WorkStage.Fix, r => r with { Minutes = Math.Round(each * group.Count(), 1) });
                }

                foreach (var same in now.Positions.Select(p => sheet.Find(p.Key)?.Part).OfType<CapacitorPart>().GroupBy(p => p.Id))
                    if (same.First() is { Source: not CapacitorSource.Catalogue } part && !stock.TakeCapacitors(job, part, same.Count()))
                        foreach (var one in same)
                            store.Take(one.Id);
                var steps = new List<JobStep> { JobStep.Repaired };
                foreach (var (function, works) in tried)
                    if (FunctionTrial.Make(job.Model, function, works, null) is { } trial)
                        steps.Add(bench.File(job, trial, WorkStage.Fix).Body.Step);
                bench.Settle(job, steps);
                var worse = now
                    .Expects.Where(e => e.Expects is StageExpectation.StillWorks or StageExpectation.WorksNow)
                    .Where(e => tried.TryGetValue(e.Function.Id, out var works) && !works)
                    .Select(e => e.Function.Name)
                    .ToList();
                return new StageDone(
                    string.Join(" ", now.Positions.Select(p => p.Capacitor.Refdes)),
                    worse,
                    sheet.Stages.Where(s => s != now).All(s => s.Positions.All(sheet.IsIn))
                );
            }
        );

    /// <summary>Puts parts into the drawer.</summary>
    public Deed<Done> Add(IReadOnlyList<CapacitorPart> parts, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                store.Add(parts);
                return new Done($"{parts.Sum(p => p.Count ?? 0)} capacitors are in the drawer.");
            }
        );

    /// <summary>Counts a part of the drawer anew.</summary>
    public Deed<Done> Count(long id, int count, string? once = null) =>
        ledger.Once<Done>(once, () => store.SetCount(id, count) > 0 ? new Done("Counted.") : Refusal.Missing);

    private static string Judge(double ratedFarads, double farads, double? esrOhms) =>
        CapacitorCheck.Judge(ratedFarads, farads, esrOhms, CapacitorMatch.ValueTolerance, BenchLimits.Shipped).Verdict;

    private Deed<Done> Change(long number, string? once, Func<RecapPlan, RecapPlan> change, string words) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                store.Save(job.Job.Id, change(store.Plan(job.Job.Id)));
                return new Done(words);
            }
        );

    /// <summary>True when with this stage all capacitors of a part are new.</summary>
    private static bool Whole(RecapSheet sheet, PartId part, RecapStage now) =>
        sheet.Lines.Where(l => l.Position.Part is { } own && own.Id == part).All(l => l.IsIn || now.Positions.Any(p => p.Key == l.Position.Key));

    private Method? MethodFor(DeviceModel model, PartId part, bool whole) =>
        (whole ? Known.Methods.Section : [.. Known.Methods.Single, .. Known.Methods.Section])
            .Where(id => RepairLogged.Make(model, part, id) is not null)
            .Select(id => library.FindMethod(id))
            .FirstOrDefault();
}
