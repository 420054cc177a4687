using Mendro.Core.Jobs;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;

namespace Mendro.Storage.Tests;

/// <summary>Known-good readings, contact marks, hidden truths and instrument addresses.</summary>
public class ReadingStoresTests
{
    [Fact]
    public void A_good_unit_counts_once_a_probe_with_its_newest_reading()
    {
        using var file = new ShopFile();
        var store = new GoodReadingStore(file.Database, file.Time);
        store.Add([Good("A", 5.0), Good("A", 5.1), Good("B", 5.2), Good("C", null)]);
        store.Of("harrow-quartet").Select(r => (r.GoodUnit, r.Value)).ShouldBe([("A", 5.1), ("B", 5.2), ("C", null)]);
        var signature = store.Signature("harrow-quartet", "tp5")!;
        (signature.Units, signature.Median!.Value).ShouldBe((3, 5.15));
        store.Of("another").ShouldBeEmpty();
    }

    [Fact]
    public void A_unit_put_aside_counts_no_more_and_can_come_back()
    {
        using var file = new ShopFile();
        var store = new GoodReadingStore(file.Database, file.Time);
        store.Add([Good("A", 5.0), Good("B", 9.0)]);
        store.Withdraw("harrow-quartet", "B");
        store.Signature("harrow-quartet", "tp5")!.Units.ShouldBe(1);
        store.Units("harrow-quartet").ShouldBe([new GoodUnit("A", 1, false), new GoodUnit("B", 1, true)]);
        store.Restore("harrow-quartet", "B");
        store.Signature("harrow-quartet", "tp5")!.Units.ShouldBe(2);
    }

    [Fact]
    public void A_revision_with_enough_units_has_a_signature_of_its_own()
    {
        using var file = new ShopFile();
        var store = new GoodReadingStore(file.Database, file.Time);
        store.Add([Good("A", 5, "A"), Good("B", 5, "A"), Good("C", 8, "B"), Good("D", 8, "B"), Good("E", 8, "B")]);
        store.Signature("harrow-quartet", "tp5", "B")!.Median.ShouldBe(8);
        store.Signature("harrow-quartet", "tp5", "A")!.Units.ShouldBe(5);
    }

    [Fact]
    public void A_contact_shows_its_newest_mark_and_marks_are_taken_back_one_by_one()
    {
        using var file = new ShopFile();
        var job = file.TakeIn();
        var store = new ContactMarkStore(file.Database, file.Time);
        store.Add(job.Id, "slot", new ContactMark(3, ContactState.Silent, null));
        store.Add(job.Id, "slot", new ContactMark(11, ContactState.Beep, 0.3));
        store.Add(job.Id, "slot", new ContactMark(3, ContactState.Beep, 0.4));
        store.Of(job.Id, "slot").ShouldBe([new ContactMark(3, ContactState.Beep, 0.4), new ContactMark(11, ContactState.Beep, 0.3)]);
        store.Undo(job.Id, "slot").ShouldBe(3);
        store.Of(job.Id, "slot")[0].State.ShouldBe(ContactState.Silent);
        store.Undo(job.Id, "other").ShouldBeNull();
        file.Time.Advance(TimeSpan.FromSeconds(1));
        store.Clear(job.Id, "slot").ShouldBe(2);
        store.Of(job.Id, "slot").ShouldBeEmpty();
        store.Undo(job.Id, "slot").ShouldBeNull();
        store.BringBack(job.Id, "slot").ShouldBe(2);
        store.Of(job.Id, "slot").Select(m => m.State).ShouldBe([ContactState.Silent, ContactState.Beep]);
    }

    [Fact]
    public void A_hidden_truth_stays_with_its_job()
    {
        using var file = new ShopFile();
        var job = file.TakeIn();
        var store = new StandInTruthStore(file.Database);
        store.Of(job.Id).ShouldBeNull();
        store.Hide(job.Id, ["switch.worn"]);
        store.Hide(job.Id, ["fuse.open", "joint.cracked"]);
        store.Of(job.Id).ShouldBe(["fuse.open", "joint.cracked"]);
    }

    [Fact]
    public void A_calculation_is_kept_but_is_no_evidence()
    {
        using var file = new ShopFile();
        var job = file.TakeIn();
        var records = new BenchRecordStore(file.Database, file.Time);
        records.Add(
            file.Record(
                new CalculationFiled("battery-pack", "Battery pack", "…", new Dictionary<string, System.Text.Json.JsonElement>(), true),
                job.Id
            )
        );
        records.Of(job.Id).ShouldHaveSingleItem().ToEvent().ShouldBeNull();
        BenchRecord.Events(records.Of(job.Id)).ShouldBeEmpty();
    }

    [Theory]
    [InlineData("192.168.1.40:5025", "192.168.1.40:5025")]
    [InlineData("meter.lan", "meter.lan:5025")]
    [InlineData(" bench:3000 ", "bench:3000")]
    [InlineData("", null)]
    [InlineData("meter:0", null)]
    [InlineData("meter:70000", null)]
    [InlineData("me ter", null)]
    [InlineData("meter:+5", null)]
    public void An_instrument_address_is_a_host_and_a_port(string text, string? address) =>
        (InstrumentAddress.Parse(text)?.ToString()).ShouldBe(address);

    [Fact]
    public void Instruments_are_kept_with_the_settings()
    {
        using var file = new ShopFile();
        var store = new SettingsStore(file.Database);
        store.Get().Meter.ShouldBeNull();
        store.Save(ShopSettings.Default with { Meter = new InstrumentAddress("meter.lan", 5025) });
        (store.Get().Meter, store.Get().Supply).ShouldBe((new InstrumentAddress("meter.lan", 5025), null));
    }

    private static GoodReading Good(string unit, double? value, string revision = "") =>
        new("harrow-quartet", revision, "tp5", "V", value, unit);
}
