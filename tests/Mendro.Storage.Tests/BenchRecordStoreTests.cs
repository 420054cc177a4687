using Mendro.Core.Evidence;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;

namespace Mendro.Storage.Tests;

/// <summary>Bench records: added, corrected in place, withdrawn and brought back; nothing is overwritten.</summary>
public sealed class BenchRecordStoreTests : IDisposable
{
    private readonly ShopFile _shop = new();

    public void Dispose() => _shop.Dispose();

    [Fact]
    public void Records_keep_their_order_and_reach_the_engine_as_events()
    {
        var job = _shop.TakeIn();
        _shop.Records.Add(_shop.Tried("power-light", false, job.Id));
        _shop.Records.Add(new BenchRecord { JobId = job.Id, Kind = RecordKind.Probe, Subject = "tp3", State = "jumps", Reading = "6.2 V, jumps", Value = 6.2, Words = "x", At = _shop.Time.GetUtcNow() });
        _shop.Records.Add(new BenchRecord { JobId = job.Id, Kind = RecordKind.Cause, Subject = "switch", Detail = "dirty", State = "present", Words = "x", At = _shop.Time.GetUtcNow() });
        _shop.Records.Add(new BenchRecord { JobId = job.Id, Kind = RecordKind.Repair, Subject = "switch", Detail = "flush-switch", Cost = 0.2m, Words = "x", At = _shop.Time.GetUtcNow() });

        var events = BenchRecordStore.Events(_shop.Records.Of(job.Id));
        events[0].ShouldBe(new FunctionTried(events[0].Id, "power-light", false, "nothing"));
        events[1].ShouldBe(new ProbeTaken(events[1].Id, "tp3", ProbeOutcome.Jumps));
        events[2].ShouldBe(new CauseConfirmed(events[2].Id, "switch", "dirty", true));
        events[3].ShouldBe(new RepairDone(events[3].Id, "switch", "flush-switch"));
        _shop.Records.Of(job.Id)[3].Cost.ShouldBe(0.2m);
    }

    [Fact]
    public void A_correction_takes_the_place_of_what_it_corrects()
    {
        var job = _shop.TakeIn();
        var first = _shop.Records.Add(_shop.Tried("power-light", false, job.Id));
        _shop.Records.Add(_shop.Tried("picture", false, job.Id));
        _shop.Records.Correct(job.Id, first, _shop.Tried("power-light", true)).ShouldNotBeNull();

        _shop.Records.Of(job.Id).Select(r => (r.Seq, r.Subject, r.State)).ShouldBe([(1L, "power-light", "pass"), (2L, "picture", "fail")]);
        _shop.Records.Find(first)!.WithdrawnAt.ShouldNotBeNull();
        _shop.Timeline.Of(job.Id)[0].Words.ShouldStartWith("Corrected: power-light");
        _shop.Records.Correct(job.Id, first, _shop.Tried("power-light", true)).ShouldBeNull();
    }

    [Fact]
    public void Withdrawn_records_come_back_to_their_place()
    {
        var job = _shop.TakeIn();
        var first = _shop.Records.Add(_shop.Tried("power-light", false, job.Id));
        _shop.Records.Add(_shop.Tried("picture", false, job.Id));
        _shop.Records.Withdraw(job.Id, first).ShouldBeTrue();
        _shop.Records.Withdraw(job.Id, first).ShouldBeFalse();
        _shop.Records.Of(job.Id).ShouldHaveSingleItem().Subject.ShouldBe("picture");
        _shop.Records.LastWithdrawn(job.Id)!.Id.ShouldBe(first);
        _shop.Records.Restore(job.Id, first).ShouldBeTrue();
        _shop.Records.Of(job.Id).Select(r => r.Subject).ShouldBe(["power-light", "picture"]);
    }

    [Fact]
    public void A_record_of_another_job_cannot_be_touched()
    {
        var mine = _shop.TakeIn();
        var other = _shop.TakeIn();
        var id = _shop.Records.Add(_shop.Tried("power-light", false, other.Id));
        _shop.Records.Withdraw(mine.Id, id).ShouldBeFalse();
        _shop.Records.Correct(mine.Id, id, _shop.Tried("power-light", true)).ShouldBeNull();
        _shop.Records.Of(other.Id).Count.ShouldBe(1);
    }

    [Fact]
    public void Opening_the_unit_for_a_reading_is_noted()
    {
        var job = _shop.TakeIn();
        _shop.Records.Add(_shop.Tried("power-light", false, job.Id), AccessState.Open);
        _shop.Jobs.Find(job.Number)!.Access.ShouldBe(AccessState.Open);
    }

    [Fact]
    public void Records_of_several_jobs_come_with_one_question()
    {
        var (a, b) = (_shop.TakeIn(), _shop.TakeIn());
        _shop.Records.Add(_shop.Tried("power-light", false, a.Id));
        _shop.Records.Add(_shop.Tried("picture", true, b.Id));
        var all = _shop.Records.OfAll([a.Id, b.Id]);
        all[a.Id].ShouldHaveSingleItem().Subject.ShouldBe("power-light");
        all[b.Id].ShouldHaveSingleItem().Subject.ShouldBe("picture");
    }
}
