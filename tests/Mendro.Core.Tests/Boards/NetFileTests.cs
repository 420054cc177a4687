using CsCheck;
using Mendro.Core.Boards;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Boards;

/// <summary>Points and nets from files and back: IPC-D-356A and CSV.</summary>
public class NetFileTests
{
    // Made by hand after the record layout of IPC-D-356A (columns from 1: net 4–17, part 21–26, dash 27, pin 28–31, M 32, D and drill 33–37,
    // P or U 38, A and side 39–41, X 42–49, Y 50–57, sizes 58–67, rotation 68–71, mask 73–74); layout from memory.
    private const string Metric = """
        C  a comment
        P  JOB   two chips
        P  UNITS CUST 1
        P  NNAME1  A_VERY_LONG_NET_NAME_INDEED
        389BOARD_EDGE      X+000000Y+000000 X+050000 Y+030000 X+000000 Y+000000
        317VCC              U1    -14   D0900PA00X+010000Y+020000X1500Y1500R000 S3
        327VCC              C1    -1          A01X+012500Y+020500X1000Y1200R090 S1
        317NNAME1           VIA         D0300PA00X+015000Y+018000X0600Y0000R000 S0
        327NNAME1           U2    -3          A02X+030000Y+005250X0600Y1500R000 S2
        327N/C              U2    -4          A01X-001270Y+005250X0600Y1500R000 S2
        327GND              TP7               A01X+002000Y+003000X1000Y0000R000 S0
        317GND              U1    -7    D0900PA00X+010000Y+027620X1500Y1500R000 S3
        999
        """;

    private static NetFile Read(string text)
    {
        var read = NetFile.Read(text);
        read.Problem.ShouldBeNull();
        return read.Value!;
    }

    [Fact]
    public void Records_317_and_327_are_read_by_their_columns()
    {
        var file = Read(Metric);
        file.Points.ShouldBe(
            [
                new NetPoint("U1-14", 10, 20, "both", "leg", "U1"),
                new NetPoint("C1-1", 12.5, 20.5, "top", "pad", "C1"),
                new NetPoint("V1", 15, 18, "both", "via"),
                new NetPoint("U2-3", 30, 5.25, "bottom", "pad", "U2"),
                new NetPoint("U2-4", -1.27, 5.25, "top", "pad", "U2"),
                new NetPoint("TP7", 2, 3, "top", "test"),
                new NetPoint("U1-7", 10, 27.62, "both", "leg", "U1"),
            ]
        );
        file.Nets.Select(n => $"{n.Id} {n.Name}: {string.Join(' ', n.Points)}").ShouldBe(
            ["VCC VCC: U1-14 C1-1", "A_VERY_LONG_NET_NAME_INDEED A_VERY_LONG_NET_NAME_INDEED: V1 U2-3", "GND GND: TP7 U1-7"]
        );
        file.Outline!.Select(c => (c[0], c[1])).ShouldBe([(0, 0), (50, 0), (50, 30), (0, 30)]);
        file.Notes.ShouldBeEmpty();
    }

    [Theory]
    [InlineData("P  UNITS CUST 0", 10.0)]
    [InlineData("P  UNITS CUST 2", 10.0)]
    [InlineData("P  UNITS CUST 1", 3.937)]
    [InlineData("", 10.0)]
    public void Units_are_ten_thousandths_of_an_inch_or_thousandths_of_a_millimetre(string units, double mm)
    {
        // 10 mm are 0.3937 inch: 3937 ten-thousandths.
        var file = Read($"{units}\n317A                U1    -1    D0300PA00X+003937Y+000000\n999\n");
        file.Points.Single().X.ShouldBe(mm, 1e-3);
        file.Notes.Any(n => n.Contains("no units", StringComparison.Ordinal)).ShouldBe(units.Length == 0);
    }

    [Fact]
    public void Broken_lines_are_told_by_their_number_and_the_others_are_taken()
    {
        var file = Read(
            "P  UNITS CUST 1\n317A                U1    -1    D0300PA00X+001000Y+00\n317A                U1    -2    D0300PA00X+00K000Y+001000\n"
                + "327A\n317A                U1    -3    D0300PA00X+002000Y+001000\n4XYA\n\n999\n317A                U1    -9    D0300PA00X+002000Y+001000\n"
        );
        file.Points.Select(p => p.Id).ShouldBe(["U1-1", "U1-3"]);
        file.Notes.Select(n => n.Split(':')[0]).ShouldBe(["line 3", "line 4", "line 6"]);
        NetFile.Read("327A\n999\n").Problem.ShouldNotBeNull().ShouldContain("line 1");
        NetFile.Read("").Problem.ShouldNotBeNull().ShouldContain("point, x_mm, y_mm");
    }

