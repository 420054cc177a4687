using System.Data;
using System.Globalization;
using Dapper;
using DbUp;
using DbUp.Engine;
using Mendro.Core.Jobs;
using Mendro.Storage.Migrations;
using Microsoft.Data.Sqlite;

namespace Mendro.Storage;

/// <summary>The shop's SQLite file: opens connections, brings the schema up to date.</summary>
public sealed class ShopDatabase
{
    private readonly string _connectionString;
    private readonly SemaphoreSlim _turn = new(1);
    private long _opened;

    // What SQLite answers while another program writes.
    private const int Busy = 5;
    private const int Locked = 6;

    private static readonly TimeSpan LongestWait = TimeSpan.FromSeconds(5);

    // The connection of this flow of work, so that one page or one action asks over one connection and in one transaction.
    private readonly AsyncLocal<Session?> _session = new();

    static ShopDatabase()
    {
        DefaultTypeMap.MatchNamesWithUnderscores = true;
        SqlMapper.RemoveTypeMap(typeof(DateTimeOffset));
        SqlMapper.RemoveTypeMap(typeof(decimal));
        SqlMapper.AddTypeHandler(new UtcHandler());
        SqlMapper.AddTypeHandler(new DecimalHandler());
        SqlMapper.AddTypeHandler(new JobIdHandler());
        Stored.Lenient<Job>();
        Stored.Lenient<BookJob>();
        Stored.Lenient<Sale>();
        Stored.Lenient<Lot>();
        Stored.Lenient<Offer>();
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
            // Seconds that another program is waited for.
            DefaultTimeout = 2,
        }.ToString();
    }

    /// <summary>Full path of the database file.</summary>
    public string File { get; }

    /// <summary>Creates the file if need be and runs the migrations that have not run.</summary>
    /// <exception cref="ShopFileException">A migration failed, or the file is newer than this version; the message says which.</exception>
    public void Migrate()
    {
        ShopFolder.Protect(Path.GetDirectoryName(File)!);
        if (new FileInfo(File) is { Exists: true, Length: > 0 })
            CheckFile(File, thorough: false);
        using (var connection = Open())
        {
            // Write-ahead log: readers do not wait for the writer. It is a property of the file and stays.
            connection.Execute("PRAGMA journal_mode = WAL");
        }

        var result = Upgrade(_connectionString).PerformUpgrade();
        if (!result.Successful)
            throw new ShopFileException(
                $"The database could not be brought up to date ({result.ErrorScript?.Name}): {result.Error?.Message}"
            );
        ShopFolder.Protect(Path.GetDirectoryName(File)!);
    }

    /// <summary>Levels that this version knows: one for every migration.</summary>
    public static int KnownLevel { get; } = Upgrade("Data Source=:memory:").GetDiscoveredScripts().Count;

    /// <summary>Checks a database file without changing it.</summary>
    /// <param name="file">File.</param>
    /// <param name="thorough">True to read every page of it, which takes a while in a large shop.</param>
    /// <exception cref="ShopFileException">It is no database of a shop, damaged, or newer than this version.</exception>
    public static void CheckFile(string file, bool thorough = true)
    {
        try
        {
            using var connection = new SqliteConnection(
                new SqliteConnectionStringBuilder
                {
                    DataSource = file,
                    Mode = SqliteOpenMode.ReadOnly,
                    Pooling = false,
                }.ToString()
            );
            connection.Open();
            // A shop that was never finished being made is made now.
            if (!thorough && connection.ExecuteScalar<long>("SELECT count(*) FROM sqlite_master") == 0)
                return;
            if (thorough && connection.ExecuteScalar<string>("PRAGMA integrity_check") is not "ok")
                throw new ShopFileException($"“{file}” is damaged.");
            if (connection.ExecuteScalar<int>("SELECT count(*) FROM SchemaVersions") > KnownLevel)
                throw new ShopFileException($"“{file}” was made by a newer version of Mendro. Update Mendro first.");
            if (thorough)
                connection.ExecuteScalar<long>("SELECT count(*) FROM jobs");
        }
        catch (SqliteException ex)
        {
            throw new ShopFileException($"“{file}” is no database of a shop, or damaged: {ex.Message}");
        }
    }

    private static UpgradeEngine Upgrade(string connection) =>
        DeployChanges
            .To.SqliteDatabase(connection)
            .WithScriptsEmbeddedInAssembly(typeof(ShopDatabase).Assembly, name => name.EndsWith(".sql", StringComparison.Ordinal))
            .WithScript(PayloadMigration.Name, new PayloadMigration())
            .WithTransactionPerScript()
            .LogToNowhere()
            .Build();

    /// <summary>A transaction is about to be kept: what follows from it is written along with it.</summary>
    public event Action? Settling;

    /// <summary>Something was written and is kept.</summary>
    public event Action? Committed;

    /// <summary>Something could not be written, with the reason.</summary>
    public event Action<string>? NotWritten;

    /// <summary>A connection was opened; for tests of what cannot be written.</summary>
    internal Action<SqliteConnection>? Opening { get; set; }

    /// <summary>How many connections were opened so far; for benchmarks and tests.</summary>
    public long Opened => Interlocked.Read(ref _opened);

    /// <summary>Opens a connection; the caller disposes it.</summary>
    public SqliteConnection Open()
    {
        Interlocked.Increment(ref _opened);
        var connection = new SqliteConnection(_connectionString);
        connection.Open();
        // An answered write must survive the machine, not only the process.
        connection.Execute("PRAGMA synchronous = FULL; PRAGMA temp_store = MEMORY");
        Opening?.Invoke(connection);
        return connection;
    }

    /// <summary>Keeps one connection for all that this flow of work reads and writes until the result is disposed.</summary>
    public IDisposable OneConnection() => _session.Value is { Ended: false } ? new Joined() : new Session(this);

    /// <summary>Reads; inside a <see cref="Write"/> it sees what was written so far.</summary>
    public T Read<T>(Func<SqliteConnection, T> work)
    {
        try
        {
            if (_session.Value is { Ended: false } session)
                return work(session.Connection);
            using var connection = Open();
            return work(connection);
        }
        catch (SqliteException ex) when (ex.SqliteErrorCode is Busy or Locked)
        {
            throw new ShopBusyException(ex);
        }
    }

    /// <summary>
    /// Runs a write in one transaction: all of it is kept, or none. A write inside another belongs to the outer one's
    /// transaction, so that one action is one transaction however many stores it touches.
    /// </summary>
    public T Write<T>(Func<SqliteConnection, SqliteTransaction, T> work)
    {
        if (_session.Value is { Ended: false, Transaction: { } outer } joined)
            return work(joined.Connection, outer);
        using var own = OneConnection();
        var session = _session.Value!;
        // In line, instead of asking SQLite again and again: of eight benches each writes as soon as it is its turn.
        if (!_turn.Wait(LongestWait))
            throw new ShopBusyException();
        var done = false;
        SqliteTransaction? transaction = null;
        try
        {
            session.Transaction = transaction = Begin(session.Connection);
            var result = work(session.Connection, transaction);
            DerivedRows.Settle(session.Connection, transaction);
            Settling?.Invoke();
            transaction.Commit();
            done = true;
            return result;
        }
        catch (Exception ex) when (ex is SqliteException or IOException or UnauthorizedAccessException && ShopFullException.Reason(ex) is not null)
        {
            var why = ShopFullException.Reason(ex)!;
            NotWritten?.Invoke(why);
            throw new ShopFullException(why, ex);
        }
        finally
        {
            session.Transaction = null;
            Undo(transaction);
            _turn.Release();
            if (done)
                Committed?.Invoke();
        }
    }

    private static void Undo(SqliteTransaction? transaction)
    {
        try
        {
            transaction?.Dispose();
        }
        catch (SqliteException)
        {
            // A full disk has undone it already.
        }
    }

    private static SqliteTransaction Begin(SqliteConnection connection)
    {
        try
        {
            return connection.BeginTransaction(deferred: false);
        }
        catch (SqliteException ex) when (ex.SqliteErrorCode is Busy or Locked)
        {
            throw new ShopBusyException(ex);
        }
    }

    /// <summary>Runs several writes in one transaction; inside another write they belong to that one.</summary>
    /// <param name="work">What to do. To leave nothing of it behind, throw.</param>
    public T InOneTransaction<T>(Func<T> work) => Write((_, _) => work());

    /// <summary>Brings what follows from other rows up to date in the middle of a transaction; at its end it is done anyway.</summary>
    public void Settle() =>
        Write(
            (connection, transaction) =>
            {
                DerivedRows.Settle(connection, transaction);
                return 0;
            }
        );

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
    private sealed class JobIdHandler : SqlMapper.TypeHandler<JobId>
    {
        public override void SetValue(IDbDataParameter parameter, JobId value)
        {
            parameter.DbType = DbType.Int64;
            parameter.Value = value.Value;
        }

        public override JobId Parse(object value) => new((long)value);
    }

    private sealed class UtcHandler : SqlMapper.TypeHandler<DateTimeOffset>
    {
        public override void SetValue(IDbDataParameter parameter, DateTimeOffset value)
        {
            parameter.DbType = DbType.String;
            parameter.Value = value.UtcDateTime.ToString("yyyy-MM-dd'T'HH:mm:ss.fff'Z'", CultureInfo.InvariantCulture);
        }

        public override DateTimeOffset Parse(object value) => Stored.Moment(value as string);
    }

    /// <summary>Money is stored as decimal text; SQLite's numbers are binary floats.</summary>
    private sealed class DecimalHandler : SqlMapper.TypeHandler<decimal>
    {
        public override void SetValue(IDbDataParameter parameter, decimal value)
        {
            parameter.DbType = DbType.String;
            parameter.Value = value.ToString(CultureInfo.InvariantCulture);
        }

        /// <summary>What another hand wrote there and is no amount counts as none: the page opens, and shows it as 0.</summary>
        public override decimal Parse(object value) =>
            decimal.TryParse(
                Convert.ToString(value, CultureInfo.InvariantCulture),
                NumberStyles.Float,
                CultureInfo.InvariantCulture,
                out var amount
            )
                ? amount
                : 0;
    }
}
