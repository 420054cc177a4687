using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Core.Papers;
using Mendro.Core.Planning;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>What selling costs, as the shop usually has it.</summary>
/// <param name="FeePercent">Fees as a share of the price, %.</param>
/// <param name="Postage">Postage.</param>
/// <param name="Packing">Packing.</param>
public sealed record SaleTerms(decimal FeePercent, decimal Postage, decimal Packing);

/// <summary>A price a unit of this model fetched.</summary>
/// <param name="Id">Row, for others' prices; null for an own sale.</param>
/// <param name="Day">Day.</param>
/// <param name="Grade">Condition.</param>
/// <param name="Price">Price.</param>
/// <param name="Words">What it was.</param>
public sealed record PriceSeen(long? Id, DateOnly Day, ConditionGrade Grade, Amount Price, string Words);

/// <summary>All that decides a price.</summary>
/// <param name="Grade">Grade of the unit.</param>
/// <param name="Estimate">What it may fetch; null without any price.</param>
/// <param name="Seen">Prices it rests on, newest first.</param>
/// <param name="OtherCurrencies">Prices left out because they are in other currencies.</param>
/// <param name="BreakEven">Price at which it pays for itself; null where work has no price in its currency.</param>
/// <param name="Terms">What selling costs.</param>
/// <param name="Sale">The sale, once it is offered.</param>
/// <param name="Listing">Text of the listing.</param>
public sealed record SaleSheet(
    ConditionGrade Grade,
    PriceEstimate? Estimate,
    IReadOnlyList<PriceSeen> Seen,
    int OtherCurrencies,
    Amount? BreakEven,
    SaleTerms Terms,
    Sale? Sale,
    string Listing
);

