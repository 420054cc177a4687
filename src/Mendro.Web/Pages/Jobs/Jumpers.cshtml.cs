using System.Globalization;
using Mendro.Core.Boards;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Shop;
using Mendro.Storage;
using Mendro.Web.Drawing;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>The jumper plan: which wires, by which way, in which order, and what is done now.</summary>
public sealed class JumpersModel(JobStore jobs, BenchDesk desk, TraceDesk traces, JumperDesk jumpers, TradeLibrary library)
    : TracePageModel(jobs, desk, traces, library)
{
    /// <summary>Place in the order of the wire that is looked at; null for the next one.</summary>
    [BindProperty(SupportsGet = true, Name = "wire")]
    public int? WireAt { get; set; }

    /// <summary>The plan.</summary>
    public JumperSheet Plan { get; private set; } = null!;

    /// <summary>The wire that is looked at, or null.</summary>
    public PlannedWire? Now => Plan.Wires.ElementAtOrDefault(Math.Max(0, WireAt ?? 0));

    /// <summary>A wire that has to be beeped again before the next, or null.</summary>
    public WireInPlace? Again => Sheet!.ToBeep.FirstOrDefault();

    /// <summary>What is off and hides wires that are all in and owe only their test, or can go back on.</summary>
    public string? Cover =>
        Sheet!.Plan.Off.FirstOrDefault(o =>
            Plan.Wires.All(w => w.Under != o) && Sheet.Wires.Any(w => UnderOf(w.From) == o || UnderOf(w.To) == o)
        );

    /// <summary>Bridged nets that owe a test before something goes back on, or at the end.</summary>
    public IEnumerable<TraceNet> Owed => Cover is { } cover ? JumperDesk.Owed(Sheet!, cover) : Sheet!.Nets.Where(n => n.Proof.Count > 0);

    /// <summary>Board that is shown.</summary>
    public Board Board { get; private set; } = null!;

    /// <summary>Side of the board that is shown.</summary>
    public string ShownSide => SideTold is null && Now is { } now && now.Wire.Layer.Board == Board.Id ? now.Wire.Layer.Side : Side;

    /// <summary>What an end is hidden under, or null.</summary>
    public string? UnderOf(string key) => Sheet!.NetOf(key)?.Net.ByKey[key].Point.Under;

    /// <summary>Name of the colour of a wire of the plan.</summary>
    public string ColourOf(int planned) => BoardMapDrawing.Colours[BoardMapDrawing.Colour(Sheet!.Wires.Count + planned)];

    /// <summary>Address of the page for a wire, board and side.</summary>
    public string Address(int? wire = null, string? board = null, string? side = null)
    {
        var told = new[]
        {
            wire is { } at ? string.Create(CultureInfo.InvariantCulture, $"wire={at}") : null,
            board is not null ? "board=" + Uri.EscapeDataString(board) : null,
            side is not null ? "side=" + side : null,
        }.OfType<string>();
        return $"/Jobs/{Number}/Jumpers?{string.Join('&', told)}";
    }

    /// <summary>Address of the wire calculator with what is known of a wire.</summary>
    public string WireAddress(PlannedWire wire) =>
        FormattableString.Invariant($"/Calculators/wire?job={Number}&awg={wire.Sort.Awg}&lengthMm={wire.CutMm:0}&current=")
        + (wire.Net.Amps ?? TraceLibrary.Shipped.Jumper.SignalAmps).ToString(CultureInfo.InvariantCulture);

    /// <summary>The board map with the wires.</summary>
    public string Map(bool trueScale = false) =>
        BoardMapDrawing.Draw(
            Sheet!,
            Board,
            ShownSide,
            new BoardMapView(
                Now is { } now ? Sheet!.Find(now.Net.Id) : null,
                null,
                Plan.Wires,
                Now,
                trueScale ? null : (net, at) => $"/Jobs/{Number}/Traces?net={Uri.EscapeDataString(net)}" + (at is null ? "" : $"&at={Uri.EscapeDataString(at)}")
            ),
            trueScale
        );

    /// <summary>Shows it.</summary>
    public IActionResult OnGet() => Prepare() ? Page() : NotFound();

    /// <summary>The map with the wires as a file, as large as the board.</summary>
    public IActionResult OnGetSvg() =>
        Prepare() && Sheet is not null
            ? File(System.Text.Encoding.UTF8.GetBytes(Map(trueScale: true)), "image/svg+xml", $"{Number}-{Board.Id}-{ShownSide}-wires.svg")
            : NotFound();

    /// <summary>Decides school, wire and measures.</summary>
    public IActionResult OnPostDecide(JumperSchool school, string? wire, string? reheat, string? slack, string? strip) =>
        Told(() =>
            Traces.Decide(
                Number,
                plan => plan with
                {
                    School = school,
                    Wire = string.IsNullOrEmpty(wire) ? null : wire,
                    ReheatMm = Words.Number(reheat) ?? -1,
                    Slack = Words.Number(slack) ?? -1,
                    StripMm = Words.Number(strip) ?? -1,
                },
                Once
            )
        );

    /// <summary>A wire is in, tugged and beeped.</summary>
    public IActionResult OnPostLay(string? from, string? to) => Told(() => jumpers.Lay(Number, from ?? "", to ?? "", Once));

    /// <summary>A wire was beeped again, or is off.</summary>
    public IActionResult OnPostCheck(string? from, string? to, bool holds) => Told(() => jumpers.Check(Number, from ?? "", to ?? "", holds, Once));

    /// <summary>A test over the wires was made.</summary>
    public IActionResult OnPostProve(string? a, string? b, bool beeps) => Told(() => Traces.Beep(Number, a ?? "", b ?? "", beeps, Once));

    /// <summary>What hides points comes off.</summary>
    public IActionResult OnPostOff(string? what) => Told(() => Traces.TakeOff(Number, what ?? "", Once));

    /// <summary>What hid points goes back on.</summary>
    public IActionResult OnPostBackOn(string? what) => Told(() => jumpers.PutBack(Number, what ?? "", Once));

    /// <summary>Takes back what was noted last.</summary>
    public IActionResult OnPostUndo() =>
        Prepare() ? Traces.Undo(Number, Once).Match(_ => Back(), _ => Back()) : NotFound();

    /// <inheritdoc/>
    protected override bool Prepare()
    {
        if (!base.Prepare())
            return false;
        if (Sheet is not { } sheet)
            return true;
        Plan = jumpers.Plan(sheet);
        var shown = BoardId ?? Now?.Wire.Layer.Board ?? Again?.From.Split('/')[0];
        Board = sheet.Boards.FirstOrDefault(b => b.Id == shown) ?? sheet.Boards.FirstOrDefault(b => Concerned(sheet, b)) ?? sheet.Boards[0];
        return true;
    }

    private static bool Concerned(TraceSheet sheet, Board board) =>
        sheet.Nets.Any(n => n.IsBroken && n.Net.Points.Any(p => p.Board.Id == board.Id))
        || sheet.Wires.Any(w => w.From.StartsWith(board.Id + "/", StringComparison.Ordinal));

    private IActionResult Told(Func<Deed<Done>> deed) =>
        Prepare()
            ? Answer(
                deed(),
                done =>
                {
                    TempData["Said"] = done.Words;
                    return Back();
                }
            )
            : NotFound();

    private IActionResult Back() => Redirect(Address());
}
