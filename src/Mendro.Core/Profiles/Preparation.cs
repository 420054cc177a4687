using System.ComponentModel.DataAnnotations;

namespace Mendro.Core.Profiles;

/// <summary>Minutes to take the unit apart to each state from the one before; paid once while it stays open.</summary>
/// <param name="Open">Closed to open.</param>
/// <param name="BoardOut">Open to board out.</param>
/// <param name="Lifted">Board out to a part lifted.</param>
public sealed record Preparation(
    [property: Range(0, ProfileFormat.MostMinutes)] double Open,
    [property: Range(0, ProfileFormat.MostMinutes)] double BoardOut,
    [property: Range(0, ProfileFormat.MostMinutes)] double Lifted
)
{
    /// <summary>Minutes from one state to another; nothing for going back.</summary>
    public double Minutes(AccessState from, AccessState to)
    {
        double total = 0;
        if (from < AccessState.Open && to >= AccessState.Open)
            total += Open;
        if (from < AccessState.BoardOut && to >= AccessState.BoardOut)
            total += BoardOut;
        if (from < AccessState.Lifted && to >= AccessState.Lifted)
            total += Lifted;
        return total;
    }
}
