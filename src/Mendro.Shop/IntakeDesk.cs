using Mendro.Core;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Money;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>A unit was taken in.</summary>
/// <param name="Number">Number on its tag.</param>
public sealed record TakenIn(long Number);

/// <summary>A unit at the door.</summary>
/// <param name="Job">What is known of it; its model by id. Number, version and stage are given here.</param>
/// <param name="OwnerName">Owner's name, or null for shop stock.</param>
/// <param name="OwnerContact">Owner's phone, mail or address.</param>
/// <param name="Marks">Condition marks; unknown ones are left out.</param>
/// <param name="Baseline">Functions tried before anything was touched.</param>
/// <param name="NewModel">Model to keep first, made from a build under a name that the shop did not know; its id is the job's.</param>
public sealed record IntakeOrder(
    Job Job,
    string? OwnerName,
    string OwnerContact,
    IReadOnlyList<string> Marks,
    IReadOnlyList<BaselineTrial> Baseline,
    DeviceProfile? NewModel = null
);

/// <summary>One function of the baseline test.</summary>
/// <param name="Function">Function id.</param>
/// <param name="Passed">True when it worked.</param>
/// <param name="Look">Look of the failure, when told.</param>
/// <param name="Starts">How many times in a row, 1 or more.</param>
public sealed record BaselineTrial(string Function, bool Passed, string? Look, int Starts = 1);

/// <summary>How a typed line is understood.</summary>
/// <param name="Said">What it says, or why it cannot be taken in.</param>
/// <param name="NewName">The name in it that the shop does not know; blank when it names a model, or nothing.</param>
/// <param name="Nearest">Other models that may be meant, the nearest first.</param>
/// <param name="How">What was said about how it was heard: the model meant, and what was turned over.</param>
public sealed record HeardLine(Outcome<Understanding> Said, string NewName, IReadOnlyList<DeviceProfile> Nearest, HeardAs How);

/// <summary>How a line is to be heard, where what was heard was turned over.</summary>
/// <param name="Model">Model that is meant; blank for the one heard, <see cref="New"/> for a name the shop does not know.</param>
/// <param name="Turns">What was turned over, by key; see <see cref="SaidChip"/>.</param>
public sealed record HeardAs(string Model, IReadOnlyDictionary<string, string> Turns)
{
    /// <summary>A name the shop does not know yet.</summary>
    public const string New = "new";

    /// <summary>Just as heard.</summary>
    public static HeardAs Said { get; } = new("", new Dictionary<string, string>());
}

