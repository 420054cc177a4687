using CsCheck;
using MathNet.Numerics.Statistics;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;

namespace Mendro.Core.Tests.Readings;

/// <summary>What good units show, and how a unit compares with them.</summary>
public class SignatureTests
{
    // Worked example of a median absolute deviation: 1, 1, 2, 2, 4, 6, 9 has median 2 and MAD 1.
    [Fact]
    public void Median_and_spread_are_those_of_the_worked_example()
    {
        var signature = Signature.Of([1, 1, 2, 2, 4, 6, 9])!;
        signature.Median.ShouldBe(2);
        signature.Spread.ShouldBe(1.4826, 1e-12);
        (signature.Units, signature.Lowest, signature.Highest).ShouldBe((7, 1, 9));
    }

    [Fact]
    public void They_agree_with_a_statistics_library() =>
        Gen.Double[-100, 100]
            .Array[1, 30]
            .Sample(
                values =>
                {
                    var signature = Signature.Of(values.Select(v => (double?)v).ToList())!;
                    signature.Median!.Value.ShouldBe(values.Median(), 1e-9);
                    signature.Spread.ShouldBe(1.4826 * values.Select(v => Math.Abs(v - values.Median())).Median(), 1e-9);
                },
                iter: 1000
            );

    [Fact]
    public void One_wrong_unit_among_many_moves_little()
    {
        double?[] good = [5.01, 5.02, 5.0, 5.03, 4.99, 5.02, 5.01];
        var clean = Signature.Of(good)!;
        var spoiled = Signature.Of([.. good, 0.02])!;
        Math.Abs(spoiled.Median!.Value - clean.Median!.Value).ShouldBeLessThan(0.01);
        spoiled.Compare(5.02, ProbeKind.Volts).Alike.ShouldBeTrue();
        spoiled.Compare(4.2, ProbeKind.Volts).Alike.ShouldBeFalse();
    }

    [Fact]
    public void A_few_units_that_agree_by_chance_do_not_make_everything_look_wrong()
    {
        var signature = Signature.Of([5.0, 5.0, 5.0])!;
        signature.Spread.ShouldBe(0);
        signature.Compare(5.2, ProbeKind.Volts).Alike.ShouldBeTrue();
        signature.Compare(5.4, ProbeKind.Volts).Alike.ShouldBeFalse();
        signature.Compare(5.4, ProbeKind.Volts).Spreads!.Value.ShouldBe(4, 1e-9);
    }

    // Leads, pressure and the meter's last digit (common practice, no source).
    [Theory]
    [InlineData(ProbeKind.Continuity, 0.25, 0.5, true)]
    [InlineData(ProbeKind.Continuity, 0.25, 0.7, false)]
    [InlineData(ProbeKind.Ohms, 8, 8.4, true)]
    [InlineData(ProbeKind.Ohms, 8, 8.7, false)]
    [InlineData(ProbeKind.Diode, 0.02, 0.045, true)]
    [InlineData(ProbeKind.Diode, 0.02, 0.06, false)]
    public void What_leads_and_last_digits_do_is_no_difference(ProbeKind kind, double good, double seen, bool alike) =>
        Signature.Of([good, good, good])!.Compare(seen, kind).Alike.ShouldBe(alike);

    [Fact]
    public void Over_range_is_compared_with_over_range()
    {
        var open = Signature.Of([null, null, 2e6])!;
        open.Median.ShouldBeNull();
        open.Compare(null, ProbeKind.Ohms).Alike.ShouldBeTrue();
        open.Compare(4700, ProbeKind.Ohms).Alike.ShouldBeFalse();
        Signature.Of([4700, 4800])!.Compare(null, ProbeKind.Ohms).Alike.ShouldBeFalse();
        Signature.Of([]).ShouldBeNull();
        SignatureWords.Of(open, ProbeKind.Ohms).ShouldBe("OL");
        SignatureWords.Of(Signature.Of([0.2, 0.25, 0.31])!, ProbeKind.Continuity).ShouldBe("0.25 Ω ± 0.07 Ω");
    }

