using System.Text.Json;

namespace Mendro.Cli.Tests;

/// <summary>The commands that ask a solver, on a file.</summary>
public sealed class SolverCommandTests : IDisposable
{
    private readonly string _file = Path.GetTempFileName();

    public void Dispose() => File.Delete(_file);

    [Fact]
    public void Fit_answers_in_the_documented_shape()
    {
        File.WriteAllText(
            _file,
            """
            {"format":"mendro.fit/1","board":{"id":"main","outline":[[0,0],[30,0],[30,20],[0,20]],"parts":[],"zones":[],
            "capacitors":[{"refdes":"C1","section":"supply","farads":1e-5,"pads":{"plus":[14,10],"minus":[16,10]}},
            {"refdes":"C2","pads":{"plus":[18,10],"minus":[20,10]}}]},
            "choices":{"C1":[{"id":"a","diameterMm":5,"heightMm":11,"leadMm":6}],"C2":[{"id":"b","diameterMm":5,"heightMm":11,"leadMm":6}]}}
            """
        );
        var (code, output, error) = CommandTests.Run("fit", _file, "--json");
        (code, error).ShouldBe((0, ""));
        var answer = JsonDocument.Parse(output).RootElement;
        answer.EnumerateObject().Select(p => p.Name).ShouldBe(["placements", "unplaced", "optimal"]);
        answer
            .GetProperty("placements")[0]
            .EnumerateObject()
            .Select(p => p.Name)
            .ShouldBe(["refdes", "part", "pose", "angle", "distanceMm", "body", "top"]);
        // Side by side they are 4 mm apart and 5 mm thick: one stands, the other lies away from it.
        answer.GetProperty("placements").EnumerateArray().Select(p => p.GetProperty("pose").GetString()).ShouldBe(["upright", "lying"], ignoreOrder: true);
        File.WriteAllText(_file, """{"board":{"outline":[[0,0],[1,0]]},"choices":{}}""");
        CommandTests.Run("fit", _file).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("board.outline"));
    }

    [Fact]
    public void Jumpers_answers_in_the_documented_shape()
    {
        File.WriteAllText(
            _file,
            """
            {"format":"mendro.jumpers/1","outline":[[0,0],[40,0],[40,20],[0,20]],"keepouts":[[[18,5],[22,5],[22,15],[18,15]]],
            "points":[{"id":"a","x":10,"y":10,"state":"sound"},{"id":"b","x":30,"y":10,"state":"sound"},{"id":"c","x":5,"y":18,"state":"lost"},
            {"id":"d","x":5,"y":2,"state":"sound","under":"slot"},{"id":"e","x":9,"y":2,"state":"sound"},{"id":"f","x":39,"y":19,"state":"corroded"}],
            "broken":[{"net":"A0","groups":[["a"],["b"]]},{"net":"D3","groups":[["d","c"],["e"]]},{"net":"D4","groups":[["f"],["e"]]}],
            "clearanceMm":0.5,"reheatMm":6,"slack":1.1,"stripMm":2}
            """
        );
        var (code, output, error) = CommandTests.Run("jumpers", _file, "--json");
        (code, error).ShouldBe((0, ""));
        var answer = JsonDocument.Parse(output).RootElement;
        answer.EnumerateObject().Select(p => p.Name).ShouldBe(["wires", "order", "unreachable", "totalMm"]);
        var wires = answer.GetProperty("wires");
        wires[0].EnumerateObject().Select(p => p.Name).ShouldBe(["net", "from", "to", "path", "lengthMm", "cutMm"]);
        // Over the keep-out, hand arithmetic: two tangents from (10,10) to the circle of 0.5 about (18,15), √(89 − 0.25) each; two arcs
        // of 0.5 over atan(5/8) + asin(0.5/√89); and 4 mm along the top.
        var exact = 2 * Math.Sqrt(88.75) + 2 * 0.5 * (Math.Atan2(5, 8) + Math.Asin(0.5 / Math.Sqrt(89))) + 4;
        var around = wires[0].GetProperty("lengthMm").GetDouble();
        around.ShouldBeInRange(exact - 1e-6, exact * 1.002);
        wires[0].GetProperty("cutMm").GetDouble().ShouldBe(around * 1.1 + 4, 1e-4);
        wires[1].GetProperty("lengthMm").GetDouble().ShouldBe(4);
        // What lies under the slot comes first.
        answer.GetProperty("order").EnumerateArray().Select(o => o.GetInt32()).ShouldBe([1, 0]);
        answer.GetProperty("unreachable")[0].GetProperty("net").GetString().ShouldBe("D4");
        answer.GetProperty("totalMm").GetDouble().ShouldBe(around + 4, 1e-4);
        File.WriteAllText(_file, """{"outline":[[0,0],[1,0],[1,1]],"points":[],"broken":[{"net":"x","groups":[["q"]]}]}""");
        CommandTests.Run("jumpers", _file).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("no point “q”"));
    }

    [Fact]
    public void Order_answers_in_the_documented_shape()
    {
        const string Task = """
            {"format":"mendro.order/1","needs":[{"part":"c","count":6},{"part":"f","count":2},{"part":"z","count":3},{"part":"c","count":0}],
             "suppliers":[
              {"id":"a","postage":4.5,"freeFrom":10,"offers":[{"part":"c","price":1.5,"available":5},{"part":"f","price":2.25,"available":9}]},
              {"id":"b","postage":3,"freeFrom":null,"offers":[{"part":"c","price":1,"available":4},{"part":"z","price":0.1,"available":1}]}]}
            """;
        File.WriteAllText(_file, Task);
        var (code, output, error) = CommandTests.Run("order", _file, "--json");
        (code, error).ShouldBe((0, ""));
        var told = JsonDocument.Parse(output).RootElement;
        told.EnumerateObject().Select(p => p.Name).ShouldBe(["lines", "total", "missing"]);
        // By hand: four c and two f reach 10.50 at a, free of postage; two c and one z at b are 2.10 and 3.00.
        told.GetProperty("total").GetDecimal().ShouldBe(15.60m);
        told.GetProperty("lines").GetArrayLength().ShouldBe(4);
        told.GetProperty("missing")[0].GetProperty("part").GetString().ShouldBe("z");
        told.GetProperty("missing")[0].GetProperty("count").GetInt32().ShouldBe(2);
    }

    [Fact]
    public void Plan_answers_in_the_documented_shape()
    {
        File.WriteAllText(
            _file,
            """
            {"format":"mendro.plan/1","people":1,"places":[{"id":"bath","count":1}],"tasks":[
            {"id":"soak","job":"131","minutes":40,"passive":true,"place":"bath","after":[],"due":null,"weight":1},
            {"id":"brush","job":"131","minutes":10,"passive":false,"place":"bath","after":["soak"],"due":60,"weight":2},
            {"id":"joint","job":"140","minutes":25.5,"passive":false,"place":null,"after":[],"due":20,"weight":1}],"goal":"tardiness"}
            """
        );
        var (code, output, error) = CommandTests.Run("plan", _file, "--json");
        (code, error).ShouldBe((0, ""));
        var answer = JsonDocument.Parse(output).RootElement;
        answer.EnumerateObject().Select(p => p.Name).ShouldBe(["tasks", "objective", "optimal"]);
        answer.GetProperty("tasks")[0].EnumerateObject().Select(p => p.Name).ShouldBe(["id", "start", "end", "person"]);
        answer.GetProperty("tasks")[0].GetProperty("person").ValueKind.ShouldBe(JsonValueKind.Null);
        // While it soaks the joint is reflowed, 5.5 minutes late.
        answer.GetProperty("tasks").EnumerateArray().Select(t => (t.GetProperty("start").GetDouble(), t.GetProperty("end").GetDouble())).ShouldBe([
            (0, 40), (40, 50), (0, 25.5),
        ]);
        (answer.GetProperty("objective").GetDouble(), answer.GetProperty("optimal").GetBoolean()).ShouldBe((5.5, true));
        foreach (var (json, word) in new[]
            {
                ("""{"people":1,"tasks":[{"id":"a","minutes":1,"after":["b"]},{"id":"b","minutes":1,"after":["a"]}]}""", "circle"),
                ("""{"people":1,"tasks":[{"id":"a","minutes":1,"place":"x"}]}""", "no place “x”"),
                ("""{"people":0,"tasks":[{"id":"a","minutes":1}]}""", "takes a person"),
                ("""{"people":1,"tasks":[{"id":"a","minutes":-1}]}""", "tasks[0].minutes"),
                ("""{"people":1,"tasks":[{"id":"a","minutes":1},{"id":"a","minutes":1}]}""", "twice"),
                ("""{"people":1,"goal":"soon","tasks":[]}""", "goal"),
            })
        {
            File.WriteAllText(_file, json);
            CommandTests.Run("plan", _file).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain(word));
        }

        File.WriteAllText(_file, """{"people":1,"places":[],"tasks":[],"goal":"makespan"}""");
        CommandTests.Run("plan", _file, "--json").Code.ShouldBe(0);
    }
}
