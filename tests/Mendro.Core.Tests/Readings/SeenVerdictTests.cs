using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;

namespace Mendro.Core.Tests.Readings;

/// <summary>What an eye or a finger tells, in the words of the bench. Wording: common practice, no source.</summary>
public class SeenVerdictTests
{
    [Theory]
    // Said outright, as ever.
    [InlineData("harrow-quartet", "contacts-eye", "ok")]
    [InlineData("harrow-quartet", "contacts-eye", "good, a bit dull")]
    [InlineData("harrow-quartet", "slot-press", "steady")]
    // What the key beside the field says.
    [InlineData("harrow-quartet", "slot-press", "as it should be")]
    // What the profile itself says should be seen, whole or a clause of it.
    [InlineData("harrow-quartet", "seal-press", "no line comes or goes")]
    [InlineData("harrow-quartet", "speaker-eye", "whole, both wires on")]
    [InlineData("harrow-quartet", "contacts-eye", "bright")]
    [InlineData("tarn-halyard", "lid-press", "disc turns while pressed")]
    [InlineData("tarn-halyard", "psucaps-eye", "dry")]
    [InlineData("tarn-halyard", "drive-press", "light and even")]
    // A “no” before what would be bad.
    [InlineData("harrow-quartet", "contacts-eye", "no crust")]
    [InlineData("harrow-quartet", "contacts-eye", "no green or white anywhere")]
    [InlineData("harrow-quartet", "slot-press", "no change")]
    [InlineData("harrow-quartet", "slot-press", "nothing")]
    [InlineData("harrow-quartet", "joint-press", "doesn’t move")]
    [InlineData("harrow-quartet", "panel-eye", "no crack, no blot")]
    [InlineData("pellin-atrium-cartridge", "legs1-push", "none move")]
    [InlineData("pellin-atrium-cartridge", "legs1-push", "none of them moves")]
    [InlineData("pellin-atrium-cartridge", "legs1-push", "all solid")]
    [InlineData("pellin-atrium-cartridge", "edge-eye", "stays clean")]
    [InlineData("pellin-atrium-cartridge", "trace-eye", "nothing scratched or eaten")]
    [InlineData("pellin-atrium", "connector-eye", "not bent, looks fine")]
    [InlineData("dovrel-sextant", "maincaps-eye", "none leaking")]
    public void It_is_good(string profile, string probe, string text) => Judge(profile, probe, text).ShouldBe(ProbeOutcome.Normal);

    [Theory]
    [InlineData("harrow-quartet", "contacts-eye", "bad")]
    [InlineData("harrow-quartet", "slot-press", "Not so")]
    [InlineData("harrow-quartet", "contacts-eye", "green")]
    [InlineData("harrow-quartet", "contacts-eye", "a little white powder")]
    [InlineData("harrow-quartet", "contacts-eye", "not clean")]
    [InlineData("harrow-quartet", "switch-press", "light flickers")]
    [InlineData("harrow-quartet", "switch-eye", "dark sticky stain")]
    [InlineData("harrow-quartet", "slot-press", "works when leaned on")]
    [InlineData("harrow-quartet", "slot-eye", "dark deep inside")]
    [InlineData("harrow-quartet", "seal-press", "lines come back")]
    [InlineData("harrow-quartet", "speaker-eye", "wire off")]
    [InlineData("harrow-quartet", "pads-eye", "carbon worn")]
    [InlineData("harrow-quartet", "volume-press", "crackles at the low end")]
    [InlineData("pellin-atrium-cartridge", "legs1-push", "one moves")]
    [InlineData("pellin-atrium-cartridge", "legs1-push", "leg 7 gives")]
    [InlineData("pellin-atrium-cartridge", "edge-eye", "swab comes off black")]
    [InlineData("pellin-atrium-cartridge", "edge-eye", "does not stay clean")]
    [InlineData("pellin-atrium-cartridge", "trace-eye", "bubbling all over")]
    [InlineData("pellin-atrium", "connector-eye", "two pins bent")]
    [InlineData("pellin-atrium", "reset-press", "only dead centre")]
    [InlineData("dovrel-sextant", "maincaps-eye", "C31 leaks")]
    [InlineData("tarn-halyard", "lens-eye", "hazy")]
    [InlineData("tarn-halyard", "drive-press", "stiff near the end")]
    [InlineData("tarn-halyard", "ribbon-press", "was not home")]
    [InlineData("pellin-atrium-pad", "cord-press", "cuts out at the sleeve")]
    public void It_is_bad(string profile, string probe, string text) => Judge(profile, probe, text).ShouldBe(ProbeOutcome.Abnormal);

