using System.Globalization;
using System.Text.Json;
using Mendro.Core.Profiles;
using Mendro.Shop;
using Mendro.Storage;

namespace Mendro.Cli;

/// <summary><c>backup</c>, <c>restore</c>, <c>export</c> and <c>import</c>: a whole shop out of its folder and into one.</summary>
internal static class SafekeepingCommands
{
    public static int Backup(string[] args, TextWriter output, TextWriter error) =>
        Run(
            args,
            "backup wants a file to write: backup FILE [--data DIR]",
            error,
            (file, folder, json) =>
            {
                var manifest = ShopBackup.Write(folder, file, TimeProvider.System.GetUtcNow());
                Say(
                    output,
                    json,
                    new
                    {
                        file,
                        bytes = new FileInfo(file).Length,
                        manifest.Jobs,
                        manifest.Level,
                    },
                    $"{file}: {Count(manifest.Jobs, "job")}, {new FileInfo(file).Length / 1024} KB"
                );
                return Commands.Good;
            }
        );

    public static int Restore(string[] args, TextWriter output, TextWriter error) =>
        Run(
            args,
            "restore wants a backup: restore FILE [--data DIR]",
            error,
            (file, folder, json) =>
            {
                using var held = Hold(folder);
                var (manifest, old) = ShopBackup.Restore(file, folder, TimeProvider.System.GetUtcNow());
                var kept = old is null ? "" : $" The shop that was there lies in {old}.";
                Say(
                    output,
                    json,
                    new
                    {
                        file,
                        folder,
                        manifest.Jobs,
                        manifest.Level,
                        oldShop = old,
                    },
                    $"Restored to {folder}: {Count(manifest.Jobs, "job")}.{kept}"
                );
                return Commands.Good;
            }
        );

    public static int Export(string[] args, TextWriter output, TextWriter error) =>
        Run(
            args,
            "export wants a folder to write: export DIR [--data DIR]",
            error,
            (target, folder, json) =>
            {
                var manifest = ShopTransfer.Export(Opened(folder), target);
                var rows = manifest.Tables.Sum(t => t.Rows);
                Say(
                    output,
                    json,
                    new
                    {
                        folder = target,
                        tables = manifest.Tables,
                        manifest.Level,
                    },
                    $"{target}: {Count(rows, "row")} in {manifest.Tables.Count} files"
                );
                return Commands.Good;
            }
        );

    public static int Import(string[] args, TextWriter output, TextWriter error) =>
        Run(
            args,
            "import wants the folder of an export: import DIR [--data DIR]",
            error,
            (source, folder, json) =>
            {
                using var held = Hold(folder);
                var manifest = ShopTransfer.Import(source, folder);
                Say(
                    output,
                    json,
                    new
                    {
                        folder,
                        tables = manifest.Tables,
                        manifest.Level,
                    },
                    $"Taken in to {folder}: {Count(manifest.Tables.Sum(t => t.Rows), "row")}"
                );
                return Commands.Good;
            }
        );

    public static int Recover(string[] args, TextWriter output, TextWriter error) =>
        Run(
            args,
            "recover wants the name of an account: recover NAME [--data DIR]",
            error,
            (name, folder, json) =>
            {
                var (database, time) = (Opened(folder), TimeProvider.System);
                var (accounts, sessions) = (new AccountStore(database, time), new SessionStore(database, time));
                var desk = new AccountDesk(
                    accounts,
                    sessions,
                    new CodeStore(database, time),
                    new AccessLog(database, time),
                    new NoPasswords(),
                    database
                );
                if (desk.Recover("", name) is not { Done: { } given })
                {
                    var names = accounts.All().Where(a => a.ClosedAt is null).Select(a => a.Name).ToList();
                    return Commands.Refuse(
                        error,
                        $"There is no open account “{name}”. {(names.Count > 0 ? "There are: " + string.Join(", ", names) : "There is none yet")}."
                    );
                }

                // Whoever sits at the machine has the shop anyway: the phone that is gone bars nobody.
                if (accounts.Find(name) is { SecondSecret: not null } account)
                    accounts.SetSecond(account.Id, null, []);
                Say(
                    output,
                    json,
                    new { given.For, given.Code },
                    $"{given.For} sets a new password with {given.Code} at /Code of the shop. It works once, for a day."
                );
                return Commands.Good;
            }
        );

    /// <summary>The database of a shop, also one that is open.</summary>
    private static ShopDatabase Opened(string folder)
    {
        if (!File.Exists(Path.Combine(folder, "shop.db")))
            throw new ShopFileException($"There is no shop in “{folder}”.");
        var database = new ShopDatabase(Path.Combine(folder, "shop.db"));
        // A shop of an earlier level is brought up to date first, as when it is opened.
        using (var held = ShopLock.TryTake(folder))
            if (held is not null)
                database.Migrate();
        return database;
    }

    private static int Run(string[] args, string usage, TextWriter error, Func<string, string, bool, int> work)
    {
        var at = Array.IndexOf(args, "--data");
        var data = at >= 0 && at + 1 < args.Length ? args[at + 1] : null;
        if (at >= 0 && data is null)
            return Commands.Refuse(error, "--data lacks its value: the folder of the shop.");
        var rest = args.Where((a, n) => a != "--json" && (at < 0 || n != at && n != at + 1)).ToList();
        if (rest.Count != 1 || rest[0].StartsWith("--", StringComparison.Ordinal))
            return Commands.Refuse(error, usage);
        // A whole shop in a file is its owner's alone, like the folder it comes of.
        ShopFolder.NarrowNewFiles();
        try
        {
            return work(rest[0], Path.GetFullPath(data ?? UsualFolder()), args.Contains("--json"));
        }
        catch (ShopFileException ex)
        {
            return Commands.Refuse(error, ex.Message);
        }
    }

    /// <summary>The shop when none is told: <c>MENDRO_DATA</c>, else <c>.data</c> beside Mendro, else the demo's when it is the
    /// only one.</summary>
    private static string UsualFolder()
    {
        if (Environment.GetEnvironmentVariable("MENDRO_DATA") is { Length: > 0 } told)
            return told;
        var home = Environment.GetEnvironmentVariable("MENDRO_HOME") ?? "";
        var (own, demo) = (Path.Combine(home, ".data"), Path.Combine(home, ".demo"));
        return !File.Exists(Path.Combine(own, "shop.db")) && File.Exists(Path.Combine(demo, "shop.db")) ? demo : own;
    }

    private static ShopLock Hold(string folder) =>
        ShopLock.TryTake(folder) ?? throw new ShopFileException($"Mendro works on “{folder}” now. Close it first.");

    private static string Count(long number, string thing) =>
        string.Create(CultureInfo.InvariantCulture, $"{number} {thing}{(number == 1 ? "" : "s")}");

    private static void Say(TextWriter output, bool json, object answer, string words) =>
        output.WriteLine(json ? JsonSerializer.Serialize(answer, ProfileJson.Options) : words);

    /// <summary>A code is made here, no password.</summary>
    private sealed class NoPasswords : IPasswordKeeper
    {
        public string Hash(string password) => throw new NotSupportedException("Passwords are set in the shop itself.");

        public bool Fits(string hash, string password) => false;
    }
}
