using Dapper;

namespace Mendro.Storage;

/// <summary>A task that a technician added.</summary>
public sealed record OwnTask
{
    /// <summary>Row id.</summary>
    public long Id { get; init; }

    /// <summary>What it is.</summary>
    public string Words { get; init; } = "";

    /// <summary>Minutes it takes.</summary>
    public double Minutes { get; init; }

    /// <summary>True when it goes on by itself.</summary>
    public bool Passive { get; init; }

    /// <summary>Place it takes, or blank.</summary>
    public string Place { get; init; } = "";

    /// <summary>Day by which it should be done, as 2026-11-27; blank for none.</summary>
    public string Due { get; init; } = "";

    /// <summary>When it was done, UTC.</summary>
    public DateTimeOffset? DoneAt { get; init; }
}

/// <summary>Hours at which one person is not at the bench.</summary>
public sealed record FixedHour
{
    /// <summary>Row id.</summary>
    public long Id { get; init; }

    /// <summary>Id in the calendar it came from, or blank.</summary>
    public string Uid { get; init; } = "";

    /// <summary>What it is.</summary>
    public string Words { get; init; } = "";

    /// <summary>Begin, UTC.</summary>
    public DateTimeOffset FromAt { get; init; }

    /// <summary>End, UTC.</summary>
    public DateTimeOffset ToAt { get; init; }
}

/// <summary>An entry of the calendar feed.</summary>
public sealed record FeedItem
{
    /// <summary>Id that stays.</summary>
    public string Uid { get; init; } = "";

    /// <summary>What it says.</summary>
    public string Words { get; init; } = "";

    /// <summary>Begin, UTC; of a whole day its day at midnight.</summary>
    public DateTimeOffset FromAt { get; init; }

    /// <summary>End, UTC, not in it.</summary>
    public DateTimeOffset ToAt { get; init; }

    /// <summary>True for whole days.</summary>
    public bool AllDay { get; init; }

    /// <summary>How often it changed.</summary>
    public int Sequence { get; init; }

    /// <summary>When it last changed, UTC.</summary>
    public DateTimeOffset ChangedAt { get; init; }

    /// <summary>When it was called off, UTC, or null.</summary>
    public DateTimeOffset? CancelledAt { get; init; }
}

/// <summary>Keeps own tasks, fixed hours, and what the calendar feed has told.</summary>
public sealed class DayStore(ShopDatabase database, TimeProvider time)
{
    /// <summary>Own tasks that are not done, the oldest first.</summary>
    public IReadOnlyList<OwnTask> OwnTasks() =>
        database.Read(connection =>
            connection.Query<OwnTask>("SELECT * FROM own_tasks WHERE deleted_at IS NULL AND done_at IS NULL ORDER BY id LIMIT 200").AsList()
        );

    /// <summary>One own task, or null.</summary>
    public OwnTask? FindTask(long id) =>
        database.Read(connection => connection.QueryFirstOrDefault<OwnTask>("SELECT * FROM own_tasks WHERE id = @id", new { id }));

