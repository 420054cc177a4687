using System.Text.Encodings.Web;
using System.Text.Json;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>A person's request: what is kept of them as a file, or all of it taken out while the work record stays.</summary>
public sealed class OwnerData(OwnerStore owners, BenchRecordStore records, PictureStore pictures, Timeline timeline, Ledger ledger)
{
    /// <summary>Name of the format.</summary>
    public const string Format = "mendro.owner/1";

    private static readonly JsonSerializerOptions Json =
        new(JsonSerializerDefaults.Web) { WriteIndented = true, Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    /// <summary>All that is kept of an owner, as JSON; null when there is no such owner.</summary>
    public string? Export(long id)
    {
        if (owners.Find(id) is not { } owner)
            return null;
        return JsonSerializer.Serialize(
            new
            {
                Format,
                owner.Name,
                owner.Contact,
                KnownSince = owner.CreatedAt,
                Jobs = owners
                    .Jobs(id)
                    .Select(job => new
                    {
                        Tag = job.Number,
                        Unit = job.Title,
                        job.Revision,
                        job.Serial,
                        job.Claim,
                        job.Accessories,
                        Condition = job.ConditionNote,
                        TakenIn = job.ReceivedAt,
                        Closed = job.ClosedAt,
                        Ending = job.Ending.ToString(),
                        job.EndingNote,
                        Records = records.Of(job.Id).Select(r => new { r.At, r.Words, r.Note }),
                        Timeline = timeline.Of(job.Id).Select(t => new { t.At, t.Words }),
                        Pictures = pictures.Of(job.Id).Select(p => new { p.At, p.Caption, File = p.Hash + ".jpg" }),
                    }),
            },
            Json
        );
    }

    /// <summary>Takes a person out.</summary>
    /// <param name="id">Owner.</param>
    /// <param name="typedName">The name, typed again: what is taken out cannot be brought back.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> Erase(long id, string typedName, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (owners.Find(id) is not { } owner)
                    return Refusal.Missing;
                if (owners.Jobs(id).Any(j => j.ClosedAt is null && j.DeletedAt is null))
                    return Refusal.Invalid("A job of this owner is still in the shop. Hand it over first.");
                return typedName == owner.Name
                    ? new Done($"Name and contact are gone; the work stays under “{owners.Erase(owner)}”.")
                    : Refusal.Invalid("Type the name exactly as it stands: this cannot be undone.");
            }
        );
}
