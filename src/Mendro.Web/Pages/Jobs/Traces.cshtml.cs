using System.Globalization;
using Htmx;
using Mendro.Core.Boards;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;
using Mendro.Shop;
using Mendro.Storage;
using Mendro.Web.Drawing;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>The board map: which lines are broken, which test comes next, and how each point was found.</summary>
public sealed class TracesModel(JobStore jobs, BenchDesk desk, TraceDesk traces, TradeLibrary library)
    : TracePageModel(jobs, desk, traces, library)
{
    private const int LongestLine = 400;

    /// <summary>Id of the net that is lit.</summary>
    [BindProperty(SupportsGet = true, Name = "net")]
    public string? NetId { get; set; }

    /// <summary>Key of the chosen point.</summary>
    [BindProperty(SupportsGet = true, Name = "at")]
    public string? At { get; set; }

    /// <summary>Run that is tested line by line.</summary>
    [BindProperty(SupportsGet = true, Name = "run")]
    public string? RunId { get; set; }

    /// <summary>Part whose lines are wanted.</summary>
    [BindProperty(SupportsGet = true, Name = "part")]
    public string? Part { get; set; }

    /// <summary>Place of the line in the run.</summary>
    [BindProperty(SupportsGet = true, Name = "line")]
    public int? LineAt { get; set; }

    /// <summary>The other point of a test of one's own, to <see cref="At"/>.</summary>
    [BindProperty(SupportsGet = true, Name = "to")]
    public string? To { get; set; }

    /// <summary>True to test the rest of a broken line too.</summary>
    [BindProperty(SupportsGet = true, Name = "rest")]
    public bool Rest { get; set; }

    /// <summary>Net that is lit, or null.</summary>
    public TraceNet? Net { get; private set; }

    /// <summary>Board that is shown.</summary>
    public Board Board { get; private set; } = null!;

    /// <summary>Run that is tested, or null.</summary>
    public LineRun? Run { get; private set; }

    /// <summary>The line of the run that is on, or null.</summary>
    public RunLine? Line => Run is { } run && LineAt is { } at && at >= 0 && at < run.Lines.Count ? run.Lines[at] : null;

    /// <summary>The test to make now, or null.</summary>
    public BeepTest? Test { get; private set; }

    /// <summary>The chosen point, or null.</summary>
    public PlacedPoint? Point { get; private set; }

    /// <summary>What was typed and not taken.</summary>
    public string? Typed { get; private set; }

    /// <summary>Why it was not taken.</summary>
    public string? Wrong { get; private set; }

    /// <summary>Crack as it is typed.</summary>
    public string CrackText =>
        string.Join(
            ", ",
            (Sheet?.Cracks.FirstOrDefault(c => c.Board == Board.Id)?.Line ?? []).Select(p =>
                string.Create(CultureInfo.InvariantCulture, $"{p[0]:0.##} {p[1]:0.##}")
            )
        );

    /// <summary>Address of the page as it stands.</summary>
    public string Address(string? net = null, string? at = null, string? side = null, string? board = null, string? run = null, int? line = null)
    {
        var query = new (string Name, string? Value)[]
        {
            ("net", net),
            ("at", at),
            ("run", run),
            ("line", line?.ToString(CultureInfo.InvariantCulture)),
            ("board", board),
            ("side", (side ?? Side) == "bottom" ? "bottom" : null),
        };
        var told = query.Where(q => q.Value is not null).Select(q => $"{q.Name}={Uri.EscapeDataString(q.Value!)}");
        return $"/Jobs/{Number}/Traces?{string.Join('&', told)}";
    }

    /// <summary>Address of a form of this page: what is chosen stays chosen.</summary>
    public string Form(string handler) => Address(Net?.Net.Id, At, Side, Board.Id, Run?.Id, LineAt) + $"&handler={handler}";

    /// <summary>The board map.</summary>
    public string Map() =>
        BoardMapDrawing.Draw(
            Sheet!,
            Board,
            Side,
            new BoardMapView(Net, At, [], null, (net, at) => Address(net, at, board: Board.Id, run: at is null ? null : Run?.Id))
        );

    /// <summary>Shows it.</summary>
    public IActionResult OnGet() => Prepare() ? Request.IsHtmx() && Sheet is not null ? Shown() : Page() : NotFound();

    /// <summary>The board map alone, as a file.</summary>
    public IActionResult OnGetSvg()
    {
        if (!Prepare() || Sheet is null)
            return NotFound();
        var svg = BoardMapDrawing.Draw(Sheet, Board, Side, new BoardMapView(Net, null, [], null, null), trueScale: true);
        return File(System.Text.Encoding.UTF8.GetBytes(svg), "image/svg+xml", $"{Number}-{Board.Id}-{Side}.svg");
    }

    /// <summary>The points and nets of the board as CSV.</summary>
    public IActionResult OnGetCsv() =>
        Prepare() && Sheet is not null
            ? File(System.Text.Encoding.UTF8.GetBytes(NetCsv.Write(Board)), "text/csv", $"{View.Profile.Id}-{Board.Id}.csv")
            : NotFound();

    /// <summary>The points and nets of the board as IPC-D-356A.</summary>
    public IActionResult OnGetIpc() =>
        Prepare() && Sheet is not null
            ? File(System.Text.Encoding.ASCII.GetBytes(Ipc356.Write(Board)), "text/plain", $"{View.Profile.Id}-{Board.Id}.ipc")
            : NotFound();

    /// <summary>Notes what a test said and goes on to the next.</summary>
    public IActionResult OnPostBeep(string? a, string? b, string? say, string? text)
    {
        if (!Prepare() || Sheet is null)
            return NotFound();
        bool? beeps = say switch
        {
            "beep" or "short" => true,
            "silent" => false,
            _ => null,
        };
        if (beeps is null)
        {
            var read = ContactSweep.Read(0, text, "A line");
            if (!read.IsOk)
                return RefuseTyped(text, read.Problem);
            beeps = read.Value.State == ContactState.Beep;
        }

        if (say == "short")
        {
            if (Neighbour is not { } other || Line is not { } own)
                return RefuseTyped(null, "The last line of a run has no next neighbour.");
            (a, b) = (own.A, other.A);
        }

        return Changed(Traces.Beep(Number, a ?? "", b ?? "", beeps.Value, Once), onward: say != "short");
    }

    /// <summary>The line beside the one that is on, or null.</summary>
    public RunLine? Neighbour => Run is { } run && LineAt is { } at && at + 1 < run.Lines.Count ? run.Lines[at + 1] : null;

    /// <summary>A line told by its ends, as it was typed.</summary>
    public (TracePageModel Page, string? From, string? To, string? Mm, string? Problem) Ends { get; private set; }

    /// <summary>A line told by its two ends.</summary>
    public IActionResult OnPostEnds(string? from, string? to, string? mm, string? say)
    {
        if (!Prepare())
            return NotFound();
        var deed = Traces.ByEnds(Number, Words.Clean(from), Words.Clean(to), Words.Number(mm) ?? 0, say == "beep", Once);
        if (deed.Done is { } done)
            return Redirect($"/Jobs/{Number}/Traces?board={TypedLine.BoardId}&net={Uri.EscapeDataString(done.Words)}");
        Ends = (this, from, to, mm, deed.Refusal!.Problem);
        return RefuseAsShown();
    }

    /// <summary>Notes how a point was found.</summary>
    public IActionResult OnPostMark(string? state) =>
        Prepare() && Point is { } point ? Changed(Traces.Mark(Number, point.Board.Id, point.Point.Id, state ?? "", Once)) : NotFound();

    /// <summary>Notes a crack of the board.</summary>
    public IActionResult OnPostCrack(string? crack)
    {
        if (!Prepare() || Sheet is null)
            return NotFound();
        var text = (crack ?? "").Trim();
        var line = text.Length == 0 ? [] : NetText.ReadLine(text[..Math.Min(text.Length, LongestLine)]);
        return line is null
            ? RefuseTyped(null, "A crack is places in mm between commas, along it: 0 12, 30 18.")
            : Changed(Traces.Crack(Number, Board.Id, line, Once));
    }

    /// <summary>What hides points comes off.</summary>
    public IActionResult OnPostOff(string? what) => Prepare() ? Changed(Traces.TakeOff(Number, what ?? "", Once)) : NotFound();

    /// <summary>Takes back what was noted last.</summary>
    public IActionResult OnPostUndo()
    {
        // Where there is no board to look at, nothing was filed here that could be taken back.
        if (!Prepare() || Sheet is null)
            return NotFound();
        var undone = Traces.Undo(Number, Once);
        return undone.Match(
            _ => Again(),
            refusal => refusal.Kind == RefusalKind.Missing ? Again() : RefuseTyped(null, refusal.Problem)
        );
    }

    /// <inheritdoc/>
    protected override bool Prepare()
    {
        if (!base.Prepare())
            return false;
        Ends = (this, null, null, null, null);
        Choose();
        return true;
    }

    /// <summary>What of the sheet is shown, by what was asked for.</summary>
    private void Choose()
    {
        if (Sheet is not { } sheet)
            return;
        Run = sheet.Runs.FirstOrDefault(r => r.Id == RunId);
        if (Run is { } run && Line is null)
            LineAt = Following(run, -1);
        Point = sheet.NetOf(At)?.Net.ByKey[At!];
        var wanted = Part is { Length: > 0 } part ? sheet.Nets.FirstOrDefault(n => n.Net.Serves is { } serves && serves.Value == part) : null;
        Net =
            (Line is { } line ? sheet.NetOf(line.A) : null)
            ?? sheet.Find(NetId)
            ?? sheet.NetOf(At)
            ?? wanted
            ?? sheet.Nets.FirstOrDefault(n => n.State == NetState.Open)
            ?? sheet.Nets.FirstOrDefault(n => n is { State: NetState.Bridged, Next: not null })
            ?? sheet.Nets.FirstOrDefault(n => n.Next is not null && n.State != NetState.Broken && (n.IsMarked || n.Share > 0.01))
            ?? sheet.Nets.FirstOrDefault(n => n.State == NetState.Broken)
            ?? sheet.Nets.FirstOrDefault(n => n.Next is not null)
            ?? sheet.Nets.FirstOrDefault();
        Test =
            Line is { } now ? new BeepTest(now.A, now.B)
            : At is not null && To is not null && sheet.NetOf(At) is { } own && own == sheet.NetOf(To) ? new BeepTest(At, To)
            // What is enclosed is for the wires; whether more is broken is asked when it is wanted.
            : Net is { State: NetState.Broken } && !Rest ? null
            : Net?.Next;
        var shown = Point?.Board.Id ?? BoardId ?? (Test is { } test ? test.A.Split('/')[0] : Net?.Net.Points.FirstOrDefault()?.Board.Id);
        Board = sheet.Boards.FirstOrDefault(b => b.Id == shown) ?? sheet.Boards[0];
    }

    /// <summary>The next line of a run that was not tested, from a place on and then from the beginning.</summary>
    private int Following(LineRun run, int at)
    {
        for (var n = 1; n <= run.Lines.Count; n++)
            if ((at + n) % run.Lines.Count is var next && !Sheet!.Told.ContainsKey(TraceSheet.Pair(run.Lines[next].A, run.Lines[next].B)))
                return next;
        return Math.Clamp(at, 0, run.Lines.Count - 1);
    }

    private IActionResult Changed(Deed<Done> deed, bool onward = false) =>
        deed.Match(
            _ => Again(onward),
            refusal => refusal.Kind == RefusalKind.Missing ? NotFound() : RefuseTyped(null, refusal.Problem)
        );

    /// <summary>Shows it again after a write: the line of the run that is next, else the next test of the same net.</summary>
    private IActionResult Again(bool onward = false)
    {
        To = null;
        if (onward)
            At = null;
        if (!base.Prepare())
            return NotFound();
        if (onward && Run is not null)
            LineAt = Following(Run, LineAt ?? -1);
        NetId = Net?.Net.Id;
        if (!Request.IsHtmx())
            return Redirect(Address(NetId, At, Side, Board.Id, Run?.Id, LineAt));
        Choose();
        return Shown();
    }

    private IActionResult Shown() => Sheet is null ? Page() : Partial("_TraceBoard", this);

    private IActionResult RefuseTyped(string? typed, string problem)
    {
        (Typed, Wrong) = (typed, problem);
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        return Request.IsHtmx() ? Shown() : Page();
    }
}
