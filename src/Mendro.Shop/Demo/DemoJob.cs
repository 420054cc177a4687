using Mendro.Core.Profiles;

namespace Mendro.Shop.Demo;

/// <summary>One job of the demo world, as its file tells it.</summary>
/// <param name="Model">Profile id.</param>
/// <param name="Days">How many days ago it came in.</param>
/// <param name="Owner">Owner's name; null for shop stock.</param>
/// <param name="Contact">Owner's contact.</param>
/// <param name="Unit">Name of the unit on a generic profile.</param>
/// <param name="Revision">Board revision.</param>
/// <param name="Serial">Serial number.</param>
/// <param name="Lot">Lot.</param>
/// <param name="Paid">Price paid.</param>
/// <param name="Values">Value working, as it stands, in parts.</param>
/// <param name="Claim">Claim.</param>
/// <param name="Accessories">Accessories.</param>
/// <param name="PromisedIn">Days from now for which it is promised, or null.</param>
/// <param name="Script">What happened, one line a step; see <see cref="DemoWorld"/>.</param>
public sealed record DemoJob(
    string Model,
    double Days,
    string? Owner,
    string? Contact,
    string? Unit,
    string? Revision,
    string? Serial,
    string? Lot,
    decimal? Paid,
    decimal[]? Values,
    string? Claim,
    string? Accessories,
    int? PromisedIn,
    string[] Script
);
