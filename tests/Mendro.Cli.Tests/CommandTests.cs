using System.Globalization;
using System.Text.Json;
using System.Text.RegularExpressions;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Storage;

namespace Mendro.Cli.Tests;

/// <summary>The commands for machines: JSON on standard output and exit 0, a message on standard error and exit 2.</summary>
public sealed class CommandTests : IDisposable
{
    private readonly string _file = Path.GetTempFileName();

    public void Dispose() => File.Delete(_file);

    [Fact]
    public void Diagnose_answers_in_the_documented_shape()
    {
        File.WriteAllText(
            _file,
            """{"format":"mendro.network/1","faults":[{"id":"a","prior":0.2}],"findings":[{"id":"s","leak":0.1,"links":"""
                + """[{"fault":"a","p":0.5}]}],"observed":[{"finding":"s","state":"present"}]}"""
        );
        var (code, output, error) = Run("diagnose", _file, "--json");
        code.ShouldBe(0);
        error.ShouldBeEmpty();
        var answer = JsonDocument.Parse(output).RootElement;
        answer.EnumerateObject().Select(p => p.Name).ShouldBe(["evidenceProbability", "faults", "findings", "milliseconds"]);
        answer.GetProperty("evidenceProbability").GetDouble().ShouldBe(0.19, 1e-12);
        answer.GetProperty("faults")[0].GetProperty("posterior").GetDouble().ShouldBe(0.11 / 0.19, 1e-12);
        answer.GetProperty("findings")[0].GetProperty("probability").GetDouble().ShouldBe(1);
    }

    [Theory]
    [InlineData("{}", "format")]
    [InlineData("not json", "not valid JSON")]
    [InlineData(
        """{"format":"mendro.network/1","findings":[{"id":"s","leak":0}],"observed":[{"finding":"s","state":"present"}]}""",
        "contradicts itself"
    )]
    public void Bad_input_is_a_message_and_exit_2(string text, string named)
    {
        File.WriteAllText(_file, text);
        var (code, output, error) = Run("diagnose", _file, "--json");
        code.ShouldBe(2);
        output.ShouldBeEmpty();
        error.ShouldContain(named);
    }

