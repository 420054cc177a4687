using System.Text.Encodings.Web;
using System.Text.Json;
using Mendro.Core;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>A person's request: what is kept of them as a file, or all of it taken out while the work record stays.</summary>
public sealed class OwnerData(
    OwnerStore owners,
    BenchRecordStore records,
    PictureStore pictures,
    PictureFiles files,
    MoneyStore money,
    BillStore bills,
    StockStore stock,
    ErasedPeople erased,
    Timeline timeline,
    Ledger ledger
)
{
    private const int ElsewhereShown = 40;
    private const int LeastForSlip = 5;

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
                Contacts = owners.Contacts(id),
                AlsoKnownAs = owners.Merged(id).Select(o => o.Name),
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
                        Waits = job.ShelfReason,
                        NextTry = job.NextTry,
                        job.Promised,
                        Payments = money.Payments(job.Id).Select(p => new { p.Day, p.Kind, p.Amount, job.Currency, p.Words }),
                        Bills = bills.Of(job.Id).Select(b => b.Paper),
                        Wanted = stock.Needs(job.Id).Select(n => new { n.Part, n.Count, n.At }),
                        Timeline = timeline.Of(job.Id).Select(t => new { t.At, t.Words }),
                        Pictures = pictures
                            .Of(job.Id)
                            .Select(p => new
                            {
                                p.At,
                                p.Caption,
                                p.Marks,
                                File = p.Hash + ".jpg",
                                // The picture itself, as it is kept (Base64, RFC 4648).
                                Jpeg = files.Read(p.Hash) is { } jpeg ? Convert.ToBase64String(jpeg) : null,
                            }),
                    }),
            },
            Json
        );
    }

    /// <summary>Takes a person out.</summary>
    /// <param name="id">Owner.</param>
    /// <param name="typedName">The name, typed again: what is taken out cannot be brought back.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> Erase(long id, string typedName, string? once = null)
    {
        var names = new List<string>();
        var deed = ledger.Once<Done>(
            once,
            () =>
            {
                if (owners.Find(id) is not { } owner)
                    return Refusal.Missing;
                if (owners.Jobs(id).Any(j => j.ClosedAt is null && j.DeletedAt is null))
                    return Refusal.Invalid("A job of this owner is still in the shop. Hand it over first.");
                if (typedName != owner.Name)
                    return Refusal.Invalid("Type the name exactly as it stands: this cannot be undone.");
                names.Add(owner.Name);
                var kept = owners.Jobs(id).Sum(j => bills.Of(j.Id).Count);
                var told = kept > 0 ? $" {kept} {(kept == 1 ? "bill is" : "bills are")} kept as the law wants it, and shown without the name." : "";
                foreach (var same in owners.Merged(id))
                {
                    names.Add(same.Name);
                    owners.Erase(same);
                }

                return new Done($"Name and contact are gone; the work stays under “{owners.Erase(owner)}”.{told}");
            }
        );
        if (deed.Done is not null && names.Count > 0)
        {
            foreach (var name in names)
                erased.Add(name);
            owners.Fold();
        }

        return deed;
    }

    /// <summary>Takes those out again who were taken out before an older backup was restored.</summary>
    /// <returns>How many.</returns>
    public int Again()
    {
        if (!erased.Any)
            return 0;
        var all = owners.All();
        var back = erased.Among([.. all.Select(o => o.Name).Distinct()]);
        foreach (var owner in all.Where(o => back.Contains(o.Name)))
            owners.Erase(owner);
        if (back.Count > 0)
            owners.Fold();
        return back.Count;
    }

    /// <summary>Where else words stand that may be this person's, to be looked at by eye: parts of the name at others' jobs, or a slip away.</summary>
    public IReadOnlyList<(string Where, string Text)> Elsewhere(long id) =>
        owners.Find(id) is { } owner ? owners.Elsewhere(owner, IsLike, ElsewhereShown) : [];

    private static bool IsLike(string text, IReadOnlyList<string> parts)
    {
        foreach (var word in System.Text.RegularExpressions.Regex.Matches(text, @"\p{L}+").Select(m => m.Value))
            foreach (var part in parts)
                if (
                    string.Equals(word, part, StringComparison.OrdinalIgnoreCase)
                    || part.Length >= LeastForSlip && Spelling.IsSlip(word.ToLowerInvariant(), part.ToLowerInvariant())
                )
                    return true;
        return false;
    }
}