    [Fact]
    public void The_same_pin_told_from_both_sides_is_two_points()
    {
        var file = Read(
            "P  UNITS CUST 1\n327A                J1    -1          A01X+001000Y+001000\n327A                J1    -1          A02X+001000Y+001000\n999\n"
        );
        file.Points.Select(p => (p.Id, p.Side)).ShouldBe([("J1-1", "top"), ("J1-1~2", "bottom")]);
    }

    private static readonly Gen<string> Records = Gen.Select(
        Gen.Int[0, 6],
        Gen.Int[0, 4],
        Gen.Int[0, 12],
        Gen.Int[-200_000, 200_000],
        Gen.Int[-200_000, 200_000],
        Gen.Int[0, 2],
        Gen.Bool
    )
        .Select(
            (net, part, pin, x, y, side, through) =>
            {
                var name = ((string[])["VCC", "GND", "/A5", "N$1", "NNAME9", "N/C", "CLK*"])[net];
                var refdes = ((string[])["U1", "VIA", "TP1", "C12", "R/2"])[part];
                var at = $"{(x < 0 ? '-' : '+')}{Math.Abs(x):000000}Y{(y < 0 ? '-' : '+')}{Math.Abs(y):000000}";
                var pinned = refdes == "VIA" || pin == 0 ? "     " : "-" + $"{pin}".PadRight(4);
                return $"3{(through ? 1 : 2)}7{name, -14}   {refdes, -6}{pinned}       A0{side}X{at}X0000Y0000R000 S0";
            }
        );

    [Fact]
    public void Read_written_and_read_again_it_is_the_same() =>
        Gen.Select(Records.Array[1, 40], Gen.Int[0, 1])
            .Sample(
                (lines, unit) =>
                {
                    var text = $"P  UNITS CUST {unit}\nP  NNAME9  RATHER_A_LONG_NAME_OF_A_NET\n" + string.Join('\n', lines) + "\n999\n";
                    var first = Read(text);
                    var board = first.On(null, "main", "Main board");
                    var second = Read(Ipc356.Write(board));
                    second.Points.ShouldBe(first.Points);
                    Told(second.Nets).ShouldBe(Told(first.Nets));
                    second.Outline!.SelectMany(c => c).ShouldBe(board.Outline.SelectMany(c => c).Select(v => Math.Round(v, 3)));
                    second.Notes.ShouldBeEmpty();
                    var table = Read(NetCsv.Write(board));
                    table.Points.ShouldBe(first.Points);
                    Told(table.Nets).ShouldBe(Told(first.Nets), ignoreOrder: true);
                },
                iter: 300
            );

    [Theory]
    [InlineData("harrow-quartet")]
    [InlineData("dovrel-bastion")]
    [InlineData("pellin-atrium-cartridge")]
    public void The_shipped_boards_go_through_csv_with_nothing_lost(string id)
    {
        foreach (var board in Shipped.Profile(id).Boards!.Where(b => b.Nets is { Count: > 0 }))
        {
            var file = Read(NetCsv.Write(board));
            file.Points.ShouldBe(board.Points!);
            Told(file.Nets).ShouldBe(Told(board.Nets!), ignoreOrder: true);
            var (again, told) = (file.Nets.ToDictionary(n => n.Id), board.Nets!);
            foreach (var net in told)
            {
                again[net.Id].Serves.ShouldBe(net.Serves);
                again[net.Id].Amps.ShouldBe(net.Amps);
                again[net.Id].Segments!.Select(s => (s[0], s[1])).ShouldBe(net.Segments!.Select(s => (s[0], s[1])), ignoreOrder: true);
            }
        }
    }

    [Fact]
    public void What_is_wrong_in_a_table_is_told_by_line()
    {
        var read = NetFile.Read("point,x_mm,y_mm,kind,net,joined_to\na,1,2,via,N,\nb c,1,2,via,N,\nd,x,2,via,N,\ne,1,2,hole,N,\nf,3,2,via,N,a q\n");
        read.Value!.Points.Select(p => p.Id).ShouldBe(["a", "f"]);
        read.Value.Notes.ShouldSatisfyAllConditions(
            n => n[0].ShouldStartWith("line 3"),
            n => n[1].ShouldStartWith("line 4"),
            n => n[2].ShouldStartWith("line 5"),
            n => n[3].ShouldContain("“q”")
        );
        read.Value.Nets.Single().Segments.ShouldHaveSingleItem().ShouldBe(["a", "f"]);
    }

    private static IEnumerable<string> Told(IEnumerable<BoardNet> nets) =>
        nets.Select(n => $"{n.Id}|{n.Name}|{string.Join(' ', n.Points.Order(StringComparer.Ordinal))}");
}
