using Mendro.Core.Scheduling;

namespace Mendro.Core.Tests.Scheduling;

/// <summary>Honest dates, minutes learned, and why a plan moved.</summary>
public sealed class PromiseDateTests
{
    [Fact]
    public void Certain_work_is_done_when_its_minutes_are_gone()
    {
        var drawn = PromiseDate.Drawn([new WorkSpread(60, 0), new WorkSpread(40, 0)], new WorkSpread(30, 0), 2, 480);
        drawn.ShouldAllBe(d => Math.Abs(d - 80) < 1e-9);
        // A part that surely comes in two days keeps it longer than the queue.
        PromiseDate.Drawn([new WorkSpread(100, 0)], new WorkSpread(30, 0, 2, 1), 1, 480)[0].ShouldBe(990, 1e-9);
    }

    [Fact]
    public void The_mean_is_what_was_expected_and_the_quantiles_are_those_of_the_lognormal()
    {
        var drawn = PromiseDate.Drawn([], new WorkSpread(100, 0.6), 1, 480);
        // Four standard errors of the mean: 100 √(e^0.36 − 1) / √2000.
        drawn.Average().ShouldBe(100, 4 * 100 * Math.Sqrt(Math.Exp(0.36) - 1) / Math.Sqrt(PromiseDate.Draws));
        // exp(μ + σ z) with μ = ln 100 − σ²/2; z of 0.5 is 0, of 0.9 is 1.2816 (table of the normal distribution).
        PromiseDate.At(drawn, 0.5).ShouldBe(100 * Math.Exp(-0.18), 4);
        PromiseDate.At(drawn, 0.9).ShouldBe(100 * Math.Exp(-0.18 + 0.6 * 1.2816), 11);
        PromiseDate.Chance(drawn, PromiseDate.At(drawn, 0.9)).ShouldBe(0.9, 1e-9);
        PromiseDate.Drawn([], new WorkSpread(100, 0.6), 1, 480).ShouldBe(drawn);
    }

    [Fact]
    public void A_few_repairs_move_the_minutes_a_little_and_an_odd_one_hardly()
    {
        WorkDone Of(string method, double taken) => new(method, 10, taken);
        var few = MinutesTruth.Of([Of("clean", 20)]);
        // One in six: 2^(1/6) for all, and from there another sixth of the way.
        few[^1].Factor.ShouldBe(Math.Pow(2, 1 / 6.0), 1e-9);
        few[0].Factor.ShouldBe(Math.Pow(2, 1 / 6.0 + 5 / 6.0 * (1 / 6.0)), 1e-9);
        var many = MinutesTruth.Of([.. Enumerable.Repeat(Of("clean", 15), 20), Of("clean", 600)]).First(t => t.Method == "clean");
        many.Times.ShouldBe(21);
        many.Factor.ShouldBeInRange(1.4, 1.5);
        many.Sigma.ShouldBe(0.1);
        MinutesTruth.Of([]).ShouldHaveSingleItem().ShouldBe(new MinutesTruth("", 0, 1, PromiseDate.UsualSigma));
        // By hand: logarithms −0.3, −0.1, 0.1, 0.3 have the median 0 and the median deviation 0.2.
        MinutesTruth.Of(new[] { -0.3, -0.1, 0.1, 0.3 }.Select(l => new WorkDone("joint", 10, 10 * Math.Exp(l))))[0].Sigma.ShouldBe(1.4826 * 0.2, 1e-9);
    }

    private static readonly DateTimeOffset Nine = new(2026, 11, 30, 9, 0, 0, TimeSpan.Zero);

    private static TimedTask Task(string id, int from, int to, bool promised = false) =>
        new(id, id, Nine.AddMinutes(from), Nine.AddMinutes(to), null, true, promised ? Nine.AddMinutes(90) : null);

