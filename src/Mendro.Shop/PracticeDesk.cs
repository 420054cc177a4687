using Mendro.Core;
using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Money;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;
using Mendro.StandIns;
using Mendro.StandIns.Physics;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>What came of a practice unit, beside what the advisor makes of the same one.</summary>
/// <param name="Mine">The technician's steps.</param>
/// <param name="Advisor">The advisor's steps on the same unit.</param>
/// <param name="Best">Steps of one who knows the hidden faults.</param>
/// <param name="Hidden">The faults that were hidden in it.</param>
public sealed record PracticeScore(PracticeBench Mine, PracticeBench Advisor, PracticeBench Best, IReadOnlyList<PartFault> Hidden);

/// <summary>
/// Practice units as jobs: the hidden unit is drawn from the job's seed and its past is played again from the records,
/// so that nothing about the hidden faults needs to be stored or could leak into a page.
/// </summary>
public sealed class PracticeDesk(
    JobStore jobs,
    BenchRecordStore records,
    ModelShelf models,
    SettingsStore settings,
    JobBench bench,
    Ledger ledger,
    TimeProvider time
)
{
    /// <summary>Note of a record that the bench wrote by itself after a repair.</summary>
    public const string Retest = "retest";

    /// <summary>Puts a new practice unit on the bench, baseline tested.</summary>
    /// <param name="profileId">Model.</param>
    /// <param name="seed">Seed; the same seed is the same unit.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<TakenIn> Start(string profileId, long seed, string? once = null) =>
        ledger.Once<TakenIn>(
            once,
            () =>
            {
                if (models.Latest(profileId) is not var (model, version))
                    return Refusal.Missing;
                var unit = new PracticeBench(model, PhysicalUnit.Draw(model, seed, 0), Simulation.Costs);
                unit.Baseline();
                var now = time.GetUtcNow();
                var job = jobs.TakeIn(
                    new NewJob(
                        new Job
                        {
                            ProfileId = profileId,
                            ProfileVersion = version,
                            ModelName = model.Profile.FullName,
                            Claim = "practice unit",
                            Currency = settings.Get().Currency,
                            Stage = WorkStage.Find,
                            ReceivedAt = now,
                            PracticeSeed = seed,
                        },
                        null,
                        "",
                        unit.Bodies.Select(body => BenchRecord.Of(body, model, WorkStage.Intake, now)).ToList()
                    )
                );
                return new TakenIn(job.Number);
            }
        );

    /// <summary>Does one thing to a practice unit and files what it answers, with the tests that a repair brings along.</summary>
    /// <param name="open">The job.</param>
    /// <param name="act">What is done.</param>
    /// <param name="metered">The reading that the meter showed, kept instead of a mere good or not good.</param>
    internal FiledEntry Do(OpenJob open, Action<PracticeBench> act, JudgedReading? metered = null)
    {
        var unit = Replay(open.Job, open.Model, records.Of(open.Job.Id));
        var before = unit.Bodies.Count;
        act(unit);
        long first = 0;
        for (var n = before; n < unit.Bodies.Count; n++)
        {
            var body = unit.Bodies[n];
            if (metered is not null && n == before && body is ProbeReading told && told.Outcome == metered.Outcome)
                body = told with { Reading = metered.Reading, Caution = metered.Stop };
            var note = n > before ? Retest : "";
            // The check at a method's end is in the method's minutes.
            var within = n > before && body is ProbeReading;
            var filed = bench.File(
                open,
                body,
                WorkStage.Find,
                record => record with { Note = note, Minutes = within ? 0 : record.Minutes }
            );
            if (n == before)
                first = filed.Id;
        }

        bench.Settle(open, JobStep.Looked);
        return new FiledEntry(first);
    }

    /// <summary>Gives a unit up, or puts it away.</summary>
    public Deed<Done> PutAway(long number, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (jobs.Find(number) is not { PracticeSeed: not null } job)
                    return Refusal.Missing;
                if (JobLife.Close(job.Status, JobEnd.Parts) is { } away)
                    jobs.Move(job, away, "Put away");
                return new Done("");
            }
        );

    /// <summary>The score of a practice unit: its own steps, the advisor's and the best possible.</summary>
    public PracticeScore Score(JobView view)
    {
        PhysicalUnit Draw() => PhysicalUnit.Draw(view.Model, view.Job.PracticeSeed!.Value, 0);
        return new PracticeScore(
            Replay(view.Job, view.Model, view.Records),
            Simulation.Work(view.Model, Draw(), SimulatedPolicy.Advisor),
            Simulation.Work(view.Model, Draw(), SimulatedPolicy.Oracle),
            Draw().Present.Order().Select(f => view.Model.Faults[f]).ToList()
        );
    }

    /// <summary>The unit of a practice job with its past played again.</summary>
    public static PracticeBench Replay(Job job, DeviceModel model, IReadOnlyList<BenchRecord> held)
    {
        var unit = new PracticeBench(model, PhysicalUnit.Draw(model, job.PracticeSeed!.Value, 0), Simulation.Costs);
        foreach (var record in held.OrderBy(r => r.Id).Where(r => r.Note != Retest))
            record.Body.Replay(unit);
        return unit;
    }
}
