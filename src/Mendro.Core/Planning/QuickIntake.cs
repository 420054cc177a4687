using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <summary>What one typed line says of a unit at the door.</summary>
/// <param name="Profile">Profile recognised; a generic one when only the kind is named.</param>
/// <param name="Symptom">The rest of the line, in the words typed.</param>
/// <param name="FunctionId">Function that fails, when the symptom names one.</param>
/// <param name="LookId">Its look, when the symptom names one.</param>
public sealed record QuickIntake(DeviceProfile Profile, string Symptom, string? FunctionId, string? LookId)
{
    private const int LongestLine = 300;

    // Words of the door that name a look without using the library's phrase.
    private static readonly (string Word, string Look)[] Aliases =
    [
        ("dead", "nothing"),
        ("nothing", "nothing"),
        ("no", "nothing"),
        ("blank", "nothing"),
        ("silent", "nothing"),
        ("blinks", "blinks"),
        ("blinking", "blinks"),
        ("flashing", "blinks"),
        ("flashes", "blinks"),
        ("garbled", "garbled-logo"),
        ("black", "black-box"),
        ("white", "solid-colour"),
        ("quiet", "quiet"),
        ("crackles", "crackle"),
        ("buzz", "buzz"),
        ("dim", "dim"),
        ("flickers", "flicker"),
        ("vertical", "vertical-lines"),
        ("horizontal", "horizontal-lines"),
        ("skips", "skips"),
        ("noisy", "noisy"),
        ("one", "one-dead"),
        ("save", "nothing"),
    ];

    private static readonly (string Word, string Kind)[] FunctionWords =
    [
        ("light", "power-light"),
        ("dead", "power-light"),
        ("power", "power-light"),
        ("start", "start-up"),
        ("starts", "start-up"),
        ("logo", "start-up"),
        ("blinks", "start-up"),
        ("blinking", "start-up"),
        ("flashing", "start-up"),
        ("picture", "picture"),
        ("screen", "picture"),
        ("display", "picture"),
        ("lines", "picture"),
        ("sound", "speaker"),
        ("speaker", "speaker"),
        ("phones", "phones"),
        ("headphones", "phones"),
        ("button", "buttons"),
        ("buttons", "buttons"),
        ("charge", "charging"),
        ("charges", "charging"),
        ("charging", "charging"),
        ("save", "saving"),
        ("saves", "saving"),
        ("disc", "disc"),
        ("skips", "disc"),
        ("reset", "reset"),
        ("video", "video-out"),
        ("read", "cartridge"),
        ("reads", "cartridge"),
    ];

    /// <summary>Reads a line such as <c>quartet no light</c> or <c>any cartridge dead</c>.</summary>
    /// <returns>What was understood, or why not; the words typed are the caller's to keep.</returns>
    public static Outcome<QuickIntake> Parse(string? line, IReadOnlyList<DeviceProfile> profiles, TradeLibrary library)
    {
        var typed = (line ?? "").Trim();
        if (typed.Length == 0)
            return Outcome<QuickIntake>.Fail("Type a model and what is wrong: quartet no light.");
        if (typed.Length > LongestLine)
            return Outcome<QuickIntake>.Fail("That is too long for one line; use the intake page.");
        var words = typed.Split([' ', ',', ';', ':'], StringSplitOptions.RemoveEmptyEntries).ToList();

        // The profile most of whose name words stand in the line; of equals the shorter name, so that a console is
        // not taken for its cartridge.
        var best = profiles
            .Select(p => (Profile: p, Names: NameWords(p)))
            .Select(x => (x.Profile, x.Names, Hits: x.Names.Count(n => words.Any(w => Same(w, n)))))
            .Where(x => x.Hits > 0)
            .OrderByDescending(x => x.Hits)
            .ThenBy(x => x.Profile.Generic)
            .ThenBy(x => x.Names.Count)
            .FirstOrDefault();
        if (best.Profile is null)
            return Outcome<QuickIntake>.Fail($"No model is known by “{words[0]}”. Choose one, or take it in on a generic profile.");

        var left = words
            .Where(w => !best.Names.Any(n => Same(w, n)) && !(best.Profile.Generic && w.Equals("any", StringComparison.OrdinalIgnoreCase)))
            .ToList();
        var symptom = string.Join(' ', left);
        DeviceFunction? function = null;
        foreach (var word in left.AsEnumerable().Reverse())
        {
            function ??= best.Profile.Functions.FirstOrDefault(f => f.Name.Equals(word, StringComparison.OrdinalIgnoreCase));
            function ??= FunctionWords
                .Where(a => a.Word.Equals(word, StringComparison.OrdinalIgnoreCase))
                .Select(a => best.Profile.Functions.FirstOrDefault(f => f.Kind == a.Kind))
                .FirstOrDefault(f => f is not null);
        }

        // A dead thing fails in the first function that anything shows in.
        if (function is null && left.Any(w => w.Equals("dead", StringComparison.OrdinalIgnoreCase)))
            function = best.Profile.Functions[0];
        var looks = function is null ? null : library.FindFunctionKind(function.Kind)?.Looks;
        var look = looks is null
            ? null
            : left.SelectMany(w => Aliases.Where(a => a.Word.Equals(w, StringComparison.OrdinalIgnoreCase)))
                .OrderByDescending(a => a.Look != "nothing")
                .Select(a => a.Look)
                .FirstOrDefault(l => looks.Any(x => x.Id == l));
        return Outcome<QuickIntake>.Ok(new QuickIntake(best.Profile, symptom, function?.Id, look));
    }

    private static List<string> NameWords(DeviceProfile profile) =>
        $"{profile.Maker} {profile.Name}"
            .Split([' ', ','], StringSplitOptions.RemoveEmptyEntries)
            .Where(w => w.Length > 2 && w is not ("any" or "Any" or "with" or "save" or "cell"))
            .ToList();

    private static bool Same(string typed, string name) =>
        name.Equals(typed, StringComparison.OrdinalIgnoreCase)
        || typed.Length >= 4 && name.StartsWith(typed, StringComparison.OrdinalIgnoreCase);
}
