namespace Mendro.Storage;

/// <summary>
/// The pictures as files beside the database, each under the hash of what is in it: written once, never changed, so that a backup can
/// be taken at any moment and two jobs may show one file.
/// </summary>
/// <param name="folder">Folder of the shop.</param>
public sealed class PictureFiles(string folder)
{
    /// <summary>Folder of the pictures inside that of the shop.</summary>
    public const string FolderName = "pictures";

    private const int HashLength = 64;

    /// <summary>True for what may be the name of a picture.</summary>
    public static bool IsHash(string text) => text.Length == HashLength && text.All(c => c is (>= '0' and <= '9') or (>= 'a' and <= 'f'));

    /// <summary>Writes a picture and its small one; one that is there already stays.</summary>
    public void Write(string hash, byte[] jpeg, byte[] small)
    {
        Put(PathOf(hash, small: true), small);
        Put(PathOf(hash, small: false), jpeg);
    }

    /// <summary>A picture, or null when its file is gone.</summary>
    public byte[]? Read(string hash, bool small = false)
    {
        if (!IsHash(hash))
            return null;
        var path = PathOf(hash, small);
        return File.Exists(path) ? File.ReadAllBytes(path) : null;
    }

    /// <summary>The name of a picture: the hash of what is in it (SHA-256).</summary>
    public static string HashOf(byte[] jpeg) => Convert.ToHexStringLower(System.Security.Cryptography.SHA256.HashData(jpeg));

    /// <summary>Copies a picture and its small one, as they are; what is not there is left out.</summary>
    public void CopyTo(string hash, PictureFiles other)
    {
        foreach (var small in (bool[])[true, false])
            if (Read(hash, small) is { } bytes)
                Put(other.PathOf(hash, small), bytes);
    }

    /// <summary>Moves all of them into another folder; one that is there already stays.</summary>
    public void MoveAllTo(PictureFiles other)
    {
        foreach (var file in Directory.EnumerateFiles(Path.Combine(folder, FolderName), "*.jpg", SearchOption.AllDirectories))
        {
            var target = Path.Combine(other.Folder, FolderName, Path.GetFileName(Path.GetDirectoryName(file)!), Path.GetFileName(file));
            Directory.CreateDirectory(Path.GetDirectoryName(target)!);
            if (!File.Exists(target))
                File.Move(file, target);
        }
    }

    private string Folder => folder;

    private string PathOf(string hash, bool small) =>
        IsHash(hash)
            ? Path.Combine(folder, FolderName, hash[..2], hash + (small ? ".small.jpg" : ".jpg"))
            : throw new ArgumentException("A picture is named by its hash.", nameof(hash));

    private static void Put(string path, byte[] bytes)
    {
        if (File.Exists(path))
            return;
        var part = $"{path}.{Guid.NewGuid():N}.part";
        try
        {
            Directory.CreateDirectory(Path.GetDirectoryName(path)!);
            using (var stream = new FileStream(part, FileMode.CreateNew, FileAccess.Write))
            {
                stream.Write(bytes);
                stream.Flush(flushToDisk: true);
            }

            File.Move(part, path, overwrite: true);
        }
        catch (Exception ex) when (ShopFullException.Reason(ex) is not null)
        {
            try
            {
                File.Delete(part);
            }
            catch (IOException)
            {
                // It is swept with the next start.
            }

            throw new ShopFullException(ShopFullException.Reason(ex)!, ex);
        }
    }
}
