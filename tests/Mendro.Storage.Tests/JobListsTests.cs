using CsCheck;
using Mendro.Core.Jobs;

namespace Mendro.Storage.Tests;

/// <summary>Lists by the page, and the search against a plain loop over all jobs.</summary>
public sealed class JobListsTests : IDisposable
{
    private readonly ShopFile _shop = new();

    public void Dispose() => _shop.Dispose();

    [Fact]
    public void A_long_list_is_turned_page_by_page_and_nothing_is_missed_or_told_twice()
    {
        var numbers = new List<long>();
        _shop.Database.InOneTransaction(() =>
        {
            for (var n = 0; n < 230; n++)
            {
                var job = _shop.TakeIn($"closed one {n}");
                numbers.Add(job.Number);
                _shop.Move(job, JobLife.Close(job.Status, JobEnd.Returned));
            }

            return true;
        });
        var lists = new JobLists(_shop.Database);
        lists.Page(JobShelf.Closed).Jobs.Count.ShouldBe(JobLists.PageSize);
        lists.Page(JobShelf.InShop).Jobs.ShouldBeEmpty();
        numbers.Reverse();
        _shop.Database.Jobs(JobShelf.Closed).Select(j => j.Number).ShouldBe(numbers);
        _shop.Database.Found("closed").Select(j => j.Number).ShouldBe(numbers);
        // Those in the shop come first, on the first page only.
        var live = _shop.TakeIn("closed lid, open hinge");
        _shop.Database.Found("closed").Select(j => j.Number).ShouldBe([live.Number, .. numbers]);
    }

    [Fact]
    public void The_search_finds_what_a_plain_loop_finds()
    {
        var words = (string[])["attic", "Attic lamp", "übel", "ÜBEL", "50 %", "K_77", "\"quoted\"", "a-b", "ab", "strange AND OR NOT", "*"];
        var random = new Random(5);
        var jobs = Enumerable
            .Range(0, 60)
            .Select(n =>
            {
                var job = _shop.Jobs.TakeIn(
                    new NewJob(
                        ShopFile.Blank(words[random.Next(words.Length)]) with
                        {
                            Serial = words[random.Next(words.Length)],
                        },
                        n % 3 == 0 ? "Ilka Dorn" : null,
                        "",
                        [_shop.Tried(n % 2 == 0 ? "picture" : "speaker", n % 5 == 0)]
                    )
                );
                if (n % 4 > 0)
                    _shop.Move(job, JobLife.Close(job.Status, JobEnd.Returned));
                return _shop.Jobs.Find(job.Number)!;
            })
            .ToList();
        string Text(Job job) =>
            $"{job.Number} {job.ModelName} {job.Serial} {job.Claim} {job.CustomerName} "
            + string.Join(' ', _shop.Records.Of(job.Id).Where(r => r.Body.IsSymptom).Select(r => r.Words));
        var texts = jobs.Select(j => (Job: j, Text: Text(j))).ToList();
        var asks = (string[])
            [
                "att",
                "tic",
                "übel",
                "ÜB",
                "50",
                "%",
                "K_7",
                "quoted\"",
                "a-b",
                "ab",
                "AND",
                "NOT",
                "*",
                "ilka",
                "dorn",
                "nothing",
                "101",
                "zebra",
            ];
        Gen.Int[0, asks.Length - 1]
            .Select(n => asks[n])
            .Array[1, 3]
            .Sample(
                asked =>
                {
                    // Words of one or two letters alone look among the units in the shop only.
                    var everywhere = asked.Any(w => w.Length >= 3);
                    var expected = texts
                        .Where(t => asked.All(w => t.Text.Contains(w, StringComparison.OrdinalIgnoreCase)))
                        .Where(t => everywhere || t.Job.ClosedAt is null)
                        .OrderBy(t => t.Job.ClosedAt is not null)
                        .ThenByDescending(t => t.Job.Number)
                        .Select(t => t.Job.Number);
                    _shop.Database.Found(string.Join(' ', asked)).Select(j => j.Number).ShouldBe(expected);
                },
                iter: 300,
                threads: 1
            );
    }
}
