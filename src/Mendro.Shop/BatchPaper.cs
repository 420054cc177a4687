using Mendro.Core.Money;
using Mendro.Core.Papers;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>One job sheet for a batch: each unit with what was found, done, proved and what is still wrong, and the sum of all.</summary>
public sealed class BatchPaper(PaperDesk papers, SettingsStore settings)
{
    private static readonly string[] Told = ["Found", "Done and replaced", "Modified", "Still wrong", "Handed over"];

    /// <summary>The paper of a batch.</summary>
    /// <param name="sheet">The batch.</param>
    /// <param name="day">How a moment's day is written.</param>
    /// <param name="costs">False where costs are not shown.</param>
    public Paper Of(BatchSheet sheet, Func<DateTimeOffset, string> day, bool costs)
    {
        var (lot, units) = (sheet.Board.Lot, sheet.Units);
        var numbers = units.Select(u => u.Row.View.Job.Tag).ToList();
        return new Paper(
            "Job sheet",
            numbers.Count == 0 ? "" : numbers.Count == 1 ? numbers[0] : $"{numbers[0]} – {numbers[^1]}",
            lot.Name,
            $"{settings.Get().ShopName} · {lot.BoughtOn}",
            new (string Name, string Value)[]
            {
                ("Owner", lot.OwnerName ?? ""),
                ("Contact", lot.OwnerContact),
                ("Brought", $"{units.Count} {(units.Count == 1 ? "unit" : "units")}, {lot.BoughtOn}"),
                ("Said", lot.Words),
            }
                .Where(f => f.Value.Length > 0)
                .ToList(),
            [.. units.Select(u => Unit(u, day, costs)), .. costs ? (PaperSection[])[Sum(sheet)] : []]
        );
    }

    private PaperSection Unit(BatchUnit unit, Func<DateTimeOffset, string> day, bool costs)
    {
        var (job, paper) = (unit.Row.View.Job, papers.Of(unit.Row.View, PaperKind.Job, day, costs));
        var lines = new List<PaperLine> { new($"Reported: {job.Claim}") };
        foreach (var section in paper.Sections.Where(s => Told.Contains(s.Heading) && s.Lines.Count > 0))
            lines.AddRange(
                section.IsTable
                    ? section.Lines.Select(l => l with { Words = $"{section.Heading}: {l.Words}" })
                    : [new PaperLine($"{section.Heading}: {string.Join(", ", section.Lines.Select(l => l.Words))}", "", section.Lines[0].Tone)]
            );
        var proved = paper.Sections.First(s => s.Heading == "Proved").Lines.Where(l => l.Tone == PaperTone.Good).Select(l => l.Words).ToList();
        if (proved.Count > 0)
            lines.Add(new PaperLine($"Works, tried here: {string.Join(", ", proved)}", "", PaperTone.Good));
        if (unit.IsHere)
            lines.Add(new PaperLine($"In the shop: {unit.Waits}", "", PaperTone.Open));
        return new PaperSection($"{job.Tag} {job.Title}{(job.Serial.Length > 0 ? $", {job.Serial}" : "")}", lines, IsTable: true);
    }

    private static PaperSection Sum(BatchSheet sheet)
    {
        var currency = new Currency(sheet.Board.Lot.Currency);
        var lines = new List<PaperLine>();
        if (sheet.Quoted is { } quoted)
            lines.Add(new PaperLine("Quoted for what is here", quoted.ToString()));
        if (sheet.Limit is { } limit)
            lines.Add(new PaperLine("Agreed, at most", limit.ToString()));
        lines.Add(new PaperLine("Paid", new Amount(sheet.Units.Sum(u => u.Calls.Paid.Value), currency).ToString()));
        lines.Add(new PaperLine("Due so far", BatchSheet.Due(sheet.Units, currency).ToString()));
        return new PaperSection("Together", lines, IsTable: true);
    }
}
