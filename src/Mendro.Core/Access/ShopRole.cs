namespace Mendro.Core.Access;

/// <summary>What somebody is in the shop.</summary>
public enum ShopRole
{
    /// <summary>Everything: settings, accounts, export.</summary>
    Owner,

    /// <summary>Works on units, orders, buys, sells.</summary>
    Technician,

    /// <summary>Takes in, hands over, speaks with owners; sees no costs.</summary>
    Counter,

    /// <summary>Looks at the work, changes nothing, sees no costs.</summary>
    LookerOn,
}

/// <summary>What a page or an action asks for.</summary>
public enum Right
{
    /// <summary>Nothing: the way in, and what is said when something is wrong.</summary>
    Anyone,

    /// <summary>To be known: one's own password and sessions.</summary>
    Own,

    /// <summary>Looking at what the counter needs: which units are here, whose they are, when they are ready.</summary>
    LookAtCounter,

    /// <summary>Looking at the work on units, and at what Mendro knows.</summary>
    Look,

    /// <summary>Looking at what things cost and bring.</summary>
    LookAtCosts,

    /// <summary>Taking in, handing over, speaking with owners.</summary>
    Counter,

    /// <summary>Working on units, models, stock, lots, orders.</summary>
    Work,

    /// <summary>Settings, accounts, programs, erasing and taking out data.</summary>
    Rule,
}

/// <summary>Who may what.</summary>
public static class RoleRights
{
    /// <summary>All roles with their names and what they are for.</summary>
    public static IReadOnlyList<(ShopRole Role, string Name, string May)> Words { get; } =
    [
        (ShopRole.Owner, "owner", "everything, with settings, accounts and export"),
        (ShopRole.Technician, "technician", "works on units, orders, buys and sells"),
        (ShopRole.Counter, "counter", "takes in, hands over, speaks with owners; sees no costs"),
        (ShopRole.LookerOn, "looker-on", "sees the work, changes nothing; sees no costs"),
    ];

    /// <summary>Name of a role.</summary>
    public static string Name(ShopRole role) => Words.First(w => w.Role == role).Name;

    /// <summary>True when a role has a right.</summary>
    public static bool Has(ShopRole role, Right right) =>
        right is Right.Anyone or Right.Own or Right.LookAtCounter
        || role switch
        {
            ShopRole.Owner => true,
            ShopRole.Technician => right != Right.Rule,
            ShopRole.Counter => right == Right.Counter,
            ShopRole.LookerOn => right == Right.Look,
            _ => false,
        };
}
