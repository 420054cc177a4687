using CsCheck;
using Mendro.Core.Proving;

namespace Mendro.Core.Tests.Proving;

/// <summary>Starts counted by what a unit draws.</summary>
public sealed class StartWatchTests
{
    private const double On = 0.1;

    private static readonly DateTimeOffset Start = new(2026, 1, 1, 9, 0, 0, TimeSpan.Zero);

    /// <summary>Feeds half-second readings and gives the starts that were decided.</summary>
    private static List<bool> Watch(params (double Amps, double Seconds)[] course)
    {
        var (watch, at, starts) = (StartWatch.Begin, Start, new List<bool>());
        foreach (var (amps, seconds) in course)
            for (var n = 0; n < seconds * 2; n++)
            {
                (watch, var start) = watch.Read(at, amps, StartWatch.Threshold(On));
                if (start is { } decided)
                    starts.Add(decided);
                at = at.AddSeconds(0.5);
            }

        return starts;
    }

    [Fact]
    public void Good_starts_and_one_that_goes_off_at_once() =>
        Watch((0, 1), (On, 5), (0, 1), (On, 1), (0, 1), (On, 20), (0, 1)).ShouldBe([true, false, true]);

    [Fact]
    public void What_runs_when_the_watch_begins_is_no_start() => Watch((On, 10), (0, 1), (On, 10)).ShouldBe([true]);

    [Fact]
    public void A_light_that_leaks_a_little_is_off() => Watch((0.002, 3), (On, 4), (0.002, 3), (On, 4)).ShouldBe([true, true]);

    [Fact]
    public void One_start_is_decided_once_however_long_it_runs() =>
        Gen.Double[4, 60].List[1, 8].Sample(runs => Watch([(0, 1), .. runs.SelectMany(r => new[] { (On, r), (0.0, 1.0) })]).Count.ShouldBe(runs.Count));
}
