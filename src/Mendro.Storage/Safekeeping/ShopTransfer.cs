using System.Globalization;
using System.Text;
using System.Text.Json;
using CsvHelper;
using CsvHelper.Configuration;
using Dapper;
using Mendro.Core.Diagnosis;
using Mendro.Core.Quantities;
using Microsoft.Data.Sqlite;

namespace Mendro.Storage;

/// <summary>What an export holds; <c>shop.json</c> in its folder.</summary>
/// <param name="Format">Always <c>mendro.export/1</c>.</param>
/// <param name="Level">Level of the database that it came from.</param>
/// <param name="Settings">The shop's settings by key.</param>
/// <param name="Tables">The files and their rows.</param>
public sealed record ExportManifest(
    string Format,
    int Level,
    IReadOnlyDictionary<string, string> Settings,
    IReadOnlyList<ExportedTable> Tables
)
{
    /// <summary>The format written.</summary>
    public const string FormatName = "mendro.export/1";
}

/// <summary>One table of an export.</summary>
/// <param name="File">File.</param>
/// <param name="Rows">Rows in it.</param>
public sealed record ExportedTable(string File, long Rows);

/// <summary>The whole shop as documented CSV and JSON, and back into an empty shop with the same content (docs/formats.md).</summary>
public static class ShopTransfer
{
    private const string ManifestFile = "shop.json";
    private const string ProfileFolder = "profiles";

    // Read with any line end: the file may have been through another program.
    private static readonly CsvConfiguration AnyCsv = new(CultureInfo.InvariantCulture);

    private static readonly CsvConfiguration Csv = new(CultureInfo.InvariantCulture)
    {
        NewLine = "\r\n",
        // A lone line feed ends a record for most readers, so it is quoted like any other line end.
        ShouldQuote = args => args.Field?.AsSpan().IndexOfAny(",;\"\r\n") >= 0 || args.Field?.Trim() != args.Field,
    };

    private static JsonSerializerOptions Json { get; } = new(JsonSerializerDefaults.Web) { WriteIndented = true };

    /// <summary>Writes a shop into a folder.</summary>
    /// <param name="database">The shop.</param>
    /// <param name="folder">Folder; made if it is not there, and empty.</param>
    /// <exception cref="ShopFileException">The folder is not empty or cannot be written.</exception>
    public static ExportManifest Export(ShopDatabase database, string folder)
    {
        if (Directory.Exists(folder) && Directory.EnumerateFileSystemEntries(folder).Any())
            throw new ShopFileException($"“{folder}” is not empty; an export wants a folder of its own.");
        var made = !Directory.Exists(folder);
        try
        {
            Directory.CreateDirectory(Path.Combine(folder, ProfileFolder));
            // One read transaction: the files tell of one moment, also while the shop works.
            using var connection = database.Open();
            using var moment = connection.BeginTransaction(deferred: true);
            var tables = TransferTable.All.Select(table => Write(connection, table, folder)).ToList();
            var pictures = new PictureFiles(Path.GetDirectoryName(database.File)!);
            foreach (var hash in connection.Query<string>("SELECT DISTINCT hash FROM pictures ORDER BY hash"))
                pictures.CopyTo(hash, new PictureFiles(folder));
            var settings = connection
                .Query<(string Key, string Value)>("SELECT key, value FROM settings ORDER BY key")
                .ToDictionary(r => r.Key, r => r.Value);
            var manifest = new ExportManifest(
                ExportManifest.FormatName,
                connection.ExecuteScalar<int>("SELECT count(*) FROM SchemaVersions"),
                settings,
                tables
            );
            File.WriteAllText(Path.Combine(folder, ManifestFile), JsonSerializer.Serialize(manifest, Json) + "\n");
            return manifest;
        }
        catch (Exception ex) when (ex is IOException or UnauthorizedAccessException)
        {
            // Half an export is none.
            if (Directory.Exists(folder))
                foreach (var entry in Directory.EnumerateFileSystemEntries(folder).ToList())
                    if (Directory.Exists(entry))
                        Directory.Delete(entry, recursive: true);
                    else
                        File.Delete(entry);
            if (made && Directory.Exists(folder))
                Directory.Delete(folder);
            throw new ShopFileException($"The export could not be written: {ShopFullException.Reason(ex) ?? ex.Message}");
        }
    }

