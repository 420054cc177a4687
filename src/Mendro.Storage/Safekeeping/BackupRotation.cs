using Mendro.Core.Quantities;

namespace Mendro.Storage;

/// <summary>A backup kept by rotation.</summary>
/// <param name="Path">File.</param>
/// <param name="Day">Day it stands for.</param>
/// <param name="At">When it was written, UTC.</param>
/// <param name="Bytes">Length.</param>
public sealed record KeptBackup(string Path, DateOnly Day, DateTimeOffset At, long Bytes);

/// <summary>One backup a day in the shop's own folder: those of the last seven days, and the last of each of the four calendar
/// weeks before.</summary>
public sealed class BackupRotation(string folder)
{
    private const int Days = 7;
    private const int Weeks = 4;
    private const string Prefix = "mendro-";
    private const string Extension = ".backup";

    /// <summary>Folder of the backups.</summary>
    public string Folder { get; } = Path.Combine(folder, "backups");

    /// <summary>The backups kept, newest first.</summary>
    public IReadOnlyList<KeptBackup> Kept() =>
        !Directory.Exists(Folder)
            ? []
            : Directory
                .EnumerateFiles(Folder, Prefix + "*" + Extension)
                .Select(path => (Path: path, Name: System.IO.Path.GetFileNameWithoutExtension(path)[Prefix.Length..]))
                .Where(f => DayText.Read(f.Name) is not null)
                .Select(f => new KeptBackup(
                    f.Path,
                    DayText.Read(f.Name)!.Value,
                    new DateTimeOffset(File.GetLastWriteTimeUtc(f.Path), TimeSpan.Zero),
                    new FileInfo(f.Path).Length
                ))
                .OrderByDescending(b => b.Day)
                .ToList();

    /// <summary>Takes the backup of a day, in place of an earlier one of that day, and lets go of what is no longer kept.</summary>
    /// <param name="today">Day by the shop's own clock.</param>
    /// <param name="at">Now, UTC.</param>
    /// <exception cref="ShopFileException">It cannot be written.</exception>
    public KeptBackup Take(DateOnly today, DateTimeOffset at)
    {
        var file = Path.Combine(Folder, Prefix + DayText.Write(today) + Extension);
        ShopBackup.Write(folder, file, at, pictures: false);
        var kept = Kept();
        var keep = Keep(kept.Select(b => b.Day).ToList(), today).ToHashSet();
        foreach (var old in kept.Where(b => !keep.Contains(b.Day)))
            File.Delete(old.Path);
        return Kept().First(b => b.Day == today);
    }

    /// <summary>Which of the days are kept.</summary>
    public static IEnumerable<DateOnly> Keep(IReadOnlyList<DateOnly> days, DateOnly today) =>
        days.Where(d => d > today.AddDays(-Days))
            // Weeks of the calendar, not counted back from today: else each day would choose another day of every week.
            .Concat(
                days.Where(d => d <= today.AddDays(-Days))
                    .GroupBy(d => d.DayNumber / 7)
                    .OrderByDescending(week => week.Key)
                    .Take(Weeks)
                    .Select(week => week.Max())
            );
}
