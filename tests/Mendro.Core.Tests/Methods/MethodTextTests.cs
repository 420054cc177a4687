using Mendro.Core.Library;

namespace Mendro.Core.Tests.Methods;

/// <summary>Steps of a method as lines.</summary>
public class MethodTextTests
{
    [Fact]
    public void Every_shipped_method_goes_out_as_lines_and_comes_back_the_same()
    {
        foreach (var method in TradeLibrary.Shipped.Methods)
        {
            var back = MethodText.Read(MethodText.Write(method.Steps), out var problem);
            problem.ShouldBeNull(method.Id);
            MethodText.Write(back).ShouldBe(MethodText.Write(method.Steps));
            back.Select(s => (s.Do, s.Wait, s.Agent, s.Surface, s.Rinse, s.Heat, s.Power, s.Minutes))
                .ShouldBe(method.Steps.Select(s => (s.Do, s.Wait, s.Agent, s.Surface, s.Rinse, s.Heat, s.Power, s.Minutes)));
            MethodText.ReadCures(MethodText.Write(method.Cures), TradeLibrary.Shipped, out problem).ShouldBe(method.Cures);
            problem.ShouldBeNull(method.Id);
        }
    }

    [Theory]
    [InlineData("", "a step at least")]
    [InlineData("Wet it. | wait nap 5", "nap")]
    [InlineData("Wet it.\n\nDry. | wait dry", "Line 3")]
    [InlineData("Heat. | iron 900", "iron 900")]
    [InlineData("| rinse", "what to do")]
    public void What_is_not_understood_is_said_with_its_line(string text, string words)
    {
        MethodText.Read(text, out var problem).ShouldBeEmpty();
        problem!.ShouldContain(words);
    }

    [Theory]
    [InlineData("power-switch dirty", "kind of part, mode and chance")]
    [InlineData("power-switch dirty 1.2", "kind of part, mode and chance")]
    [InlineData("teapot dirty 0.5", "teapot")]
    [InlineData("power-switch eaten 0.5", "does not fail as")]
    public void Cures_name_what_the_library_knows(string text, string words)
    {
        MethodText.ReadCures(text, TradeLibrary.Shipped, out var problem).ShouldBeEmpty();
        problem!.ShouldContain(words);
    }
}
