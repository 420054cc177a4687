using CsCheck;
using Mendro.Storage;
using Microsoft.Extensions.Time.Testing;

namespace Mendro.Shop.Tests;

/// <summary>Timers over many jobs: with a fake clock, over a restart, over a clock that is set.</summary>
public sealed class TimerDeskTests : IDisposable
{
    private readonly TestShop _shop = new();

    public void Dispose() => _shop.Dispose();

    /// <summary>A clock on the wall that can be set, over a steady one that cannot.</summary>
    private sealed class WallClock(FakeTimeProvider steady) : TimeProvider
    {
        public TimeSpan Off { get; set; }

        public override long TimestampFrequency => steady.TimestampFrequency;

        public override DateTimeOffset GetUtcNow() => steady.GetUtcNow() + Off;

        public override long GetTimestamp() => steady.GetTimestamp();
    }

    private WallClock? _wall;

    /// <summary>The desk as it is after the shop was opened (again): nothing in memory.</summary>
    private TimerDesk Opened() => new(new TimerStore(_shop.Database), _shop.Jobs, _shop.Ledger, _wall ??= new WallClock(_shop.Time));

    private void Wait(double minutes) => _shop.Time.Advance(TimeSpan.FromMinutes(minutes));

    [Fact]
    public void Many_timers_run_over_many_jobs_the_next_due_first()
    {
        var (one, other) = (_shop.TakeIn(), _shop.TakeIn());
        var desk = Opened();
        desk.Start(one, "vinegar on the springs", 15).Done.ShouldNotBeNull();
        desk.Start(other, "drying", 5).Done.ShouldNotBeNull();
        desk.Start(null, "kettle", 0.5).Done.ShouldNotBeNull();
        desk.All()
            .Select(t => (t.Timer.Label, t.Timer.Number))
            .ShouldBe([("kettle", null), ("drying", other), ("vinegar on the springs", one)]);
        Wait(5.5);
        desk.All()
            .Select(t => (t.Timer.Label, Math.Round(t.Left), t.IsDue))
            .ShouldBe([("kettle", -300, true), ("drying", -30, true), ("vinegar on the springs", 570, false)]);
        desk.Stop(desk.All()[0].Timer.Id).Done!.Words.ShouldBe("kettle is done.");
        desk.All().Count.ShouldBe(2);
    }

    [Fact]
    public void A_restart_loses_nothing_and_time_goes_on_meanwhile()
    {
        Opened().Start(null, "charging", 60).Done.ShouldNotBeNull();
        var paused = Opened();
        paused.Start(null, "glue", 30).Done.ShouldNotBeNull();
        Wait(10);
        paused.Pause(paused.All().Single(t => t.Timer.Label == "glue").Timer.Id).Done.ShouldNotBeNull();
        Wait(35);
        var after = Opened().All();
        after.Select(t => (t.Timer.Label, Math.Round(t.Left / 60), t.IsPaused)).ShouldBe([("charging", 15, false), ("glue", 20, true)]);
        var again = Opened();
        again.Pause(after[1].Timer.Id).Done.ShouldNotBeNull();
        Wait(19);
        again.All().Single(t => t.Timer.Label == "glue").IsDue.ShouldBeFalse();
        Wait(1);
        again.All().Single(t => t.Timer.Label == "glue").IsDue.ShouldBeTrue();
    }

    [Theory]
    [InlineData(3)]
    [InlineData(-3)]
    public void Setting_the_clock_changes_no_timer_and_a_restart_after_that_finds_it_right(int hours)
    {
        var desk = Opened();
        desk.Start(null, "drying", 40).Done.ShouldNotBeNull();
        Wait(10);
        // The clock on the wall is set; the machine's steady clock runs on.
        _wall!.Off = TimeSpan.FromHours(hours);
        desk.All().Single().Left.ShouldBe(30 * 60, 1);
        Wait(10);
        desk.All().Single().Left.ShouldBe(20 * 60, 1);
        Opened().All().Single().Left.ShouldBe(20 * 60, 1);
    }

    [Fact]
    public void Bad_timers_are_refused_with_the_reason()
    {
        var desk = Opened();
        desk.Start(null, " ", 5).Refusal!.Problem.ShouldContain("what it waits for");
        desk.Start(null, "x", 0).Refusal!.Problem.ShouldContain("minutes");
        desk.Start(null, "x", double.NaN).Refusal.ShouldNotBeNull();
        desk.Start(null, "x", TimerDesk.MostMinutes + 1).Refusal.ShouldNotBeNull();
        desk.Start(9999, "x", 5).Refusal!.Kind.ShouldBe(RefusalKind.Missing);
        desk.Stop(1).Refusal!.Kind.ShouldBe(RefusalKind.Missing);
        desk.Pause(1).Refusal!.Kind.ShouldBe(RefusalKind.Missing);
        for (var n = 0; n < TimerDesk.MostTimers; n++)
            desk.Start(null, "x", 5).Done.ShouldNotBeNull();
        desk.Start(null, "x", 5).Refusal!.Problem.ShouldContain("stop one");
        // Sent twice, it runs once.
        desk.Stop(desk.All()[0].Timer.Id);
        desk.Start(null, "y", 5, "key1").Done.ShouldNotBeNull();
        desk.Start(null, "y", 5, "key1").Done.ShouldNotBeNull();
        desk.All().Count(t => t.Timer.Label == "y").ShouldBe(1);
    }

    /// <summary>Whatever is paused, let run and reopened: what is left is the length less the time it ran.</summary>
    [Fact]
    public void What_is_left_is_the_length_less_the_time_it_ran() =>
        Gen.Select(Gen.Int[0, 3], Gen.Int[1, 300])
            .Array[1, 20]
            .Sample(
                steps =>
                {
                    using var shop = new TestShop();
                    var wall = new WallClock(shop.Time);
                    TimerDesk Desk() => new(new TimerStore(shop.Database), shop.Jobs, shop.Ledger, wall);
                    var desk = Desk();
                    desk.Start(null, "soak", 60).Done.ShouldNotBeNull();
                    var (ran, paused) = (0.0, false);
                    foreach (var (what, seconds) in steps)
                    {
                        if (what == 0)
                        {
                            desk.Pause(desk.All().Single().Timer.Id).Done.ShouldNotBeNull();
                            paused = !paused;
                        }
                        else if (what == 1)
                            desk = Desk();
                        else if (what == 2)
                        {
                            desk.All().ShouldNotBeEmpty();
                            wall.Off += TimeSpan.FromSeconds((seconds - 150) * 7);
                            desk.All().ShouldNotBeEmpty();
                        }
                        else
                        {
                            shop.Time.Advance(TimeSpan.FromSeconds(seconds));
                            ran += paused ? 0 : seconds;
                        }
                    }

                    // Paused when over, it has nothing left; run on it is over at once.
                    var left = desk.All().Single().Left;
                    if (ran < 3600)
                        left.ShouldBe(3600 - ran, 0.1);
                    else
                        left.ShouldBeLessThanOrEqualTo(0.1);
                },
                iter: 20
            );
}
