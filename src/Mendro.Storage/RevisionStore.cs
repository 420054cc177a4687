using Dapper;

namespace Mendro.Storage;

/// <summary>
/// Marks of what the shop knows beyond one job: they are new after every change, so that a page sees at a glance whether what
/// it worked out before still stands.
/// </summary>
public sealed class RevisionStore(ShopDatabase database)
{
    /// <summary>The marks of confirmed causes and of test gear, as one text.</summary>
    public string Stamp() =>
        database.Read(connection => string.Join('.', connection.Query<long>("SELECT mark FROM revisions ORDER BY what")));
}
