using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Mendro.Core.Capacitors;
using Mendro.Core.Diagnosis;
using Mendro.Core.Electrical;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>A stage was done.</summary>
/// <param name="Words">What was put in.</param>
/// <param name="Worse">Functions that fail now and should not; then the last group is suspected.</param>
/// <param name="Finished">True when no stage is left.</param>
public sealed record StageDone(string Words, IReadOnlyList<string> Worse, bool Finished);

/// <summary>Plans the capacitor job of a unit and takes it through its stages.</summary>
public sealed partial class RecapDesk(
    JobBench bench,
    JobStore jobs,
    CapacitorStore store,
    FitDesk fits,
    BenchDesk desk,
    StockDesk stock,
    Ledger ledger,
    TradeLibrary library
)
{
    /// <summary>Years ahead for which the chance of another failure is said.</summary>
    public const double AheadYears = 5;

    private const int MostChoices = 3;

    // Minutes of hands-on work on the shell that go beside a capacitor job.
    private const double MostAside = 15;

    private static readonly CapacitorLibrary Known = CapacitorLibrary.Shipped;

    /// <summary>The job worked out; null when neither its model nor anybody has told of capacitors.</summary>
    public RecapSheet? Open(JobView view)
    {
        // How far placing is comes first: it ends by keeping the plan, so whoever reads that it has ended finds the plan kept.
        var placing = fits.Of(view.Job.Id);
        var plan = store.Plan(view.Job.Id);
        var boards = plan.Own ?? view.Profile.Boards ?? [];
        if (!boards.Any(b => b.Capacitors is { Count: > 0 }))
            return null;
        var wants = plan.Own is null && view.Job.Revision.Length == 0 && RecapPositions.NeedsRevision(boards);
        var all = wants ? [] : RecapPositions.Of(view.Profile, boards, view.Job.Revision);
        var old = view.All<CapacitorOut>().GroupBy(o => o.Body.Subject).ToDictionary(g => g.Key, g => Together(g.Select(o => o.Body)));
        var failed = old.Where(o => o.Value.Failed).Select(o => o.Key).ToHashSet();
        var isIn = view.All<CapacitorsFitted>().SelectMany(f => f.Body.Refdes.Select(r => $"{f.Body.Board}/{r}")).ToHashSet();
        // What is in stays in the plan, whatever is decided later.
        var renewed = plan.Of(all, failed).Select(p => p.Key).Concat(isIn).ToHashSet();
        var before = store.Pattern(view.Job.ProfileId);
        var parts = Parts(view.Job.Id, plan);
        var offersOf = all.ToDictionary(p => p.Key, p => CapacitorMatch.Rank(p.Capacitor, parts, BenchLimits.Shipped.LargestEsrOhms));
        var offered = Allot(plan, all.Where(p => renewed.Contains(p.Key) && !isIn.Contains(p.Key)), offersOf);
        var lines = all.Select(p =>
            {
                var offers = offersOf[p.Key];
                var fit = plan.Fits.FirstOrDefault(f => f.Board == p.Board.Id);
                var placed = fit?.Plan.Placements.FirstOrDefault(x => x.Refdes == p.Capacitor.Refdes);
                var part = offers.FirstOrDefault(o => o.Part.Id == placed?.Part)?.Part ?? offered.GetValueOrDefault(p.Key)?.FirstOrDefault();
                return new RecapLine(
                    p,
                    renewed.Contains(p.Key),
                    offers,
                    part ?? offers.FirstOrDefault()?.Part,
                    placed,
                    fit?.Plan.Unplaced.FirstOrDefault(x => x.Refdes == p.Capacitor.Refdes),
                    old.GetValueOrDefault(p.Key),
                    isIn.Contains(p.Key),
                    before.TryGetValue(p.Key, out var counted) ? counted : null,
                    offers.Count == 0 ? NothingFits.Say(p.Capacitor, parts) : ""
                );
            })
            .ToList();
        var (size, minutes) = StageSize.Best(plan.FaultChance, plan.TestMinutes, plan.InspectMinutes);
        var going = lines.Where(l => l.Renewed).Select(l => l.Position).ToList();
        var groups = plan.Groups.Count > 0 ? Begun(plan, all) : StagePlan.Groups(going, size, part => Blame(view, part));
        var states = view.Profile.Functions.ToDictionary(f => f.Id, f => StateOf(view, f.Id));
        var tasks = Tasks(lines, offered);
        return new RecapSheet(
            view,
            plan,
            boards,
            wants,
            lines,
            size,
            minutes,
            StagePlan.Stages(view.Model, groups, isIn, states),
            Schools(plan, all, old.Values.Count(o => o.Verdict is not null), failed, minutes),
            placing is { Finished: true, Problem: null } ? null : placing,
            tasks,
            tasks.All(t => plan.Fits.Any(f => f.Board == t.Board.Id && f.For == t.For))
        );
    }

    /// <summary>What to buy.</summary>
    public IReadOnlyList<ShoppingLine> Shopping(RecapSheet sheet) =>
        ShoppingList.Make(
            sheet.Renewed.Where(l => l is { Part: not null, IsIn: false }).Select(l => (l.Position, l.Part!)).ToList(),
            sheet.Plan.Units,
            Known.LossChance,
            [.. store.Parts(), .. stock.Capacitors(sheet.View.Job.Id)]
        );

    /// <summary>Other units of the model in the shop, the best to begin with first.</summary>
    public IReadOnlyList<LikeUnit> Likes(JobView view)
    {
        var like = jobs.Live().Where(j => j.ProfileId == view.Job.ProfileId && j.PracticeSeed is null).Take(12).ToList();
        var rated = like.Select(j =>
            {
                var own = j.Id == view.Job.Id ? view : desk.Open(j);
                var capacitors = own.Profile.Parts.Where(p => library.FindPartKind(p.Kind)?.Kind == "capacitors");
                var (blame, marks) = (Math.Min(1, capacitors.Sum(p => Blame(own, p.Id))), own.All<MarkNoted>().Count());
                return (Job: j, Blame: blame, Marks: marks, Score: (double)(j.ValueWorking ?? 1) * blame / (1 + marks));
            })
            .OrderByDescending(x => x.Score)
            .ThenBy(x => x.Job.Number)
            .ToList();
        return rated.Count < 2
            ? []
            : rated
                .Select(
                    (x, n) =>
                        new LikeUnit(
                            x.Job.Number,
                            x.Job.Title,
                            x.Job.Revision.Length == 0 ? null : x.Job.Revision == view.Job.Revision,
                            x.Blame,
                            x.Job.ValueWorking,
                            x.Marks,
                            n == 0 && x.Score > 0
                        )
                )
                .ToList();
    }

    /// <summary>Small work on parts that are open anyway: what would cost opening and closing another time.</summary>
    public IReadOnlyList<JointWork> Joint(JobView view)
    {
        var (takes, open) = (view.Model.Disassembly, view.Model.Disassembly.At(AccessState.BoardOut));
        var done = view.All<RepairLogged>().Select(r => r.Body.Part).ToHashSet();
        return view
            .Profile.Parts.Where(p => !done.Contains(p.Id) && library.FindPartKind(p.Kind)?.Kind != "capacitors")
            .Select(p => (Part: p, Method: view.Model.MethodsFor(p).Where(m => m is { Type: MethodType.Clean, Place: null }).MinBy(m => m.Minutes)))
            .Where(x => x.Method is not null)
            .Select(x =>
            {
                var goal = takes.Goal(x.Part.Id, x.Method!.State);
                return new JointWork(x.Part, x.Method, takes.Minutes(default, goal) - takes.Minutes(open, goal));
            })
            .Where(w => w.Saved >= 1)
            .OrderByDescending(w => Blame(view, w.Part.Id) * 100 + w.Saved - w.Method.Minutes)
            .Take(4)
            // Shell and window lie there by themselves: nothing is saved, but now is the time.
            .Concat(
                library
                    .OtherWork(view.Profile.Kind)
                    .Where(m => m is { Type: MethodType.Clean, Minutes: <= MostAside })
                    .Select(m => new JointWork(new Part("", m.Place!, "place"), m, 0))
            )
            .ToList();
    }

    /// <summary>Boards to be placed, with the parts that may go where.</summary>
    private static List<FitTask> Tasks(
        IReadOnlyList<RecapLine> lines,
        IReadOnlyDictionary<string, IReadOnlyList<CapacitorPart>> offered
    ) =>
        lines
            .Where(l => l.Renewed && l.Position.Capacitor.Pads is not null)
            .GroupBy(l => l.Position.Board.Id)
            .Select(g =>
            {
                var choices = g.ToDictionary(
                    l => l.Position.Capacitor.Refdes,
                    l =>
                        (IReadOnlyList<FitChoice>)
                            (offered.GetValueOrDefault(l.Position.Key) ?? (l.Part is { } there ? [there] : []))
                                .Select(p => new FitChoice(p.Id, p.DiameterMm, p.HeightMm, p.LeadMm))
                                .ToList()
                );
                var board = g.First().Position.Board;
                // Old ones that stay are parts that stay; their pads come with the list of this revision.
                var here = lines.Where(l => l.Position.Board.Id == g.Key).Select(l => l.Position.Capacitor).ToList();
                var stay = here.Where(c => !choices.ContainsKey(c.Refdes) && c is { Pads: not null, DiameterMm: not null }).Select(Standing);
                var told = board with { Capacitors = here, Parts = [.. board.Parts ?? [], .. stay] };
                return new FitTask(told, Mark(told, choices), choices);
            })
            .ToList();

    private static BoardPart Standing(BoardCapacitor c)
    {
        var (x, y, r) = ((c.Pads!.Plus[0] + c.Pads.Minus[0]) / 2, (c.Pads.Plus[1] + c.Pads.Minus[1]) / 2, c.DiameterMm!.Value / 2);
        return new BoardPart(c.Refdes, [[x - r, y - r], [x + r, y - r], [x + r, y + r], [x - r, y + r]], c.HeightMm ?? 0);
    }

    /// <summary>
    /// Which parts each position may choose from: what was chosen by hand; else the best of one's own, as long as there are enough of
    /// it; else a few sizes to buy.
    /// </summary>
    private static Dictionary<string, IReadOnlyList<CapacitorPart>> Allot(
        RecapPlan plan,
        IEnumerable<RecapPosition> positions,
        IReadOnlyDictionary<string, IReadOnlyList<CapacitorMatch>> offers
    )
    {
        var left = new Dictionary<string, int>();
        bool Takes(CapacitorPart part)
        {
            var many = left.GetValueOrDefault(part.Id, part.Count ?? int.MaxValue);
            left[part.Id] = many - 1;
            return many > 0;
        }

        var allotted = new Dictionary<string, IReadOnlyList<CapacitorPart>>();
        foreach (var position in positions)
        {
            var fitting = offers[position.Key].Select(o => o.Part).ToList();
            if (fitting.FirstOrDefault(p => p.Id == plan.Chosen.GetValueOrDefault(position.Key)) is { } chosen && Takes(chosen))
                allotted[position.Key] = [chosen];
            else if (fitting.FirstOrDefault(p => p.Count is not null && Takes(p)) is { } own)
                allotted[position.Key] = [own];
            else
                allotted[position.Key] = fitting
                    .Where(p => p.Count is null)
                    .DistinctBy(p => (p.DiameterMm, p.HeightMm))
                    .Take(MostChoices)
                    .ToList();
        }

        return allotted;
    }

    private static string Mark(Board board, Dictionary<string, IReadOnlyList<FitChoice>> choices)
    {
        var text = new StringBuilder(BoardText.Write([board]));
        foreach (var (refdes, parts) in choices.OrderBy(c => c.Key, StringComparer.Ordinal))
            text.Append(CultureInfo.InvariantCulture, $"|{refdes}:{string.Join(",", parts)}");
        return Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(text.ToString())))[..16];
    }

    private IReadOnlyList<CapacitorPart> Parts(JobId job, RecapPlan plan) =>
        [
            .. store.Parts().Concat(stock.Capacitors(job)).Where(p => plan.Sources.Contains(p.Source)),
            .. plan.Sources.Contains(CapacitorSource.Catalogue) ? Known.Catalogue() : [],
        ];

    private static CapacitorOut Together(IEnumerable<CapacitorOut> told) =>
        told.Aggregate(
            (before, next) =>
                next with
                {
                    Way = next.Way ?? before.Way,
                    Farads = next.Farads ?? before.Farads,
                    EsrOhms = next.EsrOhms ?? before.EsrOhms,
                    Verdict = next.Verdict ?? before.Verdict,
                }
        );

    private static IReadOnlyList<IReadOnlyList<RecapPosition>> Begun(RecapPlan plan, IReadOnlyList<RecapPosition> all)
    {
        var byKey = all.ToDictionary(p => p.Key);
        return plan.Groups.Select(g => (IReadOnlyList<RecapPosition>)g.Where(byKey.ContainsKey).Select(k => byKey[k]).ToList())
            .Where(g => g.Count > 0)
            .ToList();
    }

    private static IReadOnlyList<SchoolFigures> Schools(
        RecapPlan plan, IReadOnlyList<RecapPosition> all, int looked, HashSet<string> failed, double minutes) =>
        Enum.GetValues<RecapScope>()
            .Select(scope =>
            {
                var count = (plan with { Scope = scope }).Of(all, failed).Count;
                var (stay, years) = (all.Count - count, AheadYears);
                return new SchoolFigures(
                    scope,
                    count,
                    count * (Known.MinutesEach + minutes),
                    Known.Ageing.AnotherFails(looked, failed.Count, plan.AgeYears, stay, years),
                    Known.Ageing.Spread(looked, failed.Count, plan.AgeYears, stay, years)
                );
            })
            .ToList();

    private static double Blame(JobView view, PartId part) => view.Diagnosis?.Parts.GetValueOrDefault(part)?.Share ?? 0;

    private static FunctionState StateOf(JobView view, FunctionId function) =>
        view.Diagnosis?.Functions.GetValueOrDefault(function) ?? UnitDiagnosis.StateOf(BenchRecord.Events(view.Records), function);
}
