using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Money;
using Mendro.Core.Planning;
using Mendro.Core.Quantities;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>The owner of a unit: what it may cost, what was agreed, whom to call and what was said.</summary>
public sealed class OwnerModel(
    JobStore jobs,
    BenchDesk desk,
    OwnerDesk owners,
    MoneyDesk money,
    CostDesk costs,
    ShopCalendar calendar,
    DayDesk day,
    TradeLibrary library
) : JobPageModel(jobs, desk, library)
{
    /// <summary>What the owner paid, ahead or afterwards.</summary>
    public IReadOnlyList<Payment> Payments => money.Payments(View.Job.Id);

    /// <summary>Payments that were taken away as a mistake.</summary>
    public IReadOnlyList<Payment> TakenAway => money.TakenAway(View.Job.Id);

    /// <summary>What usually goes through the bank.</summary>
    public MoneyWays Ways => money.Ways;

    // An answer is in the currency of its quote.
    private Currency Asked => Agreement.Quote is { } quote ? new Currency(quote.Currency) : Range.Low.Currency;

    /// <summary>Day that can honestly be said, with what lies before it on the bench; null when nobody is at the bench.</summary>
    public DateOnly? Honest => View.Job.ClosedAt is null ? day.Honest(calendar.Zone, View) : null;

    /// <summary>How sure that is, 0 to 1.</summary>
    public double Certainty => day.Terms.Certainty;

    /// <summary>Today, as days are kept.</summary>
    public string Today => DayText.Write(calendar.Today);

    /// <summary>Range out of the plan.</summary>
    public QuoteRange Range { get; private set; } = null!;

    /// <summary>How the owner stands to it.</summary>
    public OwnerAgreement Agreement { get; private set; } = null!;

    /// <summary>What the job has cost so far.</summary>
    public JobCost Cost { get; private set; } = null!;

    /// <summary>What passed between shop and owner, newest first.</summary>
    public IEnumerable<BenchRecord> Said =>
        View.Records.Where(r => r.Body is QuoteGiven or QuoteAnswered or OwnerTold or ConsentGiven or HandedOver).Reverse();

    /// <summary>Works that the quote is for, as they follow from the plan.</summary>
    public string Works =>
        View.Advice.Moves.FirstOrDefault(m => m.Repair is { } r && Library.FindPartKind(r.Part.Kind)?.Gear != true) is { } first ? first.Title
        : View.Diagnosis?.Target is { } target ? $"find out why {Core.Diagnosis.MoveWords.Lower(target.Name)} fails, and repair it"
        : "what was done";

    /// <summary>Shows the page.</summary>
    public IActionResult OnGet() => Prepare() ? Page() : NotFound();

    /// <summary>Notes a quote.</summary>
    public IActionResult OnPostQuote(string? low, string? likely, string? high, string? works, string? how, bool waits)
    {
        if (!Keep(("low", low), ("likely", likely), ("high", high), ("works", works)))
            return NotFound();
        var currency = Range.Low.Currency;
        var amounts = new List<decimal>();
        foreach (var text in (string?[])[low, likely, high])
        {
            if (Amount.TryRead(text, currency, out var read) is { } wrong || read is null)
                return Refuse("A quote has three amounts: low, likely and high.");
            amounts.Add(read.Value.Value);
        }

        var quote = new QuoteGiven(amounts[0], amounts[1], amounts[2], currency.Code, Words.Clean(works), Way(how));
        return Answer(owners.Quote(Number, quote, waits, Once), Told);
    }

    /// <summary>Notes the answer.</summary>
    public IActionResult OnPostAnswer(string? answer, string? upTo, string? who, string? how, string? words)
    {
        if (!Keep(("upTo", upTo), ("who", who), ("words", words)))
            return NotFound();
        if (Amount.TryRead(upTo, Asked, out var most) is { } wrong)
            return Refuse(wrong);
        if (answer is not ("yes" or "no"))
            return Refuse("Say whether the owner agreed.");
        var said = new QuoteAnswered(
            answer == "yes",
            answer == "yes" ? most?.Value : null,
            Asked.Code,
            Words.Clean(who),
            Way(how),
            Words.Clean(words)
        );
        return Answer(owners.Answer(Number, said, Once), Told);
    }

    /// <summary>Notes a call.</summary>
    public IActionResult OnPostTell(string? matter, string? who, string? how, string? words)
    {
        if (!Keep(("who", who), ("words", words)))
            return NotFound();
        if (!Enum.TryParse<OwnerMatter>(matter, out var told) || !Enum.IsDefined(told))
            return Refuse("Say what it was about.");
        return Answer(owners.Tell(Number, new OwnerTold(told, Words.Clean(who), Way(how), Words.Clean(words)), Once), Told);
    }

    /// <summary>Notes a payment.</summary>
    public IActionResult OnPostPay(string? kind, string? sum, string? day, string? paidWords, string? way)
    {
        if (!Keep(("sum", sum), ("day", day), ("paidWords", paidWords)))
            return NotFound();
        if (Amount.TryRead(sum, View.Currency, out var amount) is { } wrong || amount is null)
            return Refuse("Say how much was paid.");
        return Answer(
            money.Pay(
                Number,
                new Payment
                {
                    Kind = kind ?? "",
                    Amount = amount.Value.Value,
                    Day = Words.Clean(day),
                    Words = Words.Clean(paidWords),
                    Way = Words.Clean(way),
                },
                Once
            ),
            Told
        );
    }

    /// <summary>Takes a payment away that was noted by mistake, or brings it back.</summary>
    public IActionResult OnPostUnpay(long id, bool back) => Prepare() ? Answer(money.Unpay(Number, id, back, Once), Told) : NotFound();

    private static ConsentWay Way(string? how) =>
        Enum.TryParse<ConsentWay>(how, out var way) && Enum.IsDefined(way) ? way : ConsentWay.Phone;

    private IActionResult Told(Done done)
    {
        TempData["Said"] = done.Words;
        return ToJob("Owner");
    }

    private bool Keep(params (string Name, string? Value)[] typed)
    {
        Remember(typed);
        return Prepare();
    }

    private bool Prepare()
    {
        if (!Load())
            return false;
        (Range, Agreement, Cost) = (owners.Range(View), owners.Agreement(View), costs.Of(View));
        return true;
    }
}