    /// <summary>Reads an export into an empty shop.</summary>
    /// <param name="folder">Folder of the export.</param>
    /// <param name="target">Folder of the shop; the caller holds its <see cref="ShopLock"/>.</param>
    /// <exception cref="ShopFileException">The shop is not empty, or the export cannot be read; nothing has changed.</exception>
    public static ExportManifest Import(string folder, string target)
    {
        var manifest = ReadManifest(folder);
        var place = Path.Combine(target, "shop.db");
        if (!IsEmpty(place))
            throw new ShopFileException($"The shop in “{target}” is not empty; an import wants an empty one.");
        var fresh = Path.Combine(target, $".importing-{Guid.NewGuid():N}");
        try
        {
            var database = new ShopDatabase(Path.Combine(fresh, "shop.db"));
            database.Migrate();
            database.Write(
                (connection, transaction) =>
                {
                    foreach (var (key, value) in manifest.Settings)
                        if (SettingsCheck.Wrong(key, value) is { } wrong)
                            throw new ShopFileException($"{ManifestFile}, {key}: “{Short(value ?? "")}” {wrong}.");
                    // How others reach the shop belongs to the machine, like accounts and codes.
                    connection.Execute(
                        "INSERT INTO settings (key, value) VALUES (@Key, @Value)",
                        manifest.Settings.Where(s => !SettingsCheck.BelongsToMachine(s.Key)).Select(s => new { s.Key, s.Value }),
                        transaction
                    );
                    foreach (var table in TransferTable.All)
                        Read(connection, transaction, table, folder, manifest);
                    return 0;
                }
            );
            TakePictures(database, new PictureFiles(folder), new PictureFiles(fresh));
            SqliteConnection.ClearAllPools();
            ShopDatabase.CheckFile(database.File);
            foreach (var old in (string[])["shop.db", "shop.db-wal", "shop.db-shm"])
                File.Delete(Path.Combine(target, old));
            foreach (var file in Directory.EnumerateFiles(fresh))
                File.Move(file, Path.Combine(target, Path.GetFileName(file)));
            if (Directory.Exists(Path.Combine(fresh, PictureFiles.FolderName)))
                new PictureFiles(fresh).MoveAllTo(new PictureFiles(target));
            return manifest;
        }
        catch (Exception ex) when (ex is SqliteException or FormatException or CsvHelperException)
        {
            throw new ShopFileException($"The export contradicts itself and was not taken in: {ex.Message}");
        }
        catch (Exception ex) when (ex is IOException or UnauthorizedAccessException)
        {
            throw new ShopFileException($"The export could not be taken in: {ex.Message}");
        }
        finally
        {
            SqliteConnection.ClearAllPools();
            if (Directory.Exists(fresh))
                Directory.Delete(fresh, recursive: true);
        }
    }

    // Each is what its name says; one that the export lacks was gone before.
    private static void TakePictures(ShopDatabase database, PictureFiles from, PictureFiles to)
    {
        foreach (var hash in database.Read(c => c.Query<string>("SELECT DISTINCT hash FROM pictures ORDER BY hash").AsList()))
        {
            if (from.Read(hash) is { } jpeg && PictureFiles.HashOf(jpeg) != hash)
                throw new ShopFileException($"{PictureFiles.FolderName}/{hash[..2]}/{hash}.jpg is not the picture that its name says.");
            from.CopyTo(hash, to);
        }
    }

    private static bool IsEmpty(string place)
    {
        if (!File.Exists(place))
            return true;
        ShopDatabase.CheckFile(place);
        var database = new ShopDatabase(place);
        return database.Read(connection =>
                connection.ExecuteScalar<long>(
                    "SELECT (SELECT count(*) FROM jobs) + (SELECT count(*) FROM gear) + (SELECT count(*) FROM profiles WHERE origin = 'shop')"
                )
            ) == 0;
    }

    private static ExportManifest ReadManifest(string folder)
    {
        var file = Path.Combine(folder, ManifestFile);
        if (!File.Exists(file))
            throw new ShopFileException($"“{folder}” holds no export: {ManifestFile} is missing.");
        try
        {
            var manifest = JsonSerializer.Deserialize<ExportManifest>(File.ReadAllText(file), Json);
            if (manifest is not { Format: not null, Settings: not null, Tables: not null })
                throw new ShopFileException($"“{file}” is no list of an export.");
            return manifest.Format == ExportManifest.FormatName && manifest.Level <= ShopDatabase.KnownLevel
                ? manifest
                : throw new ShopFileException($"“{folder}” was made by a newer version of Mendro. Update Mendro first.");
        }
        catch (JsonException)
        {
            throw new ShopFileException($"“{file}” cannot be read as JSON.");
        }
    }

