using Mendro.Core.Jobs;
using Mendro.Core.Lots;
using Mendro.Core.Money;
using Mendro.Core.Planning;
using Mendro.Core.Quantities;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>A unit of a batch as its owner sees it.</summary>
/// <param name="Row">It on the board.</param>
/// <param name="Range">What it may cost.</param>
/// <param name="Agreement">How its owner stands to it.</param>
/// <param name="Calls">What is paid and due.</param>
public sealed record BatchUnit(LotRow Row, QuoteRange Range, OwnerAgreement Agreement, LastCalls Calls)
{
    /// <summary>True while it is in the shop.</summary>
    public bool IsHere => Row.View.Job is { ClosedAt: null, DeletedAt: null };

    /// <summary>Why it may not go without a reason; null when it may.</summary>
    public string? Bar => Row.View.Proof.Bar(null, HandOverDesk.Kept(Row.View.Model, Row.View.Records));

    /// <summary>Why it is still here, in words.</summary>
    public string Waits =>
        Row.View.Job.Shelf is not Shelf.None and not Shelf.Ready ? $"{StageWords.Name(Row.View.Job.Shelf).ToLowerInvariant()}: {Row.View.Job.ShelfReason}"
        : Bar is null ? "ready"
        : Row.Next.Symptom.Length > 0 ? $"on the bench: {Row.Next.Symptom}"
        : "on the bench";
}

/// <summary>A batch as its owner sees it.</summary>
/// <param name="Board">The board.</param>
/// <param name="Units">Its units that count.</param>
public sealed record BatchSheet(LotBoard Board, IReadOnlyList<BatchUnit> Units)
{
    /// <summary>Units that are still in the shop.</summary>
    public IReadOnlyList<BatchUnit> Here { get; } = [.. Units.Where(u => u.IsHere)];

    /// <summary>What all that are here may cost together.</summary>
    public QuoteRange Range => new(Sum(u => u.Range.Low), Sum(u => u.Range.Likely), Sum(u => u.Range.High));

    /// <summary>Quotes that were given, together; null while one is not asked about.</summary>
    public Amount? Quoted => Together(u => u.Agreement.Quote?.Likely);

    /// <summary>Quotes at their highest, together.</summary>
    public decimal Most => Here.Sum(u => u.Agreement.Quote?.High ?? 0);

    /// <summary>What was agreed to at most, together; null while one is not answered.</summary>
    public Amount? Limit => Together(u => u.Agreement.Limit?.Value);

    /// <summary>How the owner stands to all of it: the first state that one of them is in, the most urgent first.</summary>
    public AgreementState State =>
        ((AgreementState[])[AgreementState.Exceeded, AgreementState.Waiting, AgreementState.NotAsked, AgreementState.Declined]).Where(s =>
                Here.Any(u => u.Agreement.State == s)
            )
            .DefaultIfEmpty(AgreementState.Agreed)
            .First();

    /// <summary>What is due for units, less what was paid.</summary>
    public static Amount Due(IEnumerable<BatchUnit> units, Currency currency) =>
        units.Select(u => u.Calls.Due).OfType<Amount>().Aggregate(new Amount(0, currency), (sum, due) => sum + due);

    private Currency Money => new(Board.Lot.Currency);

    private Amount Sum(Func<BatchUnit, Amount> of) => Here.Aggregate(new Amount(0, Money), (sum, u) => sum + new Amount(of(u).Value, Money));

    private Amount? Together(Func<BatchUnit, decimal?> of) =>
        Here.Count > 0 && Here.All(u => of(u) is not null) ? new Amount(Here.Sum(u => of(u)!.Value), Money) : null;
}

/// <summary>What leaves of a batch.</summary>
/// <param name="Units">Units with the reason why one goes although not all is proved; blank where all is.</param>
/// <param name="To">Who takes them.</param>
/// <param name="WarrantyUntil">Last day of a warranty, or null.</param>
/// <param name="Paid">What was paid now; null for nothing.</param>
public sealed record BatchLeaves(IReadOnlyList<(long Number, string Reason)> Units, string To, DateOnly? WarrantyUntil, decimal? Paid);

/// <summary>A customer's batch: one quote, one answer, handed over whole or in part.</summary>
public sealed class BatchDesk(OwnerDesk owners, LastCallsDesk lastCalls, HandOverDesk handOver, MoneyDesk money, Ledger ledger)
{
    /// <summary>The batch as its owner sees it.</summary>
    public BatchSheet Open(LotBoard board) =>
        new(
            board,
            [
                .. board
                    .Rows.Where(r => !r.Place.Apart)
                    .Select(r => new BatchUnit(r, owners.Range(r.View), owners.Agreement(r.View), lastCalls.Of(r.View))),
            ]
        );

