using Dapper;
using Mendro.Core.Jobs;
using Mendro.Core.Pictures;

namespace Mendro.Storage;

/// <summary>A picture of a unit.</summary>
public sealed record UnitPicture
{
    /// <summary>Row id.</summary>
    public long Id { get; init; }

    /// <summary>Job.</summary>
    public JobId JobId { get; init; }

    /// <summary>SHA-256 of its file, by which it is kept.</summary>
    public string Hash { get; init; } = "";

    /// <summary>Width, pixels.</summary>
    public int Width { get; init; }

    /// <summary>Height, pixels.</summary>
    public int Height { get; init; }

    /// <summary>Length of its file, bytes.</summary>
    public long Bytes { get; init; }

    /// <summary>What it shows: <c>condition</c>, <c>step:…</c>, <c>fastener:…</c>, <c>probe:…</c>, <c>stage:…</c>, or blank.</summary>
    public string About { get; init; } = "";

    /// <summary><c>before</c>, <c>after</c>, or blank.</summary>
    public string Side { get; init; } = "";

    /// <summary>Words under it.</summary>
    public string Caption { get; init; } = "";

    /// <summary>Marks over it, as JSON.</summary>
    public string Marks { get; init; } = "[]";

    /// <summary>When it came, UTC.</summary>
    public DateTimeOffset At { get; init; }

    /// <summary>When it was taken away, UTC; it can be brought back.</summary>
    public DateTimeOffset? DeletedAt { get; init; }

    /// <summary>Marks over it.</summary>
    public IReadOnlyList<PictureMark> Drawn => PictureMark.Read(Marks);
}

/// <summary>Keeps what is known of pictures; the pictures themselves lie in <see cref="PictureFiles"/>.</summary>
public sealed class PictureStore(ShopDatabase database, TimeProvider time)
{
    /// <summary>Pictures of a job, oldest first; those taken away too when asked for.</summary>
    public IReadOnlyList<UnitPicture> Of(JobId jobId, bool deleted = false) =>
        database.Read(connection =>
            connection
                .Query<UnitPicture>(
                    "SELECT * FROM pictures WHERE job_id = @jobId AND (@deleted OR deleted_at IS NULL) ORDER BY id",
                    new { jobId, deleted }
                )
                .AsList()
        );

    /// <summary>True when a picture was taken of a job, by its number.</summary>
    public bool IsOf(long job, string hash) =>
        database.Read(connection =>
            connection.ExecuteScalar<bool>(
                "SELECT EXISTS (SELECT 1 FROM pictures p JOIN jobs j ON j.id = p.job_id WHERE j.number = @job AND p.hash = @hash)",
                new { job, hash }
            )
        );

    /// <summary>One picture of a job, or null.</summary>
    public UnitPicture? Find(JobId jobId, long id) =>
        database.Read(connection =>
            connection.QueryFirstOrDefault<UnitPicture>("SELECT * FROM pictures WHERE job_id = @jobId AND id = @id", new { jobId, id })
        );

    /// <summary>Adds one; its id comes back.</summary>
    public long Add(UnitPicture picture) =>
        database.Write(
            (connection, transaction) =>
                connection.ExecuteScalar<long>(
                    """
                    INSERT INTO pictures (job_id, hash, width, height, bytes, about, side, caption, at)
                    VALUES (@JobId, @Hash, @Width, @Height, @Bytes, @About, @Side, @Caption, @at) RETURNING id
                    """,
                    new
                    {
                        picture.JobId,
                        picture.Hash,
                        picture.Width,
                        picture.Height,
                        picture.Bytes,
                        picture.About,
                        picture.Side,
                        picture.Caption,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );

    /// <summary>Keeps words and marks of one.</summary>
    public void Save(UnitPicture picture) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "UPDATE pictures SET about = @About, side = @Side, caption = @Caption, marks = @Marks WHERE id = @Id",
                    new
                    {
                        picture.About,
                        picture.Side,
                        picture.Caption,
                        picture.Marks,
                        picture.Id,
                    },
                    transaction
                )
        );

    /// <summary>Takes one away, or brings it back.</summary>
    public void SetDeleted(long id, bool deleted) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "UPDATE pictures SET deleted_at = CASE WHEN @deleted THEN @at END WHERE id = @id",
                    new
                    {
                        id,
                        deleted,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );
}
