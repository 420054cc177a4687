using System.ComponentModel.DataAnnotations;

namespace Mendro.Core.Profiles;

/// <summary>How a unit is fed.</summary>
public enum FedBy
{
    /// <summary>Single cells in a bay.</summary>
    Cells,

    /// <summary>A lithium pack with a charger.</summary>
    Lithium,

    /// <summary>An adapter outside.</summary>
    Adapter,

    /// <summary>Mains goes into the case.</summary>
    Mains,

    /// <summary>What it is plugged into.</summary>
    Host,
}

/// <summary>What goes into a unit.</summary>
public enum Takes
{
    /// <summary>Cartridges.</summary>
    Cartridge,

    /// <summary>Small cards.</summary>
    Card,

    /// <summary>Discs.</summary>
    Disc,

    /// <summary>Nothing.</summary>
    Nothing,
}

/// <summary>What comes out of a unit.</summary>
public enum Gives
{
    /// <summary>A picture on its own screen.</summary>
    OwnScreen,

    /// <summary>A picture for a screen outside.</summary>
    PictureOutput,

    /// <summary>Presses of buttons.</summary>
    Input,

    /// <summary>A program or a save.</summary>
    Data,

    /// <summary>Power.</summary>
    Power,

    /// <summary>A picture it only passes on.</summary>
    Picture,
}

/// <summary>What tells one build from another from outside: the three short questions to a name nobody knows.</summary>
/// <param name="Fed">How it is fed.</param>
/// <param name="Takes">What goes in.</param>
/// <param name="Gives">What comes out.</param>
/// <param name="Typical">Sections that are typical of such units and measured on none: fasteners, connectors, refdes.</param>
public sealed record BuildFacts(FedBy Fed, Takes Takes, Gives Gives, [property: MaxLength(10)] IReadOnlyList<string>? Typical = null);
