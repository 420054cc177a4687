using Mendro.Core.Boards;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Boards;

/// <summary>A line told by its two ends. Common practice, no source.</summary>
public class TypedLineTests
{
    [Fact]
    public void Each_line_is_a_net_of_two_points_on_a_sheet_of_its_own_and_the_boards_stay()
    {
        var boards = TradeLibrary.Shipped.Profiles.First(p => p.Boards is { Count: > 0 }).Boards!;
        var one = TypedLine.Add(boards, "via near R3", "test point 4", 23.5).Value!;
        var two = TypedLine.Add(one.Boards, "leg 7 of U2", "P1 contact 12", 60).Value!;
        two.Boards.Take(boards.Count).ShouldBe(boards);
        var sheet = two.Boards[^1];
        sheet.Nets!.Select(n => n.Name).ShouldBe(["via near R3 – test point 4", "leg 7 of U2 – P1 contact 12"]);
        sheet.Points!.Select(p => p.Id).Distinct().Count().ShouldBe(4);
        sheet.Points!.ShouldAllBe(p => System.Text.RegularExpressions.Regex.IsMatch(p.Id, NetPoint.IdPattern));
        var points = sheet.Points!.ToDictionary(p => p.Id);
        double Apart(BoardNet net) => Math.Abs(points[net.Points[0]].X - points[net.Points[1]].X);
        sheet.Nets!.Select(Apart).ShouldBe([23.5, 60]);
    }

    [Fact]
    public void The_same_two_ends_are_the_same_line_in_either_order()
    {
        var one = TypedLine.Add([], "R3", "TP4", 10).Value!;
        var again = TypedLine.Add(one.Boards, "TP4", "R3", 12).Value!;
        (again.Net, again.Boards[^1].Nets!.Count).ShouldBe((one.Net, 1));
    }

    [Theory]
    [InlineData("", "TP4", 10, "both ends")]
    [InlineData("R3", "r3", 10, "two places")]
    [InlineData("R3", "TP4", 0, "How far apart")]
    [InlineData("R3", "TP4", double.NaN, "How far apart")]
    [InlineData("a name that is much longer than anybody says it", "TP4", 10, "both ends")]
    public void What_is_no_line_is_told(string from, string to, double mm, string why) =>
        TypedLine.Add([], from, to, mm).Problem.ShouldNotBeNull().ShouldContain(why);
}
