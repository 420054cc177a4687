using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>What a unit is, when it is not what it was taken in as.</summary>
/// <param name="Model">Id of a model that the shop knows; blank for a new name.</param>
/// <param name="NewName">Name as on the label, of a model that the shop does not know.</param>
/// <param name="Build">Build that the new name is nearest to.</param>
/// <param name="Same">Functions of the model it was taken for, by those of the other that they are.</param>
public sealed record OtherModel(string Model, string NewName, string Build, IReadOnlyDictionary<FunctionId, FunctionId> Same);

/// <summary>Corrects the model of a unit after intake: its records stay, and its claim is heard again.</summary>
public sealed class ModelChangeDesk(
    ProfileStore profiles,
    ModelMoveStore moves,
    JobStore jobs,
    BenchRecordStore records,
    ModelShelf models,
    JobBench bench,
    DoorWords door,
    TradeLibrary library
)
{
    /// <summary>Functions of which something was filed and which go by another name there; see <see cref="ModelChange.Asked"/>.</summary>
    public IReadOnlyList<(DeviceFunction From, DeviceFunction? To)> Asked(long number, DeviceProfile to) =>
        bench.Find(number) is { } open ? ModelChange.Asked(records.Of(open.Job.Id), open.Job.Claim, open.Model, to, door.Own) : [];

    /// <summary>The unit is another model: a known one, or a new name.</summary>
    /// <param name="number">Number of the job.</param>
    /// <param name="other">What it is.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<ModelChanged> Change(long number, OtherModel other, string? once = null) =>
        bench.On<ModelChanged>(
            number,
            once,
            open =>
            {
                if (Chosen(other) is not { } id)
                    return Refusal.Invalid("Choose the model that it is, or give a new name and the build it is nearest to.");
                if (models.Latest(moves.NowOf(id) ?? id) is not var (model, version))
                    return Refusal.Invalid("That model is not known; choose one from the list.");
                var (to, from) = (model.Profile, open.Model.Profile);
                if (to.Id == from.Id)
                    return Refusal.Invalid($"It stands on {to.FullName} already.");
                var changes = ModelChange.Of(records.Of(open.Job.Id), open.Job.Claim, open.Model, model, other.Same, door.Own);
                var words = $"it is a {to.FullName}, not a {from.FullName}";
                moves.Move(
                    new ModelMove
                    {
                        What = "move",
                        FromId = from.Id,
                        ToId = to.Id,
                        FromVersion = open.Job.ProfileVersion,
                        ToVersion = version,
                        Words = words,
                    },
                    version,
                    to.FullName,
                    open.Job.Id
                );
                if (open.Job.Revision.Length > 0 && to.Revisions.All(r => r.Id != open.Job.Revision))
                    jobs.SetRevision(open.Job.Id, "");
                var now = new OpenJob(jobs.Find(number)!, model);
                foreach (var change in changes.Where(c => c.Body != c.Record.Body))
                    Put(now, change);
                var held = records.Of(now.Job.Id).Select(r => r.Body).OfType<FunctionTrial>().Select(t => t.Function).ToHashSet();
                foreach (var said in ModelChange.Baseline(now.Job.Claim, model, door.Own).Where(t => !held.Contains(t.Function)))
                    bench.File(now, said, WorkStage.Intake);
                bench.Settle(now, JobStep.Noted);
                return new ModelChanged(to.Id, $"{open.Job.Tag} is a {to.FullName} now; its claim was heard again.");
            }
        );

    private void Put(OpenJob job, RecordChange change)
    {
        if (change.Body is { } body && body.Key == change.Record.Body.Key)
        {
            records.Correct(job.Job.Id, change.Record.Id, change.Record with { Body = body, Words = body.Describe(job.Model) });
            return;
        }

        records.Withdraw(job.Job.Id, change.Record.Id);
        if (change.Body is { } kept)
            bench.File(job, kept, change.Record.Stage, r => r with { Note = change.Record.Note, At = change.Record.At });
    }

    private string? Chosen(OtherModel other)
    {
        if (other.NewName.Trim().Length == 0)
            return other.Model.Length > 0 && models.Latest(other.Model) is var (known, _) && known.Profile.Archetype is null ? other.Model : null;
        if (library.Archetypes.FirstOrDefault(a => a.Id == other.Build) is not { } build)
            return null;
        var made = BuildChoice.Named(build, other.NewName, profiles.Ids());
        profiles.Save(made);
        return made.Id;
    }
}
