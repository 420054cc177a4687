using Dapper;
using Microsoft.Data.Sqlite;

namespace Mendro.Storage;

/// <summary>Holds a database against what this version would make: a file from elsewhere brings no tables, views or triggers of its own.</summary>
internal static class ShopSchema
{
    /// <summary>Checks a file table by table; one of an earlier level is brought up to date first.</summary>
    /// <param name="file">File; nobody else works with it.</param>
    /// <returns>Null when it is what this version makes, else what is strange.</returns>
    public static string? Strange(string file)
    {
        var database = new ShopDatabase(file);
        database.Migrate();
        SqliteConnection.ClearAllPools();
        var fresh = Path.Combine(Path.GetTempPath(), $"mendro-schema-{Guid.NewGuid():N}");
        try
        {
            var own = new ShopDatabase(Path.Combine(fresh, "shop.db"));
            own.Migrate();
            var (there, known) = (Objects(database), Objects(own));
            SqliteConnection.ClearAllPools();
            return there.FirstOrDefault(o => !known.TryGetValue(o.Key, out var sql) || sql != o.Value).Key
                ?? known.Keys.FirstOrDefault(k => !there.ContainsKey(k));
        }
        finally
        {
            SqliteConnection.ClearAllPools();
            if (Directory.Exists(fresh))
                Directory.Delete(fresh, recursive: true);
        }
    }

    private static Dictionary<string, string> Objects(ShopDatabase database)
    {
        using var connection = database.Open();
        return connection
            .Query<(string Type, string Name, string? Sql)>("SELECT type, name, sql FROM sqlite_master WHERE name NOT LIKE 'sqlite!_%' ESCAPE '!'")
            .ToDictionary(o => $"{o.Type} {o.Name}", o => o.Sql ?? "");
    }
}
