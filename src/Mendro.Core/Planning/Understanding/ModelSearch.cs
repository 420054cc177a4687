using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <summary>Finds the model that is being typed into a field of its own, where nothing but a model can be meant.</summary>
public static class ModelSearch
{
    /// <summary>The models that fit: the one whose id or full name is typed, otherwise all whose name has, for each word typed, a word
    /// of its own that begins so. Nothing typed fits none.</summary>
    public static IReadOnlyList<DeviceProfile> Fitting(string? typed, IReadOnlyList<DeviceProfile> profiles)
    {
        var text = (typed ?? "").Trim();
        var exact = profiles.Where(p => p.Id == text).ToList();
        if (exact.Count == 0)
            exact = [.. profiles.Where(p => string.Equals(p.FullName, text, StringComparison.OrdinalIgnoreCase))];
        if (exact.Count > 0)
            return exact;
        var words = Words(text).OrderByDescending(w => w.Length).ToList();
        return words.Count == 0 ? [] : [.. profiles.Where(p => EachHasItsOwn(words, Words(p.FullName)))];
    }

    /// <summary>Models whose names are nearest to the head of a line, the nearest first; those without a word in common are left out.</summary>
    public static IReadOnlyList<DeviceProfile> Nearest(string line, IReadOnlyList<DeviceProfile> profiles, int most) =>
        ModelNames.Nearest(line, profiles, most);

    private static bool EachHasItsOwn(IReadOnlyList<string> typed, IReadOnlyList<string> name)
    {
        var left = name.ToList();
        return typed.All(w => left.FirstOrDefault(n => n.StartsWith(w, StringComparison.OrdinalIgnoreCase)) is { } own && left.Remove(own));
    }

    private static string[] Words(string text) =>
        text.Split([' ', '-', '/', ',', '(', ')', '.'], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
}
