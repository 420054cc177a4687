using System.Text.Json;
using System.Text.Json.Serialization;
using Mendro.Core.Scheduling;

namespace Mendro.Shop;

/// <summary>Who is at the bench when, and what they share.</summary>
/// <param name="People">People, 1 to 20.</param>
/// <param name="Spans">Hours of the week.</param>
/// <param name="Places">Shared things by the id of <see cref="Known"/>; of one that is left out there is one.</param>
/// <param name="Certainty">How sure a promise is to be, 0.5 to 0.99.</param>
public sealed record DayTerms(int People, IReadOnlyList<OpenSpan> Spans, IReadOnlyDictionary<string, int> Places, double Certainty)
{
    /// <summary>Most people, and most of a shared thing.</summary>
    public const int Most = 20;

    /// <summary>Shared things of a bench, with their names.</summary>
    public static IReadOnlyList<(string Id, string Name)> Known { get; } =
    [
        ("fumes", "iron with fume extraction"),
        ("air", "hot air"),
        ("supply", "bench supply"),
        ("microscope", "microscope"),
        ("console", "test console"),
        ("bath", "bath or basin"),
    ];

    /// <summary>One person at the usual hours, one of everything, promises that hold in nine of ten.</summary>
    public static DayTerms Usual { get; } = new(1, OpenHours.Usual, new Dictionary<string, int>(), 0.9);

    /// <summary>Places as a plan takes them.</summary>
    [JsonIgnore]
    public IReadOnlyList<WorkPlace> WorkPlaces => Known.Select(k => new WorkPlace(k.Id, Math.Clamp(Places.GetValueOrDefault(k.Id, 1), 1, Most))).ToList();

    /// <summary>What is wrong with them, or null.</summary>
    public string? Problem() =>
        People is < 1 or > Most ? $"1 to {Most} people are at the bench."
        : Places.Any(p => p.Value is < 1 or > Most) ? $"Of each thing there are 1 to {Most}."
        : Certainty is not (>= 0.5 and <= 0.99) ? "A promise is to hold in 50 to 99 of a hundred."
        : Spans.Any(s => s.To <= s.From) ? "Hours end after they begin."
        : Spans.Any(s => Spans.Any(o => o != s && o.Day == s.Day && o.From < s.To && s.From < o.To)) ? "Hours of a day do not meet one another."
        : null;

    /// <summary>Writes them.</summary>
    public string Write() => JsonSerializer.Serialize(this);

    /// <summary>Reads them; the usual ones where nothing or nonsense is kept.</summary>
    public static DayTerms Read(string? json)
    {
        try
        {
            var read = json is { Length: > 0 } ? JsonSerializer.Deserialize<DayTerms>(json) : null;
            return read is { Spans: not null, Places: not null } terms && terms.Problem() is null ? terms : Usual;
        }
        catch (JsonException)
        {
            return Usual;
        }
    }
}
