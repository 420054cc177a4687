using Mendro.Core.Jobs;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>Parts that an entry took, when the entry is taken back or brought back: they go into their bin, or their donor, and out again.</summary>
public sealed class PartsBack(StockStore stock, DonorStore donors)
{
    /// <summary>An entry was withdrawn, or holds again.</summary>
    /// <param name="record">The entry.</param>
    /// <param name="withdrawn">True when it was withdrawn.</param>
    internal void Turn(BenchRecord record, bool withdrawn)
    {
        if (record.Body is not PartUsed used)
            return;
        if (used.Bin.StartsWith(PartUsed.DonorBin, StringComparison.Ordinal))
        {
            if (donors.Find(used.Bin[PartUsed.DonorBin.Length..], used.Part) is { } part && part.State == (withdrawn ? "taken" : "there"))
                donors.Set(part.Id, withdrawn ? "there" : "taken", withdrawn ? "taken back" : "into it again");
        }
        else if (stock.Named(used.Part) is { } item)
            stock.Move(item.Id, withdrawn ? used.Count : -used.Count, record.JobId, withdrawn ? "taken back" : "into it again", cameFor: record.Cost);
    }
}
