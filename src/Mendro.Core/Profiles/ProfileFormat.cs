namespace Mendro.Core.Profiles;

/// <summary>Rules of <c>mendro.profile/1</c> that several members share; the schema is made from them.</summary>
public static class ProfileFormat
{
    /// <summary>Ids inside a profile.</summary>
    public const string IdPattern = "^[a-z0-9][a-z0-9-]*$";

    /// <summary>Id of a model; it is also the name of a file.</summary>
    public const string ModelIdPattern = "^[a-z0-9][a-z0-9-]{0,60}$";

    /// <summary>Most minutes of one step at the bench.</summary>
    public const int MostMinutes = 600;

    /// <summary>Most parts of one model. A board of more is described coarser, or as models of its own: with 200 parts every page
    /// of a job took seconds.</summary>
    public const int MostParts = 80;

    /// <summary>Most feeds.</summary>
    public const int MostFeeds = 160;

    /// <summary>Most functions.</summary>
    public const int MostFunctions = 30;

    /// <summary>Most probes.</summary>
    public const int MostProbes = 80;

    /// <summary>Most board revisions.</summary>
    public const int MostRevisions = 20;

    /// <summary>Most cautions that hold for the whole unit.</summary>
    public const int MostHazards = 20;

    /// <summary>Most connectors that can be swept.</summary>
    public const int MostConnectors = 20;

    /// <summary>Most rows of contacts of one connector.</summary>
    public const int MostRows = 8;

    /// <summary>Most contacts of one row.</summary>
    public const int MostContacts = 100;

    /// <summary>Number that a row of contacts may begin with, either way.</summary>
    public const int FurthestContact = 10_000;

    /// <summary>Most that numbers may grow by from one contact to the next, either way.</summary>
    public const int LongestStep = 999;

    /// <summary>Most fasteners.</summary>
    public const int MostFasteners = 200;

    /// <summary>Most steps of taking it apart.</summary>
    public const int MostSteps = 60;

    /// <summary>Most checks.</summary>
    public const int MostChecks = 40;

    /// <summary>Most boards.</summary>
    public const int MostBoards = 8;

    /// <summary>Most zones, parts, capacitors or drawings of one board.</summary>
    public const int MostBoardItems = 120;

    /// <summary>Most points of the nets of one board.</summary>
    public const int MostBoardPoints = 2000;

    /// <summary>Most nets of one board.</summary>
    public const int MostNets = 600;

    /// <summary>Most corners of one outline.</summary>
    public const int MostCorners = 200;

    /// <summary>Furthest that a place of a board lies from its corner, mm.</summary>
    public const double FurthestMm = 2000;

    /// <summary>Longest note on a model, characters.</summary>
    public const int LongestNote = 4000;
}

/// <summary>A member that a file may leave out; it is then empty or has its usual value.</summary>
[AttributeUsage(AttributeTargets.Property)]
public sealed class MayBeMissingAttribute : Attribute;