    /// <summary>One quote for all that is here: each bears its part by what it is likely to cost.</summary>
    public Deed<Done> Quote(BatchSheet sheet, QuoteGiven quote, bool waits, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (sheet.Here.Count == 0)
                    return Refusal.Invalid("Nothing of it is in the shop.");
                if (quote.Low < 0 || quote.Low > quote.Likely || quote.Likely > quote.High)
                    return Refusal.Invalid("A quote goes from low over likely to high.");
                var (low, more, most) = (
                    Shares(sheet, quote.Low),
                    Shares(sheet, quote.Likely - quote.Low),
                    Shares(sheet, quote.High - quote.Likely)
                );
                foreach (var (unit, n) in sheet.Here.Select((u, n) => (u, n)))
                {
                    var own = quote with
                    {
                        Low = low[n],
                        Likely = low[n] + more[n],
                        High = low[n] + more[n] + most[n],
                        Works = quote.Works.Length > 0 ? quote.Works : $"one of {sheet.Here.Count} brought together",
                    };
                    if (owners.Quote(unit.Row.Item.Number, own, waits && unit.Bar is not null).Refusal is { } refused)
                        return refused;
                }

                return new Done($"Quoted {new Amount(quote.Likely, quote.Currency)} for {sheet.Here.Count} units.");
            }
        );

    /// <summary>One answer to it: a limit for all is parted as the quote was.</summary>
    public Deed<Done> Answer(BatchSheet sheet, QuoteAnswered answer, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                var asked = sheet.Here.Where(u => u.Agreement.Quote is not null).ToList();
                if (asked.Count == 0)
                    return Refusal.Invalid("Nothing was quoted yet.");
                if (answer.UpTo is < 0)
                    return Refusal.Invalid("A limit is not negative.");
                var limits = answer.UpTo is { } most
                    ? PriceSpread.Of(new Amount(most, answer.Currency).Rounded(), [.. asked.Select(u => u.Agreement.Quote!.High)])
                    : null;
                foreach (var (unit, n) in asked.Select((u, n) => (u, n)))
                    if (owners.Answer(unit.Row.Item.Number, answer with { UpTo = limits?[n].Value }).Refusal is { } refused)
                        return refused;
                return new Done(
                    answer.Approved ? $"Agreed{(answer.UpTo is { } top ? $", up to {new Amount(top, answer.Currency)}" : "")}." : "Declined."
                );
            }
        );

    /// <summary>Some of it, or all, is handed over, and paid or not.</summary>
    /// <param name="sheet">The batch.</param>
    /// <param name="leaves">What leaves.</param>
    /// <param name="today">The shop's day.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> HandOver(BatchSheet sheet, BatchLeaves leaves, DateOnly today, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                var going = sheet.Here.Where(u => leaves.Units.Any(l => l.Number == u.Row.Item.Number)).ToList();
                if (going.Count == 0 || going.Count < leaves.Units.Count)
                    return Refusal.Invalid("Choose what is handed over: what is ready is chosen already.");
                if (Pay(sheet, going, leaves.Paid, today) is { } unpaid)
                    return unpaid;
                foreach (var unit in going)
                {
                    var reason = leaves.Units.First(l => l.Number == unit.Row.Item.Number).Reason;
                    var closed = handOver.Close(
                        new CloseOrder(unit.Row.Item.Number, JobEnd.Returned, "", unit.Bar is null ? "" : reason, null, true, leaves.To, leaves.WarrantyUntil)
                    );
                    if (closed.Refusal is { } refused)
                        return refused with { Problem = $"{unit.Row.View.Job.Tag}: {refused.Problem}" };
                }

                var left = sheet.Here.Count - going.Count;
                return new Done($"{Count(going.Count)} handed over{(left > 0 ? $", {left} still here" : ": that is all of it")}.");
            }
        );

    /// <summary>Something is paid ahead for all that is here: each bears its part by what it is likely to cost.</summary>
    public Deed<Done> PayAhead(BatchSheet sheet, decimal sum, DateOnly today, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (sum <= 0 || sheet.Here.Count == 0)
                    return Refusal.Invalid("Say how much was paid ahead.");
                var shares = Shares(sheet, sum);
                foreach (var (unit, n) in sheet.Here.Select((u, n) => (u, n)))
                    if (shares[n] > 0 && Paid(unit, "deposit", shares[n], today) is { } refused)
                        return refused;
                return new Done($"Paid ahead: {new Amount(sum, sheet.Board.Lot.Currency)}.");
            }
        );

    private Refusal? Pay(BatchSheet sheet, IReadOnlyList<BatchUnit> going, decimal? paid, DateOnly today)
    {
        if (paid is not { } sum || sum == 0)
            return null;
        var currency = new Currency(sheet.Board.Lot.Currency);
        var due = BatchSheet.Due(going, currency);
        if (sum < 0 || sum > due.Value)
            return Refusal.Invalid($"{due} is due for these: not more can be paid for them here.");
        var shares = PriceSpread.Of(new Amount(sum, currency).Rounded(), [.. going.Select(u => u.Calls.Due?.Value ?? 0)]);
        return going.Select((u, n) => shares[n].Value > 0 ? Paid(u, "payment", shares[n].Value, today) : null).FirstOrDefault(r => r is not null);
    }

    private Refusal? Paid(BatchUnit unit, string kind, decimal sum, DateOnly today) =>
        money
            .Pay(
                unit.Row.Item.Number,
                new Payment
                {
                    Kind = kind,
                    Amount = sum,
                    Day = DayText.Write(today),
                    Words = "",
                }
            )
            .Refusal;

    private static IReadOnlyList<decimal> Shares(BatchSheet sheet, decimal sum) =>
        [
            .. PriceSpread
                .Of(new Amount(sum, sheet.Board.Lot.Currency).Rounded(), [.. sheet.Here.Select(u => u.Range.Likely.Value)])
                .Select(a => a.Value),
        ];

    private static string Count(int units) => units == 1 ? "One unit" : $"{units} units";
}
