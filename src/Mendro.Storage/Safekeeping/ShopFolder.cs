using System.Runtime.InteropServices;

namespace Mendro.Storage;

/// <summary>
/// A shop's folder is its owner's alone: it holds names and addresses of customers. On Linux and macOS the folder is 700 and its
/// files are 600; on Windows the rights of the user's own folders are as narrow already.
/// </summary>
public static class ShopFolder
{
    private const UnixFileMode Folder = UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute;
    private const UnixFileMode File = UnixFileMode.UserRead | UnixFileMode.UserWrite;

    private const uint GroupAndOthers = 0b000_111_111;

    // What belongs to a shop; anything else in the folder is not ours to touch.
    private static readonly string[] OwnFolders = ["keys", "backups", PictureFiles.FolderName];

    /// <summary>From now on this process makes files for its user alone, those of libraries too. Nothing on Windows.</summary>
    public static void NarrowNewFiles()
    {
        if (!OperatingSystem.IsWindows())
            _ = Umask(GroupAndOthers);
    }

    /// <summary>Makes the folder if it is not there, and closes it and the shop's own files to others.</summary>
    /// <exception cref="ShopFileException">It belongs to somebody else.</exception>
    public static void Protect(string folder)
    {
        Directory.CreateDirectory(folder);
        if (OperatingSystem.IsWindows())
            return;
        try
        {
            System.IO.File.SetUnixFileMode(folder, Folder);
            foreach (var own in OwnFolders.Select(name => Path.Combine(folder, name)).Where(Directory.Exists))
            {
                System.IO.File.SetUnixFileMode(own, Folder);
                foreach (var file in Directory.EnumerateFiles(own))
                    System.IO.File.SetUnixFileMode(file, File);
            }

            foreach (var file in Directory.EnumerateFiles(folder, "shop.*"))
                System.IO.File.SetUnixFileMode(file, File);
        }
        catch (UnauthorizedAccessException)
        {
            throw new ShopFileException($"“{folder}” belongs to another user; a shop wants a folder of its own.");
        }
        catch (FileNotFoundException)
        {
            // The write-ahead log came and went while it was looked at.
        }
    }

    [DllImport("libc", EntryPoint = "umask")]
    [DefaultDllImportSearchPaths(DllImportSearchPath.SafeDirectories)]
    private static extern uint Umask(uint mask);
}
