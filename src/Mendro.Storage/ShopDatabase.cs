using System.Data;
using System.Globalization;
using Dapper;
using DbUp;
using Mendro.Storage.Migrations;
using Microsoft.Data.Sqlite;

namespace Mendro.Storage;

/// <summary>The shop's SQLite file: opens connections, brings the schema up to date.</summary>
public sealed class ShopDatabase
{
    private readonly string _connectionString;

    // The connection of this flow of work, so that one page or one action asks over one connection and in one transaction.
    private readonly AsyncLocal<Session?> _session = new();

    static ShopDatabase()
    {
        DefaultTypeMap.MatchNamesWithUnderscores = true;
        SqlMapper.RemoveTypeMap(typeof(DateTimeOffset));
        SqlMapper.RemoveTypeMap(typeof(decimal));
        SqlMapper.AddTypeHandler(new UtcHandler());
        SqlMapper.AddTypeHandler(new DecimalHandler());
    }

    /// <summary>Names the database file; nothing is opened yet.</summary>
    /// <param name="file">Path of the file; its folder is made if it is not there.</param>
    public ShopDatabase(string file)
    {
        File = Path.GetFullPath(file);
        _connectionString = new SqliteConnectionStringBuilder
        {
            DataSource = File,
            ForeignKeys = true,
            DefaultTimeout = 10,
        }.ToString();
    }

    /// <summary>Full path of the database file.</summary>
    public string File { get; }

    /// <summary>Creates the file if need be and runs the migrations that have not run.</summary>
    /// <exception cref="InvalidOperationException">A migration failed; the message names it.</exception>
    public void Migrate()
    {
        Directory.CreateDirectory(Path.GetDirectoryName(File)!);
        using (var connection = Open())
        {
            // Write-ahead log: readers do not wait for the writer. It is a property of the file and stays.
            connection.Execute("PRAGMA journal_mode = WAL");
        }

        var result = DeployChanges.To.SqliteDatabase(_connectionString)
            .WithScriptsEmbeddedInAssembly(typeof(ShopDatabase).Assembly, name => name.EndsWith(".sql", StringComparison.Ordinal))
            .WithScript(PayloadMigration.Name, new PayloadMigration())
            .WithTransactionPerScript()
            .LogToNowhere()
            .Build()
            .PerformUpgrade();
        if (!result.Successful)
            throw new InvalidOperationException($"The database could not be brought up to date ({result.ErrorScript?.Name}): {result.Error?.Message}", result.Error);
    }

    /// <summary>Opens a connection; the caller disposes it.</summary>
    public SqliteConnection Open()
    {
        var connection = new SqliteConnection(_connectionString);
        connection.Open();
        // An answered write must survive the machine, not only the process.
        connection.Execute("PRAGMA synchronous = FULL");
        return connection;
    }

    /// <summary>Keeps one connection for all that this flow of work reads and writes until the result is disposed.</summary>
    public IDisposable OneConnection() => _session.Value is { Ended: false } ? new Joined() : new Session(this);

    /// <summary>Reads; inside a <see cref="Write"/> it sees what was written so far.</summary>
    public T Read<T>(Func<SqliteConnection, T> work)
    {
        if (_session.Value is { Ended: false } session) return work(session.Connection);
        using var connection = Open();
        return work(connection);
    }

    /// <summary>
    /// Runs a write in one transaction: all of it is kept, or none. A write inside another belongs to the outer one's
    /// transaction, so that one action is one transaction however many stores it touches.
    /// </summary>
    public T Write<T>(Func<SqliteConnection, SqliteTransaction, T> work)
    {
        if (_session.Value is { Ended: false, Transaction: { } outer } joined) return work(joined.Connection, outer);
        using var own = OneConnection();
        var session = _session.Value!;
        using var transaction = session.Connection.BeginTransaction(deferred: false);
        session.Transaction = transaction;
        try
        {
            var result = work(session.Connection, transaction);
            transaction.Commit();
            return result;
        }
        finally
        {
            session.Transaction = null;
        }
    }

    /// <summary>Runs several writes in one transaction; inside another write they belong to that one.</summary>
    /// <param name="work">What to do. To leave nothing of it behind, throw.</param>
    public T InOneTransaction<T>(Func<T> work) => Write((_, _) => work());

    private sealed class Session : IDisposable
    {
        private readonly ShopDatabase _database;
        private SqliteConnection? _connection;

        public Session(ShopDatabase database) => (_database, database._session.Value) = (database, this);

        /// <summary>Opened when it is first needed: many a page asks for nothing.</summary>
        public SqliteConnection Connection => _connection ??= _database.Open();

        public SqliteTransaction? Transaction { get; set; }

        /// <summary>True when it was closed: work begun inside it that goes on alone opens a connection of its own.</summary>
        public bool Ended { get; private set; }

        public void Dispose()
        {
            Ended = true;
            _database._session.Value = null;
            _connection?.Dispose();
        }
    }

    private sealed class Joined : IDisposable
    {
        public void Dispose() { }
    }

    /// <summary>Times are stored as UTC in ISO 8601, so that they sort as text.</summary>
    private sealed class UtcHandler : SqlMapper.TypeHandler<DateTimeOffset>
    {
        public override void SetValue(IDbDataParameter parameter, DateTimeOffset value)
        {
            parameter.DbType = DbType.String;
            parameter.Value = value.UtcDateTime.ToString("yyyy-MM-dd'T'HH:mm:ss.fff'Z'", CultureInfo.InvariantCulture);
        }

        public override DateTimeOffset Parse(object value) =>
            DateTimeOffset.Parse((string)value, CultureInfo.InvariantCulture, DateTimeStyles.AssumeUniversal | DateTimeStyles.AdjustToUniversal);
    }

    /// <summary>Money is stored as decimal text; SQLite's numbers are binary floats.</summary>
    private sealed class DecimalHandler : SqlMapper.TypeHandler<decimal>
    {
        public override void SetValue(IDbDataParameter parameter, decimal value)
        {
            parameter.DbType = DbType.String;
            parameter.Value = value.ToString(CultureInfo.InvariantCulture);
        }

        public override decimal Parse(object value) => Convert.ToDecimal(value, CultureInfo.InvariantCulture);
    }
}
