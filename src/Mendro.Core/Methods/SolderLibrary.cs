using System.Text.Json;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Methods;

/// <summary>An alloy.</summary>
/// <param name="Id">Id.</param>
/// <param name="Name">Name as the reel says it.</param>
/// <param name="SolidusC">Solid below, °C.</param>
/// <param name="LiquidusC">Liquid above, °C.</param>
/// <param name="Leaded">True when it has lead.</param>
/// <param name="Source">Where the melting points come from.</param>
/// <param name="Bismuth">True when it has bismuth, which with lead makes an alloy that melts near 96 °C.</param>
public sealed record SolderAlloy(
    string Id,
    string Name,
    double SolidusC,
    double LiquidusC,
    bool Leaded,
    string Source,
    bool Bismuth = false
);

/// <summary>A sort of joint.</summary>
/// <param name="Id">Id.</param>
/// <param name="Name">Name.</param>
/// <param name="LeastSeconds">Shortest touch that takes, s.</param>
/// <param name="MostSeconds">Longest touch, s.</param>
/// <param name="Tip">Tip.</param>
/// <param name="Flux">Flux.</param>
/// <param name="Add">Whether to add solder.</param>
/// <param name="Source">Where this comes from.</param>
/// <param name="AboveC">Iron above the liquidus, K.</param>
/// <param name="FixedC">Iron whatever the alloy, °C, or null.</param>
public sealed record SolderJoint(
    string Id,
    string Name,
    double LeastSeconds,
    double MostSeconds,
    string Tip,
    string Flux,
    string Add,
    string Source,
    double AboveC = 0,
    double? FixedC = null
);

/// <summary>State of the board at the joint.</summary>
/// <param name="Id">Id.</param>
/// <param name="Name">Name.</param>
/// <param name="LessC">Iron colder by, K.</param>
/// <param name="Factor">Factor on the touch, 0 to 1.</param>
/// <param name="Word">What to mind; empty for nothing.</param>
public sealed record SolderBoard(string Id, string Name, double LessC, double Factor, string Word);

/// <summary>How to solder a joint.</summary>
/// <param name="IronC">Iron, °C.</param>
/// <param name="LeastSeconds">Shortest touch, s.</param>
/// <param name="MostSeconds">Longest touch, s.</param>
/// <param name="Tip">Tip.</param>
/// <param name="Flux">Flux.</param>
/// <param name="Add">Whether to add solder.</param>
/// <param name="Words">What to mind, in order.</param>
public sealed record SolderAdvice(
    double IronC,
    double LeastSeconds,
    double MostSeconds,
    string Tip,
    string Flux,
    string Add,
    IReadOnlyList<string> Words
);

/// <summary>Alloys, joints and boards: format <c>mendro.solder/1</c>.</summary>
/// <param name="Format">Always <c>mendro.solder/1</c>.</param>
/// <param name="Alloys">Alloys.</param>
/// <param name="Joints">Joints.</param>
/// <param name="Boards">States of a board.</param>
/// <param name="MostC">Hottest iron, °C: hotter burns the flux and lifts pads.</param>
public sealed record SolderLibrary(
    string Format,
    IReadOnlyList<SolderAlloy> Alloys,
    IReadOnlyList<SolderJoint> Joints,
    IReadOnlyList<SolderBoard> Boards,
    double MostC
)
{
    private static readonly Lazy<SolderLibrary> LazyShipped = new(() =>
        JsonSerializer.Deserialize<SolderLibrary>(TradeLibrary.ReadText("solder.json"), ProfileJson.Options)!
    );

    /// <summary>The library embedded in this assembly.</summary>
    public static SolderLibrary Shipped => LazyShipped.Value;

    /// <summary>Setting, tip, flux, touch and solder for a joint.</summary>
    /// <param name="alloy">Alloy that is used, or that is on the joint.</param>
    /// <param name="joint">Joint.</param>
    /// <param name="board">State of the board.</param>
    public SolderAdvice Advise(SolderAlloy alloy, SolderJoint joint, SolderBoard board)
    {
        var iron = joint.FixedC ?? Math.Round(Math.Min(alloy.LiquidusC + joint.AboveC - board.LessC, MostC) / 5) * 5;
        var words = new List<string>();
        if (board.Word.Length > 0)
            words.Add(board.Word);
        if (alloy.Bismuth)
            words.Add("never on a joint that has lead: together they melt near 96 °C");
        if (!alloy.Leaded && joint.FixedC is null && !alloy.Bismuth)
            words.Add("lead-free wets slowly: flux, and a touch longer rather than hotter");
        return new SolderAdvice(
            iron,
            Math.Round(joint.LeastSeconds * board.Factor, 1),
            Math.Round(joint.MostSeconds * board.Factor, 1),
            joint.Tip,
            joint.Flux,
            board.Id == "lifted" && joint.FixedC is null ? "none here: bridge with fine wire from the next point" : joint.Add,
            words
        );
    }
}
