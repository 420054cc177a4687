using System.Net;
using Mendro.Core.Jobs;

namespace Mendro.Web.Tests;

/// <summary>A failure of which nobody told how it looks is asked for it on Find, and answered by one press.</summary>
public sealed class UntoldLookTests : IDisposable
{
    private readonly WebShop _shop = new();

    public void Dispose() => _shop.Dispose();

    private async Task<long> Fails(params string[] functions) =>
        await _shop.TakeIn("harrow-quartet", [.. functions.Select(f => ($"Form.Result[{f}]", "fail"))]);

    [Fact]
    public async Task It_is_asked_with_the_looks_it_may_have_and_the_answer_corrects_the_entry()
    {
        var job = await Fails("picture");
        var asked = (await _shop.Page($"/Jobs/{job}/Find")).QuerySelector("form.untold")!;
        asked.TextContent.ShouldContain("Picture: how does it look?");
        asked.QuerySelectorAll("button[name=look]").Select(b => b.GetAttribute("value")).ShouldContain("vertical-lines");
        string Field(string name) => asked.QuerySelector($"input[name={name}]")!.GetAttribute("value")!;
        using var answer = await _shop.Post(
            $"/Jobs/{job}/Find",
            $"/Jobs/{job}/Find?handler=Function",
            false,
            ("function", Field("function")),
            ("result", Field("result")),
            ("times", Field("times")),
            ("correct", Field("correct")),
            ("look", "vertical-lines")
        );
        answer.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        _shop.View(job).All<FunctionTrial>().ShouldHaveSingleItem().Body.ShouldBe(new FunctionTrial("picture", false, "vertical-lines"));
        (await _shop.Page($"/Jobs/{job}/Find")).QuerySelector("form.untold").ShouldBeNull();
    }

    [Fact]
    public async Task Of_two_the_one_that_is_worked_on_is_asked_first_and_a_told_one_is_not_asked()
    {
        var job = await Fails("picture", "speaker");
        var target = _shop.View(job).Diagnosis!.Target!.Name;
        (await _shop.Page($"/Jobs/{job}/Find")).QuerySelector("form.untold b")!.TextContent.ShouldBe($"{target}: how does it look?");
        var told = await _shop.TakeIn("harrow-quartet", ("Form.Result[picture]", "fail"), ("Form.Look[picture]", "dim"));
        (await _shop.Page($"/Jobs/{told}/Find")).QuerySelector("form.untold").ShouldBeNull();
    }
}
