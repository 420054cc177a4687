namespace Mendro.Storage;

/// <summary>One line of a job's timeline.</summary>
public sealed partial record TimelineEntry
{
    /// <summary>Sort of what passed between the shop and who pays.</summary>
    public const string Money = "money";

    private static readonly string[] BetweenOwnerAndShop = [Money, "quote", "quote-answer", "owner-told", "consent", "handed-over", "final-price"];

    // Written before such entries had a sort of their own.
    private static readonly string[] OldBeginnings = ["Sold for ", "Paid", "Came back from its buyer", "Offered", "A payment ", "Bill ", "No longer offered"];

    /// <summary>When, UTC.</summary>
    public DateTimeOffset At { get; init; }

    /// <summary>Sort of entry, for its mark.</summary>
    public string Kind { get; init; } = "";

    /// <summary>True when it is between the shop and who pays or buys: what a unit was sold for and to whom.</summary>
    public bool IsBetween =>
        BetweenOwnerAndShop.Contains(Kind) || (Kind == "life" && OldBeginnings.Any(b => Words.StartsWith(b, StringComparison.Ordinal)));

    /// <summary>The same without sums of money: for who sees no costs.</summary>
    public TimelineEntry WithoutSums() => this with { Words = Sums().Replace(Words, "a sum") };

    [System.Text.RegularExpressions.GeneratedRegex(@"−?[€£$¥]\d+(\.\d+)?|−?\d+(\.\d+)? [A-Z]{3}\b")]
    private static partial System.Text.RegularExpressions.Regex Sums();

    /// <summary>What happened, in words.</summary>
    public string Words { get; init; } = "";

    /// <summary>Who did it; blank for Mendro itself, and for a shop without accounts.</summary>
    public string DoneBy { get; init; } = "";
}
