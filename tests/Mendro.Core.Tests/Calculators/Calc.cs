using Mendro.Core.Calculators;

namespace Mendro.Core.Tests.Calculators;

/// <summary>Runs a calculator from <c>key=value</c> texts, as the command line does.</summary>
internal static class Calc
{
    public static CalculatorAnswer Run(string name, params string[] pairs)
    {
        var run = CalculatorShelf.Find(name)!.Run(Given(pairs));
        run.Problem.ShouldBeNull();
        return run.Value!.Answer;
    }

    public static double Number(string name, string output, params string[] pairs) => Run(name, pairs).Number(output);

    public static string Text(string name, string output, params string[] pairs) =>
        (string)Run(name, pairs).Outputs.Single(o => o.Name == output).Value;

    public static string Problem(string name, params string[] pairs) =>
        CalculatorShelf.Find(name)!.Run(Given(pairs)).Problem.ShouldNotBeNull();

    private static Dictionary<string, string> Given(string[] pairs) =>
        pairs.Select(p => p.Split('=', 2)).ToDictionary(p => p[0], p => p[1]);
}
