using System.Net;
using Dapper;

namespace Mendro.Web.Tests;

/// <summary>Eight benches at once on one shop: a record for every answer, in every job and in the timeline, and none besides.</summary>
public sealed class EightBenchesTests : IDisposable
{
    private const int Benches = 8;
    private const int EntriesEach = 25;
    private const int Tries = 40;

    private readonly WebShop _shop = new();

    public void Dispose() => _shop.Dispose();

    [Fact]
    public async Task What_eight_benches_file_at_once_is_all_there_and_nothing_twice()
    {
        var numbers = new List<long>();
        for (var n = 0; n < 4; n++)
            numbers.Add(await _shop.TakeIn("harrow-quartet", ("Form.Result[power-light]", "fail")));
        var token = (await _shop.Page("/Settings")).QuerySelector("meta[name=mendro-token]")!.GetAttribute("content")!;
        var before = (Records: Count("bench_records"), Timeline: Count("timeline"));
        var answers = await Task.WhenAll(Enumerable.Range(0, Benches).Select(bench => Task.Run(() => Work(bench, numbers, token))));
        answers.Sum(a => a.Refused).ShouldBe(0);
        var filed = answers.Sum(a => a.Filed);
        filed.ShouldBe(Benches * EntriesEach);
        (Count("bench_records") - before.Records).ShouldBe(filed);
        // A line for every record, and one for the job's way on to Find or Fix at most.
        (Count("timeline") - before.Timeline).ShouldBeInRange(filed, filed + numbers.Count * 2);
        // The places in the order of events are taken once each.
        using var connection = _shop.Database.Open();
        connection.Query("SELECT job_id, seq FROM bench_records GROUP BY job_id, seq HAVING count(*) > 1").ShouldBeEmpty();
        foreach (var (number, n) in numbers.Select((number, n) => (number, n)))
            _shop.View(number).Records.Count.ShouldBe(1 + answers.Sum(a => a.ByJob[n]));
    }

    private async Task<(int Filed, int Refused, int[] ByJob)> Work(int bench, List<long> numbers, string token)
    {
        var (filed, refused, byJob) = (0, 0, new int[numbers.Count]);
        for (var n = 0; n < EntriesEach; n++)
        {
            var job = (bench + n) % numbers.Count;
            var isRepair = n % 5 == 4;
            using var answer = await Ask(numbers[job], isRepair, $"6.{n}{bench}", token);
            if (answer.StatusCode == HttpStatusCode.Redirect)
                (filed, byJob[job]) = (filed + 1, byJob[job] + 1);
            else
                refused++;
        }

        return (filed, refused, byJob);
    }

    // A machine under load may refuse one: what it refuses it has not taken, and it is pressed again.
    private async Task<HttpResponseMessage> Ask(long number, bool isRepair, string reading, string token)
    {
        for (var tries = 1; ; tries++)
        {
            using var request = new HttpRequestMessage(HttpMethod.Post, isRepair ? $"/Jobs/{number}/Fix" : $"/Jobs/{number}/Find?handler=Reading")
            {
                Content = new FormUrlEncodedContent(
                    isRepair
                        ? [KeyValuePair.Create("part", "switch"), KeyValuePair.Create("method", "flush-switch")]
                        : [KeyValuePair.Create("probe", "tp3"), KeyValuePair.Create("text", reading)]
                ),
            };
            request.Headers.Add("X-Mendro-Antiforgery", token);
            var answer = await _shop.Client.SendAsync(request, TestContext.Current.CancellationToken);
            if (answer.StatusCode != HttpStatusCode.ServiceUnavailable || tries == Tries)
                return answer;
            answer.Dispose();
        }
    }

    private long Count(string table)
    {
        using var connection = _shop.Database.Open();
        return connection.ExecuteScalar<long>($"SELECT count(*) FROM {table}");
    }
}
