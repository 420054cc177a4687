using System.Collections.Concurrent;
using Mendro.Core;
using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Lots;
using Mendro.Core.Money;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Solver;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>A unit on the board of its lot.</summary>
/// <param name="View">The job.</param>
/// <param name="Item">It in figures.</param>
/// <param name="Place">Its place in the lot.</param>
/// <param name="Next">What to do next with it.</param>
public sealed record LotRow(JobView View, LotItem Item, LotPlace Place, NextLine Next);

/// <summary>All there is to see of a lot.</summary>
/// <param name="Lot">The lot.</param>
/// <param name="Rows">Its units, by number.</param>
/// <param name="Sum">What it has come to.</param>
/// <param name="Price">What was paid for it: its own price, or the sum of its units'.</param>
/// <param name="Rounds">Rounds that can be made now, the most promising first; one under way may be at its last unit.</param>
/// <param name="Doubt">Why the bench itself is in doubt, or null.</param>
public sealed record LotBoard(
    Lot Lot,
    IReadOnlyList<LotRow> Rows,
    LotSum Sum,
    Amount Price,
    IReadOnlyList<LotRound> Rounds,
    BenchDoubt? Doubt
)
{
    /// <summary>Rounds worth beginning: for two units and more.</summary>
    public IReadOnlyList<LotRound> ToBegin { get; } = Rounds.Where(r => r.Items.Count > 1).ToList();

    /// <summary>The same for its rounds.</summary>
    public RoundScope Scope => new(Lot.Id, Lot.Name, Rounds, Rows.ToDictionary(r => r.Item.Number, r => r.View), Doubt, Sum);

    /// <summary>Open units by what an hour on them brings.</summary>
    public IReadOnlyList<LotRow> ByGain => LotSum.ByGain(Rows.Select(r => r.Item)).Select(i => Rows.First(r => r.Item == i)).ToList();
}

