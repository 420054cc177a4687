using System.Text.Json;
using Dapper;
using Mendro.Core.Jobs;
using Microsoft.Data.Sqlite;

namespace Mendro.Storage;

/// <summary>A program in the shop's own network that is told of events.</summary>
public sealed record Hook
{
    /// <summary>Id.</summary>
    public long Id { get; init; }

    /// <summary>Address.</summary>
    public string Url { get; init; } = "";

    /// <summary>Secret by which what is sent is signed.</summary>
    public string Secret { get; init; } = "";

    /// <summary>Events, blank between them.</summary>
    public string Events { get; init; } = "";

    /// <summary>Made, UTC.</summary>
    public DateTimeOffset MadeAt { get; init; }
}

/// <summary>Something to tell a program.</summary>
public sealed record HookPost
{
    /// <summary>Id, the same in every try.</summary>
    public long Id { get; init; }

    /// <summary>Hook.</summary>
    public long HookId { get; init; }

    /// <summary>Its address.</summary>
    public string Url { get; init; } = "";

    /// <summary>Its secret.</summary>
    public string Secret { get; init; } = "";

    /// <summary>Event.</summary>
    public string Event { get; init; } = "";

    /// <summary>Body, JSON.</summary>
    public string Body { get; init; } = "";

    /// <summary>When it happened, UTC.</summary>
    public DateTimeOffset MadeAt { get; init; }

    /// <summary>Next try, UTC; null when there is none.</summary>
    public DateTimeOffset? NextAt { get; init; }

    /// <summary>Tries so far.</summary>
    public int Tries { get; init; }

    /// <summary>What the last try was answered.</summary>
    public string Answer { get; init; } = "";

    /// <summary>When it was taken, UTC, or null.</summary>
    public DateTimeOffset? DoneAt { get; init; }
}

/// <summary>
/// Who is told of what, and what is still to be told: written in the transaction in which it happens, so that nothing is told that did
/// not happen and nothing that happened is forgotten.
/// </summary>
public sealed class HookStore(ShopDatabase database, TimeProvider time)
{
    /// <summary>A unit is ready.</summary>
    public const string Ready = "job.ready";

    /// <summary>A unit waits for a part.</summary>
    public const string WaitsForPart = "job.waiting-for-part";

    /// <summary>All events with what they tell.</summary>
    public static IReadOnlyList<(string Id, string Words)> Events { get; } =
        [(Ready, "a unit is ready to be handed over"), (WaitsForPart, "a unit waits for a part")];

    private static readonly TimeSpan Kept = TimeSpan.FromDays(30);

    private volatile object? _any;

    /// <summary>True when somebody is told of something: asked after every write of the shop, so it is kept.</summary>
    public bool Any => (bool)(_any ??= All().Count > 0);

    /// <summary>Hooks that hold.</summary>
    public IReadOnlyList<Hook> All() =>
        database.Read(connection => connection.Query<Hook>("SELECT * FROM hooks WHERE ended_at IS NULL ORDER BY id").AsList());

    /// <summary>Adds one.</summary>
    public long Add(string url, string secret, string events)
    {
        _any = true;
        return database.Write(
            (connection, transaction) =>
                connection.ExecuteScalar<long>(
                    "INSERT INTO hooks (url, secret, events, made_at, made_by) VALUES (@url, @secret, @events, @at, @by) RETURNING id",
                    new
                    {
                        url,
                        secret,
                        events,
                        at = time.GetUtcNow(),
                        by = Acting.Now,
                    },
                    transaction
                )
        );
    }

    /// <summary>Ends one, with what it was still to be told.</summary>
    public int End(long id) =>
        database.Write(
            (connection, transaction) =>
            {
                connection.Execute("UPDATE hook_posts SET next_at = NULL WHERE hook_id = @id", new { id }, transaction);
                return connection.Execute(
                    "UPDATE hooks SET ended_at = @at WHERE id = @id AND ended_at IS NULL",
                    new { id, at = time.GetUtcNow() },
                    transaction
                );
            }
        );

    /// <summary>What is due to be told now.</summary>
    public IReadOnlyList<HookPost> Due(int most) => Posts("p.next_at <= @now ORDER BY p.next_at, p.id LIMIT @most", most);

    /// <summary>The newest posts, told or not.</summary>
    public IReadOnlyList<HookPost> Newest(int most) => Posts("1 ORDER BY p.id DESC LIMIT @most", most);

    /// <summary>Writes down what came of a try.</summary>
    /// <param name="id">Post.</param>
    /// <param name="answer">What was answered.</param>
    /// <param name="taken">True when it was taken.</param>
    /// <param name="next">Next try, UTC, or null for none.</param>
    public void Tried(long id, string answer, bool taken, DateTimeOffset? next) =>
        database.Write(
            (connection, transaction) =>
            {
                var now = time.GetUtcNow();
                connection.Execute("DELETE FROM hook_posts WHERE next_at IS NULL AND made_at < @before", new { before = now - Kept }, transaction);
                return connection.Execute(
                    "UPDATE hook_posts SET tries = tries + 1, answer = @answer, done_at = @done, next_at = @next WHERE id = @id",
                    new
                    {
                        id,
                        answer,
                        done = taken ? now : (DateTimeOffset?)null,
                        next,
                    },
                    transaction
                );
            }
        );

    /// <summary>Tries one again now.</summary>
    public int Again(long id) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "UPDATE hook_posts SET next_at = @now WHERE id = @id AND done_at IS NULL AND hook_id IN (SELECT id FROM hooks WHERE ended_at IS NULL)",
                    new { id, now = time.GetUtcNow() },
                    transaction
                )
        );

    /// <summary>A unit came to a shelf: who wants to know is told.</summary>
    internal static void Tell(SqliteConnection connection, SqliteTransaction transaction, Job job, Shelf shelf, string reason, DateTimeOffset at)
    {
        var name = shelf switch
        {
            Shelf.Ready => Ready,
            Shelf.WaitingPart => WaitsForPart,
            _ => null,
        };
        if (name is null || job.PracticeSeed is not null)
            return;
        var body = JsonSerializer.Serialize(
            new
            {
                Event = name,
                At = at,
                Job = new
                {
                    job.Number,
                    job.Title,
                    Waits = shelf == Shelf.WaitingPart ? reason : null,
                    Promised = job.PromisedOn?.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture),
                },
            },
            JsonSerializerOptions.Web
        );
        connection.Execute(
            """
            INSERT INTO hook_posts (hook_id, event, body, made_at, next_at)
            SELECT id, @name, @body, @at, @at FROM hooks WHERE ended_at IS NULL AND instr(' ' || events || ' ', ' ' || @name || ' ') > 0
            """,
            new { name, body, at },
            transaction
        );
    }

    private IReadOnlyList<HookPost> Posts(string where, int most) =>
        database.Read(connection =>
            connection
                .Query<HookPost>(
                    $"SELECT p.*, h.url, h.secret FROM hook_posts p JOIN hooks h ON h.id = p.hook_id WHERE {where}",
                    new { most, now = time.GetUtcNow() }
                )
                .AsList()
        );
}
