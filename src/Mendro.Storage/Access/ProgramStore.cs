using Dapper;

namespace Mendro.Storage;

/// <summary>Another program with a token.</summary>
public sealed record KnownProgram
{
    /// <summary>Id.</summary>
    public long Id { get; init; }

    /// <summary>Name.</summary>
    public string Name { get; init; } = "";

    /// <summary>Scopes, blank between them.</summary>
    public string Scopes { get; init; } = "";

    /// <summary>Made, UTC.</summary>
    public DateTimeOffset MadeAt { get; init; }

    /// <summary>Who made it.</summary>
    public string MadeBy { get; init; } = "";

    /// <summary>Last used, UTC, or null; noted once a minute.</summary>
    public DateTimeOffset? UsedAt { get; init; }

    /// <summary>Ended, UTC, or null.</summary>
    public DateTimeOffset? EndedAt { get; init; }

    /// <summary>True when it may.</summary>
    public bool May(string scope) => Scopes.Split(' ').Contains(scope);
}

/// <summary>The programs. Of a token only a mark is kept.</summary>
public sealed class ProgramStore(ShopDatabase database, TimeProvider time)
{
    /// <summary>All, ended ones last.</summary>
    public IReadOnlyList<KnownProgram> All() =>
        database.Read(connection => connection.Query<KnownProgram>("SELECT * FROM programs ORDER BY ended_at IS NOT NULL, name").AsList());

    /// <summary>The program of a name, ended ones too, or null.</summary>
    public KnownProgram? Named(string name) =>
        database.Read(connection => connection.QueryFirstOrDefault<KnownProgram>("SELECT * FROM programs WHERE name = @name", new { name }));

    /// <summary>The program of a token's mark while it holds, or null.</summary>
    public KnownProgram? Find(string mark) =>
        database.Read(connection =>
            connection.QueryFirstOrDefault<KnownProgram>("SELECT * FROM programs WHERE mark = @mark AND ended_at IS NULL", new { mark })
        );

    /// <summary>Adds one.</summary>
    public long Add(string name, string mark, string scopes) =>
        database.Write(
            (connection, transaction) =>
                connection.ExecuteScalar<long>(
                    "INSERT INTO programs (name, mark, scopes, made_at, made_by) VALUES (@name, @mark, @scopes, @at, @by) RETURNING id",
                    new
                    {
                        name,
                        mark,
                        scopes,
                        at = time.GetUtcNow(),
                        by = Acting.Now,
                    },
                    transaction
                )
        );

    /// <summary>Ends one.</summary>
    public int End(long id) => Set("UPDATE programs SET ended_at = @at WHERE id = @id AND ended_at IS NULL", id);

    /// <summary>Notes that it was used.</summary>
    public int Used(long id) => Set("UPDATE programs SET used_at = @at WHERE id = @id", id);

    private int Set(string sql, long id) =>
        database.Write((connection, transaction) => connection.Execute(sql, new { id, at = time.GetUtcNow() }, transaction));
}
