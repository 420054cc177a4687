namespace Mendro.Core.Jobs;

/// <summary>
/// A job among the records of a shop. It is not the number on the tag, which people read and type, and it is not the id of a
/// record; the compiler tells them apart. 0 is a job that is not filed yet.
/// </summary>
/// <param name="Value">Id of the row, above 0 once filed.</param>
public readonly record struct JobId(long Value)
{
    /// <summary>The id in digits.</summary>
    public override string ToString() => Value.ToString(System.Globalization.CultureInfo.InvariantCulture);
}
