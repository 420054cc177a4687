using System.Collections.Frozen;
using Mendro.Core.Access;

namespace Mendro.Web.Access;

/// <summary>What a page asks of who looks, and of who changes something there.</summary>
/// <param name="Look">For a look.</param>
/// <param name="Change">For a change, unless the handler is named in <paramref name="Else"/>.</param>
/// <param name="Else">Handlers of posts, or of looks, that ask for something else.</param>
public sealed record PageRight(Right Look, Right Change, params (string Handler, Right Right)[] Else)
{
    /// <summary>The right that a request asks for.</summary>
    public Right For(bool changes, string handler) =>
        Else.Where(e => e.Handler.Equals((changes ? "Post" : "Get") + handler, StringComparison.OrdinalIgnoreCase))
            .Select(e => (Right?)e.Right)
            .FirstOrDefault() ?? (changes ? Change : Look);
}

/// <summary>Who may see and do what, page by page. A page that is not listed is the owner's alone.</summary>
public static class PageRights
{
    private static readonly PageRight Way = new(Right.Anyone, Right.Anyone);
    private static readonly PageRight Work = new(Right.Look, Right.Work);
    private static readonly PageRight Costs = new(Right.LookAtCosts, Right.Work);
    private static readonly PageRight Counter = new(Right.LookAtCounter, Right.Counter);
    private static readonly PageRight OfCounter = new(Right.Counter, Right.Counter);
    private static readonly PageRight Rule = new(Right.Rule, Right.Rule);

    /// <summary>All pages by their path in the application.</summary>
    public static FrozenDictionary<string, PageRight> All { get; } =
        new Dictionary<string, PageRight>
        {
            ["/Error"] = Way,
            ["/Access/SignIn"] = Way,
            ["/Access/First"] = Way,
            ["/Access/Code"] = Way,
            ["/Access/Join"] = Way,
            ["/Access/Me"] = new(Right.Own, Right.Own),
            ["/Access/Accounts"] = Rule,
            ["/Access/Programs"] = Rule,
            ["/Settings"] = new(Right.Rule, Right.Rule, ("PostTheme", Right.Own)),
            // The counter.
            ["/Index"] = new(Right.LookAtCounter, Right.Work, ("PostQuick", Right.Counter)),
            ["/Intake"] = OfCounter,
            ["/DoorWords"] = new(Right.LookAtCounter, Right.Counter),
            ["/Calls"] = OfCounter,
            ["/Owners/Index"] = new(Right.Counter, Right.Rule),
            ["/Owners/Show"] = new(
                Right.Counter,
                Right.Rule,
                ("PostSave", Right.Counter),
                ("PostMerge", Right.Counter),
                ("PostPart", Right.Counter),
                ("GetExport", Right.Rule),
                ("GetElsewhere", Right.Rule)
            ),
            ["/Labels"] = new(Right.LookAtCounter, Right.Counter),
            ["/Calendar"] = new(Right.LookAtCounter, Right.Work),
            ["/CalendarFeed"] = new(Right.LookAtCounter, Right.Rule),
            ["/Jobs/Index"] = Counter,
            ["/Jobs/Intake"] = Counter,
            ["/Jobs/HandOver"] = Counter,
            ["/Jobs/Bill"] = OfCounter,
            ["/Jobs/Owner"] = OfCounter,
            ["/Jobs/Timeline"] = new(Right.LookAtCounter, Right.Work),
            ["/Jobs/Sheet"] = Counter,
            ["/Jobs/Pictures"] = Counter,
            ["/Jobs/Phone"] = OfCounter,
            // The work.
            ["/Jobs/Apart"] = Work,
            ["/Jobs/Bar"] = new(Right.Look, Right.Work, ("PostHere", Right.LookAtCounter)),
            ["/Jobs/BoardDraw"] = Work,
            ["/Jobs/CapacitorList"] = Costs,
            ["/Jobs/Capacitors"] = Work,
            ["/Jobs/Compare"] = Work,
            ["/Jobs/Contacts"] = Work,
            ["/Jobs/Find"] = Work,
            ["/Jobs/Fix"] = Work,
            ["/Jobs/Jumpers"] = Work,
            ["/Jobs/Ladder"] = Work,
            ["/Jobs/Materials"] = Work,
            ["/Jobs/OldWays"] = Work,
            ["/Jobs/Open"] = Work,
            ["/Jobs/Placement"] = Work,
            ["/Jobs/Prove"] = Work,
            ["/Jobs/Run"] = Work,
            ["/Jobs/Sale"] = Costs,
            ["/Jobs/Stages"] = Work,
            ["/Jobs/Starts"] = Work,
            ["/Jobs/Supply"] = Work,
            ["/Jobs/Swaps"] = Work,
            ["/Jobs/Teach"] = Work,
            ["/Jobs/Model"] = Work,
            ["/Jobs/Traces"] = Work,
            ["/Jobs/Trays"] = Work,
            ["/Jobs/Why"] = Work,
            ["/Jobs/Wiring"] = Work,
            ["/Day/Index"] = Work,
            ["/Day/Hours"] = Work,
            ["/Day/Back"] = Costs,
            ["/Timers"] = Work,
            ["/Tools"] = Work,
            ["/Gear"] = Work,
            ["/Pins"] = Work,
            ["/Numbers"] = Work,
            ["/Drivers"] = Work,
            ["/Patterns"] = Work,
            ["/Calculators/Index"] = Work,
            ["/Capacitors/Index"] = Work,
            ["/Materials/Index"] = Work,
            ["/Methods/Index"] = Work,
            ["/Methods/Show"] = Work,
            ["/Methods/Held"] = Work,
            ["/Models/Index"] = Work,
            ["/Models/Show"] = Work,
            ["/Models/Edit"] = Work,
            ["/Models/Card"] = Work,
            ["/Models/Check"] = Work,
            ["/Models/Good"] = Work,
            ["/Models/Import"] = Work,
            ["/Practice/Index"] = Work,
            ["/Practice/Score"] = Work,
            // What it costs and brings.
            ["/Lots/Index"] = Costs,
            ["/Lots/Items"] = Costs,
            ["/Lots/Bundle"] = Costs,
            ["/Lots/HandOver"] = Costs,
            ["/Lots/Rounds"] = Costs,
            ["/Lots/Sheet"] = Costs,
            ["/Lots/Round"] = Costs,
            ["/Lots/Show"] = Costs,
            ["/Offers/Index"] = Costs,
            ["/Orders/Index"] = Costs,
            ["/Stock/Index"] = Costs,
            ["/Stock/Show"] = Costs,
            ["/Donors"] = Costs,
            ["/Money/Index"] = new(Right.LookAtCosts, Right.Rule),
            ["/Money/Purchases"] = new(Right.LookAtCosts, Right.Work),
        }.ToFrozenDictionary(StringComparer.OrdinalIgnoreCase);

