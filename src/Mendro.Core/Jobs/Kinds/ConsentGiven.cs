using Mendro.Core.Diagnosis;
using Mendro.Core.Profiles;

namespace Mendro.Core.Jobs;

/// <summary>How an owner said yes.</summary>
public enum ConsentWay
{
    /// <summary>At the counter.</summary>
    InPerson,

    /// <summary>On the phone.</summary>
    Phone,

    /// <summary>In writing.</summary>
    Writing,
}

/// <summary>The owner agreed to a modification. The record has the moment.</summary>
/// <param name="Part">Part to be modified.</param>
/// <param name="Method">The modification.</param>
/// <param name="Who">Who said so.</param>
/// <param name="How">How.</param>
[RecordKind("consent")]
public sealed record ConsentGiven(PartId Part, MethodId Method, string Who, ConsentWay How) : RecordBody
{
    /// <summary>Longest name, characters.</summary>
    public const int LongestWho = 80;

    /// <inheritdoc/>
    public override string Subject => Part;

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) =>
        $"{Who} agreed {HowWords(How)}: {MoveWords.Lower(model.Library.FindMethod(Method)?.Name ?? Method)}";

    /// <summary>A way in words.</summary>
    public static string HowWords(ConsentWay how) =>
        how switch
        {
            ConsentWay.InPerson => "in person",
            ConsentWay.Phone => "on the phone",
            _ => "in writing",
        };
}
