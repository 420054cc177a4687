using Mendro.Web.Live;
using Microsoft.Extensions.Time.Testing;

namespace Mendro.Web.Tests.Meter;

/// <summary>One meter, several pages: who has it is asked first.</summary>
public class MeterTurnsTests
{
    private readonly FakeTimeProvider _time = new();
    private readonly MeterTurns _turns;

    public MeterTurnsTests() => _turns = new MeterTurns(_time);

    private static MeterPage Page(string name, string browser = "one", string point = "tp3") => new(browser, name, 123, point, false);

    [Fact]
    public void A_free_meter_is_taken_at_once_and_its_holder_goes_from_point_to_point()
    {
        _turns.Take(Page("a")).ShouldBeNull();
        _turns.Take(Page("a", point: "tp4")).ShouldBeNull();
        _turns.Holder.ShouldBe(Page("a", point: "tp4"));
    }

    [Fact]
    public void Asked_again_for_its_point_a_page_goes_on_and_given_back_it_begins_anew()
    {
        _turns.Take(Page("a"));
        var turn = _turns.Holder;
        _turns.Take(Page("a"));
        _turns.Holder.ShouldBeSameAs(turn);
        _turns.Leave("one", "a");
        _turns.Take(Page("a"));
        _turns.Holder.ShouldBe(turn);
        _turns.Holder.ShouldNotBeSameAs(turn);
    }

    [Fact]
    public void Who_has_it_is_asked_and_may_keep_it()
    {
        _turns.Take(Page("a"));
        _turns.Take(Page("b", "two")).ShouldBe(Page("a"));
        _turns.Holder.ShouldBe(Page("a"));
        _turns.Asking.ShouldBe(Page("b", "two"));
        // Who asked and went away asks no more.
        _turns.Leave("two", "b");
        _turns.Asking.ShouldBeNull();
        _turns.Take(Page("b", "two"));
        // Only the holder answers, and only from its own browser.
        _turns.Keep("two", "b").ShouldBeNull();
        _turns.Keep("two", "a").ShouldBeNull();
        _turns.Keep("one", "a").ShouldBe(Page("b", "two"));
        _time.Advance(MeterTurns.Patience * 2);
        _turns.HandOverWhenDue().ShouldBeNull();
        _turns.Holder.ShouldBe(Page("a"));
    }

    [Fact]
    public void Who_does_not_answer_loses_it_and_has_it_again_when_it_is_given_back()
    {
        _turns.Take(Page("a"));
        _turns.Take(Page("b", "two"));
        _time.Advance(MeterTurns.Patience - TimeSpan.FromMilliseconds(1));
        _turns.HandOverWhenDue().ShouldBeNull();
        _time.Advance(TimeSpan.FromMilliseconds(1));
        _turns.HandOverWhenDue().ShouldBe(Page("a"));
        _turns.Holder.ShouldBe(Page("b", "two"));
        _turns.Leave("two", "b");
        _turns.Holder.ShouldBe(Page("a"));
    }

    [Fact]
    public void Given_back_it_goes_to_who_asked_last_and_nobody_gives_back_for_another()
    {
        _turns.Take(Page("a"));
        _turns.Take(Page("b", "two"));
        _turns.Take(Page("c", "three"));
        _turns.Leave("two", "a");
        _turns.Holder.ShouldBe(Page("a"));
        _turns.Leave("one", "a");
        _turns.Holder.ShouldBe(Page("c", "three"));
        _turns.LeaveAll("three");
        _turns.Holder.ShouldBe(Page("b", "two"));
        _turns.LeaveAll("two");
        _turns.Holder.ShouldBeNull();
        _turns.Take(Page("d")).ShouldBeNull();
    }

    [Fact]
    public void Pages_that_ask_without_end_do_not_fill_the_memory()
    {
        _turns.Take(Page("a"));
        for (var n = 0; n < 10_000; n++)
            _turns.Take(Page("p" + n, "two"));
        _turns.LeaveAll("two");
        _turns.Leave("one", "a");
        _turns.Holder.ShouldBeNull();
    }
}
