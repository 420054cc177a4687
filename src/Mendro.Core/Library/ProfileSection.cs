using Mendro.Core.Profiles;

namespace Mendro.Core.Library;

/// <summary>
/// A section of a profile that a technician adds while working: its record is a member of <see cref="DeviceProfile"/>, and here
/// are its check, its text form and how the editor shows it. A new section is one class more; nothing else has to be told.
/// </summary>
public abstract class ProfileSection
{
    private static readonly Lazy<IReadOnlyList<ProfileSection>> Found = new(() =>
        typeof(ProfileSection)
            .Assembly.GetTypes()
            .Where(t => !t.IsAbstract && t.IsSubclassOf(typeof(ProfileSection)))
            .OrderBy(t => t.Name, StringComparer.Ordinal)
            .Select(t => (ProfileSection)Activator.CreateInstance(t)!)
            .ToList()
    );

    /// <summary>All sections.</summary>
    public static IReadOnlyList<ProfileSection> All => Found.Value;

    /// <summary>Name of the member in the format.</summary>
    public abstract string Key { get; }

    /// <summary>Heading in the editor.</summary>
    public abstract string Title { get; }

    /// <summary>What to write, in a few words behind the heading.</summary>
    public abstract string Hint { get; }

    /// <summary>An example, shown while the field is empty.</summary>
    public abstract string Example { get; }

    /// <summary>What is known that can be named there, or null.</summary>
    public virtual string? Known(TradeLibrary library) => null;

    /// <summary>Writes the section as text.</summary>
    public abstract string Write(DeviceProfile profile);

    /// <summary>Reads the section from text into a profile.</summary>
    /// <param name="profile">Profile to put it into.</param>
    /// <param name="text">Text; blank for no such section.</param>
    /// <param name="problems">What could not be read, with its line.</param>
    public abstract DeviceProfile Read(DeviceProfile profile, string? text, out IReadOnlyList<ProfileProblem> problems);

    /// <summary>Lists what is wrong with the section as it stands in a profile.</summary>
    /// <param name="profile">Profile.</param>
    /// <param name="library">Library it must fit.</param>
    /// <param name="report">Takes the place and the problem.</param>
    public abstract void Check(DeviceProfile profile, TradeLibrary library, Action<string, string> report);
}
