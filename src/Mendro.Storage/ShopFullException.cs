using Microsoft.Data.Sqlite;

namespace Mendro.Storage;

/// <summary>Nothing can be written: the disk is full, read-only or broken. What was there stays, and can be looked at.</summary>
/// <param name="why">Why, in a word or two.</param>
/// <param name="inner">What was thrown.</param>
public sealed class ShopFullException(string why, Exception? inner = null) : ShopBusyException($"{why}. Nothing was changed.", inner)
{
    // What SQLite answers (sqlite.org/rescode.html): read-only, an error of the disk, full, cannot be opened.
    private const int ReadOnly = 8;
    private const int DiskError = 10;
    private const int Full = 13;
    private const int CannotOpen = 14;

    // Of Linux (errno): no space left, quota used up, read-only file system.
    private const int NoSpace = 28;
    private const int NoQuota = 122;
    private const int ReadOnlySystem = 30;

    /// <summary>Why nothing can be written.</summary>
    public string Why => why;

    /// <summary>What it is when an exception says that nothing can be written; null for another one.</summary>
    public static string? Reason(Exception ex) =>
        ex switch
        {
            ShopFullException full => full.Why,
            SqliteException { SqliteErrorCode: Full } => "The disk is full",
            SqliteException { SqliteErrorCode: ReadOnly } => "The disk takes nothing: it is read-only",
            SqliteException { SqliteErrorCode: DiskError } => "The disk is full, or does not work",
            SqliteException { SqliteErrorCode: CannotOpen } => "The shop's file cannot be opened: the disk may be full",
            IOException { HResult: NoSpace or NoQuota } => "The disk is full",
            IOException { HResult: ReadOnlySystem } => "The disk takes nothing: it is read-only",
            UnauthorizedAccessException => "The shop's folder takes nothing",
            _ => null,
        };
}