    [Theory]
    [InlineData("switch-eye", "no", "either")] // “drink or dirt in the slot?”: no would be good news
    [InlineData("switch-eye", "yes", "either")]
    [InlineData("slot-press", "n", "either")]
    [InlineData("contacts-eye", "seen it", "ok or bad")]
    [InlineData("contacts-eye", "12", "ok or bad")]
    public void What_could_mean_either_is_not_filed(string probe, string text, string named) =>
        ReadingJudge.Judge(Shipped.Profile("harrow-quartet"), Shipped.Profile("harrow-quartet").FindProbe(probe)!, text).Problem!.ShouldContain(named);

    [Theory]
    [InlineData("bad, not dirty but worn", "dirt", false)]
    [InlineData("bad, not dirty but worn", "worn", true)]
    [InlineData("no crust or film", "film", false)]
    [InlineData("no dirt, worn", "worn", true)]
    [InlineData("never moves", "move", false)]
    [InlineData("nothing but dust", "dust", true)]
    [InlineData("undamaged", "damage", false)]
    public void A_no_reaches_over_a_few_words_and_ends_at_a_comma_or_a_but(string text, string word, bool says) =>
        SeenWords.Says(text, word).ShouldBe(says);

    [Fact]
    public void A_sentence_of_what_was_seen_is_taken() =>
        Judge("harrow-quartet", "contacts-eye", "bad, white powder on both springs of the left bay and a green film on the right one")
            .ShouldBe(ProbeOutcome.Abnormal);

    private static ProbeOutcome Judge(string profile, string probe, string text)
    {
        var judged = ReadingJudge.Judge(Shipped.Profile(profile), Shipped.Profile(profile).FindProbe(probe)!, text);
        judged.IsOk.ShouldBeTrue(judged.Problem);
        return judged.Value.Outcome;
    }

    /// <summary>A word is told by its forms, and not by what merely begins like it. Facts of English.</summary>
    [Theory]
    [InlineData("crack", "bad, cracked right through", true)]
    [InlineData("crack", "bad, crackles when moved", false)]
    [InlineData("crack", "a crackly sound", false)]
    [InlineData("low", "lower half dark", false)]
    [InlineData("up", "upper pins dull", false)]
    [InlineData("rip", "ripple on the rail", false)]
    [InlineData("rip", "ripped", true)]
    [InlineData("rot", "rotates freely", false)]
    [InlineData("thin", "one thing loose", false)]
    [InlineData("hum", "human hair in it", false)]
    [InlineData("grub", "grubby", true)]
    [InlineData("loose", "loosened", true)]
    [InlineData("corro*", "corroded", true)]
    public void A_word_is_told_by_its_forms(string word, string text, bool said) => SeenWords.Says(text, word).ShouldBe(said);

    /// <summary>Words that belong together are told in any order within a clause; a “no” stands where it stands.</summary>
    [Theory]
    [InlineData("black ends", "ends black", true)]
    [InlineData("black ends", "the ends are quite black", true)]
    [InlineData("black ends", "black dust, ends fine", false)]
    [InlineData("no spring", "spring, no rust", false)]
    [InlineData("eaten all over", "all over eaten", true)]
    public void Words_that_belong_together(string words, string text, bool said) => SeenWords.SaysTogether(text, words).ShouldBe(said);

    /// <summary>What an eye or a finger can show has words to tell it by; else words for its neighbour would clear it.</summary>
    [Fact]
    public void Each_way_of_failing_that_is_seen_or_felt_has_words() =>
        TradeLibrary
            .Shipped.PartKinds.SelectMany(k => k.Modes.Select(m => (k.Kind, m)))
            .Where(x => x.m.Words is null && x.m.Detect?.Keys.Any(k => k is ProbeKind.Look or ProbeKind.Press) == true)
            .Select(x => $"{x.Kind}.{x.m.Id}")
            .ShouldBeEmpty();
}