    [Fact]
    public void The_file_reads_back_as_written() =>
        Gen.Select(Gen.Double[-1e6, 1e6], Gen.Bool, Gen.Int[0, 4], Gen.String[Gen.Char["abc ,;\"'äÖ\n0"], 1, 20])
            .Array[1, 20]
            .Sample(
                rows =>
                {
                    var readings = rows.Select(
                            (r, n) =>
                                new GoodReading(
                                    "harrow-quartet",
                                    n % 2 == 0 ? "B" : "",
                                    $"tp{n}",
                                    GoodReadingFile.Units[r.Item3],
                                    r.Item2 ? null : r.Item1,
                                    "u" + r.Item4.Trim() + "x"
                                )
                        )
                        .ToList();
                    GoodReadingFile.Read(GoodReadingFile.Write(readings), out var problems).ShouldBe(readings);
                    problems.ShouldBeEmpty();
                },
                iter: 200
            );

    [Fact]
    public void Spreadsheets_with_semicolons_and_decimal_commas_are_understood()
    {
        var read = GoodReadingFile.Read(
            "profile;revision;probe;unit;value;good_unit\nharrow-quartet;B;tp5;V;5,03;unit "
                + "1\nharrow-quartet;B;rail-ohms;ohm;4k7;unit 1\nharrow-quartet;;x;ohm;OL;unit 1\n",
            out var problems
        );
        problems.ShouldBeEmpty();
        read.Select(r => r.Value).ShouldBe([5.03, 4700, null]);
    }

    [Theory]
    [InlineData("a,b,c\n1,2,3", "columns must be")]
    [InlineData("", "columns must be")]
    [InlineData("profile,revision,probe,unit,value,good_unit\np,,tp1,X,5,u", "line 2: “X” is no unit")]
    [InlineData("profile,revision,probe,unit,value,good_unit\np,,tp1,V,much,u", "line 2: “much” is no value in V")]
    [InlineData("profile,revision,probe,unit,value,good_unit\np,,tp1,V,5,", "names the unit")]
    [InlineData("profile,revision,probe,unit,value,good_unit\n,,tp1,V,5,u", "profile and probe")]
    [InlineData("profile,revision,probe,unit,value,good_unit\np", "missing")]
    public void A_bad_line_is_named(string text, string words)
    {
        GoodReadingFile.Read(text, out var problems);
        problems.ShouldHaveSingleItem().ShouldContain(words);
    }

    // OWASP, CSV injection: formulas begin with =, +, - or @, also behind blanks.
    [Theory]
    [InlineData("=1+1")]
    [InlineData(" =HYPERLINK(\"http://x\")")]
    [InlineData("\t@SUM(A1)")]
    [InlineData("-2+3")]
    [InlineData("+x")]
    [InlineData("'quoted")]
    [InlineData("plain")]
    public void In_no_text_column_a_spreadsheet_finds_a_formula_and_it_is_read_back_unchanged(string text)
    {
        var reading = new GoodReading(text, text, text, "V", -5, text.Trim());
        var file = GoodReadingFile.Write([reading]);
        var fields = file.Split("\r\n")[1].Split(',').Select(f => f.Trim('"')).ToList();
        fields.Where((_, n) => n is 0 or 1 or 2 or 5).ShouldAllBe(f => f == "plain" || f.StartsWith('\''));
        fields[4].ShouldBe("-5");
        GoodReadingFile.Read(file, out var problems).ShouldHaveSingleItem().ShouldBe(reading);
        problems.ShouldBeEmpty();
    }

    [Fact]
    public void Any_file_is_answered_without_throwing() =>
        Gen.String[Gen.Char["profile,revision;\"\n\r01VohmOL=-"], 0, 200]
            .Sample(
                text =>
                {
                    GoodReadingFile.Read("profile,revision,probe,unit,value,good_unit\n" + text, out var problems);
                    problems.ShouldNotBeNull();
                },
                iter: 2000
            );
}
