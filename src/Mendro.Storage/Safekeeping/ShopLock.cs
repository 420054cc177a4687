namespace Mendro.Storage;

/// <summary>Held by whoever works on a shop's folder, so that nobody swaps the files under a running shop. Gone with the process.</summary>
public sealed class ShopLock : IDisposable
{
    private readonly FileStream _file;

    private ShopLock(FileStream file) => _file = file;

    /// <summary>Takes the lock of a folder.</summary>
    /// <param name="folder">Folder of the shop; made if it is not there.</param>
    /// <returns>The lock, or null while another process holds it.</returns>
    public static ShopLock? TryTake(string folder)
    {
        Directory.CreateDirectory(folder);
        try
        {
            return new ShopLock(
                new FileStream(Path.Combine(folder, "shop.lock"), FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None)
            );
        }
        catch (IOException)
        {
            return null;
        }
    }

    /// <inheritdoc/>
    public void Dispose() => _file.Dispose();
}
