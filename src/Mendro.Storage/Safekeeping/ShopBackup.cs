using System.IO.Compression;
using System.Security.Cryptography;
using System.Text.Json;
using Dapper;
using Mendro.Core.Diagnosis;
using Microsoft.Data.Sqlite;

namespace Mendro.Storage;

/// <summary>
/// A whole shop in one checksummed file: the database, copied while the shop works, and everything beside it. Restoring checks
/// all of it first and keeps the old shop until the new one stands.
/// </summary>
public static class ShopBackup
{
    private const string Database = BackupNames.Database;
    private const string Manifest = "manifest.json";
    private const long LargestManifest = 1024 * 1024;

    /// <summary>Takes a backup; the shop may be at work meanwhile.</summary>
    /// <param name="folder">Folder of the shop.</param>
    /// <param name="file">File to write; replaced as a whole when it is there.</param>
    /// <param name="at">Now, UTC.</param>
    /// <param name="pictures">False leaves the pictures out: they lie beside, under the hash of what is in them, and never change.</param>
    /// <exception cref="ShopFileException">There is no shop, or the file cannot be written.</exception>
    public static BackupManifest Write(string folder, string file, DateTimeOffset at, bool pictures = true)
    {
        var source = Path.Combine(folder, Database);
        if (!File.Exists(source))
            throw new ShopFileException($"There is no shop in “{folder}”.");
        string? work = null;
        var part = file + ".part";
        try
        {
            work = Directory.CreateTempSubdirectory("mendro-backup-").FullName;
            var copy = Path.Combine(work, Database);
            Copy(source, copy);
            var (level, jobs) = Glance(copy);
            List<(string Name, string Path)> files = [(Database, copy), .. Beside(folder).Where(f => pictures || !IsPicture(f.Name))];
            var manifest = new BackupManifest(
                BackupManifest.FormatName,
                at,
                level,
                jobs,
                files.Select(f => new BackupFile(f.Name, new FileInfo(f.Path).Length, Checksum(f.Path))).ToList()
            );
            Directory.CreateDirectory(Path.GetDirectoryName(Path.GetFullPath(file))!);
            using (var stream = new FileStream(part, FileMode.Create, FileAccess.Write))
            {
                using (var zip = new ZipArchive(stream, ZipArchiveMode.Create, leaveOpen: true))
                {
                    using (var entry = zip.CreateEntry(Manifest, CompressionLevel.Optimal).Open())
                        JsonSerializer.Serialize(entry, manifest, Json);
                    foreach (var (name, path) in files)
                        zip.CreateEntryFromFile(path, name, CompressionLevel.Fastest);
                }

                // Written through before the name changes: a backup that is there is whole.
                stream.Flush(flushToDisk: true);
            }

            File.Move(part, file, overwrite: true);
            return manifest;
        }
        catch (Exception ex) when (ex is IOException or UnauthorizedAccessException or SqliteException)
        {
            TakeAway(() => File.Delete(part));
            throw new ShopFileException($"The backup could not be written: {ShopFullException.Reason(ex) ?? ex.Message}");
        }
        finally
        {
            if (work is not null)
                TakeAway(() => Directory.Delete(work, recursive: true));
        }
    }

    /// <summary>Puts a backup in the place of the shop in a folder. The old shop is kept beside it.</summary>
    /// <param name="file">Backup.</param>
    /// <param name="folder">Folder of the shop; the caller holds its <see cref="ShopLock"/>.</param>
    /// <param name="at">Now, UTC.</param>
    /// <returns>What the backup holds, and where the old shop lies; null when there was none.</returns>
    /// <exception cref="ShopFileException">The backup is broken, newer than this version, or cannot be put in place; nothing has
    /// changed.</exception>
    public static (BackupManifest Manifest, string? OldShop) Restore(string file, string folder, DateTimeOffset at)
    {
        Directory.CreateDirectory(folder);
        var fresh = Path.Combine(folder, $".restoring-{Guid.NewGuid():N}");
        try
        {
            var manifest = Unpack(file, fresh);
            var old = Swap(folder, fresh, at);
            return (manifest, old);
        }
        catch (Exception ex) when (ex is IOException or UnauthorizedAccessException or InvalidDataException)
        {
            throw new ShopFileException($"“{file}” cannot be restored: {ex.Message}");
        }
        finally
        {
            if (Directory.Exists(fresh))
                Directory.Delete(fresh, recursive: true);
        }
    }

