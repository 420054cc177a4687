using Mendro.Core;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>Contacts of a connector were marked, or marks taken back.</summary>
/// <param name="Contact">Contact that it was about, or null.</param>
/// <param name="Marks">How many marks were touched.</param>
public sealed record ContactsMarked(int? Contact, int Marks);

/// <summary>Contact maps: contacts marked one by one, and the result filed as evidence.</summary>
public sealed class ContactDesk(JobBench bench, ContactMarkStore marks, BenchRecordStore records)
{
    /// <summary>Why nothing may be entered in a job now, or null.</summary>
    public static string? Locked(Job job) =>
        job.PracticeSeed is not null ? "A practice unit answers the whole connector at once, under Find." : JobBench.Locked(job, false);

    /// <summary>The result of a connector's sweep so far.</summary>
    public static ContactSweep Sweep(
        Connector connector,
        IReadOnlyList<ContactMark> marks,
        IReadOnlyList<BenchRecord> records,
        IReadOnlyList<ContactGroup> groups
    )
    {
        var looks = records
            .Select(r => r.Body)
            .OfType<FunctionTrial>()
            .Where(t => !t.Passed)
            .Select(t => t.Look)
            .OfType<string>()
            .ToHashSet();
        return ContactSweep.Judge(connector, marks, groups, looks);
    }

    /// <summary>Marks a contact.</summary>
    public Deed<ContactsMarked> Mark(long number, string connectorId, ContactMark mark, string? once = null) =>
        On<ContactsMarked>(
            number,
            connectorId,
            once,
            (job, connector) =>
            {
                if (connector.Contacts.FirstOrDefault(c => c.Number == mark.Number) is not { } contact)
                    return Refusal.Missing;
                if (mark.State == ContactState.Short && ContactSweep.Neighbour(connector.Contacts, contact) is null)
                    return Refusal.Invalid(
                        FormattableString.Invariant($"Contact {mark.Number} is the last of its row: it has no next neighbour.")
                    );
                marks.Add(job.Job.Id, connector.Id, mark);
                return new ContactsMarked(mark.Number, 1);
            }
        );

    /// <summary>Takes the last mark back.</summary>
    public Deed<ContactsMarked> Undo(long number, string connectorId, string? once = null) =>
        On<ContactsMarked>(
            number,
            connectorId,
            once,
            (job, connector) =>
                marks.Undo(job.Job.Id, connector.Id) is { } contact ? new ContactsMarked(contact, 1) : new ContactsMarked(null, 0)
        );

    /// <summary>Begins anew, as after cleaning.</summary>
    public Deed<ContactsMarked> Clear(long number, string connectorId, string? once = null) =>
        On<ContactsMarked>(number, connectorId, once, (job, connector) => new ContactsMarked(null, marks.Clear(job.Job.Id, connector.Id)));

    /// <summary>Brings back what was taken back last.</summary>
    public Deed<ContactsMarked> BringBack(long number, string connectorId, string? once = null) =>
        On<ContactsMarked>(
            number,
            connectorId,
            once,
            (job, connector) => new ContactsMarked(null, marks.BringBack(job.Job.Id, connector.Id))
        );

    /// <summary>Files the result of the sweep as evidence.</summary>
    public Deed<Done> File(long number, string connectorId, string? once = null) =>
        On<Done>(
            number,
            connectorId,
            once,
            (job, connector) =>
            {
                if (connector.Probe is not { } id || job.Model.Profile.FindProbe(id) is not { } probe)
                    return Refusal.Invalid("The profile names no check for this connector: the map is kept, but it is no evidence.");
                var sweep = Sweep(connector, marks.Of(job.Job.Id, connector.Id), records.Of(job.Job.Id), job.Model.Library.ContactGroups);
                if (sweep.Outcome is not { } outcome)
                    return Refusal.Invalid("All that was tried beeps, but not all was tried: that proves nothing yet.");
                var reason = string.Join("; ", sweep.Affected.Select(a => $"{a.Group.Name}: {a.Group.Broken}"));
                var verdict = outcome == ProbeOutcome.Normal ? "as expected" : "not as expected";
                var judged = new JudgedReading(new Reading(ReadingUnit.Word, null, sweep.Words), outcome, verdict, reason, sweep.Stop);
                var filed = bench.File(job, ProbeReading.Of(probe, judged));
                bench.Settle(job, JobStep.Looked);
                return new Done(filed.Words);
            }
        );

    private Deed<T> On<T>(long number, string connectorId, string? once, Func<OpenJob, Connector, Deed<T>> work)
        where T : class =>
        bench.On<T>(
            number,
            once,
            job =>
                Locked(job.Job) is { } locked ? new Refusal(RefusalKind.Locked, locked)
                : job.Model.Profile.Connectors?.FirstOrDefault(c => c.Id == connectorId) is { } connector ? work(job, connector)
                : Refusal.Missing,
            practice: true
        );
}
