using Dapper;
using Mendro.Core.Diagnosis;
using Mendro.Core.Profiles;
using Mendro.Storage;

namespace Mendro.Web.Tests;

/// <summary>A record of a kind that this Mendro does not know, as a newer one's backup brings it: kept, told as noted, never in the
/// way.</summary>
public sealed class NewerRecordTests : IDisposable
{
    private readonly WebShop _shop = new();

    public void Dispose() => _shop.Dispose();

    [Fact]
    public async Task Every_page_of_the_shop_still_opens()
    {
        var number = await _shop.TakeIn();
        var job = _shop.Jobs.Find(number)!;
        using (var connection = _shop.Service<ShopDatabase>().Open())
            connection.Execute(
                """
                INSERT INTO bench_records (job_id, seq, kind, subject, payload_version, payload, words, note, minutes, stage, at)
                VALUES (@Id, 900, 'hologram', 'screen', 7, '{"turns":[1,2,{"deep":true}]}', 'Hologram taken', '', 2, 'Find',
                  '2026-11-01T10:00:00.000Z')
                """,
                new { job.Id }
            );
        string[] pages =
        [
            "/",
            "/Jobs",
            "/Jobs?q=hologram",
            "/Patterns",
            .. new[]
            {
                "Intake",
                "Find",
                "Why",
                "Swaps",
                "Fix",
                "Prove",
                "HandOver",
                "Sheet",
                "Timeline",
                "Compare",
                "Supply",
                "Contacts",
            }.Select(p => $"/Jobs/{number}/{p}"),
        ];
        foreach (var page in pages)
        {
            using var answer = await _shop.Client.GetAsync(page, TestContext.Current.CancellationToken);
            ((int)answer.StatusCode, page).ShouldBeOneOf((200, page), (302, page));
        }

        var record = _shop.Records.Of(job.Id).Last();
        (record.Body.Key, record.Words).ShouldBe(("hologram", "Hologram taken"));
        (await _shop.Page($"/Jobs/{number}/Find")).Body!.TextContent.ShouldContain("Hologram taken");
    }
}
