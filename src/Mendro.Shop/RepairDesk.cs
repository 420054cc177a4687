using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>A repair to be logged.</summary>
/// <param name="Job">Number of the job.</param>
/// <param name="Part">Part treated.</param>
/// <param name="Method">Method carried out.</param>
/// <param name="Cause">Failure mode seen before it, or null.</param>
/// <param name="Minutes">Minutes it took, 0 to 1000; null for the method's.</param>
/// <param name="Cost">Cost of parts in the job's currency, or null.</param>
/// <param name="Used">Parts and materials used, in words, up to 300 characters.</param>
/// <param name="Note">Note, up to 1000 characters.</param>
/// <param name="WorksNow">Whether the function worked on works now; null when it was not tried.</param>
/// <param name="Look">Look of the failure, when it does not.</param>
/// <param name="Held">What the check at the method's end said; null when it was not told.</param>
/// <param name="Originals">Where the original parts are kept.</param>
public sealed record RepairOrder(
    long Job,
    PartId Part,
    MethodId Method,
    string? Cause = null,
    double? Minutes = null,
    decimal? Cost = null,
    string Used = "",
    string Note = "",
    bool? WorksNow = null,
    string? Look = null,
    bool? Held = null,
    string Originals = ""
);

/// <summary>A repair was logged.</summary>
/// <param name="Words">The repair in words.</param>
/// <param name="Confirmed">True when a cause was confirmed with it, which is then weighed for the other units in the shop.</param>
/// <param name="Failing">True when a function of the unit still fails, or is not known to work.</param>
public sealed record RepairFiled(string Words, bool Confirmed, bool Failing);

