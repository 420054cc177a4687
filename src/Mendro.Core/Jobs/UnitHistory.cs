using Mendro.Core.Library;

namespace Mendro.Core.Jobs;

/// <summary>A modification of a unit.</summary>
/// <param name="Words">What was done.</param>
/// <param name="Originals">Where the original parts are kept; empty when it was not said.</param>
/// <param name="At">When, UTC.</param>
public sealed record Modification(string Words, string Originals, DateTimeOffset At);

/// <summary>What stays with a unit for life.</summary>
public static class UnitHistory
{
    /// <summary>Keys of the records that <see cref="Modifications"/> reads.</summary>
    public static IReadOnlyList<string> Kinds { get; } =
        [RecordKinds.KeyOf(typeof(RepairLogged)), RecordKinds.KeyOf(typeof(OtherWork))];

    /// <summary>Modifications among the records of a unit, over all its jobs: told on every sheet and at sale.</summary>
    public static IReadOnlyList<Modification> Modifications(IEnumerable<BenchRecord> records, TradeLibrary library) =>
        records
            .Select(r =>
                r.Body switch
                {
                    RepairLogged repair when Is(library, repair.Method) => new Modification(r.Words, repair.Originals ?? "", r.At),
                    OtherWork work when Is(library, work.Method) => new Modification(r.Words, work.Originals ?? "", r.At),
                    _ => null,
                }
            )
            .OfType<Modification>()
            .ToList();

    private static bool Is(TradeLibrary library, string method) =>
        library.FindMethod(method)?.Type == MethodType.Modification;
}
