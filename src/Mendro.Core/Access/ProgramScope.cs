namespace Mendro.Core.Access;

/// <summary>What another program may do; each right alone, so that it gets no more than it needs.</summary>
public static class ProgramScope
{
    /// <summary>Reads the bench and single jobs.</summary>
    public const string ReadJobs = "jobs.read";

    /// <summary>Takes units in.</summary>
    public const string TakeIn = "jobs.take-in";

    /// <summary>Files readings.</summary>
    public const string Readings = "readings.add";

    /// <summary>Adds pictures.</summary>
    public const string Pictures = "pictures.add";

    /// <summary>Reads stock levels.</summary>
    public const string Stock = "stock.read";

    /// <summary>Takes the whole shop out.</summary>
    public const string Export = "export";

    /// <summary>Reads the calendar.</summary>
    public const string Calendar = "calendar.read";

    /// <summary>All with what they are for.</summary>
    public static IReadOnlyList<(string Id, string Words)> All { get; } =
    [
        (ReadJobs, "read the bench and single jobs, without costs"),
        (TakeIn, "take units in"),
        (Readings, "add readings to jobs"),
        (Pictures, "add pictures to jobs"),
        (Stock, "read stock levels"),
        (Calendar, "read the calendar of promises and pick-ups"),
        (Export, "take the whole shop out, with owners and costs"),
    ];
}
