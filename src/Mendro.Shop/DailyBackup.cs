using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>The shop's own backups: one a day, kept by rotation.</summary>
/// <param name="folder">Folder of the shop.</param>
/// <param name="today">Day by the shop's own clock.</param>
/// <param name="time">Clock.</param>
public sealed class DailyBackup(string folder, Func<DateOnly> today, TimeProvider time)
{
    private readonly BackupRotation _rotation = new(folder);

    /// <summary>Where they lie.</summary>
    public string Folder => _rotation.Folder;

    /// <summary>The backups kept, newest first.</summary>
    public IReadOnlyList<KeptBackup> Kept => _rotation.Kept();

    /// <summary>Why the last one could not be taken, or null.</summary>
    public string? Problem { get; private set; }

    /// <summary>Takes today's backup unless there is one.</summary>
    /// <returns>True when one was taken.</returns>
    public bool TakeWhenDue() => Kept.All(b => b.Day != today()) && Take() is null;

    /// <summary>Takes a backup now, in the place of an earlier one of today.</summary>
    /// <returns>Null when it was taken, else why not.</returns>
    public string? Take()
    {
        try
        {
            _rotation.Take(today(), time.GetUtcNow());
            return Problem = null;
        }
        catch (Exception ex) when (ex is ShopFileException or ShopBusyException or IOException or UnauthorizedAccessException)
        {
            return Problem = ex.Message;
        }
    }
}
