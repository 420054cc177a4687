using Mendro.Core.Jobs;

namespace Mendro.Core.Tests.Jobs;

/// <summary>What is said to have cured a unit whose cause nobody saw (common practice, no source).</summary>
public class CuredByTests
{
    private static readonly Core.Diagnosis.DeviceModel Model = new Diagnosis.Bench("build-console-top-loading").Model;

    private static FunctionTrial Fails(string function) => new(function, false, "nothing");

    private static FunctionTrial Works(string function) => new(function, true);

    private static RepairLogged Done(string part, string method, bool? claimed = null) => new(part, method, Claimed: claimed);

    private static List<string> Told(params RecordBody[] records) => CuredBy.Of(Model, records).Select(c => c.Words(Model)).ToList();

    [Fact]
    public void What_works_after_work_on_a_part_is_told_with_that_part() =>
        Told(Fails("video"), Fails("sound"), Done("connector", "clean-connector"), Works("video"), Works("sound"))
            .ShouldBe(["Cartridge connector: what was wrong was not seen; picture output and sound output work since it was worked on"]);

    [Fact]
    public void What_failed_after_it_was_no_cure_of_it() =>
        Told(Fails("video"), Done("connector", "clean-connector"), Fails("video"), Done("av", "clean-socket"), Works("video"))
            .ShouldBe(["Picture socket: what was wrong was not seen; picture output works since it was worked on"]);

    [Fact]
    public void Of_two_works_with_no_trial_between_nobody_knows_which()
    {
        var told = CuredBy.Of(Model, [Fails("video"), Done("connector", "clean-connector"), Done("av", "clean-socket"), Works("video")]).ShouldHaveSingleItem();
        told.Work.Select(w => w.Part.Value).ShouldBe(["connector", "av"]);
        told.Words(Model).ShouldStartWith("Cartridge connector and picture socket: ");
    }

    [Fact]
    public void What_lies_on_no_way_of_it_was_no_cure_of_it()
    {
        // A cleaned picture socket makes no pad answer; where nothing else was done, nobody knows.
        Told(Fails("port1"), Done("av", "clean-socket"), Done("port1", "reflow"), Works("port1"))
            .ShouldBe(["Controller port 1: what was wrong was not seen; controller port 1 works since it was worked on"]);
        Told(Fails("port1"), Done("av", "clean-socket"), Works("port1")).ShouldHaveSingleItem().ShouldStartWith("Picture socket: ");
    }

    [Fact]
    public void Nothing_is_told_of_what_worked_by_itself_never_failed_or_was_done_by_another()
    {
        Told(Fails("video"), Works("video"), Done("connector", "clean-connector"), Works("video")).ShouldBeEmpty();
        Told(Done("connector", "clean-connector"), Works("video")).ShouldBeEmpty();
        Told(Fails("video"), Done("connector", "clean-connector", claimed: true), Works("video")).ShouldBeEmpty();
        Told(Fails("video"), Done("connector", "clean-connector")).ShouldBeEmpty();
    }
}
