using System.Text;

namespace Mendro.Web.Tests;

/// <summary>What nobody should send, and what is likely to reach deeper.</summary>
internal static class FuzzWords
{
    private static readonly string[] Nasty =
    [
        "",
        " ",
        "\0",
        "\u001d01\u001e",
        "5.02\u0004",
        "\ufffe\uffff",
        "\ud800",
        "\udc00x",
        "\u202egpj.exe",
        "<script>alert(1)</script>",
        "\"'><img src=x onerror=alert(1)>",
        "=HYPERLINK(\"http://x\")",
        "\t=1+1",
        "'; DROP TABLE jobs; --",
        "%s%n%x",
        "../../../../etc/passwd",
        "NaN",
        "Infinity",
        "-Infinity",
        "1e30",
        "1e400",
        "-1",
        "0",
        "99999999999999999999999999",
        "2147483648",
        "9223372036854775808",
        "1,5",
        "1.5.5",
        "٣",
        "½",
        "ａ",
        "İ",
        "ﬀ",
        "👩‍🔧",
        "e\u0301",
        "[",
        "]",
        "a[b",
        "Form[",
        "{{7*7}}",
        "${jndi:x}",
        "\r\nSet-Cookie: a=b",
        "http://evil.example/",
        "//evil.example",
        "null",
        "true",
        "[]",
        "{}",
        "{\"format\":\"mendro.profile/1\",\"parts\":[{\"id\":1e999}]}",
        "{\"format\":\"mendro.profile/1\",\"preparation\":{\"open\":99999999999999999999999}}",
        "profile,revision,probe,unit,value,good_unit\nharrow-quartet,,tp3,V,1e30,x",
    ];

    /// <summary>What fields are likely to take, by the end of their name in lower case.</summary>
    public static IReadOnlyDictionary<string, string[]> Likely { get; } =
        new Dictionary<string, string[]>
        {
            ["probe"] = ["tp3", "tp4", "tp5", "rail-ohms", "contacts-eye"],
            ["function"] = ["power-light", "picture", "speaker", "start-up"],
            ["result"] = ["pass", "fail", "changed", "same", "flicker"],
            ["power-light"] = ["pass", "fail", "nothing"],
            ["text"] = ["6.21", "0.02 V", "OL", "1 jumps", "ok", "6,2"],
            ["say"] = ["ok", "bad", "jumps"],
            ["part"] = ["switch", "fuse", "contacts", "psu"],
            ["method"] = ["flush-switch", "replace-fuse", "wipe-contacts"],
            ["cause"] = ["dirty", "open", "crusted"],
            ["minutes"] = ["5", "12.5", "-Infinity", "NaN", "1e30", "1000"],
            ["cost"] = ["1.20", "-3", "1e30", "NaN", "999999999999999999999999999999"],
            ["now"] = ["pass", "fail"],
            ["profile"] = ["harrow-quartet", "generic-handheld", "nothing"],
            ["model"] = ["harrow-quartet", "pellin-atrium"],
            ["owner"] = ["customer", "shop"],
            ["ownername"] = ["Ilka Dorn", "Bo\u001dQuist"],
            ["currency"] = ["EUR", "XXX", "€"],
            ["marks"] = ["rattle", "no-such-mark"],
            ["paid"] = ["12", "1e9", "NaN"],
            ["valueworking"] = ["80", "1e30", "79228162514264337593543950335"],
            ["end"] = ["Returned", "ForSale", "Parts", "Open", "7"],
            ["shelf"] = ["SetAside", "WaitingPart", "None", "99"],
            ["act"] = ["take", "keep", "leave", "dismiss", "undo", "clean", "retire", "standard", "restore"],
            ["stage"] = ["Find", "Intake", "9"],
            ["line"] = ["quartet no light", "atrium stripes", "q\u001du"],
            ["select"] = ["probe:tp3", "fn:picture", "provoke:picture:pressed", "walk:supply", "provoke:x:9"],
            ["correct"] = ["1", "20", "9223372036854775807"],
            ["id"] = ["1", "17", "-4"],
            ["connector"] = ["slot"],
            ["contact"] = ["4", "999", "-5"],
            ["how"] = ["Pressed", "Warmed", "77"],
            ["swap"] = ["x"],
            ["seed"] = ["5", "-1", "1e9"],
            ["version"] = ["1", "99"],
            ["page"] = ["abc", "ü"],
            ["point"] = ["tp3", "slot:4", ":", "slot:99999999999"],
            ["rate"] = ["30", "1e30", "-1"],
            ["originality"] = ["60"],
            ["strength"] = ["2", "NaN"],
            ["lookminutes"] = ["20"],
            ["lookpercent"] = ["40"],
            ["shopname"] = ["S\u0000hop"],
            ["meter"] = ["127.0.0.1:9", "", "x y"],
            ["supply"] = ["127.0.0.1:9", ""],
            ["before"] = ["120", "-1"],
            ["volts"] = ["6", "1e30", "NaN"],
            ["limit"] = ["0.1", "Infinity"],
            ["starts"] = ["3", "1000000"],
            ["times"] = ["3", "1000000"],
            ["kind"] = ["test-cable", "dc", "nothing"],
            ["name"] = ["Cable\u0007"],
        };

    /// <summary>Something nasty, now and then long.</summary>
    public static string Text(Random random) =>
        random.Next(20) switch
        {
            0 => new string('x', 1 + random.Next(9000)),
            1 => string.Concat(Enumerable.Range(0, random.Next(12)).Select(_ => (char)random.Next(0x20, 0xFFFF))),
            2 => Nasty[random.Next(Nasty.Length)] + Nasty[random.Next(Nasty.Length)],
            _ => Nasty[random.Next(Nasty.Length)],
        };

    /// <summary>Lone halves of surrogate pairs cannot be put into UTF-8 by a client; they go as what a wrong client makes of them.</summary>
    public static string Whole(string text) => Encoding.UTF8.GetString(Encoding.UTF8.GetBytes(text));

    /// <summary>A NUL and an address of many thousand letters never get past the web server.</summary>
    public static string InPath(Random random)
    {
        var text = Whole(Text(random)).Replace("\0", "", StringComparison.Ordinal);
        return text.Length > 500 ? text[..500] : text;
    }

    public static string Header(Random random) => new(Text(random).Where(c => c is >= ' ' and < '\u007f').Take(200).ToArray());

    public static byte[] Bytes(Random random)
    {
        if (random.Next(2) == 0)
            return Encoding.UTF8.GetBytes(Text(random));
        var bytes = new byte[random.Next(2000)];
        random.NextBytes(bytes);
        return bytes;
    }
}
