namespace Mendro.Core.Diagnosis;

/// <summary>A part of a fault's chance: what one repair cured of it, or what none has.</summary>
/// <param name="Id">Id.</param>
/// <param name="Prior">Chance before anything is seen, 0 to 1.</param>
/// <param name="CreatedAt">Event after which it may be there; −1 from the beginning.</param>
/// <param name="CuredAt">Event that cured it; the largest integer when none has.</param>
internal sealed record FaultPiece(string Id, double Prior, int CreatedAt, int CuredAt)
{
    /// <summary>True when it can have caused what was seen at an event.</summary>
    public bool AliveAt(int at) => CreatedAt < at && at < CuredAt;
}
