using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Money;
using Mendro.Core.Proving;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>Hand over: to owner, sale or parts, or on a shelf with a reason.</summary>
public sealed class HandOverModel(
    JobStore jobs,
    BenchDesk desk,
    CostDesk costs,
    HandOverDesk handOver,
    OwnerDesk owners,
    LastCallsDesk lastCalls,
    FinalPriceDesk prices,
    RunDesk runs,
    MethodDesk methods,
    ShopCalendar calendar,
    TradeLibrary library
)
    : JobPageModel(jobs, desk, library)
{
    /// <summary>Reason, as typed.</summary>
    public string? Reason { get; private set; }

    /// <summary>Words for the sheet, as typed.</summary>
    public string? Note { get; private set; }

    /// <summary>Asking price, as typed.</summary>
    public string? Asking { get; private set; }

    /// <summary>Who takes it, as typed.</summary>
    public string? To { get; private set; }

    /// <summary>Last day of the warranty, as typed.</summary>
    public string? WarrantyUntil { get; private set; }

    /// <summary>Why it waits, as typed.</summary>
    public string? Why { get; private set; }

    /// <summary>What to try next, as typed.</summary>
    public string? Next { get; private set; }

    /// <summary>Part on its way, as typed.</summary>
    public string? PartName { get; private set; }

    /// <summary>Day on which it comes back, as typed.</summary>
    public string? Until { get; private set; }

    /// <summary>Grade under which it is offered.</summary>
    public ConditionGrade Grade { get; private set; } = ConditionGrade.Good;

    /// <summary>What the job has cost so far.</summary>
    public JobCost Cost { get; private set; } = null!;

    /// <summary>How the owner stands to it; null for shop stock.</summary>
    public OwnerAgreement? Agreement { get; private set; }

    /// <summary>Why it may not go without a reason, or null.</summary>
    public string? Bar => View.Proof.Bar(null, HandOverDesk.Kept(View.Model, View.Records));

    /// <summary>What fails and stays so, with the reason.</summary>
    public IReadOnlyList<string> ButFor { get; private set; } = [];

    /// <summary>What is on the test plan and was not tried.</summary>
    public IReadOnlyList<string> NotTried { get; private set; } = [];

    /// <summary>Parts that were changed and of which nobody told a price, with what they usually cost, in the shop's currency.</summary>
    public IReadOnlyList<(string Part, Amount Usual)> UntoldParts =>
        [
            .. View.All<RepairLogged>()
                .Where(r => r.Record.Cost is null && r.Body is { Claimed: not true, Used.Length: 0 })
                .Select(r => (Part: View.Profile.FindPart(r.Body.Part), Method: Library.FindMethod(r.Body.Method)))
                .Where(r => r is { Part: not null, Method: { Type: MethodType.Replace, PartsCost: > 0 } })
                .Select(r => (r.Part!.Name, new Amount(r.Method!.PartsCost, Cost.PerHour.Currency))),
        ];

    /// <summary>What is good in it.</summary>
    public IReadOnlyList<DonorPart> Parts => HandOverDesk.Parts(View);

    /// <summary>Cautions for taking it to pieces.</summary>
    public IEnumerable<Caution> Hazards => View.Hazards.Inside;

    /// <summary>Modifications done, to be disclosed.</summary>
    public IEnumerable<string> Modifications =>
        runs.Modifications(View.Job).Select(m => m.Words + (m.Originals.Length > 0 ? $" (originals: {m.Originals})" : ""));

    /// <summary>Readings that the unit can leave as a known-good one; none while anything is unproved.</summary>
    public IReadOnlyList<GoodReading> Leaves => View.Proof.Complete ? HandOverDesk.Leaves(View.Job, View.Records) : [];

    /// <summary>Where the calls at its end stand.</summary>
    public LastCalls Calls => lastCalls.Of(View);

    /// <summary>Earlier job whose warranty still runs for this unit, by number; null for none.</summary>
    public long? Warranty => prices.Warranty(View.Job, calendar.Today);

    /// <summary>True when another price was told and not taken.</summary>
    public bool Reprice { get; private set; }

    /// <summary>Charges another sum, with its reason.</summary>
    public IActionResult OnPostPrice(string? why, string? price, string? of, string? priceWords)
    {
        if (!Prepare())
            return NotFound();
        Remember(("price", price), ("of", of), ("priceWords", priceWords));
        Reprice = true;
        if (!Enum.TryParse<PriceReason>(why, out var reason) || !Enum.IsDefined(reason))
            return Refuse("Say why it is another price.");
        if (Amount.TryRead(price, View.Currency, out var amount) is { } wrong)
            return Refuse(wrong);
        if (amount is null && reason is PriceReason.Agreed or PriceReason.Discount)
            return Refuse("Say what is charged in the end.");
        var job = Words.Number(of) is { } told and > 0 and < 1e9 && reason == PriceReason.Warranty ? (long)told : default(long?);
        return Answer(
            prices.Set(Number, new FinalPrice(amount?.Value ?? 0, View.Job.Currency, reason, job, Words.Clean(priceWords)), Once, Cost.WorkAndParts),
            done =>
            {
                TempData["Said"] = done.Words;
                return ToJob("HandOver");
            }
        );
    }

    /// <summary>The part came that it waits for.</summary>
    public IActionResult OnPostCame() => Called(() => lastCalls.PartCame(View, Once));

    /// <summary>It is mended whatever it brings, or weighed again.</summary>
    public IActionResult OnPostAnyway(bool anyway) =>
        Prepare()
            ? Answer(
                handOver.Anyway(Number, anyway, Once),
                done =>
                {
                    TempData["Said"] = done.Words;
                    return ToJob("Find");
                }
            )
            : NotFound();

    /// <summary>The owner was told that it is ready.</summary>
    public IActionResult OnPostTold() => Called(() => lastCalls.Told(View, Once));

    /// <summary>What is due was paid.</summary>
    public IActionResult OnPostPaid() => Called(() => lastCalls.Paid(View, calendar.Today, Once));

    private IActionResult Called(Func<Deed<Done>> call) =>
        Prepare()
            ? Answer(
                call(),
                done =>
                {
                    TempData["Said"] = done.Words;
                    return ToJob("HandOver");
                }
            )
            : NotFound();

    /// <summary>Shows the page.</summary>
    public IActionResult OnGet() => Prepare() ? Page() : NotFound();

    /// <summary>Closes the job.</summary>
    public IActionResult OnPost(
        string? end,
        string? reason,
        string? note,
        string? asking,
        bool leave,
        string? to,
        string? warranty,
        string? grade,
        string[]? part
    )
    {
        if (!Prepare())
            return NotFound();
        (Reason, Note, Asking, To, WarrantyUntil) = (reason, note, asking, to ?? "", warranty);
        Grade = PaperDesk.Honest(View, ConditionGrade.Find(grade));
        if (!Enum.TryParse<JobEnd>(end, out var ending) || ending == JobEnd.Open || !Enum.IsDefined(ending))
            return Refuse("Choose where it goes.");
        if (Amount.TryRead(asking, View.Currency, out var price) is { } wrong)
            return Refuse(wrong);
        if (!Day(warranty, out var until))
            return Refuse("The warranty ends on a day such as 2027-11-26.");
        var order = new CloseOrder(
            Number,
            ending,
            Words.Clean(note),
            Words.Clean(reason),
            price?.Value,
            leave,
            Words.Clean(to),
            until,
            Grade.Id,
            Parts.Where(p => part?.Contains(p.Part) == true).ToList()
        );
        return Answer(
            handOver.Close(order, Once),
            done =>
            {
                // What came of its repairs counts for the methods from now on.
                methods.Closed(Number);
                TempData["Said"] = done.Words;
                return ToJob("Sheet");
            }
        );
    }

    /// <summary>Puts the job on a shelf.</summary>
    public IActionResult OnPostShelf(string? shelf, string? why, string? next, string? partName, string? until)
    {
        if (!Prepare())
            return NotFound();
        (Why, Next, PartName, Until) = (why, next, partName, until);
        if (!Day(until, out var day))
            return Refuse("It comes back on a day such as 2026-12-01.");
        var place = Enum.TryParse<Shelf>(shelf, out var told) ? told : Shelf.None;
        return Answer(
            handOver.Shelve(Number, place, Words.Clean(why), Words.Clean(next), Once, Words.Clean(partName), day),
            done =>
            {
                TempData["Said"] = done.Words;
                return RedirectToPage("/Index");
            }
        );
    }

    private static bool Day(string? text, out DateOnly? day)
    {
        day = null;
        if (string.IsNullOrWhiteSpace(text))
            return true;
        day = DayText.Read(text.Trim());
        return day is not null;
    }

    private bool Prepare()
    {
        if (!Load())
            return false;
        Cost = costs.Of(View);
        Agreement = View.Job.ShopStock ? null : owners.Agreement(View);
        Grade = PaperDesk.GradeOf(View);
        var plan = ProveDesk.Plan(View);
        ButFor = plan.ButFor.Select(MoveWords.Lower).ToList();
        NotTried = plan.NotTried.Select(i => i.Name).ToList();
        return true;
    }
}
