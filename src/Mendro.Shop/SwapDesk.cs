using System.Globalization;
using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>One place of the chain that can be swapped.</summary>
/// <param name="Id">Part id, or <see cref="SwapPlanner.WholeUnit"/>.</param>
/// <param name="Name">Heading.</param>
/// <param name="Choices">What can stand in.</param>
public sealed record SwapSlot(PartId Id, string Name, IReadOnlyList<SwapPiece> Choices);

/// <summary>Swap trials: what can stand in for what, and the trial filed.</summary>
public sealed class SwapDesk(JobBench bench, JobStore jobs, GearStore gear, ModelShelf models, PracticeDesk practice)
{
    /// <summary>What stands in where nothing of the shop's gear is named: another piece that is known to work.</summary>
    public const string Another = "another";

    private const string AnotherName = "another one";

    private const string OfUnit = "job";

    private static readonly Refusal NoGear = new(RefusalKind.Locked, "A practice unit has no gear to swap.");

    private static string UnitPiece(long number) => FormattableString.Invariant($"{OfUnit}{number}");

    /// <summary>Why no trial may be filed in a job now, or null.</summary>
    public static string? Locked(Job job) => job.PracticeSeed is not null ? NoGear.Problem : JobBench.Locked(job, false);

    /// <summary>Places of a function's chain with what can stand in: gear in use, and other units in the shop.</summary>
    public IReadOnlyList<SwapSlot> Slots(Job job, DeviceModel model, DeviceFunction function)
    {
        var (pieces, library) = (gear.InUse(), model.Library);
        var others = jobs.Live().Where(j => j.Id != job.Id).ToList();
        IEnumerable<SwapPiece> Pieces(string kind) =>
            pieces.Where(g => g.Kind == kind).Select(g => new SwapPiece(Gear.EngineId(g.Id), g.Name, g.Kind));
        IEnumerable<SwapPiece> Units(Func<DeviceKind, bool> fits, string kind) =>
            others
                .Where(j => fits(models.Of(j).Profile.Kind))
                .Select(j => new SwapPiece(UnitPiece(j.Number), $"unit {j.Tag}", kind));
        // The same part of another unit of the model: its drive, its supply board, its adapter.
        IEnumerable<SwapPiece> FromLike(Part part) =>
            library.FindPartKind(part.Kind)?.Gear == true ? []
            : others
                .Where(j => j.ProfileId == job.ProfileId)
                .Select(j => new SwapPiece(UnitPiece(j.Number), $"the one of unit {j.Tag}", part.Kind));
        var unitKind = SwapPlanner.UnitKind(library, model.Profile.Kind);
        return
        [
            new SwapSlot(
                SwapPlanner.WholeUnit,
                "This unit",
                [.. Pieces(unitKind), .. Units(k => k == model.Profile.Kind, unitKind), new SwapPiece(Another, AnotherName, unitKind)]
            ),
            .. SwapPlanner
                .Swappable(model, function.Id)
                .Select(p => new SwapSlot(
                    p.Id,
                    p.Name,
                    [
                        .. Pieces(p.Kind),
                        .. library.FindPartKind(p.Kind) is { Gear: true, StandsFor: { } fits } ? Units(fits.Contains, p.Kind) : [],
                        .. FromLike(p),
                        new SwapPiece(Another, AnotherName, p.Kind),
                    ]
                )),
        ];
    }

    /// <summary>Swaps a part of a practice unit for one that works and tries a function.</summary>
    /// <param name="number">Number of the practice unit.</param>
    /// <param name="function">Function tried.</param>
    /// <param name="part">Part swapped out; one that comes off by hand.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<FiledEntry> Practise(long number, FunctionId function, PartId part, string? once = null) =>
        bench.On<FiledEntry>(
            number,
            once,
            job =>
                job.Job.PracticeSeed is not null
                && job.Model.Profile.FindFunction(function) is { } tried
                && SwapPlanner.Swappable(job.Model, function).Any(p => p.Id == part)
                    ? practice.Do(job, unit => unit.Swap(tried, part))
                    : Refusal.Missing,
            practice: true
        );

    /// <summary>Files a trial. With nothing swapped it is the plain trial of the function.</summary>
    /// <param name="number">Number of the job.</param>
    /// <param name="function">Function tried.</param>
    /// <param name="chosen">What stood in, by slot.</param>
    /// <param name="result">How it went.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<FiledEntry> File(
        long number,
        FunctionId function,
        IReadOnlyDictionary<string, string> chosen,
        SwapResult result,
        string? once = null
    ) =>
        bench.On<FiledEntry>(
            number,
            once,
            job =>
            {
                if (job.Model.Profile.FindFunction(function) is not { } tried)
                    return Refusal.Missing;
                var slots = Slots(job.Job, job.Model, tried);
                var swaps = chosen
                    .Select(c =>
                        (
                            Slot: new PartId(c.Key),
                            With: slots.FirstOrDefault(s => s.Id == c.Key)?.Choices.FirstOrDefault(p => p.Id == c.Value)
                        )
                    )
                    .ToList();
                if (swaps.Any(s => s.With is null))
                    return Refusal.Missing;
                var filed =
                    swaps.Count == 0
                        ? Plain(job, tried, result)
                        : Swapped(job, tried, swaps.Select(s => (s.Slot, s.With!)).ToList(), result);
                return new FiledEntry(filed.Id);
            }
        );

    private BenchRecord Plain(OpenJob job, DeviceFunction function, SwapResult result)
    {
        var flickers = result == SwapResult.Flicker;
        var trial = FunctionTrial.Make(job.Model, function.Id, result == SwapResult.Pass, flickers ? "pressed" : null)!;
        var filed = bench.File(job, trial, WorkStage.Find, record => record with { Note = flickers ? "comes and goes" : "" });
        bench.Settle(job, trial.Step);
        return filed;
    }

    private BenchRecord Swapped(OpenJob job, DeviceFunction function, List<(PartId Slot, SwapPiece With)> swaps, SwapResult result)
    {
        // Named gear first: what stood in without a name has no record of its own.
        swaps = swaps.OrderBy(s => s.With.Id == Another).ToList();
        var swappedOut = swaps.Select(s => s.Slot).ToList();
        var chain = SwapPlanner.Chain(job.Model, function.Id, swappedOut);
        // Before the trial, which is the entry that undo takes back.
        foreach (var (slot, with) in swaps)
            Borrow(job, slot, with);
        var filed = bench.File(
            job,
            new SwapTrial(function.Id, result, chain, swappedOut, swaps.Select(s => s.With).Where(w => w.Id != Another).ToList()),
            WorkStage.Find
        );
        bench.Settle(job, JobStep.Looked);
        return filed;
    }

    // What was built out of another unit must find its way back: each of the two remembers it until it is told to be where it belongs.
    private void Borrow(OpenJob job, PartId slot, SwapPiece with)
    {
        if (
            job.Model.Profile.FindPart(slot) is not { } part
            || SwapPlanner.ByHand(job.Model, part)
            || !with.Id.StartsWith(OfUnit, StringComparison.Ordinal)
            || bench.Find(long.Parse(with.Id.AsSpan(OfUnit.Length), CultureInfo.InvariantCulture)) is not { } lender
        )
            return;
        var name = MoveWords.Lower(part.Name);
        bench.File(job, new TemporaryThing($"{name} of unit {lender.Job.Tag}: goes back there", false, lender.Job.Number));
        bench.File(lender, new TemporaryThing($"its {name} is in unit {job.Job.Tag}", false, job.Job.Number));
    }
}
