using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>A model was taught, made, merged, split or put back.</summary>
/// <param name="Id">Model to be shown now.</param>
/// <param name="Words">What to tell of it.</param>
public sealed record ModelChanged(string Id, string Words);

/// <summary>
/// Changes the shop's own models as a whole: a line taught without a unit on the bench, two that are one, one that is two, and a job
/// that gets a model of its own. Records, good readings and what was learned go along, and each can be taken back.
/// </summary>
public sealed class ModelDesk(
    ProfileStore profiles,
    ModelMoveStore moves,
    BenchRecordStore records,
    ModelShelf models,
    JobBench bench,
    Ledger ledger,
    TradeLibrary library
)
{
    private const string Ships = "What ships is not changed. Make a model of your own from it.";

    /// <summary>Teaches a model one line; see <see cref="Teaching"/>. Units stay on the version they have.</summary>
    public Deed<ModelChanged> Teach(string id, string line, string? once = null) =>
        ledger.Once<ModelChanged>(
            once,
            () =>
            {
                if (profiles.Latest(id) is not var (latest, _))
                    return Refusal.Missing;
                if (!IsOwn(latest))
                    return Refusal.Invalid(Ships);
                var read = Teaching.Read(latest, library, line);
                if (!read.IsOk)
                    return Refusal.Invalid(read.Problem);
                if (read.Value.Profile is not { } taught)
                    return Refusal.Invalid(
                        "Begin with what is missing: part, feed, probe, beep, look, press, limit, connector or revision."
                    );
                var version = profiles.Save(taught);
                return new ModelChanged(id, $"{latest.FullName} knows now: {read.Value.Words} (version {version})");
            }
        );

    /// <summary>Gives a job a model of its own, as a copy of the one it stands on.</summary>
    /// <param name="number">Number of the job.</param>
    /// <param name="name">Name as on the label.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<ModelChanged> GiveOwn(long number, string name, string? once = null) =>
        bench.On<ModelChanged>(
            number,
            once,
            open =>
            {
                if (Named(name) is { } wrong)
                    return wrong;
                var (latest, version) = profiles.Latest(open.Job.ProfileId)!.Value;
                var made = BuildChoice.Named(latest, name, profiles.Ids()) with { Generic = false };
                var words = $"a model of its own, made from {latest.FullName}";
                moves.Move(Move("own", latest.Id, version, made.Id, 0, words), profiles.Save(made), made.FullName, open.Job.Id);
                return new ModelChanged(made.Id, $"{made.FullName} is a model of its own now.");
            }
        );

    /// <summary>Two models turn out to be one: all jobs, readings and lessons of the first go to the second.</summary>
    /// <param name="from">Model that is no model of its own.</param>
    /// <param name="into">Model that it is.</param>
    /// <param name="take">Places where what <paramref name="from"/> says is taken; what only it has always is.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<ModelChanged> Merge(string from, string into, IReadOnlySet<string> take, string? once = null) =>
        ledger.Once<ModelChanged>(
            once,
            () =>
            {
                if (profiles.Latest(from) is not var (gone, goneVersion) || profiles.Latest(into) is not var (kept, keptVersion))
                    return Refusal.Missing;
                if (from == into || !IsOwn(gone) || !IsOwn(kept) || moves.NowOf(from) != from || moves.NowOf(into) != into)
                    return Refusal.Invalid("Only two models of the shop's own can be merged.");
                // What the records of its units name must be there.
                var places = ProfileMerge.Missing(kept, gone).Union(take).ToHashSet();
                var merged = ProfileMerge.Take(kept, gone, places);
                if (ProfileValidator.Check(merged, library) is [var problem, ..])
                    return Refusal.Invalid($"They do not fit together: {problem.Place}: {problem.Message}");
                var words = $"{gone.FullName} and {kept.FullName} are one model";
                var count = moves.Move(Move("merge", from, goneVersion, into, keptVersion, words), profiles.Save(merged), kept.FullName);
                return new ModelChanged(into, $"{gone.FullName} is {kept.FullName} now, with {Jobs(count)}.");
            }
        );

    /// <summary>One model turns out to be two: units of a revision get a model of their own.</summary>
    /// <param name="id">Model.</param>
    /// <param name="revision">Revision that is another model.</param>
    /// <param name="name">Name of that model.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<ModelChanged> Split(string id, string revision, string name, string? once = null) =>
        ledger.Once<ModelChanged>(
            once,
            () =>
            {
                if (profiles.Latest(id) is not var (whole, version))
                    return Refusal.Missing;
                if (!IsOwn(whole))
                    return Refusal.Invalid(Ships);
                if (whole.Revisions.All(r => r.Id != revision))
                    return Refusal.Invalid($"{whole.FullName} has no revision {revision}.");
                if (Named(name) is { } wrong)
                    return wrong;
                var made = BuildChoice.Named(whole, name, profiles.Ids()) with
                {
                    Maker = whole.Maker,
                    Revisions = whole.Revisions.Where(r => r.Id == revision).ToList(),
                };
                profiles.Save(whole with { Revisions = whole.Revisions.Where(r => r.Id != revision).ToList() });
                var words = $"revision {revision} of {whole.FullName} is a model of its own";
                var count = moves.Move(
                    Move("split", id, version, made.Id, 0, words),
                    profiles.Save(made),
                    made.FullName,
                    revision: revision
                );
                return new ModelChanged(made.Id, $"Revision {revision} is {made.FullName} now, with {Jobs(count)}.");
            }
        );

    /// <summary>Takes a merge, a split or a model of its own back. What was taught since stays with the model it was taught to.</summary>
    public Deed<ModelChanged> TakeBack(long moveId, string? once = null) =>
        ledger.Once<ModelChanged>(
            once,
            () =>
            {
                if (moves.Find(moveId) is not { } move)
                    return Refusal.Missing;
                if (moves.NowOf(move.ToId) != move.ToId)
                    return Refusal.Invalid("The model they went to has gone on to another one since; take that back first.");
                if (move.What == "move" && !GoesBack(move))
                    return Refusal.Invalid("What was filed since has no place in the other model. Open the job and change its model there.");
                if (move.What == "split" && profiles.Latest(move.FromId) is var (whole, _))
                    foreach (var lost in profiles.Find(move.FromId, move.FromVersion)!.Revisions.Where(r => !whole.Revisions.Contains(r)))
                        profiles.Save(whole = whole with { Revisions = [.. whole.Revisions, lost] });
                var count = moves.TakeBack(move);
                return new ModelChanged(move.FromId, $"Taken back: {move.Words}. {Jobs(count)} went back.");
            }
        );

    /// <summary>True when all that its units have on file has a place in the model they came from.</summary>
    private bool GoesBack(ModelMove move)
    {
        if (models.Latest(move.FromId) is not var (from, _) || models.Latest(move.ToId) is not var (to, _))
            return false;
        var held = moves.JobsOf(move.Id).SelectMany(records.Of).ToList();
        return RecordNames.Missing(held.Select(r => r.Body), to.Profile, from.Profile).Count == 0
            && UnitDiagnosis.Make(from, BenchRecord.Events(held)).IsOk;
    }

    /// <summary>True for a model that the shop may change.</summary>
    public static bool IsOwn(DeviceProfile profile) => !profile.Generic && profile.Archetype is null;

    private static Refusal? Named(string name) =>
        name.Trim().Length is 0 or > 80 ? Refusal.Invalid("Give it a name of at most 80 characters, as on the label.") : null;

    private static string Jobs(int count) => count == 1 ? "1 job" : $"{count} jobs";

    private static ModelMove Move(string what, string from, long fromVersion, string to, long toVersion, string words) =>
        new()
        {
            What = what,
            FromId = from,
            ToId = to,
            FromVersion = fromVersion,
            ToVersion = toVersion,
            Words = words,
        };
}
