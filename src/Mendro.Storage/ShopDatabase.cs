using System.Data;
using System.Globalization;
using Dapper;
using DbUp;
using Microsoft.Data.Sqlite;

namespace Mendro.Storage;

/// <summary>The shop's SQLite file: opens connections, brings the schema up to date.</summary>
public sealed class ShopDatabase
{
    private readonly string _connectionString;

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
            .WithScriptsEmbeddedInAssembly(typeof(ShopDatabase).Assembly, name => name.Contains(".Migrations.", StringComparison.Ordinal))
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

    /// <summary>Runs a write in one transaction: all of it is kept, or none.</summary>
    public T Write<T>(Func<SqliteConnection, SqliteTransaction, T> work)
    {
        using var connection = Open();
        using var transaction = connection.BeginTransaction(deferred: false);
        var result = work(connection, transaction);
        transaction.Commit();
        return result;
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
