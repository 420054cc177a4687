using Mendro.Core.Library;
using Mendro.Core.Planning;

namespace Mendro.Core.Tests.Planning;

/// <summary>How people say it at the door, and what it means (common practice, no source). No line may file what was not said.</summary>
public partial class UnderstandingTests
{
    /// <summary>Text, model, facts, and behind the question mark what was not understood.</summary>
    private const string Said = """
        leaflet charges but nothing when switched on => tarn-leaflet : charging pass; power-light fail nothing
        quartet logo fine then white => harrow-quartet : start-up fail white-after
        minnow white screen after the logo => quillon-minnow : start-up fail white-after
        tripos video garbled => quillon-tripos : video fail garbled
        tripos garbled picture => quillon-tripos : video fail garbled
        atrium picture rolls => pellin-atrium : video fail flicker
        atrium cartridge is seen without a logo => pellin-atrium-cartridge : cartridge fail seen-no-logo
        quartet in bits, crust on the board => harrow-quartet : mark taken-apart; mark crust-board
        leaflet board is taped, dead => tarn-leaflet : mark board-cracked; power-light fail nothing
        quartet garbled logo => harrow-quartet : start-up fail garbled-logo
        duet black box => harrow-duet : start-up fail black-box
        atrium no picture => pellin-atrium : video fail nothing
        atrium solid color => pellin-atrium : start-up fail solid-colour
        leaflet charges but dead => tarn-leaflet : charging pass; power-light fail nothing
        quartet only works when pressed => harrow-quartet : start-up fail pressed
        atrium cartridge already cleaned, still blinks => pellin-atrium-cartridge : edge claimed swab-edge; cartridge fail blinks
        bastion power button does nothing => dovrel-bastion : power-button fail nothing
        bastion eject button does nothing, power button works => dovrel-bastion : eject fail nothing; power-button pass
        any cartridge dead => generic-cartridge : cartridge fail
        quartet no light => harrow-quartet : power-light fail nothing
        quartet vertical lines => harrow-quartet : picture fail vertical-lines
        sextant sound but no picture => dovrel-sextant : speaker pass; picture fail nothing
        sextant very quiet, phones too => dovrel-sextant : speaker fail quiet; phones fail quiet
        tripos garbled, works about once in five => quillon-tripos : start-up fail garbled-logo; start-up pass; start-up fail x4
        halyard disc skips and noisy => tarn-halyard : disc fail skips; disc fail noisy
        quartet light on then off => harrow-quartet : power-light fail on-then-off
        quartet lines => harrow-quartet : ? lines
        minnow wont charge => quillon-minnow : charging fail nothing
        minnow doesnt turn on => quillon-minnow : power-light fail nothing
        duet screen is white but sound ok => harrow-duet : picture fail solid-colour; speaker pass
        quartet everything works except the sound => harrow-quartet : power-light pass; start-up pass; speaker fail
        pad up button stuck => generic-controller : buttons fail stuck
        leaflet left shoulder button does not work => tarn-leaflet : shoulder fail one-dead
        quartet not garbled but blank screen => harrow-quartet : picture fail nothing ? not garbled
        atrium blinks once a second => pellin-atrium : start-up fail blinks
        quartet battery leaked, dead => harrow-quartet : mark corrosion-contacts; power-light fail nothing
        sextant backlight dim => dovrel-sextant : backlight fail dim
        halyard port 1 dead, port 2 fine => tarn-halyard : port1 fail nothing; port2 pass
        tripos picture ok no sound => quillon-tripos : video pass; sound fail nothing
        quartet garbeld logo => harrow-quartet : start-up fail garbled-logo
        quartet picture only when pressed => harrow-quartet : picture fail pressed
        quartet crackly sound => harrow-quartet : speaker fail crackle
        cartridge save gone => generic-cartridge : ? save, gone
        quartet no power light => harrow-quartet : power-light fail nothing
        duet nothing happens => harrow-duet : power-light fail nothing
        sextant completely dead => dovrel-sextant : power-light fail nothing
        tarn leaflet does not power on => tarn-leaflet : power-light fail nothing
        minnow turns off straight away => quillon-minnow : power-light fail on-then-off
        sextant dies after a few seconds => dovrel-sextant : power-light fail on-then-off
        quartet light is dim => harrow-quartet : power-light fail dim
        leaflet charge light for a second then nothing => tarn-leaflet : charging fail one-second ? nothing
        leaflet never gets to full => tarn-leaflet : charging fail never-full
        minnow charges only when held => quillon-minnow : charging fail pressed
        atrium flashing => pellin-atrium : start-up fail blinks
        atrium restarts itself => pellin-atrium : start-up fail blinks
        quartet scrambled logo => harrow-quartet : start-up fail garbled-logo
        duet logo is garbled => harrow-duet : start-up fail garbled-logo
        quartet logo then blank => harrow-quartet : start-up fail logo-then-blank
        quartet freezes after the logo => harrow-quartet : start-up fail logo-then-blank
        atrium grey screen => pellin-atrium : start-up fail solid-colour
        duet white screen => harrow-duet : start-up fail solid-colour
        quartet does not start => harrow-quartet : start-up fail
        atrium doesn't read cartridges => pellin-atrium : start-up fail
        atrium game not recognized => pellin-atrium : start-up fail black-box
        duet blank screen, sound is there => harrow-duet : picture fail nothing; speaker pass
        quartet horizontal line => harrow-quartet : picture fail horizontal-lines
        sextant picture flickers => dovrel-sextant : picture fail flicker
        sextant dim picture => dovrel-sextant : picture fail dim
        quartet dark blot on the screen => harrow-quartet : picture fail burnt
        duet cracked screen => harrow-duet : picture fail burnt
        leaflet no backlight => tarn-leaflet : backlight fail nothing
        tripos no color => quillon-tripos : video fail no-colour
        atrium black and white picture => pellin-atrium : video fail no-colour
        quartet silent => harrow-quartet : speaker fail nothing
        quartet speaker is dead but headphones work => harrow-quartet : speaker fail nothing; phones pass
        quartet sound is very quiet => harrow-quartet : speaker fail quiet
        duet buzzing => harrow-duet : speaker fail buzz
        duet speaker rattles => harrow-duet : speaker fail rattle
        quartet headphones one side only => harrow-quartet : phones fail one-side
        duet one button dead => harrow-duet : buttons fail one-dead
        duet buttons need a hard press => harrow-duet : buttons fail hard-press
        pad buttons do not respond => generic-controller : buttons fail nothing
        atrium reset works only dead center => pellin-atrium : reset fail dead-centre
        leaflet doesn't charge => tarn-leaflet : charging fail nothing
        any cartridge does not save => generic-cartridge : ? save
        any disc console no disc seen => generic-disc-console : disc fail not-read
        halyard disc not spinning => tarn-halyard : disc fail nothing
        halyard spins with the lid open => tarn-halyard : disc fail spins-open
        halyard noisy drive => tarn-halyard : disc fail noisy
        halyard long loading => tarn-halyard : disc fail long-loading
        bastion tray sticks => dovrel-bastion : tray fail sticks
        bastion disk clicks => dovrel-bastion : disk fail clicks
        bastion eject button not working => dovrel-bastion : eject fail nothing
        atrium controller not seen => pellin-atrium : port1 fail nothing
        quartet works with a weight on it => harrow-quartet : start-up fail pressed ? works
        atrium only when i press the cartridge => pellin-atrium : start-up fail pressed
        duet fails once warm => harrow-duet : start-up fail warm ? fails
        tripos 2 of 5 starts => quillon-tripos : start-up pass x2; start-up fail x3
        tripos works 3 times out of ten => quillon-tripos : start-up pass x3; start-up fail x7
        quartet water damage, dead => harrow-quartet : mark liquid; power-light fail nothing
        duet sticky, button stuck => harrow-duet : mark sticky; buttons fail stuck
        leaflet swollen battery => tarn-leaflet : mark swollen-cell
        atrium bent pins, solid colour => pellin-atrium : mark bent-pins; start-up fail solid-colour
        quartet something rattles inside => harrow-quartet : mark rattle
        minnow screws missing => quillon-minnow : mark screws-missing
        quartet light ok but garbled logo => harrow-quartet : power-light pass; start-up fail garbled-logo
        quartet light and sound, no picture => harrow-quartet : power-light pass; speaker pass; picture fail nothing
        quartet light comes on, black box => harrow-quartet : power-light pass; start-up fail black-box
        duet picture fine, no sound => harrow-duet : picture pass; speaker fail nothing
        sextant everything fine except no sound => dovrel-sextant : power-light pass; start-up pass; speaker fail nothing
        halyard sound but no picture => tarn-halyard : sound pass; video fail nothing
        leaflet charges, light goes to full, nothing when switched on => tarn-leaflet : charging pass; power-light fail nothing ? full
        minnow charges but no light => quillon-minnow : charging pass; power-light fail nothing
        quartet no sound from speaker, phones good => harrow-quartet : speaker fail nothing; phones pass
        quartet picture garbled but sound ok => harrow-quartet : picture fail garbled-sprites; speaker pass
        atrium already cleaned, still blinking => pellin-atrium : connector claimed clean-connector; start-up fail blinks
        quartet owner cleaned the contacts, dead => harrow-quartet : contacts claimed wipe-contacts; power-light fail nothing
        pad nothing works => generic-controller : buttons fail nothing; cross fail nothing
        harrow duet vertical lines on screen => harrow-duet : picture fail vertical-lines
        quartet blakc box => harrow-quartet : start-up fail black-box
        quartet verticle lines => harrow-quartet : picture fail vertical-lines
        sextant no soud => dovrel-sextant : speaker fail nothing
        atrium blinkng => pellin-atrium : start-up fail blinks
        quartet  NO LIGHT => harrow-quartet : power-light fail nothing
        unknownthing dead => no model : ? unknownthing, dead
        quartet => harrow-quartet :
        quartet smells => harrow-quartet : ? smells
        quartet purple elephants => harrow-quartet : ? purple, elephants
        leaflet upper picture flickers => tarn-leaflet : picture fail flicker ? upper
        quartet power switch does nothing => harrow-quartet : power-light fail nothing
        quartet the light is not dim => harrow-quartet : ? light, dim
        atrium only when i press the cartridge => pellin-atrium : start-up fail pressed
        tripos works 3 times out of ten => quillon-tripos : start-up pass x3; start-up fail x7
        quartet owner cleaned the contacts, dead => harrow-quartet : contacts claimed wipe-contacts; power-light fail nothing
        quartet verticle lines => harrow-quartet : picture fail vertical-lines
        sextant no soud => dovrel-sextant : speaker fail nothing
        sextant dies after a few seconds => dovrel-sextant : power-light fail on-then-off
        atrium doesn't read cartridges => pellin-atrium : start-up fail
        any cartridge save gone => generic-cartridge : ? save, gone
        quartet doesn't respond to buttons => harrow-quartet : buttons fail nothing
        leaflet picture ok but no backlight => tarn-leaflet : picture pass; backlight fail nothing
        leaflet charging light comes on then off => tarn-leaflet : charging fail one-second
        minnow nothing when switched on => quillon-minnow : power-light fail nothing
        minnow light on, no picture, no sound => quillon-minnow : power-light pass; picture fail nothing; speaker fail nothing
        duet no picture, sound fine => harrow-duet : picture fail nothing; speaker pass
        duet picture only when squeezed => harrow-duet : picture fail pressed
        quartet sound only when wiggled => harrow-quartet : speaker fail pressed
        sextant switches off at once => dovrel-sextant : power-light fail on-then-off
        sextant flickering screen => dovrel-sextant : picture fail flicker
        bastion no power, no light => dovrel-bastion : power-light fail nothing
        bastion clock resets => dovrel-bastion : clock fail nothing
        bastion disc not read => dovrel-bastion : disc fail not-read
        halyard lid stuck => tarn-halyard : tray fail sticks
        halyard reset does nothing => tarn-halyard : reset fail nothing
        tripos blue screen => quillon-tripos : start-up fail solid-colour
        tripos no video => quillon-tripos : video fail nothing
        tripos hum in sound => quillon-tripos : sound fail buzz
        atrium light blinks => pellin-atrium : power-light fail blinks
        atrium light ok, blinking => pellin-atrium : power-light pass; start-up fail blinks
        pad start button dead => generic-controller : buttons fail one-dead
        pad direction stuck => generic-controller : cross fail stuck
        quartet missing lines => harrow-quartet : ? missing, lines
        quartet won't turn on => harrow-quartet : power-light fail nothing
        quartet isn't turning on => harrow-quartet : power-light fail nothing
        quartet can't get a picture => harrow-quartet : picture fail nothing
        quartet sound crackles when the wheel turns => harrow-quartet : speaker fail crackle ? wheel, turns
        duet faint picture => harrow-duet : picture fail dim
        duet no sound at all => harrow-duet : speaker fail nothing
        duet dead, got wet => harrow-duet : power-light fail nothing; mark liquid
        leaflet loses saves => tarn-leaflet : ? loses, saves
        any handheld no light => generic-handheld : power-light fail nothing
        any console blinks => generic-console : start-up fail blinks
        any disc console skips => generic-disc-console : disc fail skips
        """;



