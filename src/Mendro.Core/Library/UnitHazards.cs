using Mendro.Core.Profiles;

namespace Mendro.Core.Library;

/// <summary>
/// What can hurt someone in one unit. A hazard belongs to the unit: its model tells some, its parts bring others, and so do the marks
/// noted on it. Whatever is done where a hazard reaches shows its caution, whether the method knows of it or not.
/// </summary>
public sealed class UnitHazards
{
    private readonly TradeLibrary _library;
    private readonly IReadOnlyList<Caution> _everywhere;

    private UnitHazards(TradeLibrary library, IReadOnlyList<Caution> everywhere, IReadOnlyList<Caution> noted) =>
        (_library, _everywhere, Noted) = (library, everywhere, noted);

    /// <summary>What was noted on this very unit and stops until it is dealt with: a swollen cell, liquid, the wrong wall.</summary>
    public IReadOnlyList<Caution> Noted { get; }

    /// <summary>The hazards of a unit.</summary>
    /// <param name="profile">Its model.</param>
    /// <param name="library">The library.</param>
    /// <param name="marks">Marks noted on it, by id.</param>
    /// <param name="wallVolts">Volts at the shop's wall, which the plate of the unit is held against.</param>
    public static UnitHazards Of(
        DeviceProfile profile,
        TradeLibrary library,
        IEnumerable<string>? marks = null,
        double wallVolts = MainsFit.UsualWall
    )
    {
        var noted = (marks ?? []).Select(library.FindMark).OfType<ConditionMark>().ToList();
        var ofModel = profile.Hazards ?? [];
        var ofNoted = noted.Select(m => m.Caution).OfType<string>().ToList();
        var ofParts = profile.Parts.SelectMany(p => OfPart(p, library)).ToList();
        var everywhere = Found([.. ofModel, .. ofNoted, .. ofParts], library).Where(c => c.Reach is not HazardReach.Part).ToList();
        var stops = everywhere.Where(c => c.Stop && ofNoted.Except([.. ofModel, .. ofParts]).Contains(c.Id)).ToList();
        var plate = noted.Select(m => m.Mains is { } range ? MainsFit.Against(range, wallVolts, profile.Supply) : null).OfType<string>();
        // Here the plate comes before everything: nothing is tried with the plug in the wrong wall.
        if (plate.FirstOrDefault() is { } against && library.FindCaution(WrongWall) is { } wall)
        {
            var here = wall with { Text = $"{against} {wall.Text}", Reach = HazardReach.Always };
            (everywhere, stops) = ([here, .. everywhere], [here, .. stops]);
        }

        return new UnitHazards(library, everywhere, stops);
    }

    /// <summary>True for a unit that mains goes into, or a brick of it: its plate is read before it is plugged in.</summary>
    /// <param name="profile">Its model.</param>
    /// <param name="library">The library.</param>
    public static bool TakesMains(DeviceProfile profile, TradeLibrary library) =>
        profile.Hazards?.Contains("mains") == true || profile.Parts.Any(p => OfPart(p, library).Contains("mains-brick"));

    private const string WrongWall = "mains-voltage";

    /// <summary>What is met at everything that is done with the case open, and at opening it; what stops first.</summary>
    public IReadOnlyList<Caution> Inside => Sorted(_everywhere);

    /// <summary>What has to be done before any work inside, in words; empty for most units.</summary>
    public IReadOnlyList<string> First => _everywhere.Select(c => c.First).OfType<string>().ToList();

    /// <summary>What is met at work in a state of the unit on some of its parts.</summary>
    /// <param name="state">How far the unit is apart for it.</param>
    /// <param name="parts">Parts that are touched.</param>
    public IReadOnlyList<Caution> At(AccessState state, params IEnumerable<Part> parts) =>
        Sorted(
            _everywhere
                .Where(c => state > AccessState.Closed || c.Reach == HazardReach.Always)
                .Concat(Found(parts.SelectMany(p => OfPart(p, _library)), _library))
                .DistinctBy(c => c.Id)
        );

    /// <summary>What is met while a method is carried out: its own cautions, and those of the unit where it works.</summary>
    /// <param name="method">The method.</param>
    /// <param name="part">The part it is done on, or null.</param>
    public IReadOnlyList<Caution> At(Method method, Part? part) =>
        Sorted(At(method.State, part is null ? [] : [part]).Concat(Found(method.Cautions, _library)).DistinctBy(c => c.Id));

    /// <summary>What is met at a reading, look or push.</summary>
    /// <param name="probe">The probe.</param>
    /// <param name="profile">The model it is of.</param>
    public IReadOnlyList<Caution> At(Probe probe, DeviceProfile profile) =>
        Sorted(
            At(probe.State, probe.NamedParts().Select(profile.FindPart).OfType<Part>())
                .Concat(
                    probe.State > AccessState.Closed && TradeLibrary.Of(probe.Kind).NeedsPower
                        ? Found(_everywhere.SelectMany(c => c.Live ?? []), _library)
                        : []
                )
                .DistinctBy(c => c.Id)
        );

    private static IEnumerable<string> OfPart(Part part, TradeLibrary library) =>
        (part.Hazards ?? []).Concat(library.FindPartKind(part.Kind)?.Hazards ?? []);

    /// <summary>Cautions by id with all they bring; an id nobody knows is left out.</summary>
    private static IEnumerable<Caution> Found(IEnumerable<string> ids, TradeLibrary library) =>
        ids.Select(library.FindCaution)
            .OfType<Caution>()
            .SelectMany(c => (c.Brings ?? []).Select(library.FindCaution).OfType<Caution>().Prepend(c))
            .DistinctBy(c => c.Id);

    private static List<Caution> Sorted(IEnumerable<Caution> cautions) => cautions.OrderBy(c => !c.Stop).ToList();
}
