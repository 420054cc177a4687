namespace Mendro.StandIns;

/// <summary>One move of a played case.</summary>
/// <param name="Id">Id of the move.</param>
/// <param name="Answer">What came of it.</param>
/// <param name="Minutes">Minutes it took, taking apart included.</param>
public sealed record PlayedMove(string Id, string Answer, double Minutes);

/// <summary>A list of cures that was met.</summary>
/// <param name="Move">The repair that met it.</param>
/// <param name="Moves">Moves up to it, itself included.</param>
/// <param name="Minutes">Minutes up to it, its own included.</param>
public sealed record CureMet(string Move, int Moves, double Minutes);

/// <summary>How a case was played.</summary>
/// <param name="Id">Id of the case.</param>
/// <param name="Held">True when every cure was there within the limits and nothing forbidden ever came first.</param>
/// <param name="Ended"><c>cured</c>, <c>stop</c>, <c>aside</c>, <c>nothing-left</c>, <c>too-long</c> or <c>contradiction</c>.</param>
/// <param name="Cures">Lists met, in order.</param>
/// <param name="Missing">Lists of cures not met.</param>
/// <param name="Forbidden">Moves that came first though they never should.</param>
/// <param name="Moves">The moves played.</param>
/// <param name="Minutes">Minutes in all.</param>
/// <param name="Problem">Why the case could not be played, or null.</param>
public sealed record CaseResult(
    string Id,
    bool Held,
    string Ended,
    IReadOnlyList<CureMet> Cures,
    int Missing,
    IReadOnlyList<string> Forbidden,
    IReadOnlyList<PlayedMove> Moves,
    double Minutes,
    string? Problem = null
);

/// <summary>A casebook played from cover to cover.</summary>
/// <param name="Cases">The cases.</param>
public sealed record CasebookResult(IReadOnlyList<CaseResult> Cases)
{
    /// <summary>Cases held.</summary>
    public int Held => Cases.Count(c => c.Held);

    /// <summary>Cases in which something forbidden came first.</summary>
    public int WithForbidden => Cases.Count(c => c.Forbidden.Count > 0);

    /// <summary>Cases cured, or stopped where that was right, however long it took.</summary>
    public int Finished => Cases.Count(c => c.Missing == 0 && c.Ended is "cured" or "stop" or "aside");

    /// <summary>Share held, 0 to 1.</summary>
    public double ShareHeld => Cases.Count == 0 ? 0 : Held / (double)Cases.Count;
}
