using System.Globalization;
using Mendro.Core.Diagnosis;
using Mendro.Core.Money;

namespace Mendro.Core.Planning;

/// <summary>Is it worth going on, and until when.</summary>
/// <param name="Verdict">Two or three words.</param>
/// <param name="GoOn">True when it is worth going on.</param>
/// <param name="ChanceToCure">Chance to cure the function worked on when one goes on, 0 to 1; the verdict of money never changes it, and
/// 0 says that nothing known is left to try, not that nothing helps.</param>
/// <param name="MinutesMore">Work to expect, minutes.</param>
/// <param name="StopAfterMinutes">Minutes after which to stop.</param>
/// <param name="CostMore">Work and parts to expect, at the shop's rate; null when there is nothing to go on for.</param>
/// <param name="Brings">What curing adds times the chance to cure; null when that is not known or in another currency than the
/// rate.</param>
public sealed record WorthLine(
    string Verdict,
    bool GoOn,
    double ChanceToCure,
    double MinutesMore,
    double StopAfterMinutes,
    Amount? CostMore = null,
    Amount? Brings = null
)
{
    /// <summary>True when going on costs more than curing it would bring.</summary>
    public bool IsTooDear => Brings is { } gain && CostMore is { } cost && gain.Value < cost.Value;

    /// <summary>Minutes of work an uncured unit may cost when its value is not known (a guess; common practice, no source).</summary>
    public const double DefaultUncuredMinutes = 120;

    private const double LeastMinutes = 5;

    /// <summary>Minutes of work that what is at stake would pay.</summary>
    /// <param name="values">Values of the unit; in another currency than the rate they cannot be weighed against it.</param>
    /// <param name="perHour">Shop rate an hour.</param>
    public static double UncuredMinutes(UnitValues values, Amount perHour) =>
        IsKnown(values, perHour)
            ? Math.Max(LeastMinutes, (double)(values.AtStake!.Value.Value / perHour.Value) * 60)
            : DefaultUncuredMinutes;

    /// <summary>True when what is at stake can be weighed against the shop rate.</summary>
    public static bool IsKnown(UnitValues values, Amount perHour) =>
        values.AtStake is { } stake && perHour.Value > 0 && stake.Currency == perHour.Currency;

    /// <summary>Judges advice made with <see cref="UncuredMinutes"/>.</summary>
    /// <param name="advice">Advice for a unit in which something fails.</param>
    /// <param name="values">Values of the unit.</param>
    /// <param name="perHour">Shop rate an hour; the library's costs of parts are taken in its currency.</param>
    /// <param name="anyway">True when it is mended whatever it brings.</param>
    public static WorthLine Judge(Advice advice, UnitValues values, Amount perHour, bool anyway = false)
    {
        if (advice.Outlook is not { } outlook || advice.EndsWith == Move.StopId && outlook.ChanceToCure <= 0)
            return new WorthLine(advice.EndsWith == Move.StopId ? "Beyond repair" : "Nothing known explains it", false, 0, 0, 0);
        var cost = (Labour.Exact(outlook.WorkMinutes, perHour) + new Amount((decimal)outlook.Parts, perHour.Currency)).Rounded();
        var brings =
            values.AtStake is { } stake && stake.Currency == perHour.Currency
                ? (stake * (decimal)outlook.ChanceToCure).Rounded()
                : default(Amount?);
        var verdict =
            advice.EndsWith == Move.StopId ? string.Create(CultureInfo.InvariantCulture, $"Not worth it at {perHour} an hour")
            : advice.EndsWith == Move.AsideId ? "Little is left to try"
            : anyway ? "Mended anyway"
            : brings is { } gain && gain.Value < cost.Value ? "Hardly worth it"
            : outlook.ChanceToCure >= 0.5 ? "Worth going on"
            : "A gamble";
        return new WorthLine(verdict, advice.EndsWith is null, outlook.ChanceToCure, outlook.WorkMinutes, outlook.StopMinutes, cost, brings);
    }
}
