using Mendro.Core.Library;

namespace Mendro.Core.Profiles;

/// <summary>What sort of thing a profile describes.</summary>
public enum DeviceKind
{
    /// <summary>Battery handheld.</summary>
    Handheld,

    /// <summary>Cartridge or hard-disk console.</summary>
    Console,

    /// <summary>Optical-disc console.</summary>
    DiscConsole,

    /// <summary>Cartridge, with or without a save cell.</summary>
    Cartridge,

    /// <summary>Controller.</summary>
    Controller,

    /// <summary>Adapter, cable or other accessory.</summary>
    Accessory,
}

/// <summary>What a feed carries from one part to the next.</summary>
public enum Carries
{
    /// <summary>Supply current.</summary>
    Power,

    /// <summary>Digital lines.</summary>
    Data,

    /// <summary>Picture.</summary>
    Video,

    /// <summary>Sound.</summary>
    Audio,

    /// <summary>Buttons, pads, sticks.</summary>
    Input,

    /// <summary>Light.</summary>
    Light,

    /// <summary>Movement.</summary>
    Motion,
}

/// <summary>What a probe point asks of the technician.</summary>
public enum ProbeKind
{
    /// <summary>Volts to ground.</summary>
    Volts,

    /// <summary>Resistance.</summary>
    Ohms,

    /// <summary>Buzzer.</summary>
    Continuity,

    /// <summary>Diode mode.</summary>
    Diode,

    /// <summary>Capacitance.</summary>
    Capacitance,

    /// <summary>Current drawn.</summary>
    Current,

    /// <summary>Look, with or without magnifier.</summary>
    Look,

    /// <summary>Press, wiggle, flex or turn and watch.</summary>
    Press,
}

/// <summary>How far the unit must be taken apart. Each state includes those before it.</summary>
public enum AccessState
{
    /// <summary>Nothing opened.</summary>
    Closed,

    /// <summary>Case open.</summary>
    Open,

    /// <summary>Board out of the case.</summary>
    BoardOut,

    /// <summary>One leg of the part lifted or the part removed.</summary>
    Lifted,
}
