using System.ComponentModel.DataAnnotations;

namespace Mendro.Core.Profiles;

/// <summary>A connector or cartridge edge whose contacts can be swept one by one.</summary>
/// <param name="Id">Id, unique in the profile.</param>
/// <param name="Name">Name as the bench says it.</param>
/// <param name="Part">Part whose contacts these are.</param>
/// <param name="Probe">Continuity probe that the result of a sweep is filed under, or null when it is no evidence.</param>
/// <param name="Rows">Rows of contacts as they lie: left and right, or front and back.</param>
public sealed record Connector(
    [property: RegularExpression(ProfileFormat.IdPattern)] string Id,
    [property: MaxLength(80)] string Name,
    PartId Part,
    ProbeId? Probe,
    [property: MinLength(1), MaxLength(ProfileFormat.MostRows)] IReadOnlyList<ContactRow> Rows
)
{
    /// <summary>All contacts, row by row.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public IReadOnlyList<Contact> Contacts => Rows.SelectMany(r => r.Contacts).ToList();
}

/// <summary>A row of contacts.</summary>
/// <param name="Name">Name, such as left.</param>
/// <param name="First">Number of the first contact.</param>
/// <param name="Step">What the number grows by from one to the next; −1 and 2 occur.</param>
/// <param name="Lines">What each contact carries: a group, and a name where it has one: <c>address A3</c>.</param>
public sealed record ContactRow(
    [property: MaxLength(80)] string Name,
    [property: Range(-ProfileFormat.FurthestContact, ProfileFormat.FurthestContact)] int First,
    [property: Range(-ProfileFormat.LongestStep, ProfileFormat.LongestStep)] int Step,
    [property: MinLength(1), MaxLength(ProfileFormat.MostContacts)] IReadOnlyList<string> Lines
)
{
    /// <summary>The contacts in the order they lie.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public IReadOnlyList<Contact> Contacts =>
        Lines
            .Select(
                (line, n) =>
                {
                    var words = line.Split(' ', 2);
                    return new Contact(First + n * Step, Name, n, words[0], words.Length > 1 ? words[1] : words[0]);
                }
            )
            .ToList();
}

/// <summary>One contact.</summary>
/// <param name="Number">Number by the profile.</param>
/// <param name="Row">Row it lies in.</param>
/// <param name="Place">Place in the row from 0; neighbours differ by one.</param>
/// <param name="Group">Contact group of the library.</param>
/// <param name="Line">Name of its line.</param>
public sealed record Contact(int Number, string Row, int Place, string Group, string Line);

/// <summary>A kind of line and what its break looks like on the screen.</summary>
/// <param name="Id">Id used in profiles.</param>
/// <param name="Name">Name.</param>
/// <param name="Broken">What a break looks like.</param>
/// <param name="Looks">Look ids of the library that fit.</param>
/// <param name="Source">Where this comes from.</param>
public sealed record ContactGroup(string Id, string Name, string Broken, IReadOnlyList<string> Looks, string Source);