/// <summary>Intake: a unit at the door with its marks and baseline test, and what is corrected of it later.</summary>
public sealed class IntakeDesk(
    JobStore jobs,
    BenchRecordStore records,
    ProfileStore profiles,
    ModelShelf models,
    ModelMoveStore moves,
    SettingsStore settings,
    JobBench bench,
    TradeLibrary library,
    DoorWords door,
    Ledger ledger,
    TimeProvider time
)
{
    /// <summary>Takes a unit in.</summary>
    public Deed<TakenIn> TakeIn(IntakeOrder order, string? once = null) =>
        ledger.Once<TakenIn>(
            once,
            () =>
            {
                // Two benches may name the same label at once: the second finds the model of the first.
                if (order.NewModel is { } made && (profiles.Latest(made.Id) is null || moves.NowOf(made.Id) is null))
                    profiles.Save(made);
                // A page open since before two models were merged still names the one that is no more.
                if (models.Latest(moves.NowOf(order.Job.ProfileId) ?? order.Job.ProfileId) is not var (model, version))
                    return Refusal.Invalid("That model is not known; choose one from the list.");
                var now = time.GetUtcNow();
                var bodies = order
                    .Marks.Distinct()
                    .Select(m => (RecordBody?)MarkNoted.Make(library, m))
                    .Concat(order.Baseline.Select(b => FunctionTrial.Make(model, b.Function, b.Passed, b.Look, b.Starts)))
                    .OfType<RecordBody>();
                var job = jobs.TakeIn(
                    new NewJob(
                        order.Job with
                        {
                            ProfileId = model.Profile.Id,
                            ProfileVersion = version,
                            ModelName = model.Profile.FullName,
                            Stage = WorkStage.Find,
                            ReceivedAt = now,
                        },
                        order.OwnerName,
                        order.OwnerContact,
                        bodies.Select(b => BenchRecord.Of(b, model, WorkStage.Intake, now)).ToList()
                    )
                );
                bench.Settle(new OpenJob(job, model), JobStep.Noted);
                return new TakenIn(job.Number);
            }
        );

    /// <summary>Takes a unit in from one typed line, as shop stock until its owner is told.</summary>
    /// <param name="line">What was typed.</param>
    /// <param name="how">What was turned over before.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<TakenIn> TakeInLine(string line, HeardAs? how = null, string? once = null) =>
        ledger.Once<TakenIn>(
            once,
            () =>
            {
                how ??= HeardAs.Said;
                var heard = Said(line, how, profiles.All());
                if (!heard.IsOk)
                    return Refusal.Invalid(heard.Problem);
                var said = SaidChip.Turn(heard.Value, how.Turns, library);
                var job = new Job { ProfileId = said.Profile!.Id, Currency = settings.Get().Currency };
                return TakeIn(AsHeard(said, job));
            }
        );

    /// <summary>A unit of the shop's own as a line tells it.</summary>
    /// <param name="said">What the line says.</param>
    /// <param name="job">What else is known of it.</param>
    internal static IntakeOrder AsHeard(Understanding said, Job job) =>
        new(
            job with
            {
                Claim = said.Claim,
            },
            null,
            "",
            [.. said.Facts.Select(f => f.WrittenMark).OfType<string>()],
            // What was done to it before, and what moves when pressed, is the owner's word: it stays in the claim.
            said.Trials.Select(f => new BaselineTrial(f.Function!.Value, f.Passed, f.Look, f.Starts))
                .ToList()
        );

    private const int NearestShown = 3;

    /// <summary>How a typed line would be understood; nothing is filed.</summary>
    public HeardLine Heard(string? line, HeardAs? how = null)
    {
        var typed = (line ?? "").Trim();
        how ??= HeardAs.Said;
        var known = profiles.All();
        var said = Said(typed, how, known);
        // A line of a length that can be taken fails for one reason only: it names no model of the shop.
        var isNew = !said.IsOk && typed.Length is > 0 and <= Understanding.LongestLine;
        var nearest = ModelSearch.Nearest(typed, known, NearestShown + 1).Where(p => p.Id != said.Value?.Profile?.Id).Take(NearestShown);
        return new HeardLine(said, isNew ? NewName.In(typed, library).Name : "", [.. nearest], how);
    }

    private Outcome<Understanding> Said(string line, HeardAs how, IReadOnlyList<DeviceProfile> known)
    {
        if (how.Model == HeardAs.New)
            return Outcome<Understanding>.Fail($"“{NewName.In(line, library).Name}” is a name the shop does not know yet.");
        return line.Trim().Length is > 0 and <= Understanding.LongestLine && known.FirstOrDefault(p => p.Id == how.Model) is { } meant
            ? Outcome<Understanding>.Ok(door.HearAs(line, meant))
            : door.AtTheDoor(line, known);
    }

    /// <summary>Corrects what was written down at intake.</summary>
    /// <param name="number">Number of the job.</param>
    /// <param name="change">Puts what was typed into the job.</param>
    /// <param name="ownerName">Owner's name, or null for shop stock.</param>
    /// <param name="ownerContact">Owner's phone, mail or address.</param>
    /// <param name="marks">Condition marks that are there.</param>
    /// <param name="asShown">Whether the job with its marks is still as it was shown.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> Save(
        long number,
        Func<Job, Job> change,
        string? ownerName,
        string ownerContact,
        IReadOnlyList<string> marks,
        Func<Job, IEnumerable<string>, bool> asShown,
        string? once = null
    ) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                var noted = records.Of(job.Job.Id).Where(r => r.Body is MarkNoted).ToList();
                if (!asShown(job.Job, noted.Select(r => r.Subject)))
                    return new Refusal(RefusalKind.Changed, "This was saved on another page meanwhile.");
                jobs.SaveIntake(change(job.Job), ownerName, ownerContact);
                var fresh = marks
                    .Distinct()
                    .Where(m => noted.All(r => r.Subject != m))
                    .Select(m => MarkNoted.Make(library, m))
                    .OfType<MarkNoted>()
                    .ToList();
                foreach (var gone in noted.Where(r => !marks.Contains(r.Subject)))
                {
                    // Another grade or place of a mark corrects it: undone, the mark stands again as it was.
                    var same = fresh.Find(f => f.Mark == ((MarkNoted)gone.Body).Mark);
                    if (same is null || !fresh.Remove(same))
                        records.Withdraw(job.Job.Id, gone.Id);
                    else
                        records.Correct(job.Job.Id, gone.Id, bench.Make(job, same, WorkStage.Intake));
                }

                foreach (var seen in fresh)
                    bench.File(job, seen, WorkStage.Intake);
                return new Done("Saved.");
            }
        );
}
