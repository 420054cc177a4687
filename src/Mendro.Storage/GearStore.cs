using Dapper;

namespace Mendro.Storage;

/// <summary>The shop's test gear with its use counters. Uses are counted from the swap trials that hold, so that a withdrawn trial
/// counts no more.</summary>
public sealed class GearStore(ShopDatabase database, TimeProvider time)
{
    // Uses in trials are counted by triggers, as trials are filed, withdrawn and brought back.
    private const string Select = "SELECT g.*, g.other_uses + g.trial_uses AS uses FROM gear g";

    /// <summary>Gear in use, by kind and name.</summary>
    public IReadOnlyList<Gear> InUse() =>
        database.Read(connection =>
            connection.Query<Gear>($"{Select} WHERE g.retired_at IS NULL ORDER BY g.kind, g.standard DESC, g.name").AsList()
        );

    /// <summary>All gear, retired pieces last.</summary>
    public IReadOnlyList<Gear> All() =>
        database.Read(connection =>
            connection.Query<Gear>($"{Select} ORDER BY g.retired_at IS NOT NULL, g.kind, g.standard DESC, g.name").AsList()
        );

    /// <summary>Adds a piece; the first of its kind becomes the standard one.</summary>
    /// <returns>Its id.</returns>
    public long Add(string name, string kind) =>
        database.Write(
            (connection, transaction) =>
                connection.ExecuteScalar<long>(
                    """
                    INSERT INTO gear (name, kind, standard, cleaned_at, created_at)
                    VALUES (@name, @kind, NOT EXISTS (SELECT 1 FROM gear WHERE kind = @kind AND standard = 1 AND retired_at IS NULL), @at, @at) RETURNING id
                    """,
                    new
                    {
                        name,
                        kind,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );

    /// <summary>Notes that a piece was cleaned: its counter begins anew.</summary>
    public void Clean(long id) => Change("UPDATE gear SET cleaned_at = @at, other_uses = 0 WHERE id = @id", id);

    /// <summary>Counts uses that no swap trial tells of.</summary>
    public void AddUses(long id, int uses) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute("UPDATE gear SET other_uses = max(0, other_uses + @uses) WHERE id = @id", new { id, uses }, transaction)
        );

    /// <summary>Makes a piece the standard one of its kind.</summary>
    public void MakeStandard(long id) =>
        Change("UPDATE gear SET standard = (id = @id) WHERE kind = (SELECT kind FROM gear WHERE id = @id)", id);

    /// <summary>Puts a piece out of use; it can be brought back.</summary>
    public void Retire(long id) => Change("UPDATE gear SET retired_at = @at, standard = 0 WHERE id = @id", id);

    /// <summary>Brings a piece back into use.</summary>
    public void Restore(long id) => Change("UPDATE gear SET retired_at = NULL WHERE id = @id", id);

    private void Change(string sql, long id) =>
        database.Write((connection, transaction) => connection.Execute(sql, new { id, at = time.GetUtcNow() }, transaction));
}