    [Fact]
    public void Missing_files_and_unknown_commands_say_so()
    {
        Run("diagnose", "/nowhere/x.json", "--json")
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("/nowhere/x.json"));
        Run("diagnose").Code.ShouldBe(2);
        Run("conjure").ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("conjure"));
        Run().Code.ShouldBe(2);
    }

    [Fact]
    public void Calc_answers_in_the_documented_shape()
    {
        var (code, output, error) = Run("calc", "battery-pack", "cells=4", "chemistry=alkaline", "measured=6.24", "--json");
        code.ShouldBe(0, error);
        var answer = JsonDocument.Parse(output).RootElement;
        answer.EnumerateObject().Select(p => p.Name).ShouldBe(["name", "inputs", "outputs", "verdict", "source"]);
        answer.GetProperty("inputs").GetProperty("cells").GetDouble().ShouldBe(4);
        answer
            .GetProperty("outputs")
            .EnumerateObject()
            .Select(p => p.Name)
            .ShouldBe(["nominal", "fresh", "low", "empty", "perCell", "state"]);
        answer.GetProperty("outputs").GetProperty("perCell").GetDouble().ShouldBe(1.56, 1e-12);
        answer.GetProperty("outputs").GetProperty("state").GetString().ShouldBe("full");
        var adapter = JsonDocument
            .Parse(
                Run(
                    "calc",
                    "adapter",
                    "--json",
                    "kind=ac",
                    "volts=9",
                    "amps=1",
                    "needKind=dc",
                    "needVolts=9",
                    "needAmps=0.85",
                    "needPolarity=centre-negative"
                ).Output
            )
            .RootElement;
        adapter.GetProperty("verdict").GetString().ShouldBe("dangerous");
        adapter.GetProperty("outputs").GetProperty("reasons").GetArrayLength().ShouldBe(3);
        Run("calc", "temperature", "celsius=280").Output.ShouldContain("Fahrenheit: 536 °F");
    }

    [Theory]
    [InlineData("vin", "calc", "regulator", "vin=nine", "current=1")]
    [InlineData("current", "calc", "regulator", "vin=9")]
    [InlineData("volts", "calc", "regulator", "vin=9", "current=1", "volts=5")]
    [InlineData("vin", "calc", "regulator", "vin=9", "vin=8", "current=1")]
    [InlineData("vin", "calc", "regulator", "vin=", "current=1")]
    [InlineData("confidence", "calc", "starts", "successes=20", "confidence=1")]
    [InlineData("bands", "calc", "resistor-bands", "bands=brown")]
    [InlineData("nine", "calc", "regulator", "nine")]
    [InlineData("sesame", "calc", "sesame")]
    [InlineData("battery-pack", "calc")]
    public void Calc_names_the_key_that_is_wrong(string named, params string[] args)
    {
        var (code, output, error) = Run([.. args, "--json"]);
        code.ShouldBe(2);
        output.ShouldBeEmpty();
        error.ShouldContain(named);
    }

    [Fact]
    public void Simulate_answers_in_the_documented_shape()
    {
        File.WriteAllText(_file, TradeLibrary.ReadText("Profiles/pellin-atrium-pad.json"));
        var (code, output, error) = Run("simulate", "--profile", _file, "--units", "5", "--seed", "3", "--policy", "oracle", "--json");
        code.ShouldBe(0, error);
        var answer = JsonDocument.Parse(output).RootElement;
        answer
            .EnumerateObject()
            .Select(p => p.Name)
            .ShouldBe(["units", "seed", "policy", "meanMinutes", "p90Minutes", "shareCured", "meanCost"]);
        answer.GetProperty("policy").GetString().ShouldBe("oracle");
        answer.GetProperty("units").GetInt32().ShouldBe(5);
    }

    [Fact]
    public void Advise_names_suspects_and_moves_for_a_file_of_evidence()
    {
        File.WriteAllText(_file, TradeLibrary.ReadText("Profiles/harrow-quartet.json"));
        var evidence = _file + ".evidence";
        File.WriteAllText(
            evidence,
            """{"format":"mendro.evidence/1","state":"open","events":[{"function":"power-light","result":"fail","""
                + """ "look":"nothing"},{"probe":"tp3","reading":"6.21 V"},{"probe":"tp4","reading":"0,02"}]}"""
        );
        var (code, output, error) = Run("advise", "--profile", _file, "--evidence", evidence, "--json");
        File.WriteAllText(evidence, """{"format":"mendro.evidence/1","events":[{"probe":"tp3","reading":"beep"}]}""");
        var (badCode, _, badError) = Run("advise", "--profile", _file, "--evidence", evidence, "--json");
        File.Delete(evidence);

        code.ShouldBe(0, error);
        var answer = JsonDocument.Parse(output).RootElement;
        answer.GetProperty("target").GetString().ShouldBe("power-light");
        answer.GetProperty("suspects")[0].GetProperty("fault").GetString().ShouldBe("switch.dirty");
        answer.GetProperty("moves")[0].GetProperty("id").GetString().ShouldNotBeNull().ShouldContain("switch");
        answer.GetProperty("outlook").GetProperty("chanceToCure").GetDouble().ShouldBeInRange(0.5, 1);
        badCode.ShouldBe(2);
        badError.ShouldContain("events[0]: This probe wants volts");
    }

    [Theory]
    [InlineData("--units", "0", "--units")]
    [InlineData("--policy", "guess", "--policy")]
    [InlineData("--seed", "x", "--seed")]
    [InlineData("--speed", "9", "--speed")]
    public void Simulate_names_the_option_that_is_wrong(string option, string value, string named)
    {
        var (code, _, error) = Run("simulate", "--profile", _file, "--policy", "oracle", option, value);
        code.ShouldBe(2);
        error.ShouldContain(named);
    }

    /// <summary>Every function fails, everything looks and feels bad, and fails in every set: too much for the exact sum.</summary>
    [Fact]
    public void Advice_that_is_estimated_says_so()
    {
        var model = TradeLibrary.Shipped.Profiles.Single(p => p.Id == "dovrel-sextant");
        File.WriteAllText(_file, TradeLibrary.ReadText("Profiles/dovrel-sextant.json"));
        var evidence = _file + ".evidence";
        var looks = TradeLibrary.Shipped;
        var events = model
            .Functions.SelectMany(f =>
                looks.FindFunctionKind(f.Kind)!.Looks.Take(1).Select(l => $$"""{"function":"{{f.Id}}","result":"fail","look":"{{l.Id}}"}""")
            )
            .Concat(
                model
                    .Probes.Where(p => p.Kind is ProbeKind.Look or ProbeKind.Press)
                    .Select(p => $$"""{"probe":"{{p.Id}}","reading":"bad"}""")
            )
            .Concat(model.Functions.SelectMany(f => Enumerable.Range(2, 5).Select(n => SwapOf(model, f, n))));
        File.WriteAllText(evidence, $$"""{"format":"mendro.evidence/1","state":"open","events":[{{string.Join(',', events)}}]}""");
        var (code, output, error) = Run("advise", "--profile", _file, "--evidence", evidence, "--json");
        File.Delete(evidence);
        code.ShouldBe(0, error);
        JsonDocument.Parse(output).RootElement.GetProperty("sampled").GetBoolean().ShouldBeTrue();
    }

    private static string SwapOf(DeviceProfile model, DeviceFunction function, int left)
    {
        var chain = model.Parts.Where((_, i) => i % left != 0).Select(p => $"\"{p.Id}\"");
        return $$"""{"swap":"{{function.Id}}","chain":[{{string.Join(',', chain)}}],"result":"fail"}""";
    }

    /// <summary>Under a culture that writes 1,5 the commands answer to the letter what they answer without one.</summary>
    [Fact]
    public void No_command_follows_the_culture_of_the_machine()
    {
        File.WriteAllText(_file, TradeLibrary.ReadText("Profiles/harrow-quartet.json"));
        var evidence = _file + ".evidence";
        File.WriteAllText(evidence, """{"format":"mendro.evidence/1","state":"open","events":[{"probe":"tp3","reading":"6.21 V"}]}""");
        string[][] commands =
        [
            ["calc", "battery-pack", "cells=4", "chemistry=alkaline", "measured=5.2"],
            ["calc", "battery-pack", "cells=4", "chemistry=alkaline", "measured=5.2", "--json"],
            ["advise", "--profile", _file, "--evidence", evidence],
            ["simulate", "--profile", _file, "--units", "3", "--seed", "5", "--policy", "checklist"],
            ["schema"],
        ];
        var before = CultureInfo.CurrentCulture;
        try
        {
            foreach (var command in commands)
            {
                CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
                var plain = Timeless(Run(command));
                plain.Code.ShouldBe(0, plain.Error);
                CultureInfo.CurrentCulture = new CultureInfo("de-DE");
                1.5.ToString(CultureInfo.CurrentCulture).ShouldBe("1,5");
                Timeless(Run(command)).ShouldBe(plain);
            }
        }
        finally
        {
            CultureInfo.CurrentCulture = before;
            File.Delete(evidence);
        }
    }

    [Fact]
    public void A_shop_goes_out_and_comes_back_by_commands()
    {
        var root = Path.Combine(Path.GetTempPath(), "mendro-commands-" + Guid.NewGuid().ToString("N"));
        string In(string name) => Path.Combine(root, name);
        try
        {
            var shop = new ShopDatabase(Path.Combine(In("shop"), "shop.db"));
            shop.Migrate();
            var unit = new Job
            {
                ProfileId = "harrow-quartet",
                ProfileVersion = 1,
                ModelName = "Harrow Quartet",
                Currency = "EUR",
                ReceivedAt = new DateTimeOffset(2026, 3, 1, 9, 0, 0, TimeSpan.Zero),
                Claim = "=1+1, dead",
            };
            new ProfileStore(shop, TimeProvider.System).TakeIn(TradeLibrary.Shipped, demo: true);
            new JobStore(shop, TimeProvider.System).TakeIn(new NewJob(unit, null, "", []));
            var (backedUp, told, _) = Run("backup", In("one.mendro"), "--data", In("shop"), "--json");
            backedUp.ShouldBe(0);
            JsonDocument.Parse(told).RootElement.GetProperty("jobs").GetInt64().ShouldBe(1);
            Run("restore", In("one.mendro"), "--data", In("second")).Code.ShouldBe(0);
            Run("export", In("out"), "--data", In("second")).Code.ShouldBe(0);
            Run("import", In("out"), "--data", In("third")).Code.ShouldBe(0);
            Run("export", In("again"), "--data", In("third")).Code.ShouldBe(0);
            var files = Directory.GetFiles(In("out")).Select(f => Path.GetFileName(f)!).Order().ToList();
            files.ShouldContain("jobs.csv");
            Directory.GetFiles(In("again")).Select(f => Path.GetFileName(f)!).Order().ShouldBe(files);
            foreach (var file in files)
                File.ReadAllBytes(Path.Combine(In("again"), file)).ShouldBe(File.ReadAllBytes(Path.Combine(In("out"), file)), file);
            // What cannot be done is one sentence and exit 2; the shop that was there stays.
            var (full, _, why) = Run("import", In("out"), "--data", In("second"));
            (full, why.Trim().Split('\n').Length).ShouldBe((2, 1));
            File.WriteAllText(In("broken.mendro"), "no backup");
            Run("restore", In("broken.mendro"), "--data", In("second")).Code.ShouldBe(2);
            new JobStore(new ShopDatabase(Path.Combine(In("second"), "shop.db")), TimeProvider.System).Find(101).ShouldNotBeNull();
            Run("backup").Code.ShouldBe(2);
            Run("export", In("x"), "--data", In("nowhere")).Code.ShouldBe(2);
        }
        finally
        {
            Directory.Delete(root, true);
        }
    }

    /// <summary>Without the milliseconds it took, which differ from run to run.</summary>
    private static (int Code, string Output, string Error) Timeless((int Code, string Output, string Error) answer) =>
        answer with
        {
            Output = Regex.Replace(answer.Output, "\"milliseconds\": *[0-9.,]+", ""),
        };

    internal static (int Code, string Output, string Error) Run(params string[] args)
    {
        using StringWriter output = new(),
            error = new();
        return (Commands.Run(args, output, error), output.ToString(), error.ToString());
    }
}
