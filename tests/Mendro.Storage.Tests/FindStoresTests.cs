using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Storage.Tests;

/// <summary>Gear, lessons, second looks, practice units, profile versions, swap trials.</summary>
public sealed class FindStoresTests : IDisposable
{
    private readonly ShopFile _shop = new();

    public void Dispose() => _shop.Dispose();

    private GearStore Gear => new(_shop.Database, _shop.Time);

    private LessonStore Lessons => new(_shop.Database, _shop.Time);

    private SecondLookStore Looks => new(_shop.Database, _shop.Time);

    private long Cause(Job job, string part, string mode) =>
        _shop.Records.Add(_shop.Record(new CauseSeen(part, mode, true), job.Id) with { Words = $"Cause seen: {part}" });

    private long Swap(Job job, SwapResult result, params SwapPiece[] gear) =>
        _shop.Records.Add(
            _shop.Record(new SwapTrial("start-up", result, ["main"], gear.Select(_ => new PartId("slot")).ToList(), gear), job.Id)
        );

    [Fact]
    public void Uses_are_counted_from_the_trials_that_hold_since_the_last_cleaning()
    {
        var id = Gear.Add("Cartridge 1", "test-cartridge");
        var piece = new SwapPiece($"g{id}", "Cartridge 1", "test-cartridge");
        var job = _shop.TakeIn();
        var first = Swap(job, SwapResult.Fail, piece);
        Swap(job, SwapResult.Pass, piece);
        Gear.AddUses(id, 5);
        Gear.InUse().Single().Uses.ShouldBe(7);
        _shop.Records.Withdraw(job.Id, first);
        Gear.InUse().Single().Uses.ShouldBe(6);
        _shop.Time.Advance(TimeSpan.FromMinutes(1));
        Gear.Clean(id);
        Gear.InUse().Single().Uses.ShouldBe(0);
        Swap(job, SwapResult.Flicker, piece);
        Gear.InUse().Single().ToItem(job.Id).ShouldBe(new GearItem($"g{id}", "Cartridge 1", "test-cartridge", 1));
    }

    [Fact]
    public void What_another_unit_ran_well_with_is_cleared_by_that_but_not_by_the_unit_itself()
    {
        var id = Gear.Add("Cartridge 1", "test-cartridge");
        var piece = new SwapPiece($"g{id}", "Cartridge 1", "test-cartridge");
        var (one, other) = (_shop.TakeIn(), _shop.TakeIn());
        Gear.InUse().Single().UsesSinceRun(one.Id).ShouldBeNull();
        Swap(one, SwapResult.Pass, piece);
        Swap(other, SwapResult.Fail, piece);
        Swap(other, SwapResult.Fail, piece);
        // Two trials since it ran in the first unit; that unit itself is not asked.
        Gear.InUse().Single().UsesSinceRun(other.Id).ShouldBe(2);
        Gear.InUse().Single().UsesSinceRun(one.Id).ShouldBeNull();
        var again = Swap(other, SwapResult.Pass, piece);
        Gear.InUse().Single().UsesSinceRun(one.Id).ShouldBe(0);
        Gear.InUse().Single().UsesSinceRun(other.Id).ShouldBe(3);
        _shop.Records.Withdraw(other.Id, again);
        Gear.InUse().Single().UsesSinceRun(other.Id).ShouldBe(2);
        // Uses that no trial tells of may all have come since; cleaned, it has run nothing yet.
        Gear.AddUses(id, 10);
        Gear.InUse().Single().UsesSinceRun(other.Id).ShouldBe(12);
        _shop.Time.Advance(TimeSpan.FromMinutes(1));
        Gear.Clean(id);
        Gear.InUse().Single().UsesSinceRun(other.Id).ShouldBeNull();
    }

    [Fact]
    public void One_piece_of_a_kind_is_the_standard_and_retired_ones_come_back()
    {
        var (a, b) = (Gear.Add("A", "test-cable"), Gear.Add("B", "test-cable"));
        Gear.Add("Screen", "test-screen");
        Gear.InUse().Where(g => g.Standard).Select(g => g.Name).ShouldBe(["A", "Screen"], ignoreOrder: true);
        Gear.MakeStandard(b);
        Gear.InUse().Where(g => g is { Standard: true, Kind: "test-cable" }).Select(g => g.Id).ShouldBe([b]);
        Gear.Retire(b);
        Gear.InUse().Select(g => g.Id).ShouldNotContain(b);
        Gear.Restore(b);
        Gear.InUse().Single(g => g.Id == b).Standard.ShouldBeFalse();
        Gear.AddUses(a, -50);
        Gear.InUse().Single(g => g.Id == a).Uses.ShouldBe(0);
    }

    [Fact]
    public void A_swap_trial_reaches_the_engine_with_its_chain_and_gear()
    {
        var job = _shop.TakeIn();
        var id = Swap(
            job,
            SwapResult.Flicker,
            new SwapPiece("g3", "Cable", "test-cable"),
            new SwapPiece("job118", "unit 118", "test-console")
        );
        var swap = BenchRecord.Events(_shop.Records.Of(job.Id)).Single().ShouldBeOfType<SwapTried>();
        (swap.Id, swap.FunctionId.Value, swap.Passed, swap.Flickers).ShouldBe((id, "start-up", false, true));
        swap.Chain.ShouldBe(new[] { "main" });
        swap.Gear.ShouldBe(["g3", "job118"]);
    }

    [Fact]
    public void Repeated_starts_and_provocations_reach_the_engine()
    {
        var job = _shop.TakeIn();
        _shop.Records.Add(_shop.Record(new FunctionTrial("power-light", true, null, 12), job.Id));
        _shop.Records.Add(_shop.Record(new ProvokeTrial("power-light", Provocation.Flexed, true), job.Id));
        var events = BenchRecord.Events(_shop.Records.Of(job.Id));
        events[0].ShouldBeOfType<FunctionTried>().Starts.ShouldBe(12);
        events[1].ShouldBe(new Provoked(events[1].Id, "power-light", Provocation.Flexed, true));
    }

