using System.Security.Cryptography;
using System.Text;
using Mendro.Core.Library;
using Mendro.Storage;
using Microsoft.Data.Sqlite;
using Microsoft.Extensions.Time.Testing;

namespace Mendro.Tests.Shared;

/// <summary>
/// Files of new shops, all migrations run and the library taken in, made once and copied for every test: to make one takes longer than
/// most tests. Kept in the temporary folder under a name that changes with the code and data they are made of.
/// </summary>
internal static class PreparedShop
{
    /// <summary>When the library was taken in: the day on which most tests begin.</summary>
    public static readonly DateTimeOffset MadeAt = new(2026, 3, 1, 9, 30, 0, TimeSpan.Zero);

    private static readonly Lazy<byte[]> WithModels = new(() => Prepared("models", models: true));
    private static readonly Lazy<byte[]> BuildsAlone = new(() => Prepared("builds", models: false));

    /// <summary>Puts a new shop's file into a folder, which is made.</summary>
    /// <param name="folder">Folder of the shop.</param>
    /// <param name="models">True for the invented models too; false for the builds alone.</param>
    /// <returns>The shop.</returns>
    public static ShopDatabase In(string folder, bool models = true)
    {
        ShopFolder.Protect(folder);
        var file = Path.Combine(folder, "shop.db");
        File.WriteAllBytes(file, (models ? WithModels : BuildsAlone).Value);
        ShopFolder.Protect(folder);
        return new ShopDatabase(file);
    }

    /// <summary>Puts the demo world into a folder as the run has made it; without a run the server makes its own.</summary>
    public static void DemoIn(string folder)
    {
        if (Environment.GetEnvironmentVariable("MENDRO_PREPARED_DEMO") is not { Length: > 0 } made)
            return;
        ShopFolder.Protect(folder);
        foreach (var file in Directory.EnumerateFiles(made, "*", SearchOption.AllDirectories))
        {
            var copy = Path.Combine(folder, Path.GetRelativePath(made, file));
            Directory.CreateDirectory(Path.GetDirectoryName(copy)!);
            File.Copy(file, copy);
        }

        ShopFolder.Protect(folder);
    }

    /// <summary>Closes a shop that is no longer needed, and removes its folder.</summary>
    public static void Discard(ShopDatabase database)
    {
        using (var connection = database.Open())
            SqliteConnection.ClearPool(connection);
        Directory.Delete(Path.GetDirectoryName(database.File)!, true);
    }

    private static byte[] Prepared(string name, bool models)
    {
        var kept = Path.Combine(Path.GetTempPath(), $"mendro-prepared-{name}-{Sources()}.db");
        if (!File.Exists(kept))
            Make(kept, models);
        return File.ReadAllBytes(kept);
    }

    private static void Make(string kept, bool models)
    {
        var folder = Directory.CreateTempSubdirectory("mendro-preparing-").FullName;
        var database = new ShopDatabase(Path.Combine(folder, "shop.db"));
        database.Migrate();
        new ProfileStore(database, new FakeTimeProvider(MadeAt)).TakeIn(TradeLibrary.Shipped, models);
        using (var connection = database.Open())
        {
            // Everything into the one file: what is copied is the file without its log.
            using var command = connection.CreateCommand();
            command.CommandText = "PRAGMA wal_checkpoint(TRUNCATE)";
            command.ExecuteNonQuery();
            SqliteConnection.ClearPool(connection);
        }

        // Moved whole: another project's tests may look for it at this moment.
        File.Move(database.File, kept, overwrite: true);
        Directory.Delete(folder, true);
    }

    /// <summary>What the file is made of: a build's own id changes with every line of its sources and every fact of its library.</summary>
    private static string Sources() =>
        Convert.ToHexStringLower(
            SHA256.HashData(
                Encoding.ASCII.GetBytes(
                    $"{typeof(ShopDatabase).Module.ModuleVersionId} {typeof(TradeLibrary).Module.ModuleVersionId}"
                )
            )
        )[..16];
}
