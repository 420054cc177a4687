using System.Collections.Concurrent;
using System.Globalization;
using System.Net;
using Dapper;
using Mendro.Storage;

namespace Mendro.Web.Tests;

/// <summary>
/// SIGKILL to the real process in the midst of eight hands that write: no answered write is lost, none is half there, and the
/// database is whole. <c>bench/kill.sh</c> does it 200 times.
/// </summary>
public sealed class KillTests : IDisposable
{
    private const int InTheSuite = 3;
    private const int Hands = 8;

    private readonly string _folder = Directory.CreateTempSubdirectory("mendro-kill-").FullName;

    public void Dispose()
    {
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        Directory.Delete(_folder, true);
    }

    [Fact]
    public async Task Every_answered_write_survives_a_kill_in_the_midst_of_writing()
    {
        var kills = int.TryParse(Environment.GetEnvironmentVariable("MENDRO_KILLS"), CultureInfo.InvariantCulture, out var told)
            ? told
            : InTheSuite;
        var random = new Random(4);
        var (answered, refused) = (new ConcurrentDictionary<string, byte>(), new ConcurrentDictionary<string, byte>());
        for (var round = 0; round < kills; round++)
        {
            using var server = await RealServer.Open(_folder);
            // So many answers, and then the power is gone, wherever the others are just now.
            var until = answered.Count + 5 + random.Next(30);
            var enough = new TaskCompletionSource(TaskCreationOptions.RunContinuationsAsynchronously);
            void Tell(string claim)
            {
                answered.TryAdd(claim, 0);
                if (answered.Count >= until)
                    enough.TrySetResult();
            }

            var hands = Enumerable.Range(0, Hands).Select(n => Write(server, $"r{round}h{n}", Tell, c => refused.TryAdd(c, 0))).ToList();
            await Task.WhenAny(enough.Task, Task.WhenAll(hands));
            await server.Kill();
            server.ExitCode.ShouldBe(137);
            await Task.WhenAll(hands);
            Check(answered.Keys, refused.Keys, round);
        }
    }

    /// <summary>Takes units in, one after the other, until nobody answers.</summary>
    private static async Task Write(RealServer server, string who, Action<string> answered, Action<string> refused)
    {
        using var client = new HttpClient(new HttpClientHandler { AllowAutoRedirect = false, CookieContainer = new CookieContainer() })
        {
            BaseAddress = new Uri(server.Address),
        };
        try
        {
            using var page = await client.GetAsync("/Settings", TestContext.Current.CancellationToken);
            var token = (await WebShop.Parse(page)).QuerySelector("meta[name=mendro-token]")!.GetAttribute("content")!;
            for (var n = 0; ; n++)
            {
                var claim = $"mark{who}x{n}";
                using var request = new HttpRequestMessage(HttpMethod.Post, "/?handler=Quick")
                {
                    Content = new FormUrlEncodedContent([KeyValuePair.Create("line", $"quartet {claim}")]),
                };
                request.Headers.Add("X-Mendro-Antiforgery", token);
                using var response = await client.SendAsync(request, TestContext.Current.CancellationToken);
                // Under eight hands a busy machine may refuse one; what it refuses it has not taken.
                if (response.StatusCode == HttpStatusCode.ServiceUnavailable)
                    refused(claim);
                else
                {
                    response.StatusCode.ShouldBe(HttpStatusCode.Redirect);
                    answered(claim);
                }
            }
        }
        catch (HttpRequestException)
        {
            // The server is gone; what was on its way may be there or not.
        }
    }

    private void Check(ICollection<string> answered, ICollection<string> refused, int round)
    {
        // A connection of its own, as a program has that looks after a crash: what an earlier one knew of the index is out of date.
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        using var connection = new ShopDatabase(Path.Combine(_folder, "shop.db")).Open();
        connection.ExecuteScalar<string>("PRAGMA integrity_check").ShouldBe("ok");
        connection.Query("PRAGMA foreign_key_check").ShouldBeEmpty();
        // The claim is kept as it was typed, the model's name with it.
        var there = connection.Query<string>("SELECT claim FROM jobs").Select(c => c.Replace("quartet ", "", StringComparison.Ordinal)).ToList();
        there.ShouldBeUnique();
        answered.Except(there).ShouldBeEmpty($"lost after kill {round + 1}");
        there.Intersect(refused).ShouldBeEmpty($"refused and taken before kill {round + 1}");
        // None is half there: every job has its line in the timeline and its words in the search.
        connection
            .ExecuteScalar<long>(
                "SELECT count(*) FROM jobs j WHERE NOT EXISTS (SELECT 1 FROM timeline t WHERE t.job_id = j.id AND t.kind = 'intake')"
            )
            .ShouldBe(0);
        connection
            .ExecuteScalar<long>("SELECT count(*) FROM jobs j WHERE NOT EXISTS (SELECT 1 FROM job_texts t WHERE t.job_id = j.id)")
            .ShouldBe(0);
        connection.ExecuteScalar<long>("SELECT count(*) FROM jobs_due").ShouldBe(0);
    }
}