    // What cannot be taken away now hides nothing of what went wrong before.
    private static void TakeAway(Action what)
    {
        try
        {
            what();
        }
        catch (Exception ex) when (ex is IOException or UnauthorizedAccessException)
        {
            // It lies there until the next start.
        }
    }

    /// <summary>Reads and checks a backup without touching any shop.</summary>
    /// <exception cref="ShopFileException">It is broken or newer than this version.</exception>
    public static BackupManifest Check(string file)
    {
        var work = Path.Combine(Path.GetTempPath(), $"mendro-check-{Guid.NewGuid():N}");
        try
        {
            return Unpack(file, work);
        }
        catch (Exception ex) when (ex is IOException or UnauthorizedAccessException or InvalidDataException)
        {
            throw new ShopFileException($"“{file}” cannot be read: {ex.Message}");
        }
        finally
        {
            if (Directory.Exists(work))
                Directory.Delete(work, recursive: true);
        }
    }

    /// <summary>Unpacks a backup into a new folder and checks everything that can be checked.</summary>
    private static BackupManifest Unpack(string file, string into)
    {
        if (!File.Exists(file))
            throw new ShopFileException($"There is no file “{file}”.");
        using var zip = OpenZip(file);
        var manifest = ReadManifest(zip, file);
        Directory.CreateDirectory(into);
        foreach (var kept in manifest.Files)
        {
            var target = Path.GetFullPath(Path.Combine(into, kept.Name));
            if (
                !target.StartsWith(Path.GetFullPath(into) + Path.DirectorySeparatorChar, StringComparison.Ordinal)
                || zip.GetEntry(kept.Name) is not { } entry
            )
                throw Broken(file, $"{kept.Name} is missing");
            if (!BackupNames.Are(kept.Name) || File.Exists(target))
                throw Broken(file, $"{kept.Name} is no file of a shop");
            Directory.CreateDirectory(Path.GetDirectoryName(target)!);
            if (entry.Length != kept.Bytes || !Take(entry, target, kept.Bytes))
                throw Broken(file, $"{kept.Name} has another length than it says");
            if (Checksum(target) != kept.Sha256)
                throw Broken(file, $"the checksum of {kept.Name} does not fit");
        }

        if (manifest.Files.All(f => f.Name != Database))
            throw Broken(file, "it holds no database");
        var database = Path.Combine(into, Database);
        ShopDatabase.CheckFile(database);
        if (ShopSchema.Strange(database) is { } strange)
            throw Broken(file, $"its database has another {strange} than a shop");
        return manifest;
    }

    // Never more than was told, whatever the archive says of itself.
    private static bool Take(ZipArchiveEntry entry, string target, long bytes)
    {
        using var from = entry.Open();
        using var to = new FileStream(target, FileMode.CreateNew, FileAccess.Write);
        var (buffer, left) = (new byte[81920], bytes);
        for (int read; (read = from.Read(buffer)) > 0; left -= read)
        {
            if (read > left)
                return false;
            to.Write(buffer, 0, read);
        }

        return left == 0;
    }

    private static ZipArchive OpenZip(string file)
    {
        try
        {
            return ZipFile.OpenRead(file);
        }
        catch (InvalidDataException)
        {
            throw Broken(file, "it is no archive, or cut short");
        }
    }

    private static BackupManifest ReadManifest(ZipArchive zip, string file)
    {
        if (zip.GetEntry(Manifest) is not { Length: < LargestManifest } entry)
            throw Broken(file, "it has no list of contents");
        try
        {
            using var stream = entry.Open();
            var manifest = JsonSerializer.Deserialize<BackupManifest>(stream, Json);
            if (manifest?.Format?.StartsWith(BackupManifest.FormatFamily, StringComparison.Ordinal) != true || manifest.Files is null)
                throw Broken(file, "its list of contents is none");
            if (manifest.Format != BackupManifest.FormatName || manifest.Level > ShopDatabase.KnownLevel)
                throw new ShopFileException($"“{file}” was made by a newer version of Mendro. Update Mendro first.");
            return manifest;
        }
        catch (JsonException)
        {
            throw Broken(file, "its list of contents cannot be read");
        }
    }