    [Fact]
    public void What_moved_says_why()
    {
        string Why(IReadOnlyList<TimedTask> before, IReadOnlyList<TimedTask> after, string id) =>
            PlanChange.Between(before, after).Single(c => c.Task.Id == id).Why;
        Why([Task("a", 0, 30), Task("b", 30, 60)], [Task("a", 0, 50), Task("b", 50, 80)], "b").ShouldBe("a takes longer");
        Why([Task("a", 0, 30)], [Task("n", 0, 20), Task("a", 20, 50)], "a").ShouldBe("n came in");
        Why([Task("a", 0, 30), Task("p", 30, 60, true)], [Task("p", 0, 30, true), Task("a", 30, 60)], "a").ShouldBe("p is promised");
        Why([Task("a", 0, 30), Task("b", 30, 60)], [Task("b", 0, 30)], "b").ShouldBe("a is done or gone");
        PlanChange.Between([Task("a", 0, 30)], [Task("a", 3, 33)]).ShouldBeEmpty();
    }

    [Fact]
    public void A_better_plan_a_moment_later_does_not_take_the_news_away_and_what_is_later_is_told_first()
    {
        IReadOnlyList<TimedTask> one = [Task("a", 0, 30), Task("b", 30, 60), Task("c", 60, 90), Task("d", 90, 120)];
        IReadOnlyList<TimedTask> two = [Task("n", 0, 45), Task("a", 45, 75), Task("b", 75, 105), Task("c", 105, 135), Task("d", 135, 165)];
        IReadOnlyList<TimedTask> three = [Task("n", 0, 45), Task("d", 45, 75), Task("b", 75, 105), Task("c", 60, 90), Task("a", 105, 135)];
        var over = PlanChange.Over(PlanChange.Between(one, two), PlanChange.Between(two, three));
        over.Select(c => (c.Task.Id, c.Minutes)).ShouldBe([("b", 45.0), ("a", 105.0), ("d", -45.0)]);
        over.Take(2).ShouldAllBe(c => c.Why == "n came in");
        over[2].Why.ShouldBe("there is room earlier");
        // What came back to where it stood is no news.
        PlanChange.Over(PlanChange.Between(one, two), PlanChange.Between(two, one)).ShouldBeEmpty();
    }

    [Fact]
    public void What_came_in_promised_is_told_first_with_its_newest_place_also_where_nothing_moved_for_it()
    {
        IReadOnlyList<TimedTask> one = [Task("a", 0, 30)];
        IReadOnlyList<TimedTask> two = [Task("a", 0, 30), Task("p", 30, 60, promised: true), Task("n", 60, 90)];
        // What nobody waits for is no news by itself.
        var came = PlanChange.Between(one, two).ShouldHaveSingleItem();
        (came.Task.Id, came.CameIn, came.Why).ShouldBe(("p", true, "came in"));
        // A plan a moment later has it elsewhere: it is still what came in, where it stands now.
        IReadOnlyList<TimedTask> three = [Task("p", 0, 30, promised: true), Task("a", 30, 60), Task("n", 60, 90)];
        var over = PlanChange.Over([came], PlanChange.Between(two, three));
        over.Select(c => (c.Task.Id, c.CameIn)).ShouldBe([("p", true), ("a", false)]);
        over[0].Task.Start.ShouldBe(Nine);
    }

    [Fact]
    public void Weeks_count_what_lies_in_them_and_idle_days_are_parted_at_midnight_of_monday()
    {
        DateOnly Day(int day) => new(2026, 11, day);
        var weeks = WeekPast.Of(
            Day(27),
            2,
            [(Day(15), 10), (Day(16), 20), (Day(22), 30), (Day(23), 40)],
            [(Day(24), 60)],
            // From Friday noon to Tuesday noon: two and a half days of one week, one and a half of the next.
            [(new DateTime(2026, 11, 20, 12, 0, 0), new DateTime(2026, 11, 24, 12, 0, 0))],
            [Day(23), Day(22), Day(23)]
        );
        weeks.ShouldBe([new WeekPast(Day(16), 50, 0, 2.5, 1), new WeekPast(Day(23), 40, 60, 1.5, 2)]);
    }
}
