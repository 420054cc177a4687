using System.Text.Json;
using Dapper;
using Mendro.Core.Jobs;
using Microsoft.Data.Sqlite;

namespace Mendro.Storage;

/// <summary>Which jobs a list holds.</summary>
public enum JobShelf
{
    /// <summary>Those in the shop: not closed, not deleted.</summary>
    InShop,

    /// <summary>Closed ones.</summary>
    Closed,

    /// <summary>Deleted ones.</summary>
    Deleted,
}

/// <summary>One page of a list, newest number first.</summary>
/// <param name="Jobs">Jobs on it.</param>
/// <param name="Before">Number before which the next page begins, or null when this is the last.</param>
public sealed record JobPage(IReadOnlyList<Job> Jobs, long? Before);

/// <summary>Lists of jobs by the page, and the search. What a page costs does not grow with the shop.</summary>
public sealed class JobLists(ShopDatabase database)
{
    /// <summary>Jobs on a page.</summary>
    public const int PageSize = 50;

    // What stands in the code of a label, before the number: a hand scanner types it.
    private const string LabelText = "MENDRO-";

    private const int MostWords = 8;

    // What long words found is looked through for short ones; so much of it.
    private const int MostLookedThrough = 10_000;

    // Shorter words have no entry in the index of letters; they narrow what longer ones found.
    private const int ShortestIndexed = 3;

    /// <summary>One page of a list; practice units are in none.</summary>
    /// <param name="shelf">Which jobs.</param>
    /// <param name="stage">Only those in this stage, or null.</param>
    /// <param name="before">Only numbers below this one; null for the newest.</param>
    public JobPage Page(JobShelf shelf, WorkStage? stage = null, long? before = null) =>
        Cut(
            database.Read(connection =>
                connection
                    .Query<Job>(
                        $"""
                        {JobStore.Select} WHERE j.practice_seed IS NULL AND {Of(shelf)} AND j.number < @before
                        {(stage is null ? "" : "AND j.stage = @stage")} ORDER BY j.number DESC LIMIT {PageSize + 1}
                        """,
                        new { before = before ?? long.MaxValue, stage = stage?.ToString() }
                    )
                    .AsList()
            )
        );

    /// <summary>
    /// Jobs that fit every word: by number, model, serial, owner, lot, claim or symptom; any part of a word fits. Those in the shop
    /// come first. When every word is shorter than three letters, only those in the shop are searched.
    /// </summary>
    /// <param name="text">Words; at most eight count.</param>
    /// <param name="before">Only closed jobs with numbers below this one; null for the first page.</param>
    /// <param name="names">False for who may not look for people: what fits by the name of its owner only is left out.</param>
    public JobPage Search(string text, long? before = null, bool names = true)
    {
        var words = text.Split(' ', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
            .Select(w => w.StartsWith(LabelText, StringComparison.OrdinalIgnoreCase) ? w[LabelText.Length..] : w.TrimStart('#'))
            .Where(w => w.Length > 0)
            .Take(MostWords)
            .ToList();
        if (words.Count == 0)
            return new JobPage([], null);
        var indexed = words.Where(w => w.EnumerateRunes().Count() >= ShortestIndexed).ToList();
        return database.Read(connection =>
        {
            var live = before is null ? InShop(connection, words, names) : [];
            var closed =
                indexed.Count > 0 ? Cut(Closed(connection, indexed, words.Except(indexed).ToList(), before, names)) : new JobPage([], null);
            return closed with { Jobs = [.. live, .. closed.Jobs] };
        });
    }

    /// <summary>Names of owners that begin like this, in order; at most 20.</summary>
    /// <param name="begins">First letters; none gives none.</param>
    public IReadOnlyList<string> Owners(string begins) =>
        begins.Length == 0
            ? []
            : database.Read(connection =>
                connection
                    .Query<string>(
                        """
                        SELECT DISTINCT name FROM customers WHERE name >= @begins COLLATE NOCASE AND name < @end COLLATE NOCASE
                        ORDER BY name COLLATE NOCASE LIMIT 20
                        """,
                        new { begins, end = begins + char.ConvertFromUtf32(0x10FFFF) }
                    )
                    .AsList()
            );

    private static string Of(JobShelf shelf) =>
        shelf switch
        {
            JobShelf.Closed => "j.closed_at IS NOT NULL AND j.deleted_at IS NULL",
            JobShelf.Deleted => "j.deleted_at IS NOT NULL",
            _ => "j.closed_at IS NULL AND j.deleted_at IS NULL",
        };

    /// <summary>A job of one page more tells that there is one.</summary>
    private static JobPage Cut(List<Job> found) =>
        found.Count > PageSize ? new JobPage(found[..PageSize], found[PageSize - 1].Number) : new JobPage(found, null);

    /// <summary>Few enough to be read through.</summary>
    private static IEnumerable<Job> InShop(SqliteConnection connection, List<string> words, bool names)
    {
        var texts = connection.Query<(long Id, string Text, string? Owner)>(
            $"""
            SELECT t.job_id, t.text, c.name FROM jobs j CROSS JOIN job_texts t ON t.job_id = j.id LEFT JOIN customers c ON c.id = j.customer_id
            WHERE {Of(JobShelf.InShop)} AND j.practice_seed IS NULL
            """
        );
        return All(connection, texts.Where(t => Fits(Without(t.Text, names ? null : t.Owner), words)).Select(t => t.Id).OrderDescending().Take(5 * PageSize));
    }

    private static List<Job> Closed(SqliteConnection connection, List<string> indexed, List<string> shorter, long? before, bool names)
    {
        var match = string.Join(" AND ", indexed.Select(w => $"\"{w.Replace("\"", "\"\"", StringComparison.Ordinal)}\""));
        var ids = connection
            .Query<(long Id, string Text, string? Owner)>(
                $"""
                SELECT s.rowid, t.text, c.name FROM job_search s CROSS JOIN jobs j ON j.id = s.rowid CROSS JOIN job_texts t ON t.job_id = j.id
                  LEFT JOIN customers c ON c.id = j.customer_id
                WHERE job_search MATCH @match AND {Of(JobShelf.Closed)} AND j.practice_seed IS NULL AND j.number < @before
                ORDER BY s.rowid DESC LIMIT @most
                """,
                new
                {
                    match,
                    before = before ?? long.MaxValue,
                    most = shorter.Count == 0 && names ? PageSize + 1 : MostLookedThrough,
                },
                buffered: false
            )
            .Where(t => names ? Fits(t.Text, shorter) : Fits(Without(t.Text, t.Owner), [.. indexed, .. shorter]))
            .Take(PageSize + 1)
            .Select(t => t.Id)
            .ToList();
        return All(connection, ids);
    }

    private static string Without(string text, string? name) =>
        name is { Length: > 0 } ? text.Replace(name, " ", StringComparison.OrdinalIgnoreCase) : text;

    private static bool Fits(string text, List<string> words) => words.All(w => text.Contains(w, StringComparison.OrdinalIgnoreCase));

    private static List<Job> All(SqliteConnection connection, IEnumerable<long> ids) =>
        connection
            .Query<Job>(
                $"{JobStore.Select} WHERE j.id IN (SELECT value FROM json_each(@ids)) ORDER BY j.number DESC",
                new { ids = JsonSerializer.Serialize(ids) }
            )
            .AsList();
}
