using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Methods;
using Mendro.Core.Profiles;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>A method under way, as its run sheet shows it.</summary>
/// <param name="Run">Where it is.</param>
/// <param name="Method">The method.</param>
/// <param name="Part">Part treated.</param>
/// <param name="Steps">Its steps.</param>
/// <param name="Now">The step that is on.</param>
/// <param name="StepSeconds">Seconds spent on it.</param>
/// <param name="WorkMinutes">Hands-on minutes so far, all steps but the waits.</param>
/// <param name="Timer">Timer of the wait that is on, or null.</param>
/// <param name="Materials">What the material check says of the step that is on.</param>
public sealed record RunSheet(
    BenchRun Run,
    Method Method,
    Part Part,
    IReadOnlyList<RunStep> Steps,
    RunStep Now,
    double StepSeconds,
    double WorkMinutes,
    TimerLeft? Timer,
    SequenceReport Materials
);

/// <summary>Runs methods step by step: stopwatch, waits, what is put on the unit, and the check at the end.</summary>
public sealed class RunDesk(
    JobBench bench,
    RunStore runs,
    BenchRecordStore records,
    RepairDesk repairs,
    TimerDesk timers,
    Ledger ledger,
    TradeLibrary library,
    TimeProvider time
)
{
    /// <summary>Longest words on touches, characters.</summary>
    public const int LongestTouches = 200;

    /// <summary>The run of a job that is open, or null.</summary>
    public RunSheet? Open(Job job, DeviceProfile profile)
    {
        if (runs.Open(job.Id) is not { } run || library.FindMethod(run.MethodId) is not { } method)
            return null;
        if (PartOf(profile, run.PartId, method) is not { } part)
            return null;
        var (steps, now) = (StepsOf(method, profile), time.GetUtcNow());
        var on = steps[Math.Clamp(run.Step, 0, steps.Count - 1)];
        var work = steps.Where(s => s.Kind != RunStepKind.Wait).Sum(s => run.SecondsOn(s.Index, now)) / 60;
        return new RunSheet(
            run,
            method,
            part,
            steps,
            on,
            run.SecondsOn(on.Index, now),
            work,
            run.TimerId is { } id ? timers.Find(id) : null,
            on.Materials.Count == 0 ? new SequenceReport([], []) : Before(job, on.Materials)
        );
    }

    /// <summary>What was put on a unit so far, over all its jobs.</summary>
    public IReadOnlyList<MaterialMoment> OnUnit(Job job) =>
        records
            .OfUnit(job, RecordKinds.KeyOf(typeof(MaterialUsed)))
            .Select(r => r.Body is MaterialUsed used ? new MaterialMoment(used.Done, r.At) : null)
            .OfType<MaterialMoment>()
            .ToList();

    /// <summary>What the material check says of next steps, after all that is on the unit.</summary>
    public SequenceReport Before(Job job, IReadOnlyList<SequenceStep> next) =>
        UnitMaterials.Before(OnUnit(job), next, time.GetUtcNow(), MaterialLibrary.Shipped);

    /// <summary>Modifications of a unit, over all its jobs.</summary>
    public IReadOnlyList<Modification> Modifications(Job job) =>
        UnitHistory.Modifications(records.OfUnit(job, UnitHistory.Kinds), library);

    /// <summary>Begins a method. One is run at a time on a unit.</summary>
    public Deed<Done> Start(long number, PartId part, MethodId method, string? once = null) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                var profile = job.Model.Profile;
                if (library.FindMethod(method) is not { } known || PartOf(profile, part, known) is null)
                    return Refusal.Missing;
                if (known.For?.Contains(profile.Kind) == false)
                    return Refusal.Missing;
                if (known.Place is null && RepairLogged.Make(job.Model, part, method) is null)
                    return Refusal.Invalid("That method does not go with that part.");
                if (runs.Open(job.Job.Id) is not null)
                    return Refusal.Invalid("Another method is under way on this unit: finish it or give it up first.");
                if (repairs.WantsConsent(job, part, method) is { } why)
                    return Refusal.Invalid(why);
                var now = time.GetUtcNow();
                runs.Add(
                    Waiting(
                        job,
                        new BenchRun
                        {
                            JobId = job.Job.Id,
                            PartId = part,
                            MethodId = method,
                            Since = now,
                            StartedAt = now,
                        },
                        known
                    )
                );
                return new Done(known.Name);
            }
        );

    /// <summary>The step that is on is done; on to the next.</summary>
    /// <param name="number">Number of the job.</param>
    /// <param name="step">Index of the step that was shown: a page that lags behind moves nothing.</param>
    /// <param name="sure">True to go on although the wait is not over, or what is put on may mark the surface.</param>
    /// <param name="touches">Touches of a heat-sensitive joint, in words.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> Next(long number, int step, bool sure, string? touches = null, string? once = null) =>
        With(
            number,
            once,
            (job, sheet) =>
            {
                if (sheet.Run.Step != step || sheet.Now.Kind == RunStepKind.Check)
                    return Refusal.Invalid("That step is done already; this is where it stands now.");
                if (sheet.Materials.Stops is [var stop, ..])
                    return Refusal.Invalid(stop.Reason);
                if (!sure && Doubt(sheet) is { } doubt)
                    return Refusal.Invalid(doubt);
                foreach (var done in sheet.Now.Materials.Where(m => m.Heat is null && m.Power is null))
                {
                    // A drying counts as long as it really took.
                    var told = done.Dry is { } whole ? Dried(sheet.StepSeconds / 60, whole) : done;
                    bench.File(job, new MaterialUsed(told, sheet.Part.Id), WorkStage.Fix);
                }

                var said = (touches ?? "").Trim();
                Move(job, sheet, sheet.Run.Step + 1, said.Length > 0 ? said[..Math.Min(said.Length, LongestTouches)] : sheet.Run.Touches);
                return new Done("");
            }
        );

    /// <summary>Back to the step before; its stopwatch goes on where it stopped. What was put on stays on.</summary>
    public Deed<Done> Back(long number, string? once = null) =>
        With(
            number,
            once,
            (job, sheet) =>
            {
                if (sheet.Run.Step == 0)
                    return Refusal.Invalid("This is the first step.");
                Move(job, sheet, sheet.Run.Step - 1, sheet.Run.Touches);
                return new Done("");
            }
        );

    /// <summary>Stops the stopwatch, or lets it run on.</summary>
    public Deed<Done> Pause(long number, string? once = null) =>
        With(
            number,
            once,
            (_, sheet) =>
            {
                var now = time.GetUtcNow();
                runs.Save(sheet.Run with { Seconds = Spent(sheet.Run, now), Since = sheet.Run.Since is null ? now : null });
                return new Done(sheet.Run.Since is null ? "It runs on." : "Paused.");
            }
        );

    /// <summary>Gives it up; what was put on the unit stays told.</summary>
    public Deed<Done> Drop(long number, string? once = null) =>
        With(
            number,
            once,
            (_, sheet) =>
            {
                if (sheet.Timer is { } timer)
                    timers.Stop(timer.Timer.Id);
                runs.End(sheet.Run.Id, time.GetUtcNow(), null);
                return new Done($"{sheet.Method.Name}: given up.");
            }
        );

    /// <summary>It was rinsed, or dried: files it, also outside a run.</summary>
    public Deed<Done> Log(long number, SequenceStep what, string? once = null) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                if (what is not ({ Rinse: true } or { Dry: > 0 and <= RepairDesk.MostMinutes } or { Agent: not null }))
                    return Refusal.Invalid("Say what was put on and where, that it was rinsed, or how many minutes it dried.");
                if (Before(job.Job, [what]).Stops is [var stop, ..])
                    return Refusal.Invalid(stop.Reason);
                return new Done(bench.File(job, new MaterialUsed(what), WorkStage.Fix).Words);
            }
        );

    /// <summary>Files the wiring table of a replaced part.</summary>
    public Deed<Done> Wire(long number, WiringNoted table, string? once = null) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                if (job.Model.Profile.FindPart(table.Part) is null)
                    return Refusal.Missing;
                if (table.Wires.Count is 0 or > WiringNoted.MostWires)
                    return Refusal.Invalid($"A table has 1 to {WiringNoted.MostWires} wires.");
                if (table.Wires.Any(w => w.Old.Length == 0 || w.New.Length == 0))
                    return Refusal.Invalid("Each wire goes from an old contact to a new one.");
                if (table.Wires.SelectMany(w => (string[])[w.Old, w.New, w.Colour]).Any(w => w.Length > WiringNoted.LongestWord))
                    return Refusal.Invalid($"A contact or colour takes {WiringNoted.LongestWord} characters.");
                return new Done(bench.File(job, table, WorkStage.Fix).Words);
            }
        );

    /// <summary>The check at the end was made: the repair is filed with its minutes, and what the check said.</summary>
    /// <param name="number">Number of the job.</param>
    /// <param name="held">What the check said; null where the method has none.</param>
    /// <param name="worksNow">Whether the function worked on works now; null when it was not tried.</param>
    /// <param name="note">Note.</param>
    /// <param name="originals">Where the original parts are kept.</param>
    /// <param name="once">Key of the form.</param>
    /// <param name="cause">Failure mode that was seen; blank when none was.</param>
    public Deed<RepairFiled> Finish(
        long number, bool? held, bool? worksNow, string note, string originals = "", string? once = null, string cause = "") =>
        ledger.Once<RepairFiled>(
            once,
            () =>
            {
                if (bench.Find(number) is not { } job || Open(job.Job, job.Model.Profile) is not { } sheet)
                    return Refusal.Missing;
                if (sheet.Now.Index != sheet.Steps.Count - 1)
                    return Refusal.Invalid("Its steps are not all done.");
                if (sheet.Now.Kind == RunStepKind.Check && held is null)
                    return Refusal.Invalid("Say what the check showed.");
                var minutes = Math.Round(Math.Min(sheet.WorkMinutes, RepairDesk.MostMinutes), 1);
                var told = string.Join(". ", new[] { note.Trim(), sheet.Run.Touches }.Where(w => w.Length > 0));
                if (sheet.Method.Place is not null)
                    return Other(job, sheet, new OtherWork(sheet.Method.Id, held, originals.Length > 0 ? originals : null), minutes, told);
                return repairs.Log(
                    new RepairOrder(
                        number,
                        sheet.Part.Id,
                        sheet.Method.Id,
                        Cause: cause.Length > 0 ? cause : null,
                        Minutes: minutes,
                        Note: told,
                        WorksNow: worksNow,
                        Held: held,
                        Originals: originals
                    )
                );
            }
        );

    private Deed<RepairFiled> Other(OpenJob job, RunSheet sheet, OtherWork work, double minutes, string note) =>
        bench.On<RepairFiled>(
            job.Job.Number,
            null,
            open =>
            {
                if (work.Originals?.Length > OtherWork.LongestOriginals)
                    return Refusal.Invalid($"Where the originals are takes {OtherWork.LongestOriginals} characters.");
                var filed = bench.File(open, work, WorkStage.Fix, r => r with { Minutes = minutes, Note = note });
                runs.End(sheet.Run.Id, time.GetUtcNow(), filed.Id);
                bench.Settle(open, JobStep.Repaired);
                return new RepairFiled(filed.Words, false, false);
            }
        );

    /// <summary>The part that a method is for; of other work a place of the unit that is no part of its profile.</summary>
    private static Part? PartOf(DeviceProfile profile, PartId id, Method method) =>
        method.Place is { } place ? new Part("", place, "place") : profile.FindPart(id);

    // Marks may come and go while it runs; what makes a unit safe hangs on its model alone, so that steps keep their places.
    private IReadOnlyList<RunStep> StepsOf(Method method, DeviceProfile profile) =>
        RunPlan.Of(method, UnitHazards.Of(profile, library));

    private Deed<Done> With(long number, string? once, Func<OpenJob, RunSheet, Deed<Done>> work) =>
        bench.On<Done>(number, once, job => Open(job.Job, job.Model.Profile) is { } sheet ? work(job, sheet) : Refusal.Missing);

    /// <summary>No minute is written down that nobody waited; who says that it is enough is not asked again at the next step.</summary>
    private static SequenceStep Dried(double minutes, double whole) =>
        new(Dry: Math.Round(minutes, 1), Enough: minutes < whole ? true : null);

    private static string? Doubt(RunSheet sheet) =>
        sheet.Materials.Steps.FirstOrDefault(s => s.Verdict == MaterialVerdict.Never) is { } never
            ? $"Never on that surface: {string.Join("; ", never.Reasons)}. Tick that you mean it."
        : sheet.Now.Wait is { } wait && sheet.StepSeconds < wait.Minutes * 60
            ? FormattableString.Invariant($"It has waited {Math.Floor(sheet.StepSeconds / 60)} of {wait.Minutes} min. Tick that it is enough.")
        : null;

    private void Move(OpenJob job, RunSheet sheet, int step, string touches)
    {
        var now = time.GetUtcNow();
        if (sheet.Timer is { } timer)
            timers.Stop(timer.Timer.Id);
        runs.Save(
            Waiting(
                job,
                sheet.Run with
                {
                    Seconds = Spent(sheet.Run, now),
                    Step = Math.Min(step, sheet.Steps.Count - 1),
                    Since = now,
                    TimerId = null,
                    Touches = touches,
                },
                sheet.Method
            )
        );
    }

    /// <summary>Starts the timer when the step that is on is a wait.</summary>
    private BenchRun Waiting(OpenJob job, BenchRun run, Method method)
    {
        var step = StepsOf(method, job.Model.Profile)[run.Step];
        if (step.Wait is not { } wait)
            return run;
        var part = PartOf(job.Model.Profile, run.PartId, method)?.Name ?? run.PartId;
        var label = $"{wait.Kind}: {part}";
        var left = Math.Max(0.1, wait.Minutes - (run.Step < run.Seconds.Count ? run.Seconds[run.Step] : 0) / 60);
        return run with { TimerId = timers.Add(job.Job, label[..Math.Min(label.Length, TimerDesk.LongestLabel)], left) };
    }

    private static List<double> Spent(BenchRun run, DateTimeOffset now)
    {
        var seconds = run.Seconds.ToList();
        while (seconds.Count <= run.Step)
            seconds.Add(0);
        seconds[run.Step] = run.SecondsOn(run.Step, now);
        return seconds;
    }
}
