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
}

/// <summary>A member that a file may leave out; it is then empty or has its usual value.</summary>
[AttributeUsage(AttributeTargets.Property)]
public sealed class MayBeMissingAttribute : Attribute;