/// <summary>Selling: price out of what others fetched, listing, and what became of it.</summary>
public sealed class SaleDesk(
    JobBench bench,
    SaleStore sales,
    CostDesk costs,
    SettingsStore settings,
    PaperDesk papers,
    DoorWords door,
    Ledger ledger
)
{
    private const string TermsKey = "sale-terms";
    private const string TemplateKey = "listing-template";
    private const int LongestWords = 300;

    /// <summary>What selling usually costs here.</summary>
    public SaleTerms Terms =>
        Read(settings.Value(TermsKey)) is { } kept
            ? kept
            : new SaleTerms(0, 0, 0);

    private static SaleTerms? Read(string? json)
    {
        try
        {
            return json is null ? null : System.Text.Json.JsonSerializer.Deserialize<SaleTerms>(json);
        }
        catch (System.Text.Json.JsonException)
        {
            return null;
        }
    }

    /// <summary>The shop's template.</summary>
    public string Template => settings.Value(TemplateKey) is { Length: > 0 } own ? own : ListingText.Usual;

    /// <summary>Works a price out.</summary>
    /// <param name="view">The job.</param>
    /// <param name="grade">Grade to reckon with; null for that of the sale, or of what is known.</param>
    /// <param name="today">Today by the shop's clock.</param>
    /// <param name="day">Writes a day by the shop's clock.</param>
    public SaleSheet Open(JobView view, ConditionGrade? grade, DateOnly today, Func<DateTimeOffset, string> day)
    {
        var job = view.Job;
        var sale = sales.Find(job.Id);
        var told = grade ?? PaperDesk.Honest(view, ConditionGrade.Find(sale?.Condition));
        var own = sales
            .Sold(job.ProfileId)
            .Where(s => s.Sale.JobId != job.Id)
            .Select(s => new PriceSeen(
                null,
                DateOnly.FromDateTime(s.Sale.ChangedAt.UtcDateTime),
                ConditionGrade.Find(s.Sale.Condition) ?? ConditionGrade.Good,
                new Amount(s.Sale.Price!.Value, s.Currency),
                "own sale"
            ));
        var all = sales
            .Others(job.ProfileId)
            .Select(o => new PriceSeen(
                o.Id,
                o.On,
                ConditionGrade.Find(o.Condition) ?? ConditionGrade.Good,
                new Amount(o.Price, o.Currency),
                o.Words
            ))
            .Concat(own)
            .OrderByDescending(s => s.Day)
            .ToList();
        var seen = all.Where(s => s.Price.Currency == view.Currency && s.Price.Value > 0).ToList();
        var prices = seen.Select(s => new SoldPrice(Math.Max(0, today.DayNumber - s.Day.DayNumber), s.Grade, s.Price.Value, s.Id is null)).ToList();
        var terms = Terms;
        var (cost, rule) = (costs.Of(view).Together, costs.TaxToday);
        Amount? breakEven = cost is { } spent
            ? SaleSum.PriceFor(
                spent,
                terms.FeePercent / 100,
                new Amount(terms.Postage, spent.Currency),
                new Amount(terms.Packing, spent.Currency),
                rule,
                job.Paid ?? 0
            )
            : null;
        var estimate = PriceEstimate.Of(prices, told, view.Currency);
        return new SaleSheet(
            told,
            estimate,
            seen,
            all.Count - seen.Count,
            breakEven,
            terms,
            sale,
            Listing(view, told, estimate?.Asking, day)
        );
    }

    /// <summary>Adds what others fetched.</summary>
    public Deed<Done> Add(JobView view, IReadOnlyList<ComparablePrice> prices, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (prices.Count == 0)
                    return Refusal.Invalid("There is no price in it.");
                sales.Add(view.Job.ProfileId, prices);
                return new Done(prices.Count == 1 ? "Added." : $"{prices.Count} prices added.");
            }
        );

    /// <summary>Takes a price of another away, or brings it back.</summary>
    public Deed<Done> Remove(long id, bool back, string? once = null) => ledger.Once(once, () => sales.SetDeleted(id, !back));

    /// <summary>Keeps what selling costs, and the template.</summary>
    public Deed<Done> Keep(SaleTerms terms, string template, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (terms.FeePercent is < 0 or >= 100 || terms.Postage < 0 || terms.Packing < 0)
                    return Refusal.Invalid("Fees are 0 to below 100 %, postage and packing not negative.");
                if (ListingText.Problem(template) is { } wrong)
                    return Refusal.Invalid(wrong);
                settings.SetValue(TermsKey, System.Text.Json.JsonSerializer.Serialize(terms));
                settings.SetValue(TemplateKey, template);
                return new Done("Kept.");
            }
        );

    /// <summary>Notes what became of an offered unit. It may be closed: that is when it is sold.</summary>
    public Deed<Done> Becomes(long number, Sale became, string? once = null) =>
        bench.OnAny<Done>(
            number,
            once,
            job =>
            {
                if (sales.Find(job.Id) is not { } offered)
                    return Refusal.Invalid("This unit was not sent to sale.");
                if (became.State == SaleState.Sold && became.Price is null or < 0)
                    return Refusal.Invalid("Give the price that it fetched.");
                if (became.Fees < 0 || became.Postage < 0 || became.Packing < 0)
                    return Refusal.Invalid("Fees, postage and packing are not negative.");
                if (became.Words.Length > LongestWords)
                    return Refusal.Invalid($"The words take {LongestWords} characters.");
                sales.Save(
                    offered with
                    {
                        State = became.State,
                        Price = became.State == SaleState.Sold ? became.Price : offered.Price,
                        Fees = became.Fees,
                        Postage = became.Postage,
                        Packing = became.Packing,
                        Words = became.Words,
                        Tax = became.Treatment?.ToString() ?? "",
                    }
                );
                var words = became.State switch
                {
                    SaleState.Sold => $"Sold for {job.In(became.Price)}",
                    SaleState.Returned => "Came back from its buyer",
                    SaleState.Withdrawn => "No longer offered",
                    _ => "Offered again",
                };
                bench.NoteMoney(job, words + (became.Words.Length > 0 ? $": {became.Words}" : ""));
                if (became.State == SaleState.Returned && JobLife.Reopen(job.Status) is { } open)
                {
                    bench.Move(job, open, "came back from its buyer");
                    Hear(bench.Find(number)!, became.Words);
                    return new Done(words + ": its job is open again.");
                }

                return new Done(words + ".");
            }
        );

    // What a buyer says counts as what was tried: the old job knows what was done to the unit.
    private void Hear(OpenJob job, string words)
    {
        foreach (var said in ModelChange.Baseline(words, job.Model, door.Own))
            bench.File(job, said);
        bench.Settle(job, JobStep.Looked);
    }

    /// <summary>The text of a listing of several that are sold together.</summary>
    /// <param name="views">Units.</param>
    /// <param name="asking">Price for all, or null.</param>
    /// <param name="day">How a moment's day is written.</param>
    public string Together(IReadOnlyList<JobView> views, Amount? asking, Func<DateTimeOffset, string> day) =>
        $"{views.Count} together\n\n"
        + string.Join("\n\n", views.Select(v => Listing(v, PaperDesk.GradeOf(v), null, day, Part)))
        + (asking is { } price ? $"\n\nPrice for all: {price}" : "")
        + $"\n{settings.Get().ShopName}";

    // Of one among several: what it is and how it is; price and shop stand once.
    private const string Part =
        "{title}, board {revision}\nCondition: {grade} ({grade-words})\nTested and working: {works}\nFaults: {faults}\nNot tried: {not-tried}\n"
        + "Work done: {done}\nNot original: {modified}\nWith it: {with}\nNo. {tag}";

    private string Listing(JobView view, ConditionGrade grade, Amount? asking, Func<DateTimeOffset, string> day, string? template = null)
    {
        var paper = papers.Of(view, PaperKind.Sale, day);
        grade = PaperDesk.Honest(view, grade);
        string Lines(string heading) =>
            string.Join(", ", paper.Sections.FirstOrDefault(s => s.Heading == heading)?.Lines.Select(l => l.Words) ?? []);
        string Fact(string name) => paper.Facts.FirstOrDefault(f => f.Name == name).Value ?? "";
        return ListingText.Fill(
            template ?? Template,
            new Dictionary<string, string>
            {
                ["title"] = paper.Title,
                ["revision"] = view.Job.Revision,
                ["grade"] = grade.Name,
                ["grade-words"] = grade.Tell,
                ["works"] = Lines("Works, tried here"),
                ["faults"] = Lines("Faults"),
                ["not-tried"] = Lines("Not tried"),
                ["done"] = Lines("Renewed and repaired"),
                ["modified"] = Lines("Not original"),
                ["proof"] = Lines("Proof in numbers"),
                ["with"] = Fact("With it"),
                ["price"] = Fact("Asking price") is { Length: > 0 } offered ? offered : asking?.ToString() ?? "",
                ["tag"] = view.Job.Tag,
                ["shop"] = settings.Get().ShopName,
            }
        );
    }
}