/// <summary>Repairs logged, with the cause seen before and what the unit does after; closing up.</summary>
public sealed class RepairDesk(
    JobBench bench,
    BenchRecordStore records,
    RunStore runs,
    PracticeDesk practice,
    SecondLookStore secondLooks,
    ForecastStore forecasts,
    BenchDesk desk,
    TimeProvider time
)
{
    /// <summary>Most minutes of one repair.</summary>
    public const double MostMinutes = 1000;

    private const int LongestUsed = 300;
    private const int LongestNote = 1000;

    /// <summary>Logs a repair. A cause seen stands before it: afterwards it is no longer there.</summary>
    public Deed<RepairFiled> Log(RepairOrder order, string? once = null) =>
        bench.On<RepairFiled>(
            order.Job,
            once,
            job =>
            {
                if (RepairLogged.Make(job.Model, order.Part, order.Method, order.Used) is not { } repair)
                    return Refusal.Invalid("That method does not go with that part.");
                if (order.Minutes is { } told && !(told is >= 0 and <= MostMinutes))
                    return Refusal.Invalid(FormattableString.Invariant($"A repair takes 0 to {MostMinutes} minutes."));
                if (order.Cost is < 0)
                    return Refusal.Invalid("Parts cost nothing or more.");
                repair = repair with { Originals = order.Originals.Length > 0 ? order.Originals : null };
                if (order.Originals.Length > OtherWork.LongestOriginals)
                    return Refusal.Invalid($"Where the originals are takes {OtherWork.LongestOriginals} characters.");
                if (order.Used.Length > LongestUsed || order.Note.Length > LongestNote)
                    return Refusal.Invalid(FormattableString.Invariant($"Parts take {LongestUsed} characters, the note {LongestNote}."));
                if (job.Job.PracticeSeed is not null)
                {
                    foreach (var one in repair.InOneGo(job.Model))
                    {
                        var method = job.Model.Library.FindMethod(one.Method)!;
                        practice.Do(job, unit => unit.Repair(one.Part, method, unit.Target));
                    }

                    return new RepairFiled(repair.Describe(job.Model), false, true);
                }

                if (WantsConsent(job, order.Part, order.Method) is { } unasked)
                    return Refusal.Invalid(unasked);
                var (aim, given) = Given(job, order);
                var target = order.WorksNow is null ? null : aim;
                var cause = order.Cause is { Length: > 0 } mode ? CauseSeen.Make(job.Model, order.Part, mode, true) : null;
                // Other units are weighed behind the answer: the note survives a crash in between.
                if (cause is not null)
                    secondLooks.Await(bench.File(job, cause, WorkStage.Fix).Id);
                var proof = order.Held is null ? null : job.Model.CheckProbe(order.Part, order.Method);
                var filed = File(job, proof is null ? repair with { Held = order.Held } : repair, order);
                if (aim is not null && given is { } chance)
                    forecasts.Add(job.Job.Id, filed.Id, aim.Id, chance);
                List<JobStep> steps = [JobStep.Repaired];
                if (proof is not null)
                {
                    var shown = order.Held == true ? ProbeOutcome.Normal : ProbeOutcome.Abnormal;
                    bench.File(job, ProbeReading.Told(proof, shown), WorkStage.Fix, r => r with { Minutes = 0 });
                }

                if (runs.Open(job.Job.Id) is { } run && run.PartId == order.Part && run.MethodId == order.Method)
                    runs.End(run.Id, time.GetUtcNow(), filed.Id);
                if (target is not null && FunctionTrial.Make(job.Model, target.Id, order.WorksNow == true, order.Look) is { } trial)
                {
                    bench.File(job, trial, WorkStage.Fix);
                    steps.Add(trial.Step);
                }

                bench.Settle(job, steps);
                var words = job.Model.Library.FindMethod(order.Method)?.Together is null ? filed.Words : repair.Describe(job.Model);
                return new RepairFiled(words, cause is not null, bench.Target(job) is not null);
            },
            practice: true
        );

    /// <summary>Files a repair, one done in one go with others as what it consists of; they share its minutes as each would take.</summary>
    private BenchRecord File(OpenJob job, RepairLogged repair, RepairOrder order)
    {
        double Usual(MethodId method) => job.Model.Library.FindMethod(method)?.Minutes ?? 0;
        var minutes = order.Minutes ?? Usual(order.Method);
        var parts = repair.InOneGo(job.Model);
        var alone = parts.Sum(p => Usual(p.Method));
        // By itself it has its minutes as they were told.
        double Share(RepairLogged part) => parts.Count == 1 ? minutes : Math.Round(minutes * Usual(part.Method) / alone, 1);
        BenchRecord? first = null;
        foreach (var part in parts)
        {
            var filed = bench.File(
                job,
                part,
                WorkStage.Fix,
                record =>
                    record with
                    {
                        Minutes = Share(part),
                        Cost = first is null ? order.Cost : 0,
                        Note = first is null ? order.Note : "In the same go.",
                    }
            );
            first ??= filed;
        }

        return first!;
    }

    /// <summary>The function worked on, and the chance that Mendro gives this repair to make it work; null where it gave none.</summary>
    private (DeviceFunction? Target, double? Chance) Given(OpenJob job, RepairOrder order)
    {
        var view = desk.OpenToFile(job.Job);
        var move = view.Advice.Moves.FirstOrDefault(m => m.Repair is { } r && r.Part.Id == order.Part && r.Method.Id == order.Method);
        return (view.Diagnosis?.Target, move?.ChanceToWork);
    }

    /// <summary>What the owner of a unit agreed to, over all its jobs.</summary>
    public IReadOnlyList<ConsentGiven> Consents(Job job) =>
        records.OfUnit(job, RecordKinds.KeyOf(typeof(ConsentGiven))).Select(r => r.Body).OfType<ConsentGiven>().ToList();

    /// <summary>Why a modification may not be made yet, or null: on a customer's unit the owner is asked first.</summary>
    internal string? WantsConsent(OpenJob job, PartId part, MethodId method)
    {
        if (job.Job.ShopStock || job.Job.PracticeSeed is not null)
            return null;
        if (job.Model.Library.FindMethod(method) is not { Type: MethodType.Modification } modification)
            return null;
        return Consents(job.Job).Any(yes => yes.Part == part && yes.Method == method)
            ? null
            : $"“{modification.Name}” is a modification: note first who agreed to it, and how.";
    }

    /// <summary>The owner agreed to a modification.</summary>
    public Deed<FiledEntry> Consent(long number, ConsentGiven yes, string? once = null) =>
        bench.On<FiledEntry>(
            number,
            once,
            job =>
            {
                if (job.Model.Library.FindMethod(yes.Method)?.Place is null && RepairLogged.Make(job.Model, yes.Part, yes.Method) is null)
                    return Refusal.Invalid("That method does not go with that part.");
                if (yes.Who.Trim().Length is 0 or > ConsentGiven.LongestWho)
                    return Refusal.Invalid($"Say in up to {ConsentGiven.LongestWho} characters who agreed.");
                return new FiledEntry(bench.File(job, yes with { Who = yes.Who.Trim() }, WorkStage.Fix).Id);
            }
        );

    /// <summary>Notes that the unit is closed up again.</summary>
    public Deed<FiledEntry> CloseUp(long number, string? once = null) =>
        bench.On<FiledEntry>(
            number,
            once,
            job =>
            {
                return new FiledEntry(bench.File(job, new AccessNoted(AccessState.Closed)).Id);
            }
        );
}
