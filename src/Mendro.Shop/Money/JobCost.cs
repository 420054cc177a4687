using Mendro.Core.Money;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>What a job has cost so far. The one place where it is added up.</summary>
/// <param name="PerHour">The shop's rate an hour.</param>
/// <param name="Labour">Work at the shop's rate; null when the job is reckoned in another currency and no rate of it is known.</param>
/// <param name="Parts">Parts, in the job's currency.</param>
/// <param name="Paid">What was paid for the unit, or null.</param>
public sealed record JobCost(Amount PerHour, Amount? Labour, Amount Parts, Amount? Paid)
{
    /// <summary>What its owner is charged and why, as prices are named; null when the work has no price in its currency.</summary>
    public JobCharge? Charged { get; init; }

    /// <summary>The sum of it.</summary>
    public Amount? Charge => Charged?.Sum;

    /// <summary>What its owner has to pay: the charge, with the tax that comes on top of it.</summary>
    public Amount? Owed { get; init; }

    /// <summary>Tax that comes on top, or is in it.</summary>
    public Amount Tax { get; init; }

    /// <summary>Tax by the day of the work.</summary>
    public TaxRule TaxRule { get; init; } = TaxRule.None;

    /// <summary>Work and parts; null when the work has no price in the job's currency.</summary>
    public Amount? WorkAndParts => Labour is { } labour ? labour + Parts : null;

    /// <summary>Work, parts and what was paid; null likewise.</summary>
    public Amount? Together =>
        WorkAndParts is { } sum
            ? Paid is { } paid
                ? sum + paid
                : sum
            : null;
}

/// <summary>Adds jobs up, by the hour, the rates and the tax of their day.</summary>
public sealed class CostDesk(MoneyStore money, JournalStore journal, SettingsStore settings, TimeProvider time)
{
    /// <summary>Adds a job up. A closed one keeps the hour, the rate and the tax of the day on which it was closed.</summary>
    public JobCost Of(JobView view)
    {
        var (job, rate, hour) = (view.Job, Rate(view), settings.Get().PerHour);
        var perHour = job is { ClosedAt: not null, HourAtClose: { } then } ? hour with { Value = then } : hour;
        var charged = JobCharge.Of(view.Records, view.MinutesSpent, perHour, view.Currency, rate);
        var rule = journal.Tax(Day(job));
        var (_, tax, paid) = rule.Of(charged?.Sum.Value ?? 0, view.Currency);
        return new JobCost(perHour, Labour.For(view.MinutesSpent, perHour, view.Currency, rate), view.PartsCost, job.In(job.Paid))
        {
            Charged = charged,
            Owed = charged is null ? null : new Amount(paid, view.Currency),
            Tax = new Amount(tax, view.Currency),
            TaxRule = rule,
        };
    }

    /// <summary>Tax that applies today.</summary>
    public TaxRule TaxToday => journal.Tax(ShopZone.Day(time.GetUtcNow(), settings, time));

    /// <summary>What an hour costs now, in the currency of a job where a rate of that is known, else in the shop's.</summary>
    public Amount Hour(JobView view)
    {
        var hour = settings.Get().PerHour;
        return Labour.For(60, hour, view.Currency, Rate(view)) ?? hour;
    }

    // What one of the job's currency is worth in the shop's.
    private decimal? Rate(JobView view) =>
        view.Currency.Code == settings.Get().Currency ? 1 : money.Rate(view.Currency.Code, Day(view.Job));

    private DateOnly Day(Job job) => ShopZone.Day(job.ClosedAt ?? time.GetUtcNow(), settings, time);
}
