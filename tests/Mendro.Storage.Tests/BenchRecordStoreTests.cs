using Dapper;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
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
        _shop.Records.Add(
            _shop.Record(new ProbeReading("tp3", ProbeOutcome.Jumps, new Reading(ReadingUnit.Volts, 6.2, null, true), "jumps"), job.Id)
        );
        _shop.Records.Add(_shop.Record(new CauseSeen("switch", "dirty", true), job.Id));
        _shop.Records.Add(_shop.Record(new RepairLogged("switch", "flush-switch"), job.Id) with { Cost = 0.2m });

        var events = BenchRecord.Events(_shop.Records.Of(job.Id));
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

        _shop
            .Records.Of(job.Id)
            .Select(r => (r.Seq, r.Subject, r.Body.Sign))
            .ShouldBe([(1L, "power-light", RecordSign.Good), (2L, "picture", RecordSign.Bad)]);
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
    public void Undo_of_a_correction_brings_the_original_back()
    {
        var job = _shop.TakeIn();
        _shop.Records.Add(_shop.Tried("picture", false, job.Id));
        var first = _shop.Records.Add(_shop.Tried("power-light", false, job.Id));
        var second = _shop.Records.Correct(job.Id, first, _shop.Tried("power-light", true))!.Value;
        _shop.Records.Undo(job.Id)!.Id.ShouldBe(second);
        _shop.Records.Of(job.Id).Select(r => r.Id).ShouldBe([1L, first]);
        // A second undo goes on to what was filed before.
        _shop.Records.Undo(job.Id)!.Id.ShouldBe(first);
        _shop.Records.Of(job.Id).ShouldHaveSingleItem().Subject.ShouldBe("picture");
    }

    [Fact]
    public void Of_a_reading_and_its_corrections_one_holds_whichever_is_brought_back()
    {
        var job = _shop.TakeIn();
        var first = _shop.Records.Add(_shop.Tried("power-light", false, job.Id));
        var second = _shop.Records.Correct(job.Id, first, _shop.Tried("power-light", true))!.Value;
        var third = _shop.Records.Correct(job.Id, second, _shop.Tried("power-light", false))!.Value;
        foreach (var back in (long[])[first, second, third, first])
        {
            _shop.Records.Restore(job.Id, back).ShouldBeTrue();
            _shop.Records.Of(job.Id).ShouldHaveSingleItem().Id.ShouldBe(back);
        }
    }

    [Fact]
    public void A_correction_may_not_change_the_kind_of_entry()
    {
        var job = _shop.TakeIn();
        var first = _shop.Records.Add(_shop.Tried("power-light", false, job.Id));
        _shop.Records.Correct(job.Id, first, _shop.Record(new MarkNoted("rattle"))).ShouldBeNull();
        _shop.Records.Of(job.Id).ShouldHaveSingleItem().Id.ShouldBe(first);
    }

    [Fact]
    public void A_kind_that_this_version_does_not_know_is_kept_as_it_is_and_shown_as_noted()
    {
        var job = _shop.TakeIn();
        var id = _shop.Records.Add(
            _shop.Record(new UnknownRecord("hologram", 3, """{"depth":7}"""), job.Id) with
            {
                Words = "Hologram taken",
            }
        );
        var record = _shop.Records.Of(job.Id).ShouldHaveSingleItem();
        record.Body.ShouldBe(new UnknownRecord("hologram", 3, """{"depth":7}"""));
        (record.ToEvent(), record.Words, record.Body.Sign).ShouldBe((null, "Hologram taken", RecordSign.Noted));
        // A newer payload of a known kind is not guessed at either.
        using (var connection = _shop.Database.Open())
            connection.Execute(
                "DROP TRIGGER bench_records_stay; UPDATE bench_records SET kind = 'function', payload_version = 99 WHERE id = @id",
                new { id }
            );
        _shop.Records.Of(job.Id).Single().Body.ShouldBe(new UnknownRecord("function", 99, """{"depth":7}"""));
    }
}
