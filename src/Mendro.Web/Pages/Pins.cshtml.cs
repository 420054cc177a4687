using Mendro.Core.Boards;
using Mendro.Core.Profiles;
using Mendro.Shop;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages;

/// <summary>Finds a leg of a package, or a contact of a connector, seen from above and from below.</summary>
public sealed class PinsModel(ModelShelf models) : PageModel
{
    /// <summary>Package, such as dip-28.</summary>
    [BindProperty(SupportsGet = true, Name = "package")]
    public string Package { get; set; } = "dip-28";

    /// <summary>Leg or contact.</summary>
    [BindProperty(SupportsGet = true, Name = "pin")]
    public int Pin { get; set; } = 1;

    /// <summary>Model whose part or connector is meant.</summary>
    [BindProperty(SupportsGet = true, Name = "model")]
    public string? Model { get; set; }

    /// <summary>Part or connector of that model.</summary>
    [BindProperty(SupportsGet = true, Name = "at")]
    public string? At { get; set; }

    /// <summary>The package, when it is one.</summary>
    public PinLayout? Layout { get; private set; }

    /// <summary>The connector, when one is meant.</summary>
    public Connector? Connector { get; private set; }

    /// <summary>The part, when one is meant.</summary>
    public Part? Part { get; private set; }

    /// <summary>What is wrong with what was asked.</summary>
    public string? Problem { get; private set; }

    /// <summary>Parts near it on its board, with how far and where, nearest first.</summary>
    public IReadOnlyList<string> Landmarks { get; private set; } = [];

    /// <summary>The contact of the connector that is meant.</summary>
    public Contact? Contact => Connector?.Contacts.FirstOrDefault(c => c.Number == Pin);

    /// <summary>Shows it.</summary>
    public IActionResult OnGet()
    {
        var profile = Model is { Length: > 0 } ? models.Latest(Model)?.Model.Profile : null;
        if (Model is { Length: > 0 } && profile is null)
            return NotFound();
        Connector = profile?.Connectors?.FirstOrDefault(c => c.Id == At);
        Part = Connector is null ? profile?.FindPart(At ?? "") : null;
        if (Part is { Package: { } own })
            Package = own;
        if (Part is not null)
            Landmarks = Near(profile!, Part);
        if (Connector is not null)
        {
            if (Contact is null)
                (Problem, Pin) = ($"{Connector.Name} has no contact {Pin}.", Connector.Contacts[0].Number);
            return Page();
        }

        var read = PinLayout.Read(Package);
        Problem = read.Problem;
        Layout = read.Value ?? PinLayout.Read("dip-28").Value;
        if (Pin < 1 || Pin > Layout!.Pins)
            (Problem, Pin) = ($"It has legs 1 to {Layout!.Pins}.", 1);
        return Page();
    }

    private static List<string> Near(DeviceProfile profile, Part part) =>
        part is not { X: { } x, Y: { } y }
            ? []
            : profile
                .Parts.Where(p => p.Id != part.Id && p.Board == part.Board && p is { X: not null, Y: not null })
                .Select(p => (Part: p, Dx: p.X!.Value - x, Dy: p.Y!.Value - y))
                .OrderBy(p => Math.Sqrt(p.Dx * p.Dx + p.Dy * p.Dy))
                .Take(3)
                .Select(p =>
                {
                    var where = Math.Abs(p.Dx) >= Math.Abs(p.Dy) ? p.Dx > 0 ? "right" : "left" : p.Dy > 0 ? "below" : "above";
                    return FormattableString.Invariant(
                        $"{p.Part.Refdes ?? p.Part.Name}: {Math.Sqrt(p.Dx * p.Dx + p.Dy * p.Dy):0} mm {where}"
                    );
                })
                .ToList();
}
