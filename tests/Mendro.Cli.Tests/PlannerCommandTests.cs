using System.Text.Json;

namespace Mendro.Cli.Tests;

/// <summary>The planners of Fix on a file: taking apart, and what is put on a unit.</summary>
public sealed class PlannerCommandTests : IDisposable
{
    private readonly string _file = Path.GetTempFileName();

    public void Dispose() => File.Delete(_file);

    [Fact]
    public void Teardown_answers_in_the_documented_shape()
    {
        File.WriteAllText(
            _file,
            """
            {"format":"mendro.profile/1","fasteners":[{"id":"s1","head":"cross","size":"00"}],"steps":[
            {"id":"shell","minutes":4,"backMinutes":3,"fasteners":["s1"],"cautions":["mains"]},
            {"id":"hook","frees":["connector"],"minutes":9},{"id":"lift","frees":["connector"],"needs":["shell"],"minutes":4.5}]}
            """
        );
        var (code, output, error) = CommandTests.Run("teardown", "--profile", _file, "--to", "connector,plug", "--json");
        (code, error).ShouldBe((0, ""));
        var answer = JsonDocument.Parse(output).RootElement;
        answer.EnumerateObject().Select(p => p.Name).ShouldBe(["steps", "minutes", "backMinutes", "fasteners", "drivers", "cautions"]);
        answer.GetProperty("steps").EnumerateArray().Select(s => s.GetString()).ShouldBe(["shell", "lift"]);
        answer.GetProperty("minutes").GetDouble().ShouldBe(8.5);
        answer.GetProperty("fasteners").GetInt32().ShouldBe(1);
        answer.GetProperty("drivers")[0].GetString().ShouldBe("cross 00");
        var done = JsonDocument
            .Parse(CommandTests.Run("teardown", "--profile", _file, "--to", "connector", "--done", "lift", "--json").Output)
            .RootElement;
        (done.GetProperty("steps").GetArrayLength(), done.GetProperty("minutes").GetDouble()).ShouldBe((0, 0));
        CommandTests.Run("teardown", "--profile", _file).Code.ShouldBe(2);
        CommandTests.Run("teardown", "--profile", _file, "--to", "connector", "--done", "zip").Error.ShouldContain("zip");
        File.WriteAllText(_file, """{"format":"mendro.profile/1","steps":[{"id":"a","frees":["x"],"needs":["a"],"minutes":1}]}""");
        CommandTests
            .Run("teardown", "--profile", _file, "--to", "x")
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("x"));
        File.WriteAllText(_file, """{"steps":[{"id":"a","minutes":"long"}]}""");
        CommandTests.Run("teardown", "--profile", _file, "--to", "x").Code.ShouldBe(2);
    }

    [Fact]
    public void Materials_answers_in_the_documented_shape()
    {
        File.WriteAllText(
            _file,
            """
            {"steps":[{"agent":"isopropyl-99","surface":"printed-logo","minutes":1},{"heat":350},{"dry":30},{"power":true}]}
            """
        );
        var (code, output, error) = CommandTests.Run("materials", _file, "--json");
        (code, error).ShouldBe((0, ""));
        var answer = JsonDocument.Parse(output).RootElement;
        answer.EnumerateObject().Select(p => p.Name).ShouldBe(["steps", "stops"]);
        var steps = answer.GetProperty("steps");
        steps.EnumerateArray().Select(s => s.GetProperty("index").GetInt32()).ShouldBe([0, 1, 2, 3]);
        steps[0].GetProperty("verdict").GetString().ShouldBe("never");
        steps[0].GetProperty("reasons")[0].GetString().ShouldBe("lifts printed logos");
        steps[1].GetProperty("verdict").GetString().ShouldBe("safe");
        var stop = answer.GetProperty("stops")[0];
        (answer.GetProperty("stops").GetArrayLength(), stop.GetProperty("index").GetInt32(), stop.GetProperty("rule").GetString()).ShouldBe(
            (1, 1, "flammable-heat")
        );
        stop.GetProperty("reason").GetString().ShouldNotBeNullOrEmpty();
        CommandTests.Run("materials", _file).Output.ShouldContain("STOP");
        File.WriteAllText(_file, """{"steps":[{"agent":"lemonade","surface":"copper"}]}""");
        CommandTests
            .Run("materials", _file, "--json")
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("steps[0].agent"));
        CommandTests.Run("materials").Code.ShouldBe(2);
    }
}
