using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Money;
using Mendro.Tests.Shared;
using Microsoft.Extensions.Time.Testing;

namespace Mendro.Storage.Tests;

/// <summary>A shop in a real SQLite file of its own, removed afterwards.</summary>
public sealed class ShopFile : IDisposable
{
    private readonly string _folder = Path.Combine(Path.GetTempPath(), "mendro-" + Guid.NewGuid().ToString("N"));

    public ShopFile()
    {
        Database = PreparedShop.In(_folder);
        Profiles = new ProfileStore(Database, Time);
    }

    public FakeTimeProvider Time { get; } = new(PreparedShop.MadeAt);

    public ShopDatabase Database { get; }

    public ProfileStore Profiles { get; }

    public JobStore Jobs => new(Database, Time);

    public BenchRecordStore Records => new(Database, Time);

    public Timeline Timeline => new(Database);

    public static Job Blank(string claim = "dead") =>
        new()
        {
            ProfileId = "harrow-quartet",
            ProfileVersion = 1,
            ModelName = "Harrow Quartet",
            Claim = claim,
            Currency = "EUR",
            Stage = WorkStage.Find,
            ReceivedAt = new DateTimeOffset(2026, 3, 1, 9, 30, 0, TimeSpan.Zero),
        };

    public BenchRecord Tried(string function, bool pass, JobId jobId = default) =>
        Record(new FunctionTrial(function, pass, pass ? null : "nothing"), jobId) with
        {
            Words = $"{function}: {(pass ? "works" : "nothing at all")}",
            Minutes = 0.5,
        };

    public BenchRecord Record(RecordBody body, JobId jobId = default) =>
        new()
        {
            JobId = jobId,
            Body = body,
            Words = body.Key,
            Stage = WorkStage.Find,
            At = Time.GetUtcNow(),
        };

    public void Move(Job job, JobStatus? to, string reason = "", string nextTry = "") => Jobs.Move(job, to!, "moved", reason, nextTry);

    public Job TakeIn(string claim = "dead", string? owner = null) => Jobs.TakeIn(new NewJob(Blank(claim), owner, "", []));

    public void Dispose()
    {
        PreparedShop.Discard(Database);
    }
}