    /// <summary>Adds an own task.</summary>
    /// <returns>Its id.</returns>
    public long Add(OwnTask task) =>
        database.Write(
            (connection, transaction) =>
                connection.ExecuteScalar<long>(
                    "INSERT INTO own_tasks (words, minutes, passive, place, due, at) VALUES (@Words, @Minutes, @Passive, @Place, @Due, @at) RETURNING id",
                    new
                    {
                        task.Words,
                        task.Minutes,
                        task.Passive,
                        task.Place,
                        task.Due,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );

    /// <summary>An own task was done, or was not after all.</summary>
    public void SetDone(long id, bool done) => Mark("UPDATE own_tasks SET done_at = CASE WHEN @on THEN @at END WHERE id = @id", id, done);

    /// <summary>Takes an own task away, or brings it back.</summary>
    public void SetTaskDeleted(long id, bool deleted) => Mark("UPDATE own_tasks SET deleted_at = CASE WHEN @on THEN @at END WHERE id = @id", id, deleted);

    /// <summary>Fixed hours that end after a moment, in order.</summary>
    public IReadOnlyList<FixedHour> FixedHours(DateTimeOffset after) =>
        database.Read(connection =>
            connection
                .Query<FixedHour>("SELECT * FROM fixed_hours WHERE deleted_at IS NULL AND to_at > @after ORDER BY from_at, id LIMIT 500", new { after })
                .AsList()
        );

    /// <summary>Adds fixed hours; those of a calendar that were there before by their id take their new times.</summary>
    public void Add(IEnumerable<FixedHour> hours) =>
        database.Write(
            (connection, transaction) =>
            {
                foreach (var hour in hours)
                {
                    var known =
                        hour.Uid.Length > 0
                        && connection.Execute(
                            "UPDATE fixed_hours SET words = @Words, from_at = @FromAt, to_at = @ToAt, deleted_at = NULL WHERE uid = @Uid",
                            hour,
                            transaction
                        ) > 0;
                    if (!known)
                        connection.Execute(
                            "INSERT INTO fixed_hours (uid, words, from_at, to_at) VALUES (@Uid, @Words, @FromAt, @ToAt)",
                            hour,
                            transaction
                        );
                }

                return 0;
            }
        );

    /// <summary>Takes fixed hours away, or brings them back.</summary>
    public void SetHourDeleted(long id, bool deleted) => Mark("UPDATE fixed_hours SET deleted_at = CASE WHEN @on THEN @at END WHERE id = @id", id, deleted);

    /// <summary>
    /// What the feed tells now: entries that changed count on, those that are gone are called off and stay so for a month, those that are back
    /// hold again.
    /// </summary>
    /// <param name="now">What is to be told.</param>
    public IReadOnlyList<FeedItem> Feed(IReadOnlyList<FeedItem> now) =>
        database.Write(
            (connection, transaction) =>
            {
                var at = time.GetUtcNow();
                var known = connection.Query<FeedItem>("SELECT * FROM feed_items", transaction: transaction).ToDictionary(f => f.Uid);
                void Keep(FeedItem item) =>
                    connection.Execute(
                        """
                        INSERT INTO feed_items (uid, words, from_at, to_at, all_day, sequence, changed_at, cancelled_at)
                        VALUES (@Uid, @Words, @FromAt, @ToAt, @AllDay, @Sequence, @ChangedAt, @CancelledAt)
                        ON CONFLICT (uid) DO UPDATE SET words = excluded.words, from_at = excluded.from_at, to_at = excluded.to_at,
                          all_day = excluded.all_day, sequence = excluded.sequence, changed_at = excluded.changed_at, cancelled_at = excluded.cancelled_at
                        """,
                        item,
                        transaction
                    );
                foreach (var item in now)
                    if (!known.TryGetValue(item.Uid, out var before))
                        Keep(item with { ChangedAt = at });
                    else if (before.CancelledAt is not null || (before.Words, before.FromAt, before.ToAt) != (item.Words, item.FromAt, item.ToAt))
                        Keep(item with { Sequence = before.Sequence + 1, ChangedAt = at });
                foreach (var gone in known.Values.Where(k => k.CancelledAt is null && now.All(n => n.Uid != k.Uid)))
                    Keep(gone with { Sequence = gone.Sequence + 1, ChangedAt = at, CancelledAt = at });
                connection.Execute("DELETE FROM feed_items WHERE cancelled_at < @before", new { before = at.AddDays(-31) }, transaction);
                return connection.Query<FeedItem>("SELECT * FROM feed_items ORDER BY from_at, uid", transaction: transaction).AsList();
            }
        );

    private void Mark(string sql, long id, bool on) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    sql,
                    new
                    {
                        id,
                        on,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );
}
