using System.Text;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.RegularExpressions;

namespace Mendro.Storage;

/// <summary>
/// Words by which a person stands in texts, and what stands there afterwards: the whole name, its parts, phone, mail and address. Whole
/// words only, whatever their case, also as they stand inside JSON.
/// </summary>
public sealed class PersonWords
{
    // Shorter parts of a name would be found as other words; so would short pieces of an address.
    private const int ShortestPart = 3;
    private const int ShortestContact = 5;

    private static readonly JsonSerializerOptions Relaxed = new() { Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    private readonly List<(Regex Pattern, string To)> _sure = [];
    private readonly List<(Regex Pattern, string To)> _own = [];

    /// <summary>Takes the words of a person.</summary>
    /// <param name="name">Name.</param>
    /// <param name="contact">Phone, mail, address.</param>
    /// <param name="stays">What stands in the place of the name.</param>
    public PersonWords(string name, string contact, string stays)
    {
        Add(_sure, name, stays, 1);
        Add(_sure, contact, "", ShortestContact);
        foreach (var piece in contact.Split([',', ';', '\n'], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
            Add(_sure, piece, "", ShortestContact);
        _own.AddRange(_sure);
        Parts = [.. name.Split([' ', '-', '“', '”', '"', '.', ','], StringSplitOptions.RemoveEmptyEntries).Where(p => p.Length >= ShortestPart).Distinct()];
        foreach (var part in Parts)
            Add(_own, part, stays, ShortestPart);
    }

    /// <summary>Parts of the name that are looked for by themselves.</summary>
    public IReadOnlyList<string> Parts { get; }

    /// <summary>Takes out what is surely this person's: the whole name, and the contact.</summary>
    public string TakeOutSure(string text) => TakeOut(_sure, text);

    /// <summary>Takes out of a text about this person's own job: parts of the name as well.</summary>
    public string TakeOutOwn(string text) => TakeOut(_own, text);

    private static string TakeOut(List<(Regex Pattern, string To)> words, string text)
    {
        foreach (var (pattern, to) in words)
            text = pattern.Replace(text, _ => to);
        return text;
    }

    private static void Add(List<(Regex, string)> to, string words, string stays, int shortest)
    {
        words = words.Trim();
        if (words.Length < shortest)
            return;
        foreach (var form in (string[])[words, JsonSerializer.Serialize(words)[1..^1], JsonSerializer.Serialize(words, Relaxed)[1..^1]])
            to.Add((Whole(form), stays));
    }

    // White space may be any; before and after stands no letter or digit.
    private static Regex Whole(string words)
    {
        var pattern = new StringBuilder(@"(?<![\p{L}\p{N}])");
        pattern.AppendJoin(@"\s+", words.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(Regex.Escape));
        return new Regex(pattern.Append(@"(?![\p{L}\p{N}])").ToString(), RegexOptions.IgnoreCase | RegexOptions.CultureInvariant);
    }
}
