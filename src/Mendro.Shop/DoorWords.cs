using Mendro.Core;
using Mendro.Core.Library;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>Hears lines for intake, lots and offers alike, with the shop's own words.</summary>
public sealed class DoorWords(SettingsStore settings, ProfileStore profiles, Ledger ledger, TradeLibrary library)
{
    private const string Key = "door-words";

    // Read again only when they were changed: a lot hears hundreds of lines.
    private (string? Text, ShopWords Words) _read = (null, ShopWords.None);

    /// <summary>The shop's own words.</summary>
    public ShopWords Own
    {
        get
        {
            var text = settings.Value(Key);
            var read = _read;
            if (read.Text != text)
                _read = read = (text, ShopWords.Read(text) is { IsOk: true } told ? told.Value : ShopWords.None);
            return read.Words;
        }
    }

    /// <summary>Keeps the words, one a line; see <see cref="ShopWords.Read"/>.</summary>
    public Deed<Done> Keep(string? text, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                var read = ShopWords.Read(text);
                if (!read.IsOk)
                    return Refusal.Invalid(read.Problem);
                settings.SetValue(Key, read.Value.Text);
                return new Done(read.Value.All.Count == 1 ? "1 word kept." : $"{read.Value.All.Count} words kept.");
            }
        );

    /// <summary>Hears a line that may name a model of the shop.</summary>
    public Understanding Hear(string? line) => Understanding.Of(line, profiles.All(), library, Own);

    /// <summary>Hears what is said of a model.</summary>
    public Understanding Hear(string? line, DeviceProfile profile) => Understanding.Of(line, profile, library, Own);

    /// <summary>Hears a line at the door whose model is told besides.</summary>
    public Understanding HearAs(string? line, DeviceProfile profile) => Understanding.As(line, profile, library, Own);

    /// <summary>Hears a line that takes a unit in.</summary>
    /// <param name="line">The line.</param>
    /// <param name="known">Models of the shop.</param>
    public Outcome<Understanding> AtTheDoor(string? line, IReadOnlyList<DeviceProfile> known) => Understanding.AtTheDoor(line, known, library, Own);
}