    private static ExportedTable Write(SqliteConnection connection, TransferTable table, string folder)
    {
        var columns = table.Columns(connection);
        var shown = columns.Where(c => c.Name != table.Beside).ToList();
        using var text = new StreamWriter(Path.Combine(folder, table.File + ".csv"), false, new UTF8Encoding(false));
        using var csv = new CsvWriter(text, Csv);
        foreach (var column in shown)
            csv.WriteField(column.Name);
        csv.NextRecord();
        long rows = 0;
        foreach (
            IDictionary<string, object?> row in connection.Query($"SELECT * FROM {table.Name} ORDER BY {table.Order}", buffered: false)
        )
        {
            foreach (var column in shown)
                csv.WriteField(TransferText.Write(row[column.Name], column.IsText));
            csv.NextRecord();
            if (table.Beside is { } beside)
                File.WriteAllText(BesideFile(folder, row["id"]!.ToString()!, row["version"]!), (string)row[beside]!);
            rows++;
        }

        return new ExportedTable(table.File + ".csv", rows);
    }

    private static void Read(
        SqliteConnection connection,
        SqliteTransaction transaction,
        TransferTable table,
        string folder,
        ExportManifest manifest
    )
    {
        var file = Path.Combine(folder, table.File + ".csv");
        // An older export has not what came since.
        if (manifest.Level < ShopDatabase.KnownLevel && manifest.Tables.All(t => t.File != table.File + ".csv"))
            return;
        if (manifest.Tables.FirstOrDefault(t => t.File == table.File + ".csv") is not { } told || !File.Exists(file))
            throw new ShopFileException($"“{file}” is missing.");
        using var csv = new CsvReader(new StreamReader(file, new UTF8Encoding(false)), AnyCsv);
        if (!csv.Read() || !csv.ReadHeader())
            throw new ShopFileException($"“{file}” is empty.");
        var known = table.Columns(connection).ToDictionary(c => c.Name);
        var header = csv.HeaderRecord!;
        if (header.FirstOrDefault(h => !known.ContainsKey(h)) is { } strange)
            throw new ShopFileException($"“{file}” has a column “{strange}” that this version does not know.");
        string[] names = table.Beside is { } beside ? [.. header, beside] : header;
        var sql = $"INSERT INTO {table.Name} ({string.Join(", ", names)}) VALUES ({string.Join(", ", names.Select(n => "@" + n))})";
        // What the triggers of this shop have made of the rows before is told here as it was.
        if (TransferTable.AlsoMadeByTriggers.Contains(table.Name))
            connection.Execute($"DELETE FROM {table.Name}", transaction: transaction);
        long rows = 0;
        while (csv.Read())
        {
            var values = new DynamicParameters();
            foreach (var name in header)
            {
                if (csv.GetField(name) is not { } field)
                    throw new ShopFileException($"{table.File}.csv, line {csv.Parser.Row}: “{name}” is missing.");
                var text = TransferText.Read(field);
                if (TransferCheck.Wrong(table.Name, known[name], text) is { } wrong)
                    throw new ShopFileException($"{table.File}.csv, line {csv.Parser.Row}, {name}: “{Short(text!)}” {wrong}.");
                values.Add(name, TransferGate.Pass(TransferText.Read(field, known[name]), known[name]));
            }

            if (table.Beside is { } own)
            {
                var place = BesideFile(folder, csv.GetField("id")!, csv.GetField("version")!);
                var text = File.Exists(place) ? File.ReadAllText(place) : "";
                if (TransferCheck.Wrong(table.Name, known[own], text) is { } wrong)
                    throw new ShopFileException($"{Path.GetFileName(place)}: {wrong}");
                values.Add(own, text);
            }

            try
            {
                connection.Execute(sql, values, transaction);
            }
            catch (SqliteException ex)
            {
                throw new ShopFileException($"{table.File}.csv, line {csv.Parser.Row} does not fit the rest: {ex.Message}");
            }

            rows++;
        }

        if (rows != told.Rows)
            throw new ShopFileException($"“{file}” has {rows} rows and not {told.Rows}: it is not whole.");
    }

    private static string Short(string text) => text.Length > 40 ? PlainText.Clean(text[..40]) + " …" : PlainText.Clean(text);

    /// <summary>File of a profile version; the id is its own check, so that no file outside the folder is ever named.</summary>
    private static string BesideFile(string folder, string id, object version) =>
        id.All(c => char.IsAsciiLetterOrDigit(c) || c == '-')
            ? Path.Combine(folder, ProfileFolder, string.Create(CultureInfo.InvariantCulture, $"{id}@{version}.json"))
            : throw new ShopFileException($"“{id}” is no id of a model.");
}
