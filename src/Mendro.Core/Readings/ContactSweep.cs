using Mendro.Core.Electrical;
using Mendro.Core.Evidence;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;

namespace Mendro.Core.Readings;

/// <summary>What one contact did.</summary>
public enum ContactState
{
    /// <summary>It conducts.</summary>
    Beep,

    /// <summary>It does not conduct, or only through many ohms.</summary>
    Silent,

    /// <summary>It beeps to its next neighbour in the row.</summary>
    Short,

    /// <summary>It conducts only when it is pressed hard: dirty, or sprung too little.</summary>
    Pressed,
}

/// <summary>One contact as found.</summary>
/// <param name="Number">Contact number.</param>
/// <param name="State">What it did.</param>
/// <param name="Ohms">Resistance when it was told, ohms.</param>
public sealed record ContactMark(int Number, ContactState State, double? Ohms);

/// <summary>A group that is affected.</summary>
/// <param name="Group">Group.</param>
/// <param name="Contacts">Its contacts that are silent, shorted, or conduct only when pressed.</param>
/// <param name="Seen">A look recorded on this unit that fits, or null.</param>
public sealed record AffectedGroup(ContactGroup Group, IReadOnlyList<Contact> Contacts, string? Seen);

/// <summary>The result of a sweep over a connector.</summary>
/// <param name="Tried">Contacts tried.</param>
/// <param name="All">Contacts to try.</param>
/// <param name="Silent">Contacts that do not conduct.</param>
/// <param name="Pressed">Contacts that conduct only when pressed hard.</param>
/// <param name="Shorts">Pairs of neighbours that are joined.</param>
/// <param name="Affected">Groups affected, those with most contacts first.</param>
/// <param name="Outcome">Evidence: abnormal as soon as one is silent, shorted or conducts only when pressed, normal when all conduct, null before.</param>
/// <param name="Stop">Caution id when a supply contact is shorted, or null.</param>
public sealed record ContactSweep(
    int Tried,
    int All,
    IReadOnlyList<Contact> Silent,
    IReadOnlyList<Contact> Pressed,
    IReadOnlyList<(Contact A, Contact B)> Shorts,
    IReadOnlyList<AffectedGroup> Affected,
    ProbeOutcome? Outcome,
    string? Stop
)
{
    /// <summary>The result in a few words.</summary>
    public string Words
    {
        get
        {
            var parts = new List<string> { $"{Tried - Silent.Count - Pressed.Count} of {Tried} beep" };
            if (Pressed.Count > 0)
                parts.Add($"only when pressed {string.Join(", ", Pressed.Select(c => c.Number))}");
            if (Silent.Count > 0)
                parts.Add($"silent {string.Join(", ", Silent.Select(c => c.Number))}");
            if (Shorts.Count > 0)
                parts.Add($"joined {string.Join(", ", Shorts.Select(s => $"{s.A.Number}–{s.B.Number}"))}");
            return string.Join("; ", parts);
        }
    }

    /// <summary>State of a contact by its ohms: what is dirty or cracked counts as silent, even if the buzzer sounds.</summary>
    public static ContactState StateOf(double? ohms) =>
        ohms is { } value && value <= BenchLimits.Shipped.Contact.DirtyOhms ? ContactState.Beep : ContactState.Silent;

    /// <summary>Reads what was typed or metered across a contact: a beep, none, or ohms.</summary>
    /// <param name="number">Number of the contact.</param>
    /// <param name="text">What was typed.</param>
    /// <param name="what">What it was taken at, as a sentence begins.</param>
    public static Outcome<ContactMark> Read(int number, string? text, string what)
    {
        if (text?.Contains("press", StringComparison.OrdinalIgnoreCase) == true)
            return Outcome<ContactMark>.Ok(new ContactMark(number, ContactState.Pressed, null));
        var read = ReadingParser.Parse(text, ReadingUnit.Ohms);
        if (!read.IsOk)
            return Outcome<ContactMark>.Fail(read.Problem);
        if (read.Value.Unit is not (ReadingUnit.Ohms or ReadingUnit.Beep or ReadingUnit.OverRange))
            return Outcome<ContactMark>.Fail($"{what} wants the buzzer: beep, no beep, or ohms.");
        return Outcome<ContactMark>.Ok(
            read.Value.Unit == ReadingUnit.Beep
                ? new ContactMark(number, read.Value.Value > 0 ? ContactState.Beep : ContactState.Silent, null)
                : new ContactMark(number, StateOf(read.Value.Value), read.Value.Value)
        );
    }

    /// <summary>Judges a sweep.</summary>
    /// <param name="connector">Connector.</param>
    /// <param name="marks">Contacts found so far; one a number.</param>
    /// <param name="groups">Groups of the library.</param>
    /// <param name="looks">Look ids recorded on this unit.</param>
    public static ContactSweep Judge(
        Connector connector,
        IReadOnlyList<ContactMark> marks,
        IReadOnlyList<ContactGroup> groups,
        IReadOnlySet<string> looks
    )
    {
        var contacts = connector.Contacts;
        var found = marks
            .Where(m => contacts.Any(c => c.Number == m.Number))
            .GroupBy(m => m.Number)
            .ToDictionary(g => g.Key, g => g.Last());
        List<Contact> Used(ContactState state) =>
            contacts.Where(c => found.TryGetValue(c.Number, out var mark) && mark.State == state && c.Group != "unused").ToList();
        var (silent, pressed) = (Used(ContactState.Silent), Used(ContactState.Pressed));
        var shorts = contacts
            .Where(c => found.TryGetValue(c.Number, out var mark) && mark.State == ContactState.Short)
            .Select(c => (A: c, B: Neighbour(contacts, c)))
            .Where(p => p.B is not null)
            .Select(p => (p.A, B: p.B!))
            .ToList();
        var hurt = silent.Concat(pressed).Concat(shorts.SelectMany(s => new[] { s.A, s.B })).Distinct().ToList();
        var affected = hurt.GroupBy(c => c.Group)
            .Select(g => (Group: groups.FirstOrDefault(k => k.Id == g.Key), Contacts: g.ToList()))
            .Where(g => g.Group is not null)
            .Select(g => new AffectedGroup(g.Group!, g.Contacts, g.Group!.Looks.FirstOrDefault(looks.Contains)))
            .OrderByDescending(g => g.Contacts.Count)
            .ThenBy(g => g.Group.Id, StringComparer.Ordinal)
            .ToList();
        var wanted = contacts.Where(c => c.Group != "unused").ToList();
        ProbeOutcome? outcome =
            hurt.Count > 0 ? ProbeOutcome.Abnormal
            : wanted.All(c => found.ContainsKey(c.Number)) ? ProbeOutcome.Normal
            : null;
        // Supply joined to anything but supply is a short as soon as power comes on.
        var stop = shorts.Any(s => s.A.Group == "supply" != (s.B.Group == "supply")) ? "short" : null;
        return new ContactSweep(found.Count, contacts.Count, silent, pressed, shorts, affected, outcome, stop);
    }

    /// <summary>The next contact in the same row, or null at its end.</summary>
    public static Contact? Neighbour(IReadOnlyList<Contact> contacts, Contact contact) =>
        contacts.FirstOrDefault(c => c.Row == contact.Row && c.Place == contact.Place + 1);
}
