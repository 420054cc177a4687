namespace Mendro.Storage;

/// <summary>What a backup holds; <c>manifest.json</c> inside it.</summary>
/// <param name="Format">Always <c>mendro.backup/1</c>.</param>
/// <param name="CreatedAt">When it was taken, UTC.</param>
/// <param name="Level">Level of the database: how many migrations have run.</param>
/// <param name="Jobs">Jobs in it, for a glance.</param>
/// <param name="Files">Files with their checksums.</param>
public sealed record BackupManifest(string Format, DateTimeOffset CreatedAt, int Level, long Jobs, IReadOnlyList<BackupFile> Files)
{
    /// <summary>Name of the format without its version.</summary>
    public const string FormatFamily = "mendro.backup/";

    /// <summary>The format written.</summary>
    public const string FormatName = FormatFamily + "1";
}

/// <summary>One file of a backup.</summary>
/// <param name="Name">Path inside the backup and inside the shop's folder.</param>
/// <param name="Bytes">Length.</param>
/// <param name="Sha256">Checksum, lower-case hexadecimal.</param>
public sealed record BackupFile(string Name, long Bytes, string Sha256);