    /// <summary>The right of a page; one that is not listed is the owner's alone.</summary>
    public static PageRight Of(string page) => All.GetValueOrDefault(page) ?? Rule;

    // What a phone that joined one job may add to it.
    private static readonly FrozenSet<(string Page, string Handler)> PhoneAdds = new[]
    {
        ("/Jobs/Pictures", "Take"),
        ("/Jobs/Find", "Reading"),
        ("/Jobs/Find", "Function"),
        ("/Jobs/Compare", "Reading"),
        ("/Jobs/Bar", "Reading"),
        ("/Jobs/Bar", "Function"),
        ("/Jobs/Bar", "Here"),
        ("/Access/Me", "Out"),
        ("/Settings", "Theme"),
    }.ToFrozenSet();

    /// <summary>True when a phone that joined a job may ask for this.</summary>
    /// <param name="page">Page.</param>
    /// <param name="changes">True for a post.</param>
    /// <param name="handler">Handler.</param>
    /// <param name="isItsJob">True when the address names its job.</param>
    /// <param name="giver">What its giver is in the shop now: a phone may no more.</param>
    public static bool PhoneMay(string page, bool changes, string handler, bool isItsJob, ShopRole giver)
    {
        var right = Of(page);
        if (right.Look == Right.Anyone && right.Change == Right.Anyone)
            return true;
        if (!RoleRights.Has(giver, right.For(changes, handler)))
            return false;
        if (changes)
            return PhoneAdds.Any(a => a.Page == page && a.Handler.Equals(handler, StringComparison.OrdinalIgnoreCase))
                && (isItsJob || !page.StartsWith("/Jobs/", StringComparison.Ordinal));
        return page == "/Access/Me"
            || (isItsJob && page.StartsWith("/Jobs/", StringComparison.Ordinal) && right.For(false, handler) is Right.Look or Right.LookAtCounter);
    }
}
