using Mendro.Core.Diagnosis;
using Mendro.Core.Money;

namespace Mendro.Core.Planning;

/// <summary>What a repair may cost its owner.</summary>
/// <param name="Low">When the next repair is the cure.</param>
/// <param name="Likely">What is to be expected.</param>
/// <param name="High">Where one would stop.</param>
public sealed record QuoteRange(Amount Low, Amount Likely, Amount High)
{
    /// <summary>
    /// Works it out of the plan: what was done already, and testing at the end, are in all three; the low end adds the quickest repair that
    /// may cure, the likely one the expected work, the high end all minutes until one stops, with the parts in proportion.
    /// </summary>
    /// <param name="advice">Advice for the unit; nothing to do adds nothing.</param>
    /// <param name="spentMinutes">Minutes so far.</param>
    /// <param name="spentParts">Parts so far, in the currency of the rate.</param>
    /// <param name="testMinutes">Minutes to test everything at the end.</param>
    /// <param name="perHour">The shop's rate an hour.</param>
    public static QuoteRange Of(Advice advice, double spentMinutes, decimal spentParts, double testMinutes, Amount perHour)
    {
        Amount Price(double minutes, double parts) =>
            (
                Labour.Exact(spentMinutes + minutes + testMinutes, perHour)
                + new Amount(spentParts + (decimal)parts, perHour.Currency)
            ).Rounded();

        if (advice.Outlook is not { } outlook)
            return new QuoteRange(Price(0, 0), Price(0, 0), Price(0, 0));
        var repairs = advice.Moves.Where(m => m is { Repair: not null, ChanceToWork: > 0 }).ToList();
        var (quick, cheap) = repairs.Count > 0 ? repairs.Select(m => (m.Minutes, (double)m.PartsCost)).Min() : (outlook.WorkMinutes, outlook.Parts);
        var stretch = outlook.WorkMinutes > 0 ? Math.Max(1, outlook.StopMinutes / outlook.WorkMinutes) : 1;
        var low = Price(Math.Min(quick, outlook.WorkMinutes), Math.Min(cheap, outlook.Parts));
        var likely = Price(outlook.WorkMinutes, outlook.Parts);
        var high = Price(Math.Max(outlook.StopMinutes, outlook.WorkMinutes), outlook.Parts * stretch);
        return new QuoteRange(low, likely, high);
    }
}
