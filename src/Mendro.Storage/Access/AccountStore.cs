using Dapper;
using Mendro.Core.Access;

namespace Mendro.Storage;

/// <summary>Somebody who may sign in.</summary>
public sealed record ShopAccount
{
    /// <summary>Id.</summary>
    public long Id { get; init; }

    /// <summary>Name, one person's for good.</summary>
    public string Name { get; init; } = "";

    /// <summary>Role.</summary>
    public ShopRole Role { get; init; }

    /// <summary>Hash of the password.</summary>
    public string Password { get; init; } = "";

    /// <summary>Secret of the second factor as the shop's keys protect it; null without one.</summary>
    public string? SecondSecret { get; init; }

    /// <summary>Step of the code that was used last.</summary>
    public long? SecondStep { get; init; }

    /// <summary>When it was made, UTC.</summary>
    public DateTimeOffset MadeAt { get; init; }

    /// <summary>When it was closed, or null while it is open.</summary>
    public DateTimeOffset? ClosedAt { get; init; }
}

/// <summary>The accounts: closed and opened again, never removed.</summary>
public sealed class AccountStore(ShopDatabase database, TimeProvider time)
{
    /// <summary>All accounts by name, closed ones last.</summary>
    public IReadOnlyList<ShopAccount> All() =>
        database.Read(connection => connection.Query<ShopAccount>("SELECT * FROM accounts ORDER BY closed_at IS NOT NULL, name").AsList());

    /// <summary>The account of a name, closed ones too, or null.</summary>
    public ShopAccount? Find(string name) =>
        database.Read(connection => connection.QueryFirstOrDefault<ShopAccount>("SELECT * FROM accounts WHERE name = @name", new { name }));

    /// <summary>The account of an id, or null.</summary>
    public ShopAccount? Find(long id) =>
        database.Read(connection => connection.QueryFirstOrDefault<ShopAccount>("SELECT * FROM accounts WHERE id = @id", new { id }));

    /// <summary>True once somebody may sign in.</summary>
    public bool Any() =>
        database.Read(connection => connection.ExecuteScalar<bool>("SELECT EXISTS (SELECT 1 FROM accounts WHERE closed_at IS NULL)"));

    /// <summary>Owners who may sign in.</summary>
    public int Owners() =>
        database.Read(connection => connection.ExecuteScalar<int>("SELECT count(*) FROM accounts WHERE role = 'Owner' AND closed_at IS NULL"));

    /// <summary>Adds one; the name must be free.</summary>
    public long Add(string name, ShopRole role, string password) =>
        database.Write(
            (connection, transaction) =>
                connection.ExecuteScalar<long>(
                    "INSERT INTO accounts (name, role, password, made_at) VALUES (@name, @role, @password, @at) RETURNING id",
                    new
                    {
                        name,
                        role = role.ToString(),
                        password,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );

    /// <summary>Gives another role.</summary>
    public void SetRole(long id, ShopRole role) => Set("UPDATE accounts SET role = @role WHERE id = @id", new { id, role = role.ToString() });

    /// <summary>Sets the hash of the password.</summary>
    public void SetPassword(long id, string password) => Set("UPDATE accounts SET password = @password WHERE id = @id", new { id, password });

    /// <summary>Sets the second factor with its codes, or takes it away.</summary>
    public void SetSecond(long id, string? secret, IReadOnlyList<string> marks) =>
        database.Write(
            (connection, transaction) =>
            {
                connection.Execute("UPDATE accounts SET second_secret = @secret, second_step = NULL WHERE id = @id", new { id, secret }, transaction);
                connection.Execute("DELETE FROM recovery_codes WHERE account_id = @id", new { id }, transaction);
                return connection.Execute(
                    "INSERT INTO recovery_codes (mark, account_id) VALUES (@mark, @id)",
                    marks.Select(mark => new { mark, id }),
                    transaction
                );
            }
        );

    /// <summary>A code of a step was used: neither it nor an earlier one holds again.</summary>
    /// <returns>False when another was quicker.</returns>
    public bool UseStep(long id, long step) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "UPDATE accounts SET second_step = @step WHERE id = @id AND (second_step IS NULL OR second_step < @step)",
                    new { id, step },
                    transaction
                )
        ) > 0;

    /// <summary>Uses a recovery code up.</summary>
    /// <returns>False when there is none such.</returns>
    public bool UseRecovery(long id, string mark) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "UPDATE recovery_codes SET used_at = @at WHERE mark = @mark AND account_id = @id AND used_at IS NULL",
                    new
                    {
                        id,
                        mark,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        ) > 0;

    /// <summary>Recovery codes that are left.</summary>
    public int RecoveryLeft(long id) =>
        database.Read(connection =>
            connection.ExecuteScalar<int>("SELECT count(*) FROM recovery_codes WHERE account_id = @id AND used_at IS NULL", new { id })
        );

    /// <summary>Closes it, or opens it again.</summary>
    public void SetClosed(long id, bool closed) =>
        Set("UPDATE accounts SET closed_at = @at WHERE id = @id", new { id, at = closed ? time.GetUtcNow() : (DateTimeOffset?)null });

    private void Set(string sql, object told) => database.Write((connection, transaction) => connection.Execute(sql, told, transaction));
}
