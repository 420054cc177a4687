namespace Mendro.Storage;

/// <summary>The shop's file cannot be written at the moment; nothing was changed.</summary>
public class ShopBusyException : Exception
{
    /// <summary>Another program has held it for longer than anyone should wait.</summary>
    public ShopBusyException(Exception? inner = null)
        : this("The shop's file is in use by another program. Nothing was changed; try again.", inner) { }

    /// <summary>For another reason.</summary>
    protected ShopBusyException(string message, Exception? inner)
        : base(message, inner) { }
}