/// <summary>Lots: bought for one price, taken in by the line, worked on in rounds.</summary>
public sealed class LotDesk(
    LotStore lots,
    SaleStore sales,
    ForecastStore forecasts,
    BenchDesk bench,
    JobBench jobBench,
    ModelShelf models,
    SettingsStore settings,
    TradeLibrary library,
    Ledger ledger
)
{
    /// <summary>Longest name of a lot, characters.</summary>
    public const int LongestName = 120;

    private const int LongestWords = 500;
    private const int LooksBack = 60;
    private static readonly TimeSpan PairingTime = TimeSpan.FromSeconds(2);

    /// <summary>Begins a lot, or keeps what was told of it.</summary>
    /// <returns>Its id, in words.</returns>
    public Deed<Done> Save(Lot lot, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (lot.Name.Length is 0 or > LongestName || lot.Words.Length > LongestWords)
                    return Refusal.Invalid($"Give the lot a name of up to {LongestName} characters, and words of up to {LongestWords}.");
                if (!Currency.IsCode(lot.Currency))
                    return Refusal.Invalid("The currency has three letters, such as EUR.");
                if (lot.Price < 0 || lot.Postage < 0 || lot.Working < 0 || lot.Otherwise < 0 || lot.PerHour < 0)
                    return Refusal.Invalid("Amounts are nothing or more.");
                if (lot.OwnerName?.Length > LongestName || lot.OwnerContact.Length > LongestWords)
                    return Refusal.Invalid($"A name takes {LongestName} characters, a phone, mail or address {LongestWords}.");
                if (lot.OwnerName is { Length: > 0 } && (lot.Price is not null || lot.Postage > 0))
                    return Refusal.Invalid("What an owner brings has no price: leave price and postage blank, or the name.");
                if (lot.ProfileId.Length > 0 && models.Latest(lot.ProfileId) is null)
                    return Refusal.Invalid("Choose a model from the list, or none.");
                if (lots.Find(lot.Name) is { } same && same.Id != lot.Id)
                    return Refusal.Invalid($"There is a lot “{lot.Name}” already; open it to add to it.");
                var id = lot.Id;
                if (id == 0)
                    id = lots.Add(lot);
                else if (lots.Find(lot.Id) is { } before)
                {
                    if (before.IsBatch != lot.OwnerName is { Length: > 0 } && lots.Units(lot.Name).Count > 0)
                        return Refusal.Invalid(
                            before.IsBatch ? "This was brought by an owner: give the name." : "These were bought: they cannot be an owner's as well."
                        );
                    lots.Save(lot);
                    lots.CarryWorth(before, lot);
                }

                LotShares.Spread(lots, lots.Find(id)!);
                return new Done(id.ToString(System.Globalization.CultureInfo.InvariantCulture));
            }
        );

    /// <summary>The board of a lot, or null.</summary>
    public LotBoard? Open(long id)
    {
        if (lots.Find(id) is not { } lot)
            return null;
        var (places, shop, sold) = (lots.Places(lot.Name), settings.Get(), sales.OfLot(lot.Name));
        var rows = lots.Units(lot.Name)
            .Select(bench.Open)
            .Select(view => (View: view, Place: LotShares.Of(places, view.Job)))
            .Select(r => new LotRow(r.View, InFigures(r.View, r.Place, sold.GetValueOrDefault(r.View.Job.Id)), r.Place, NextLine.Of(r.View)))
            .ToList();
        var price = lot.Cost ?? new Amount(rows.Sum(r => r.View.Job.Paid ?? 0) + lot.Postage, lot.Currency);
        var tried = forecasts.OfLot(lot.Name, LooksBack).Where(f => f.Worked is not null).Select(f => new RepairTried(f.Number, f.Chance, f.Worked!.Value));
        return new LotBoard(
            lot,
            rows,
            LotSum.Of(rows.Select(r => r.Item).ToList(), price, HourOf(lot, shop)),
            price,
            Rounds(rows),
            BenchDoubt.Of(tried.ToList())
        );
    }

    /// <summary>The chance to cure a unit as it stands now, 0 to 1; null where nothing fails.</summary>
    public double? ChanceOf(long number) => jobBench.Find(number) is { } open ? bench.Open(open.Job).Worth?.ChanceToCure : null;

    /// <summary>How true what was said of the ends of lots was: how often the end lay between, of all that was said of lots that are
    /// decided now.</summary>
    public (int Within, int Said) EndsTruth()
    {
        var (within, said) = (0, 0);
        foreach (var told in lots.SaidOfEnds(LotsLookedBack).GroupBy(e => e.Lot))
        {
            // Cheap first: a lot that is worked on is not decided.
            if (lots.Find(told.Key) is not { } lot || lots.Units(lot.Name).Any(j => j.ClosedAt is null))
                continue;
            if (Open(told.Key) is not { Sum: { Open: 0, Counted: > 0 } sum })
                continue;
            said += told.Count();
            within += told.Count(t => t.Low <= sum.Cured && sum.Cured <= t.High);
        }

        return (within, said);
    }

    private const int LotsLookedBack = 20;

    /// <summary>What an hour on a lot is worth: its own, else the shop's.</summary>
    public static Amount HourOf(Lot lot, ShopSettings shop) => shop.HourOr(lot.PerHour, lot.Currency);

    /// <summary>Parts of casings that one of a lot has for another.</summary>
    public IReadOnlyList<CasingPart> Casing(LotBoard board) => LotDonors.Casing(board.Rows, library);

    /// <summary>What is done first with a pile of like units, and what of it is best kept for parts; null where there is nothing to weigh.</summary>
    public PileMove? FirstOf(LotBoard board) => Weigh(board).First;

    /// <summary>Units that do better as donors of others; none where each does best by itself.</summary>
    public IReadOnlyList<Pairing> Pairs(LotBoard board) => Weigh(board).Pairs;

    // A solver is asked: again only when something has changed in the lot.
    private Weighed Weigh(LotBoard board)
    {
        var rows = board.Rows.Select(r => string.Create(System.Globalization.CultureInfo.InvariantCulture, $"{r.Item}|{r.View.Job.Mark}"));
        var asked = string.Join('\n', rows.Append(HourOf(board.Lot, settings.Get()).ToString()));
        if (_weighed.TryGetValue(board.Lot.Id, out var known) && known.Asked == asked)
            return known;
        if (_weighed.Count >= MostWeighed)
            _weighed.Clear();
        var hour = (double)HourOf(board.Lot, settings.Get()).Value;
        return _weighed[board.Lot.Id] = new Weighed(
            asked,
            PairingSolver.Solve(LotDonors.Alike(board.Rows, library), PairingTime),
            PileOrder.Next(LotDonors.Pile(board.Rows, library, hour))
        );
    }

    private const int MostWeighed = 50;
    private readonly ConcurrentDictionary<long, Weighed> _weighed = new();

    private sealed record Weighed(string Asked, IReadOnlyList<Pairing> Pairs, PileMove? First);

    private static LotItem InFigures(JobView view, LotPlace place, Sale? sale)
    {
        var job = view.Job;
        var state =
            job.Ending == JobEnd.Parts || job.Ending != JobEnd.Open && job.StatedReason.Length > 0 ? LotState.Failed
            : job.Ending != JobEnd.Open || view.Proof.Complete ? LotState.Cured
            : job.Shelf is Shelf.None or Shelf.Ready ? LotState.Open
            : LotState.Waits;
        var outlook = view.Advice.Outlook;
        // In which nothing failed yet there is still everything to find: its chance is not known.
        var chance = view.Diagnosis?.Target is null ? (double?)null : outlook?.ChanceToCure ?? 0;
        return new LotItem(
            job.Number,
            state,
            place.Apart,
            state is LotState.Open or LotState.Waits ? chance : null,
            outlook?.WorkMinutes ?? 0,
            (decimal)(outlook?.Parts ?? 0),
            view.MinutesSpent,
            // Parts of a donor of the same lot were paid with the lot.
            view.PartsCost.Value
                - view.All<PartUsed>().Where(p => p.Body.Bin.StartsWith(PartUsed.DonorBin, StringComparison.Ordinal)).Sum(p => p.Record.Cost ?? 0),
            job.ValueWorking,
            Math.Max(job.ValueAsIs ?? 0, job.ValueParts ?? 0),
            sale is { State: SaleState.Sold, Price: { } price } ? price - sale.Fees - sale.Postage - sale.Packing : null
        );
    }

    private static IReadOnlyList<LotRound> Rounds(IReadOnlyList<LotRow> rows)
    {
        // What is not worth going on with is left to decide upon.
        var open = rows.Where(r => r.Item is { State: LotState.Open, Apart: false } && r.View is { Problem: null, Advice.Moves: [{ Ends: false }, ..] })
            .ToDictionary(r => r.Item.Number, r => r.View);
        return RoundsOf(open);
    }

    /// <summary>Rounds over some jobs by their numbers.</summary>
    internal static IReadOnlyList<LotRound> RoundsOf(IReadOnlyDictionary<long, JobView> open) =>
        RoundPlan.Of(
            open.Select(o => (o.Key, (IReadOnlyList<Move>)o.Value.Advice.Moves.Where(m => Takes(o.Value, m)).ToList())).ToList(),
            (number, move) =>
            {
                var profile = open[number].Profile;
                var part = move.Repair?.Part.Id ?? move.Probe?.Spans?.FirstOrDefault();
                return part is { } id ? profile.FindPart(id)?.Kind ?? "" : "";
            }
        );

    /// <summary>True for what is done to each unit in turn: not pressing, nor what is done to the bench's own gear.</summary>
    private static bool Takes(JobView view, Move move) =>
        !move.Ends
        && move is { Provoke: null, SwapOut: null }
        && (move.Repair is not { } repair || view.Model.Library.FindPartKind(repair.Part.Kind)?.Gear != true);
}
