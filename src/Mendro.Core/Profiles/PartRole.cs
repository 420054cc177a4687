namespace Mendro.Core.Profiles;

/// <summary>What a kind of part does in a unit. The library gives each kind its roles; rules ask for a role, never for a kind.</summary>
public enum PartRole
{
    /// <summary>Holds charge and, once charged, feeds the unit alone.</summary>
    Store,

    /// <summary>Makes a rail of its own: what is behind it cannot pull down what is before it.</summary>
    Converter,

    /// <summary>Where power enters: nothing upstream of it makes the volts.</summary>
    Source,

    /// <summary>The battery pack itself.</summary>
    Pack,

    /// <summary>A pack with lithium's dangers.</summary>
    Lithium,

    /// <summary>The small cell that keeps a save.</summary>
    SaveCell,

    /// <summary>An adapter outside the unit.</summary>
    Adapter,

    /// <summary>Lies on the way from the pack to the regulator: its volts are still the pack's.</summary>
    PackPath,

    /// <summary>Contacts of a bay: volts of the cells are taken at them, with what is lost between cell and contact.</summary>
    Bay,

    /// <summary>Holds its output at a fixed voltage.</summary>
    Regulates,

    /// <summary>Regulates by burning the excess: wants headroom.</summary>
    Linear,

    /// <summary>Should conduct at all times.</summary>
    Contact,

    /// <summary>Conducts in one position and not in the other.</summary>
    Switch,

    /// <summary>A fuse.</summary>
    Fuse,

    /// <summary>Sound and picture have lines of their own in it: one may be lost alone.</summary>
    Lines,

    /// <summary>Plugs, ribbons and wires: moved when a unit is opened.</summary>
    Moved,

    /// <summary>Starts the unit over and over until the game answers it: without one nothing blinks for want of a game.</summary>
    Restarts,
}

/// <summary>Tells the roles of part kinds; the library does.</summary>
public interface IPartRoles
{
    /// <summary>True when the kind plays the role; false for a kind nobody knows.</summary>
    bool Has(string partKind, PartRole role);
}
