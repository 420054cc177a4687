using Mendro.Core.Access;
using Mendro.Storage;

namespace Mendro.Web.Access;

/// <summary>Who asks, as the pages know them.</summary>
/// <param name="Session">Session, or null.</param>
/// <param name="IsHouse">True in a shop without accounts: whoever sits at this machine may everything.</param>
public sealed record Viewer(SignedIn? Session, bool IsHouse)
{
    private const string Key = "mendro.viewer";

    /// <summary>Nobody.</summary>
    public static Viewer Nobody { get; } = new(null, false);

    /// <summary>Whoever sits at the machine of a shop without accounts.</summary>
    public static Viewer House { get; } = new(null, true);

    /// <summary>Name by which what is done is kept; blank for the house.</summary>
    public string Name => Session is null ? "" : IsPhone ? $"{Session.Name}, by phone" : Session.Name;

    /// <summary>True for a phone that may look at one job.</summary>
    public bool IsPhone => Session?.JobNumber is not null;

    /// <summary>True when the shop knows who it is.</summary>
    public bool IsKnown => IsHouse || Session is not null;

    /// <summary>True when what things cost and bring may be shown.</summary>
    public bool SeesCosts => Has(Right.LookAtCosts);

    /// <summary>True when there is this right. A phone looks, at what its giver may look at now; what it may add is said page by page.</summary>
    public bool Has(Right right) =>
        right == Right.Anyone
        || IsHouse
        || (Session is { } session && (!IsPhone || right is Right.Own or Right.Look or Right.LookAtCounter) && RoleRights.Has(session.Role, right));

    /// <summary>The page of a job that one goes to: where the work is, or, for the counter, where it is handed over.</summary>
    public string JobPage(string stage) => Has(Right.Look) ? stage : "HandOver";

    /// <summary>Who asks with a request.</summary>
    public static Viewer Of(HttpContext? context) => context?.Items[Key] as Viewer ?? Nobody;

    /// <summary>Keeps who asks.</summary>
    public void Keep(HttpContext context) => context.Items[Key] = this;
}
