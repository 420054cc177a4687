using Mendro.Core.Scheduling;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>A piece of work with its time.</summary>
/// <param name="Item">It.</param>
/// <param name="Start">Begin, UTC.</param>
/// <param name="End">End, UTC.</param>
/// <param name="Person">Number of who does it, from 1; null for what goes on by itself.</param>
public sealed record DayEntry(DayItem Item, DateTimeOffset Start, DateTimeOffset End, int? Person);

/// <summary>A promise, and how it stands.</summary>
/// <param name="Job">Job.</param>
/// <param name="Due">Last open moment of the day that was promised, UTC; null when that day is over.</param>
/// <param name="Ends">When the plan has it done, UTC, or null.</param>
/// <param name="Chance">Chance that it is kept, 0 to 1.</param>
/// <param name="ChanceFirst">The same when it is done before all else.</param>
/// <param name="Honest">Day by which it is done with the shop's certainty, or null.</param>
/// <param name="InDanger">True when the chance is below that certainty.</param>
public sealed record PromiseWatch(
    Job Job,
    DateTimeOffset? Due,
    DateTimeOffset? Ends,
    double Chance,
    double ChanceFirst,
    DateOnly? Honest,
    bool InDanger
);

/// <summary>Something to see to before one goes.</summary>
/// <param name="Words">What.</param>
/// <param name="Number">Job, or null.</param>
/// <param name="GoesOn">True when it goes on by itself over the night and may.</param>
public sealed record LeaveLine(string Words, long? Number, bool GoesOn);

/// <summary>The day: what is done when.</summary>
/// <param name="Now">Moment it is shown for, UTC.</param>
/// <param name="Terms">Who is there, and what they share.</param>
/// <param name="Entries">Planned pieces, in order of time.</param>
/// <param name="Changes">What moved since the plan before, and why.</param>
/// <param name="Closed">When nobody is there, minutes from now.</param>
/// <param name="Promises">Promises, those in danger first.</param>
/// <param name="Fresh">False while it is planned anew.</param>
/// <param name="Proved">True when no plan is better.</param>
/// <param name="Waiting">Units not worked out yet, and so not in it.</param>
public sealed record DayBoard(
    DateTimeOffset Now,
    DayTerms Terms,
    IReadOnlyList<DayEntry> Entries,
    IReadOnlyList<PlanChange> Changes,
    IReadOnlyList<Stretch> Closed,
    IReadOnlyList<PromiseWatch> Promises,
    bool Fresh,
    bool Proved,
    int Waiting
)
{
    /// <summary>What each person does now, or next.</summary>
    public IReadOnlyList<DayEntry> Next =>
        Entries
            .Where(e => e.Person is not null && e.Item.Task.Begun is null or 0 && e.End > Now)
            .GroupBy(e => e.Person)
            .Select(g => g.MinBy(e => e.Start)!)
            .OrderBy(e => e.Person)
            .ToList();

    /// <summary>What goes on by itself now.</summary>
    public IReadOnlyList<DayEntry> Meanwhile => Entries.Where(e => e.Person is null && e.Start <= Now && e.End > Now).ToList();

    /// <summary>What does not fit into today: the last first.</summary>
    /// <param name="closing">Last open moment of today, or null when it is over.</param>
    public IReadOnlyList<DayEntry> Dropped(DateTimeOffset? closing) =>
        Entries.Where(e => e.Person is not null && e.End > (closing ?? Now)).GroupBy(e => e.Item.Lane).Select(g => g.First()).ToList();
}
