using System.Net;
using Dapper;
using Mendro.Tests.Shared;
using Microsoft.Data.Sqlite;

namespace Mendro.Web.Tests;

/// <summary>A page opens whatever is stored: every text of every table of the demo world is spoilt, found by reflection, and all pages that
/// lead from one to the next are looked at.</summary>
public sealed class HostileRowsTests : IDisposable
{
    // Enough to come to every kind of page by its links.
    private const int MostPages = 260;

    // What follows from other rows, and what belongs to the machine.
    private static readonly string[] Left = ["SchemaVersions", "settings", "job_texts", "journal_months"];

    private readonly string _folder = Directory.CreateTempSubdirectory("mendro-hostile-rows-").FullName;

    public void Dispose()
    {
        SqliteConnection.ClearAllPools();
        Directory.Delete(_folder, true);
    }

    [Theory]
    [InlineData("{\"x<b>")]
    [InlineData("2026-99-99")]
    public async Task Every_page_opens(string value)
    {
        PreparedShop.DemoIn(_folder);
        if (!File.Exists(Path.Combine(_folder, "shop.db")))
            using (await RealServer.Open(_folder, null, "--demo", "true")) { }
        Spoil(value);
        using var server = await RealServer.Open(_folder);
        using var client = new HttpClient { BaseAddress = new Uri(server.Address) };
        var open = new Queue<string>(["/", "/Tools", "/Jobs", "/Jobs?show=closed", "/Lots", "/Stock", "/Settings"]);
        var (seen, wrong) = (new HashSet<string>(), new List<string>());
        foreach (var number in (int[])[101, 102, 120, 125])
        foreach (var page in (string[])["Find", "Fix", "Prove", "HandOver", "Owner", "Bill", "Timeline", "Sheet", "Pictures", "Sale", "Intake", "Traces"])
            open.Enqueue($"/Jobs/{number}/{page}");
        while (open.TryDequeue(out var path) && seen.Count < MostPages)
        {
            if (!seen.Add(path))
                continue;
            using var answer = await client.GetAsync(path, TestContext.Current.CancellationToken);
            if ((int)answer.StatusCode >= 500)
                wrong.Add($"{path}: {(int)answer.StatusCode}");
            if (answer.StatusCode != HttpStatusCode.OK || answer.Content.Headers.ContentType?.MediaType != "text/html")
                continue;
            var page = await WebShop.Parse(answer);
            foreach (var link in page.QuerySelectorAll("a[href^='/']").Select(a => a.GetAttribute("href")!.Split('#')[0]))
                if (!link.Contains("handler=", StringComparison.Ordinal))
                    open.Enqueue(link);
        }

        wrong.ShouldBeEmpty();
        seen.Count.ShouldBeGreaterThan(100);
    }

    private void Spoil(string value)
    {
        using var connection = new SqliteConnection($"Data Source={Path.Combine(_folder, "shop.db")};Pooling=false");
        connection.Open();
        connection.Execute("PRAGMA foreign_keys = OFF");
        var triggers = connection.Query<(string Name, string Sql)>("SELECT name, sql FROM sqlite_master WHERE type = 'trigger'").ToList();
        foreach (var (name, _) in triggers)
            connection.Execute($"DROP TRIGGER {name}");
        var spoilt = 0;
        var tables = connection.Query<string>(
            "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite%' AND name NOT LIKE 'job!_search%' ESCAPE '!'"
        );
        foreach (var table in tables.Except(Left).ToList())
        {
            var refers = connection.Query<string>($"SELECT \"from\" FROM pragma_foreign_key_list('{table}')").ToHashSet();
            var texts = connection.Query<string>($"SELECT name FROM pragma_table_info('{table}') WHERE type = 'TEXT' AND pk = 0");
            foreach (var column in texts.Except(refers).Except(["profile_id"]).ToList())
                try
                {
                    spoilt += connection.Execute($"UPDATE {table} SET {column} = @value", new { value });
                }
                catch (SqliteException ex) when (ex.SqliteErrorCode == 19)
                {
                    // The database itself lets nothing else stand there: a closed list, or a name that is one only.
                }
        }

        foreach (var (_, sql) in triggers)
            connection.Execute(sql);
        spoilt.ShouldBeGreaterThan(1000);
    }
}