    /// <summary>Moves the old shop aside and the new one in; when that fails half way, everything goes back.</summary>
    private static string? Swap(string folder, string fresh, DateTimeOffset at)
    {
        string[] names = [.. Directory.EnumerateFileSystemEntries(fresh).Select(p => Path.GetFileName(p)!), "shop.db-wal", "shop.db-shm"];
        var aside = Path.Combine(folder, $"before-restore-{at:yyyyMMdd-HHmmss}");
        var (moved, placed) = (new List<string>(), new List<string>());
        try
        {
            foreach (var name in names.Where(n => Path.Exists(Path.Combine(folder, n))))
            {
                Directory.CreateDirectory(aside);
                Directory.Move(Path.Combine(folder, name), Path.Combine(aside, name));
                moved.Add(name);
            }

            foreach (var name in names.Where(n => Path.Exists(Path.Combine(fresh, n))))
            {
                Directory.Move(Path.Combine(fresh, name), Path.Combine(folder, name));
                placed.Add(name);
            }

            ShopDatabase.CheckFile(Path.Combine(folder, Database));
            return moved.Count > 0 ? aside : null;
        }
        catch
        {
            foreach (var name in placed)
                Directory.Move(Path.Combine(folder, name), Path.Combine(fresh, name));
            foreach (var name in moved)
                Directory.Move(Path.Combine(aside, name), Path.Combine(folder, name));
            throw;
        }
    }

    private static void Copy(string source, string target)
    {
        using var from = new SqliteConnection(
            new SqliteConnectionStringBuilder
            {
                DataSource = source,
                Mode = SqliteOpenMode.ReadOnly,
                Pooling = false,
            }.ToString()
        );
        using var to = new SqliteConnection(new SqliteConnectionStringBuilder { DataSource = target, Pooling = false }.ToString());
        from.Open();
        to.Open();
        // A writer, or a log that is folded in as the last connection closes, holds the file for a moment: that is waited for.
        from.Execute("PRAGMA busy_timeout = 10000");
        to.Execute("PRAGMA busy_timeout = 10000");
        from.BackupDatabase(to);
        // One file and no log beside it.
        to.Execute("PRAGMA journal_mode = DELETE");
    }

    private static (int Level, long Jobs) Glance(string file)
    {
        using var connection = new SqliteConnection(
            new SqliteConnectionStringBuilder
            {
                DataSource = file,
                Mode = SqliteOpenMode.ReadOnly,
                Pooling = false,
            }.ToString()
        );
        connection.Open();
        return (
            connection.ExecuteScalar<int>("SELECT count(*) FROM SchemaVersions"),
            connection.ExecuteScalar<long>("SELECT count(*) FROM jobs")
        );
    }

    /// <summary>Files beside the database that belong to the shop; its own backups and leftovers do not.</summary>
    private static IEnumerable<(string Name, string Path)> Beside(string folder) =>
        Directory
            .EnumerateFiles(folder, "*", SearchOption.AllDirectories)
            .Select(path => (Name: Path.GetRelativePath(folder, path).Replace(Path.DirectorySeparatorChar, '/'), Path: path))
            .Where(f => f.Name != Database && BackupNames.Are(f.Name))
            .OrderBy(f => f.Name, StringComparer.Ordinal);

    private static bool IsPicture(string name) => name.StartsWith($"{PictureFiles.FolderName}/", StringComparison.Ordinal);

    private static string Checksum(string path)
    {
        using var stream = File.OpenRead(path);
        return Convert.ToHexStringLower(SHA256.HashData(stream));
    }

    private static ShopFileException Broken(string file, string why) => new($"“{file}” is broken: {why}.");

    private static JsonSerializerOptions Json { get; } = new(JsonSerializerDefaults.Web) { WriteIndented = true };
}
