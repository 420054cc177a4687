using Mendro.Web.Meter;

namespace Mendro.Web.Tests.Meter;

/// <summary>One meter, several pages.</summary>
public class MeterQueueTests
{
    [Fact]
    public void The_newest_page_has_the_meter_and_gives_it_back_when_it_goes()
    {
        var queue = new MeterQueue();
        var first = queue.Take();
        queue.IsFirst(first).ShouldBeTrue();
        var (second, third) = (queue.Take(), queue.Take());
        (queue.IsFirst(first), queue.IsFirst(second), queue.IsFirst(third)).ShouldBe((false, false, true));
        queue.Leave(second);
        queue.Leave(third);
        queue.IsFirst(first).ShouldBeTrue();
        queue.Leave(first);
        queue.IsFirst(first).ShouldBeFalse();
    }
}
