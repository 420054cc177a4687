using Mendro.Core.Diagnosis;

namespace Mendro.Core.Planning;

/// <summary>What a unit is worth in each state, in the shop's currency.</summary>
/// <param name="Working">Value when it works, or null when not known.</param>
/// <param name="AsItStands">Value as it stands, or null.</param>
/// <param name="InParts">Value in parts, or null.</param>
public sealed record UnitValues(decimal? Working, decimal? AsItStands, decimal? InParts)
{
    /// <summary>What curing it adds, or null when the working value is not known.</summary>
    public decimal? AtStake => Working is { } working ? Math.Max(0, working - Math.Max(AsItStands ?? 0, InParts ?? 0)) : null;
}

/// <summary>Is it worth going on, and until when.</summary>
/// <param name="Verdict">Two or three words.</param>
/// <param name="GoOn">True when it is worth going on.</param>
/// <param name="ChanceToCure">Chance to cure the function worked on, 0 to 1.</param>
/// <param name="MinutesMore">Work to expect, minutes.</param>
/// <param name="StopAfterMinutes">Minutes after which to stop.</param>
/// <param name="CostMore">Work and parts to expect, in the shop's currency.</param>
/// <param name="Brings">What curing adds times the chance to cure, in the shop's currency; null when the values are not known.</param>
public sealed record WorthLine(
    string Verdict, bool GoOn, double ChanceToCure, double MinutesMore, double StopAfterMinutes, decimal CostMore = 0, decimal? Brings = null)
{
    /// <summary>Minutes of work an uncured unit may cost when its value is not known (a guess; common practice, no source).</summary>
    public const double DefaultUncuredMinutes = 120;

    /// <summary>Minutes of work that what is at stake would pay.</summary>
    /// <param name="values">Values of the unit.</param>
    /// <param name="ratePerHour">Shop rate, in the shop's currency per hour; above 0.</param>
    public static double UncuredMinutes(UnitValues values, decimal ratePerHour) =>
        values.AtStake is { } stake && ratePerHour > 0 ? Math.Max(5, (double)(stake / ratePerHour) * 60) : DefaultUncuredMinutes;

    /// <summary>Judges advice made with <see cref="UncuredMinutes"/>.</summary>
    /// <param name="advice">Advice for a unit in which something fails.</param>
    /// <param name="values">Values of the unit.</param>
    /// <param name="ratePerHour">Shop rate, in the shop's currency per hour.</param>
    public static WorthLine Judge(Advice advice, UnitValues values, decimal ratePerHour)
    {
        if (advice.Outlook is not { } outlook || outlook.ChanceToCure <= 0) return new WorthLine("Not worth going on", false, 0, 0, 0);
        var cost = decimal.Round((decimal)(outlook.WorkMinutes / 60) * ratePerHour + (decimal)outlook.Parts, 2);
        var brings = values.AtStake is { } stake ? decimal.Round(stake * (decimal)outlook.ChanceToCure, 2) : (decimal?)null;
        var verdict = brings is { } gain && gain < cost ? "Hardly worth it" : outlook.ChanceToCure >= 0.5 ? "Worth going on" : "A gamble";
        return new WorthLine(verdict, true, outlook.ChanceToCure, outlook.WorkMinutes, outlook.StopMinutes, cost, brings);
    }
}
