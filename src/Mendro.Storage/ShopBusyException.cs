namespace Mendro.Storage;

/// <summary>Another program has held the database for longer than anyone should wait; nothing was changed.</summary>
public sealed class ShopBusyException(Exception? inner = null)
    : Exception("The shop's file is in use by another program. Nothing was changed; try again.", inner);
