using Mendro.Core;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;
using Mendro.StandIns;
using Mendro.Storage;

namespace Mendro.Web.Bench;

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
public sealed class PracticeDesk(JobStore jobs, BenchRecordStore records, ProfileStore profiles, ModelShelf models, TradeLibrary library, TimeProvider time)
{
    /// <summary>Note of a record that the bench wrote by itself after a repair.</summary>
    public const string Retest = "retest";

    /// <summary>Puts a new practice unit on the bench, baseline tested.</summary>
    /// <param name="profileId">Model.</param>
    /// <param name="seed">Seed; the same seed is the same unit.</param>
    /// <returns>The job, or null when there is no such model.</returns>
    public Job? Start(string profileId, long seed)
    {
        if (profiles.Latest(profileId) is not { } latest) return null;
        var model = models.Get(profileId, latest.Version);
        var bench = new PracticeBench(model, PracticeUnit.Draw(model, seed, 0), Simulation.Costs);
        bench.Baseline();
        var now = time.GetUtcNow();
        var maker = new RecordMaker(latest.Profile, library, WorkStage.Intake, now);
        return jobs.TakeIn(new NewJob(new Job
        {
            ProfileId = profileId, ProfileVersion = latest.Version, ModelName = latest.Profile.FullName, Claim = "practice unit", Currency = "EUR",
            Stage = WorkStage.Find, ReceivedAt = now, PracticeSeed = seed,
        }, null, "", bench.Events.Select(e => Record(maker, e)!).ToList()));
    }

    /// <summary>Does one thing to a practice unit and files what it answers, with the tests that a repair brings along.</summary>
    /// <param name="view">The job.</param>
    /// <param name="act">What is done.</param>
    /// <param name="metered">The reading that the meter showed, kept instead of a mere good or not good.</param>
    public void Do(JobView view, Action<PracticeBench> act, JudgedReading? metered = null)
    {
        var bench = Replay(view.Job, view.Model, view.Records);
        var before = bench.Events.Count;
        act(bench);
        var maker = new RecordMaker(view.Profile, library, WorkStage.Find, time.GetUtcNow());
        for (var n = before; n < bench.Events.Count; n++)
        {
            var record = Record(maker, bench.Events[n])! with { JobId = view.Job.Id, Note = n > before ? Retest : "" };
            if (metered is not null && n == before && bench.Events[n] is ProbeTaken taken && taken.Outcome == metered.Outcome)
                record = record with { Reading = metered.Reading.ToString(), Value = metered.Reading.Value, Detail = metered.Stop ?? "" };
            records.Add(record, bench.Access > view.Job.Access ? bench.Access : null);
        }

        if (bench.AllWork) jobs.SetShelf(view.Job.Id, Shelf.Ready, "everything works", "");
    }

    /// <summary>The score of a practice unit: its own steps, the advisor's and the best possible.</summary>
    public PracticeScore Score(JobView view)
    {
        PracticeUnit Draw() => PracticeUnit.Draw(view.Model, view.Job.PracticeSeed!.Value, 0);
        return new PracticeScore(Replay(view.Job, view.Model, view.Records), Simulation.Work(view.Model, Draw(), SimulatedPolicy.Advisor),
            Simulation.Work(view.Model, Draw(), SimulatedPolicy.Oracle), Draw().Present.Order().Select(f => view.Model.Faults[f]).ToList());
    }

    /// <summary>The unit of a practice job with its past played again.</summary>
    public PracticeBench Replay(Job job, DeviceModel model, IReadOnlyList<BenchRecord> held)
    {
        var bench = new PracticeBench(model, PracticeUnit.Draw(model, job.PracticeSeed!.Value, 0), Simulation.Costs);
        foreach (var record in held.OrderBy(r => r.Id).Where(r => r.Note != Retest))
        {
            switch (record.ToEvent())
            {
                case FunctionTried tried: bench.Try(model.Profile.FindFunction(tried.FunctionId)!); break;
                case ProbeTaken taken: bench.Measure(model.Profile.FindProbe(taken.ProbeId)!); break;
                case Provoked provoked: bench.Provoke(model.Profile.FindFunction(provoked.FunctionId)!, provoked.How); break;
                case RepairDone repair: bench.Repair(repair.PartId, library.FindMethod(repair.MethodId)!, TargetOf(model, bench)); break;
            }
        }

        return bench;
    }

    /// <summary>The function tried after a repair: the one worked on, else the first of the baseline.</summary>
    public static DeviceFunction TargetOf(DeviceModel model, PracticeBench bench) =>
        UnitDiagnosis.ChooseTarget(model, bench.Events) ?? model.Profile.Functions[0];

    private static BenchRecord? Record(RecordMaker maker, BenchEvent happened) => happened switch
    {
        FunctionTried tried => maker.Function(tried.FunctionId, tried.Passed, tried.LookId),
        ProbeTaken taken => maker.Probe(taken.ProbeId, taken.Outcome),
        Provoked provoked => maker.Provoke(provoked.FunctionId, provoked.How, provoked.Changed),
        RepairDone repair => maker.Repair(repair.PartId, repair.MethodId),
        _ => null,
    };
}