    public static TheoryData<string, string> Lines =>
        new(
            string.Join('\n', Said, SaidLater, SaidAgain, SaidOnceMore).Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)
                .Select(l => l.Split(" => "))
                .Select(l => (l[0], l[1]))
        );

    [Theory]
    [MemberData(nameof(Lines))]
    public void A_line_says_what_it_says_and_no_more(string text, string meaning)
    {
        var said = Understanding.Of(text, TradeLibrary.Shipped.Profiles, TradeLibrary.Shipped);
        Told(said).ShouldBe(meaning, text);
    }

    [Fact]
    public void At_least_a_hundred_and_fifty_ways_of_saying_it_are_tried() => Lines.Count.ShouldBeGreaterThanOrEqualTo(150);

    [Fact]
    public void Recapped_by_another_hand_is_every_section()
    {
        var said = Understanding.Of("sextant previous owner recapped it", TradeLibrary.Shipped.Profiles, TradeLibrary.Shipped);
        said.Facts.Select(f => $"{f.Part} {f.Method}")
            .ShouldBe(said.Profile!.Parts.Where(p => p.Kind == "capacitors").Select(p => $"{p.Id} recap-all"), ignoreOrder: true);
        said.Unsure.ShouldBeEmpty();
    }

    [Fact]
    public void Charges_but_dead_is_never_a_charging_that_fails()
    {
        // The worst that was seen: the opposite of what was said, and the diagnosis went after the charger.
        foreach (
            var text in new[]
            {
                "leaflet charges but nothing when switched on",
                "minnow charges but dead",
                "leaflet charges, light goes to full, dead",
            }
        )
        {
            var said = Understanding.Of(text, TradeLibrary.Shipped.Profiles, TradeLibrary.Shipped);
            said.Facts.Single(f => f.Function?.Value == "charging").Passed.ShouldBeTrue(text);
            said.Complaint!.Function!.Value.Value.ShouldBe("power-light", text);
        }
    }

    [Fact]
    public void Whatever_is_typed_is_heard_without_harm()
    {
        foreach (
            var text in new[]
            {
                "",
                "   ",
                "|||",
                "but but but",
                "not",
                new string('a', 5000),
                "quartet not not not no no",
                "quartet 1 in 0",
            }
        )
            Understanding.Of(text, TradeLibrary.Shipped.Profiles, TradeLibrary.Shipped).Facts.ShouldBeEmpty(text);
    }

    private static string Told(Understanding said)
    {
        var facts = string.Join("; ", said.Facts.Select(Words));
        var unsure = said.Unsure.Count > 0 ? $" ? {string.Join(", ", said.Unsure)}" : "";
        return $"{said.Profile?.Id.ToString() ?? "no model"} :{(facts.Length > 0 ? $" {facts}" : "")}{unsure}";
    }

    private static string Words(SaidFact fact) =>
        fact switch
        {
            { Mark: { } mark } => $"mark {mark}",
            { Part: { } part, Method: { } method } => $"{part} claimed {method}",
            { Provoked: true } => $"{fact.Function} moves",
            _ => $"{fact.Function} {(fact.Passed ? "pass" : "fail")}"
                + (fact.Look is { } look ? $" {look}" : "")
                + (fact.Starts > 1 ? $" x{fact.Starts}" : ""),
        };
}
