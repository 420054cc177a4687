namespace Mendro.Storage;

/// <summary>A shop's file cannot be used as asked; the message is one plain sentence for whoever asked.</summary>
public sealed class ShopFileException(string message) : Exception(message);
