using Mendro.Core.Jobs;
using Mendro.Storage;
using Microsoft.Extensions.Logging.Abstractions;

namespace Mendro.Shop.Tests;

/// <summary>The bench worked out behind the answers: what is kept, what is told to be stale, what a crash leaves to be done.</summary>
public sealed class BenchRefresherTests : IDisposable
{
    private static readonly TimeSpan Long = TimeSpan.FromSeconds(60);

    private readonly TestShop _shop = new();
    private readonly CancellationTokenSource _stop = new();
    private readonly BenchRefresher _refresher;

    public BenchRefresherTests() => _refresher = Begin();

    public void Dispose()
    {
        _stop.Cancel();
        _refresher.Dispose();
        _shop.Dispose();
        _stop.Dispose();
    }

    [Fact]
    public void What_changed_is_told_to_be_stale_until_it_was_worked_out_and_the_rest_stays_fresh()
    {
        var (mine, other) = (_shop.TakeIn(fails: "power-light"), _shop.TakeIn("pellin-atrium-pad"));
        States().ShouldAllBe(s => s.View == null && !s.Fresh);
        _shop.View(mine);
        _shop.View(other);
        States().ShouldAllBe(s => s.Fresh);
        _shop.Readings.Read(new ReadingOrder(mine, "tp3", "6.21")).Done.ShouldNotBeNull();
        States().Single(s => !s.Fresh).Job.Number.ShouldBe(mine);
        // What was known before is still there to be shown.
        States().Single(s => !s.Fresh).View!.Records.Count.ShouldBe(1);
        _shop.View(mine).Records.Count.ShouldBe(2);
        States().ShouldAllBe(s => s.Fresh);
        _shop.Settings.Save(ShopSettings.Default with { RatePerHour = 55 });
        States().ShouldAllBe(s => !s.Fresh);
    }

    [Fact]
    public async Task A_write_sets_it_going_and_a_cause_is_weighed_for_the_others()
    {
        var run = Task.Run(() => _refresher.RunAsync(_stop.Token), TestContext.Current.CancellationToken);
        var number = _shop.TakeIn(fails: "power-light");
        (await _refresher.Caught(Long)).ShouldBeTrue();
        States().ShouldAllBe(s => s.Fresh);
        _shop.Repairs.Log(new RepairOrder(number, "switch", "flush-switch", Cause: "dirty")).Done!.Confirmed.ShouldBeTrue();
        (await _refresher.Caught(Long, everything: true)).ShouldBeTrue();
        States().ShouldAllBe(s => s.Fresh);
        Looks.Awaited().ShouldBeEmpty();
        await _stop.CancelAsync();
        await Should.ThrowAsync<OperationCanceledException>(() => run);
    }

    [Fact]
    public void A_cause_that_was_not_yet_weighed_when_the_machine_stopped_waits_in_the_file()
    {
        var number = _shop.TakeIn(fails: "power-light");
        _shop.Repairs.Log(new RepairOrder(number, "switch", "flush-switch", Cause: "dirty")).Done.ShouldNotBeNull();
        // A second process on the same file sees it.
        var again = new SecondLookStore(new ShopDatabase(_shop.Database.File), _shop.Time);
        var waiting = again.Awaited().ShouldHaveSingleItem();
        _shop.SecondLooks.WeighNext().ShouldBeTrue();
        again.Awaited().ShouldBeEmpty();
        _shop.SecondLooks.WeighNext().ShouldBeFalse();
        waiting.ShouldBe(_shop.View(number).Records.Single(r => r.Body is CauseSeen).Id);
    }

    [Fact]
    public void A_cause_withdrawn_before_it_was_weighed_moves_nobody()
    {
        var (a, b) = (_shop.TakeIn("pellin-atrium-cartridge", "cartridge"), _shop.TakeIn("pellin-atrium-cartridge", "cartridge"));
        _shop.Settings.Save(ShopSettings.Default with { SecondLookChance = 0.01, SecondLookMinutes = 120 });
        _shop.Repairs.Log(new RepairOrder(a, "legs2", "resolder-legs", Cause: "lifted")).Done.ShouldNotBeNull();
        _shop.Readings.Withdraw(a, _shop.View(a).Records.Single(r => r.Body is CauseSeen).Id).Done.ShouldNotBeNull();
        _shop.SecondLooks.WeighNext().ShouldBeTrue();
        Looks.Open().ShouldNotContain(l => l.JobId == _shop.Jobs.Find(b)!.Id);
    }

