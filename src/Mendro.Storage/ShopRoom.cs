namespace Mendro.Storage;

/// <summary>Whether the shop's disk takes anything. It is known when something could not be written, and looked at again until it can.</summary>
/// <param name="folder">Folder of the shop.</param>
/// <param name="time">Clock.</param>
public sealed class ShopRoom(string folder, TimeProvider time)
{
    private const string Tried = ".room";
    private const int Bytes = 256 * 1024;
    private static readonly TimeSpan Again = TimeSpan.FromSeconds(3);

    private readonly Lock _lock = new();
    private DateTimeOffset _looked;
    private string? _problem;

    /// <summary>Something could not be written.</summary>
    public void Lost(string why)
    {
        lock (_lock)
            (_problem, _looked) = (why, time.GetUtcNow());
    }

    /// <summary>Something was written.</summary>
    public void Found()
    {
        // Asked with every write: nothing is locked while all is well.
        if (Volatile.Read(ref _problem) is not null)
            lock (_lock)
                _problem = null;
    }

    /// <summary>Why nothing can be written, or null; where something could not be, it is tried again.</summary>
    public string? Problem
    {
        get
        {
            if (Volatile.Read(ref _problem) is null)
                return null;
            lock (_lock)
            {
                if (_problem is null || time.GetUtcNow() - _looked < Again)
                    return _problem;
                _looked = time.GetUtcNow();
                return _problem = Try();
            }
        }
    }

    /// <summary>Tries whether there is room.</summary>
    /// <returns>Null when there is, else why not.</returns>
    public string? Try()
    {
        var file = Path.Combine(folder, Tried);
        try
        {
            using (var stream = new FileStream(file, FileMode.Create, FileAccess.Write))
            {
                stream.Write(new byte[Bytes]);
                stream.Flush(flushToDisk: true);
            }

            File.Delete(file);
            return null;
        }
        catch (Exception ex) when (ex is IOException or UnauthorizedAccessException)
        {
            try
            {
                File.Delete(file);
            }
            catch (Exception left) when (left is IOException or UnauthorizedAccessException)
            {
                // It is swept with the next start.
            }

            return ShopFullException.Reason(ex) ?? "The disk takes nothing";
        }
    }

    /// <summary>Takes away what was left half written: parts of pictures and backups, restores and imports that were broken off.</summary>
    /// <returns>How many files and folders.</returns>
    public int Sweep()
    {
        var swept = 0;
        try
        {
            if (!Directory.Exists(folder))
                return 0;
            string[] files =
            [
                .. Directory.EnumerateFiles(folder, "*.part", SearchOption.AllDirectories),
                .. Directory.EnumerateFiles(folder, Tried),
                .. Directory.EnumerateFiles(folder, "export-*.zip"),
            ];
            foreach (var file in files)
            {
                File.Delete(file);
                swept++;
            }

            string[] half = [".restoring-*", ".importing-*", "export-*"];
            foreach (var left in half.SelectMany(h => Directory.EnumerateDirectories(folder, h)).ToList())
            {
                Directory.Delete(left, recursive: true);
                swept++;
            }
        }
        catch (Exception ex) when (ex is IOException or UnauthorizedAccessException)
        {
            // What cannot be taken away lies there until the next start.
        }

        return swept;
    }
}