    [Fact]
    public void Lessons_are_confirmed_causes_that_hold_of_real_jobs_that_hold()
    {
        var (a, b) = (_shop.TakeIn(), _shop.TakeIn());
        var practice = _shop.Jobs.TakeIn(new NewJob(ShopFile.Blank() with { PracticeSeed = 4 }, null, "", []));
        var kept = Cause(a, "switch", "dirty");
        var withdrawn = Cause(b, "fuse", "open");
        Cause(practice, "psu", "dead");
        _shop.Records.Withdraw(b.Id, withdrawn);
        Lessons.Of(b.Id).ShouldBeEmpty();
        Lessons.Of(practice.Id).ShouldBeEmpty();
        Lessons
            .Of(a.Id)
            .Select(c => (c.RecordId, c.Number, c.PartId, c.ModeId, c.Closed, c.Excluded))
            .ShouldBe([(kept, a.Number, "switch", "dirty", false, false)]);
        Lessons.Exclude(kept);
        Lessons.Of(a.Id).Single().Excluded.ShouldBeTrue();
        Lessons.Exclude(kept);
        Lessons.Include(kept);
        Lessons.Of(a.Id).Single().Excluded.ShouldBeFalse();
        _shop.Move(a, JobLife.Delete(a.Status));
        Lessons.Of(a.Id).ShouldBeEmpty();
    }

    [Fact]
    public void Second_looks_wait_until_taken_and_go_when_their_cause_goes()
    {
        var (shelved, other) = (_shop.TakeIn(), _shop.TakeIn());
        var cause = Cause(other, "switch", "worn");
        Looks.Add(shelved.Id, cause, new LookReason(0.3, 0.6, 20, new ProbeId("sw")));
        Looks.Add(shelved.Id, cause, new LookReason(0.3, 0.7, 20, new ProbeId("sw")));
        var open = Looks.Open().ShouldHaveSingleItem();
        (open.JobId, open.FoundIn, open.Before, open.After).ShouldBe((shelved.Id, other.Number, 0.3, 0.7));
        _shop.Timeline.Of(shelved.Id)[0].Words.ShouldContain("30 → 70 %");
        Looks.Dismiss(shelved.Id);
        Looks.Open().ShouldBeEmpty();
        Looks.BringBack(shelved.Id);
        Looks.Open().Count.ShouldBe(1);
        Lessons.Exclude(cause);
        Looks.Open().ShouldBeEmpty();
        Lessons.Include(cause);
        _shop.Move(shelved, JobLife.Close(shelved.Status, JobEnd.Parts));
        Looks.Open().ShouldBeEmpty();
    }

    [Fact]
    public void Practice_units_are_numbered_apart_and_stay_out_of_every_list()
    {
        var real = _shop.TakeIn("dead");
        var practice = _shop.Jobs.TakeIn(new NewJob(ShopFile.Blank("dead") with { PracticeSeed = 9 }, null, "", []));
        var next = _shop.TakeIn("dead");
        (next.Number - real.Number).ShouldBe(1);
        practice.Number.ShouldBe(JobStore.FirstPractice + 1);
        practice.Tag.ShouldBe("P1");
        real.Tag.ShouldBe(real.Number.ToString(System.Globalization.CultureInfo.InvariantCulture));
        foreach (var list in new[] { _shop.Jobs.Live(), _shop.Database.AllJobs(), _shop.Database.Found("dead") })
            list.Select(j => j.Id).ShouldBe([next.Id, real.Id], ignoreOrder: true);
        _shop.Jobs.Practice().Select(j => j.Id).ShouldBe([practice.Id]);
    }

    [Fact]
    public void A_changed_model_gets_a_version_and_old_jobs_stay_on_theirs()
    {
        var job = _shop.TakeIn();
        var before = _shop.Profiles.Latest("harrow-quartet")!.Value;
        var changed = before.Profile with { Note = "the shop's own" };
        _shop.Profiles.Save(changed).ShouldBe(before.Version + 1);
        // The same again is no new version.
        _shop.Profiles.Save(changed).ShouldBe(before.Version + 1);
        _shop.Profiles.Latest("harrow-quartet")!.Value.Profile.Note.ShouldBe("the shop's own");
        _shop.Profiles.Find(job.ProfileId, job.ProfileVersion)!.Note.ShouldBe(before.Profile.Note);
        var versions = _shop.Profiles.Versions("harrow-quartet");
        versions.Select(v => (v.Version, v.Origin, v.Jobs)).ShouldBe([(before.Version + 1, "shop", 0), (before.Version, "library", 1)]);
    }

    [Fact]
    public void What_the_shop_changed_is_not_taken_back_at_the_next_start()
    {
        var mine = _shop.Profiles.Latest("harrow-quartet")!.Value.Profile with { Note = "mine" };
        _shop.Profiles.Save(mine);
        _shop.Profiles.TakeIn(TradeLibrary.Shipped, demo: true);
        _shop.Profiles.Latest("harrow-quartet")!.Value.Profile.Note.ShouldBe("mine");
    }

    [Fact]
    public void Settings_of_learning_and_second_look_are_kept()
    {
        var store = new SettingsStore(_shop.Database);
        store.Get().LearningStrength.ShouldBe(ShopLessons.DefaultStrength);
        var mine = ShopSettings.Default with { LearningStrength = 4.5, SecondLookMinutes = 35, SecondLookChance = 0.65 };
        store.Save(mine);
        store.Get().ShouldBe(mine);
    }
}
