using Mendro.Core.Profiles;

namespace Mendro.Shop;

/// <summary>A hand that holds the meter's tips and the supply's leads by itself: the demo's. In a real shop the technician's own
/// does.</summary>
public interface IBenchHand
{
    /// <summary>True when such a hand is there.</summary>
    bool Running { get; }

    /// <summary>True while it keeps the tips off the board.</summary>
    bool HeldOff { get; }

    /// <summary>Moves the tips to a point of a job's unit.</summary>
    void Reach(JobView view, Probe probe);

    /// <summary>Moves the tips across one contact of a connector.</summary>
    void ReachContact(JobView view, Connector connector, Contact contact);

    /// <summary>Moves the tips to two points of the boards.</summary>
    void ReachLine(JobView view, TraceSheet sheet, string a, string b);

    /// <summary>Keeps the tips off the board, or lets them follow again.</summary>
    void HoldOff(bool off);

    /// <summary>Hangs a job's unit on the supply.</summary>
    void Connect(JobView view);

    /// <summary>Pulls the meter's cable for a moment.</summary>
    void CutLinks();
}

/// <summary>No hand: the technician's own holds the tips.</summary>
public sealed class NoHand : IBenchHand
{
    /// <inheritdoc/>
    public bool Running => false;

    /// <inheritdoc/>
    public bool HeldOff => false;

    /// <inheritdoc/>
    public void Reach(JobView view, Probe probe) { }

    /// <inheritdoc/>
    public void ReachContact(JobView view, Connector connector, Contact contact) { }

    /// <inheritdoc/>
    public void ReachLine(JobView view, TraceSheet sheet, string a, string b) { }

    /// <inheritdoc/>
    public void HoldOff(bool off) { }

    /// <inheritdoc/>
    public void Connect(JobView view) { }

    /// <inheritdoc/>
    public void CutLinks() { }
}
