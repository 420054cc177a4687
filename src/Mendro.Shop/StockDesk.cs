using Mendro.Core.Capacitors;
using Mendro.Core.Jobs;
using Mendro.Core.Stock;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>A bin that would do for something wanted.</summary>
/// <param name="Item">The bin.</param>
/// <param name="Fit">How it stands in.</param>
public sealed record StockOffer(StockItem Item, Substitute Fit);

/// <summary>The stock: bins counted, put by for jobs, used up, corrected.</summary>
public sealed class StockDesk(StockStore stock, JobBench bench, SettingsStore settings, Ledger ledger)
{
    private const string BinPrefix = "bin-";
    private const string TakenAway = "taken away";
    private static readonly string[] PutInBy = ["put in", "by a file"];

    /// <summary>True for parts that the shop's owner brought in by hand: they were bought outside the books.</summary>
    internal static bool IsPutIn(string why) => PutInBy.Contains(why);

    /// <summary>Longest words of a movement, characters.</summary>
    public const int LongestWords = 200;

    /// <summary>Most of a part that is wanted at once.</summary>
    public const int MostWanted = 10_000;

    /// <summary>Adds a bin, or keeps one; what lies in it changes by <see cref="Correct"/> only.</summary>
    public Deed<Done> Save(long id, StockLine line, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                var item = StockItem.Of(line);
                if (id == 0)
                    return new Done(Text(stock.Add(item, "put in")));
                if (stock.Find(id) is null)
                    return Refusal.Missing;
                stock.Save(item with { Id = id });
                return new Done(Text(id));
            }
        );

    /// <summary>Takes a file in: all of its lines, or none with every reason. A line of a name and bin that are there adds to them.</summary>
    public Deed<Done> Import(string text, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                var lines = StockFile.Read(text, out var problems);
                if (problems.Count > 0)
                    return Refusal.Lines(problems);
                if (lines.Count == 0)
                    return Refusal.Invalid("There is no line in it.");
                var known = stock.List().ToLookup(i => (i.Name.ToLowerInvariant(), i.Bin));
                foreach (var line in lines)
                    if (known[(line.Spec.Name.ToLowerInvariant(), line.Bin)].FirstOrDefault() is { } same)
                        stock.Move(same.Id, line.Count, null, "by a file");
                    else
                        stock.Add(StockItem.Of(line), "by a file");
                return new Done($"{lines.Count} lines taken in.");
            }
        );

    /// <summary>The stock as a file.</summary>
    public string Export() => StockFile.Write(stock.List().Select(i => new StockLine(i.What, i.Bin, i.Count, i.Low, i.Cost, i.Source)));

    /// <summary>Corrects a bin to what was counted.</summary>
    public Deed<Done> Correct(long id, int counted, string why, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (stock.Find(id) is not { } item)
                    return Refusal.Missing;
                if (counted is < 0 or > StockFile.MostCount || why.Length > LongestWords)
                    return Refusal.Invalid($"Count 0 to {StockFile.MostCount}, and say why in up to {LongestWords} characters.");
                if (counted < item.Reserved)
                    return Refusal.Invalid($"{item.Reserved} of them are put by for jobs: take those back first.");
                if (counted != item.Count)
                    stock.Move(id, counted - item.Count, null, why.Length > 0 ? why : "counted");
                return new Done($"{item.Name}: {counted}.");
            }
        );

    /// <summary>Takes a bin away, or brings it back.</summary>
    public Deed<Done> Remove(long id, bool back, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (stock.Find(id) is not { } item)
                    return Refusal.Missing;
                if (!back && item.Reserved > 0)
                    return Refusal.Invalid($"{item.Reserved} of them are put by for jobs.");
                if (!back && item.Count > 0)
                    stock.Move(id, -item.Count, null, TakenAway);
                stock.SetDeleted(id, !back);
                // As many as went with it, for what they were worth.
                if (back && stock.LastMove(id) is { Why: TakenAway } gone)
                    stock.Move(id, -gone.Change, null, "brought back", cameFor: -gone.Value);
                return new Done(back ? "Brought back." : "Taken away.");
            }
        );

    /// <summary>A job wants parts: what lies free is put by for it, the rest is missing.</summary>
    public Deed<Done> Want(long number, string part, int count, string? once = null) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                if (part.Length is 0 or > StockFile.LongestText || count is < 1 or > MostWanted)
                    return Refusal.Invalid($"Name the part in up to {StockFile.LongestText} characters, and how many: 1 to {MostWanted}.");
                var need = stock.Want(job.Job.Id, part, count);
                var put = PutBy(new PartNeed { Id = need, Part = part, Count = count });
                bench.Note(job.Job, FormattableString.Invariant($"Wants {count} × {part}{(put > 0 ? $", {put} put by" : "")}"));
                var instead = put >= count ? null : For(stock.Named(part)?.What ?? new StockSpec(part)).FirstOrDefault(o => !o.Fit.Exact);
                return new Done(
                    put >= count ? $"{part}: put by."
                    : instead is null ? $"{part}: {count - put} to be ordered."
                    : $"{part}: {count - put} to be ordered; {instead.Item.Name} would do ({instead.Item.Free} free)."
                );
            }
        );

    /// <summary>A job wants a whole list of parts; of each as many as the list says, whatever it wanted of it before.</summary>
    public Deed<Done> WantAll(long number, IReadOnlyList<(string Part, int Count)> list, string? once = null) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                if (list.Count == 0 || list.Any(l => l.Part.Length is 0 or > StockFile.LongestText || l.Count is < 1 or > MostWanted))
                    return Refusal.Invalid("There is nothing in the list to be ordered.");
                var before = stock.Needs(job.Job.Id);
                foreach (var (part, count) in list)
                {
                    foreach (var same in before.Where(n => string.Equals(n.Part, part, StringComparison.OrdinalIgnoreCase)))
                        stock.End(same.Id, "listed anew");
                    PutBy(new PartNeed { Id = stock.Want(job.Job.Id, part, count), Part = part, Count = count });
                }

                bench.Note(job.Job, FormattableString.Invariant($"Wants {list.Count} sorts of parts, {list.Sum(l => l.Count)} in all"));
                return new Done($"{list.Count} sorts are on the list of orders.");
            }
        );

    /// <summary>What a job wanted is wanted no more; what was put by is free again.</summary>
    public Deed<Done> Unwant(long need, string? once = null) => ledger.Once(once, () => stock.End(need, "no longer wanted"));

    /// <summary>Parts go into a job: out of the bin, onto its sheet, with what they cost.</summary>
    public Deed<Done> Use(long id, long number, int count, string? once = null) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                if (stock.Find(id) is not { } item)
                    return Refusal.Missing;
                var needs = stock.Needs(job.Job.Id).Where(n => n.ItemId == id).ToList();
                var own = needs.Sum(n => n.Reserved);
                if (count < 1 || count > item.Free + own)
                    return Refusal.Invalid(FormattableString.Invariant($"1 to {item.Free + own} can be taken: the rest is put by for others."));
                if (settings.Get().Currency != job.Job.Currency && item.Cost is > 0)
                    return Refusal.Invalid($"The stock is reckoned in {settings.Get().Currency}, this job in {job.Job.Currency}: log its parts by hand.");
                Take(job, item, needs, count);
                return new Done($"{count} × {item.Name} into {job.Job.Tag}.");
            }
        );

    /// <summary>Bins of capacitors from which a job may take, as parts of its capacitor job.</summary>
    internal IReadOnlyList<CapacitorPart> Capacitors(JobId job)
    {
        var own = stock.Needs(job).Where(n => n.ItemId is not null).ToLookup(n => n.ItemId!.Value, n => n.Reserved);
        return stock
            .List(StockSpec.Capacitor)
            .Select(i => StockCapacitor.Part(i.What, BinPrefix + Text(i.Id), i.Free + own[i.Id].Sum(), i.Cost))
            .OfType<CapacitorPart>()
            .Where(p => p.Count > 0)
            .ToList();
    }

    /// <summary>Takes capacitors out of a bin for a job, within what is done there.</summary>
    /// <param name="job">The job.</param>
    /// <param name="part">A part of <see cref="Capacitors"/>.</param>
    /// <param name="count">How many.</param>
    /// <returns>False when it is a part of no bin.</returns>
    internal bool TakeCapacitors(OpenJob job, CapacitorPart part, int count)
    {
        if (!part.Id.StartsWith(BinPrefix, StringComparison.Ordinal)
            || stock.Find(long.Parse(part.Id.AsSpan(BinPrefix.Length), System.Globalization.CultureInfo.InvariantCulture)) is not { } item)
            return false;
        Take(job, item, stock.Needs(job.Job.Id).Where(n => n.ItemId == item.Id).ToList(), Math.Min(count, item.Count));
        return true;
    }

    private void Take(OpenJob job, StockItem item, IReadOnlyList<PartNeed> needs, int count)
    {
        var value = stock.Move(item.Id, -count, job.Job.Id, $"into {job.Job.Tag}");
        var left = count;
        foreach (var need in needs)
        {
            var taken = Math.Min(left, need.Reserved);
            left -= taken;
            if (taken >= need.Count)
                stock.End(need.Id, "used");
            else if (taken > 0)
                stock.Use(need.Id, taken);
        }

        var cost = settings.Get().Currency == job.Job.Currency && value is { } worth ? -worth : (decimal?)null;
        bench.File(job, new PartUsed(item.Name, count, item.Bin), null, r => r with { Cost = cost });
    }

    /// <summary>Bins that would do for something, the very part first.</summary>
    public IReadOnlyList<StockOffer> For(StockSpec wanted) =>
        stock
            .List()
            .Select(i => new StockOffer(i, Substitute.Judge(wanted, i.What)))
            .Where(o => o.Fit.Fits && o.Item.Free > 0)
            .OrderByDescending(o => o.Fit.Exact)
            .ThenByDescending(o => o.Item.Free)
            .ToList();

    /// <summary>Puts by what lies free for a need.</summary>
    /// <returns>How many.</returns>
    internal int PutBy(PartNeed need)
    {
        if (stock.Named(need.Part) is not { Free: > 0 } item)
            return 0;
        var put = Math.Min(need.Missing, item.Free);
        stock.Reserve(need.Id, item.Id, need.Reserved + put);
        return put;
    }

    private static string Text(long id) => id.ToString(System.Globalization.CultureInfo.InvariantCulture);
}