    [Fact]
    public void Every_unit_of_the_model_whose_same_check_was_not_made_is_listed_with_that_check_first()
    {
        var (teacher, same, looked, other, fine) = (
            _shop.TakeIn(fails: "power-light"),
            _shop.TakeIn(fails: "power-light"),
            _shop.TakeIn(fails: "power-light"),
            _shop.TakeIn("pellin-atrium", "power-light"),
            _shop.TakeIn()
        );
        _shop.Readings.Read(new ReadingOrder(looked, "fuse-beep", "beep")).Done.ShouldNotBeNull();
        // A line that no chance crosses: the check alone calls.
        _shop.Settings.Save(ShopSettings.Default with { SecondLookChance = 0.99, SecondLookMinutes = 1 });
        _shop.Repairs.Log(new RepairOrder(teacher, "fuse", "replace-fuse", Cause: "open")).Done.ShouldNotBeNull();
        _shop.SecondLooks.WeighNext().ShouldBeTrue();
        var line = _shop.SecondLooks.Open(_shop.Jobs.Live()).ShouldHaveSingleItem();
        (line.Job.Number, line.Check!.Id.Value, line.Look.FoundIn).ShouldBe((same, "fuse-beep", teacher));
        new[] { looked, other, fine }.ShouldNotContain(line.Job.Number);
        // Made, it is off the list.
        _shop.Readings.Read(new ReadingOrder(same, "fuse-beep", "beep")).Done.ShouldNotBeNull();
        _shop.SecondLooks.Open(_shop.Jobs.Live()).ShouldBeEmpty();
    }

    [Fact]
    public void What_was_set_aside_comes_back_by_itself_and_what_waits_for_a_part_waits_on()
    {
        var (teacher, aside, part) = (
            _shop.TakeIn(fails: "power-light"),
            _shop.TakeIn(fails: "power-light"),
            _shop.TakeIn(fails: "power-light")
        );
        _shop.HandOver.Shelve(aside, Shelf.SetAside, "no idea left", "").Done.ShouldNotBeNull();
        _shop.HandOver.Shelve(part, Shelf.WaitingPart, "a switch is ordered", "").Done.ShouldNotBeNull();
        _shop.Repairs.Log(new RepairOrder(teacher, "fuse", "replace-fuse", Cause: "open")).Done.ShouldNotBeNull();
        _shop.SecondLooks.WeighNext().ShouldBeTrue();
        _shop.Jobs.Find(aside)!.Shelf.ShouldBe(Shelf.None);
        _shop.Jobs.Find(part)!.Shelf.ShouldBe(Shelf.WaitingPart);
        _shop.SecondLooks.Open(_shop.Jobs.Live()).Select(l => l.Job.Number).ShouldBe([aside, part], ignoreOrder: true);
        new Timeline(_shop.Database)
            .Of(_shop.Jobs.Find(aside)!.Id)
            .ShouldContain(t => t.Words == $"Back on the bench: a second look, for what was found in job {teacher}");
    }

    [Theory]
    [InlineData(0.0123449, 0.0123)]
    [InlineData(0.0123451, 0.0123)]
    [InlineData(0.9996, 1)]
    [InlineData(0.00004567, 0.0000457)]
    [InlineData(0, 0)]
    public void Chances_count_to_three_digits(double chance, double counts) => ShopExperience.Rounded(chance).ShouldBe(counts);

    private SecondLookStore Looks => new(_shop.Database, _shop.Time);

    private BenchRefresher Begin() => new(_shop.Jobs, _shop.Desk, _shop.SecondLooks, _shop.Database, NullLogger<BenchRefresher>.Instance);

    private IReadOnlyList<BenchState> States() => _shop.Desk.States(_shop.Jobs.Live());
}
