namespace Mendro.Core.Planning;

/// <summary>A way people say that something fails, works or looks a certain way.</summary>
/// <param name="Pattern">Words in order; <c>a|b</c> for either, <c>x*</c> for a beginning, <c>_</c> for any one word, <c>?</c> at the end
/// for a word that may be missing.</param>
/// <param name="Kinds">Kinds of function it is said of, the likeliest first; the first that the model has is meant. <c>~x</c> is a function
/// with this word in its name; none is whichever the clause speaks of.</param>
/// <param name="Look">Look, <c>pass</c> for works, <c>fail</c> for fails with no look told; empty for words that are heard and say
/// nothing by themselves.</param>
internal sealed record Phrase(string Pattern, string Kinds, string Look)
{
    /// <summary>Words of the pattern.</summary>
    public IReadOnlyList<string> Words { get; } = Pattern.Split(' ');
}

/// <summary>
/// How people say at the door what is wrong (common practice, no source). Longer ways of saying come before shorter ones, so that
/// “garbled logo” is not taken for a logo.
/// </summary>
internal static partial class Lexicon
{
    private const string Start = "start-up,cartridge";
    private const string Shown = "picture,video-out";

    /// <summary>Ways of saying, by the length of the pattern.</summary>
    public static IReadOnlyList<Phrase> Phrases { get; } = (
            (Phrase[])
                [
                    // Nothing at all.
                    new("no sign|signs of life", "power-light,start-up,cartridge", "nothing"),
                    new("nothing happens", "power-light,start-up", "nothing"),
                    new("nothing else happens?", "start-up,cartridge", "nothing"),
                    new("nothing at all", "power-light,start-up,cartridge", "nothing"),
                    new("nothing when|if switched|turned|powered on", "power-light,start-up", "nothing"),
                    new("nothing on power up", "power-light,start-up", "nothing"),
                    new("completely|totally|stone dead", "power-light,start-up,cartridge,charging", "nothing"),
                    new("dead", "power-light,start-up,cartridge,buttons,link", "nothing"),
                    new("not power|turn|switch|come|go on|up", "power-light,start-up", "nothing"),
                    new("not power", "power-light,start-up", "nothing"),
                    new("no power", "power-light,start-up", "nothing"),
                    new("no power|status? light|led|lamp", "power-light", "nothing"),
                    new("no light|led when|if plugged|charging|connected in?", "charging,power-light", "nothing"),
                    new("light|led is? solid|steady red|green?", "power-light", "pass"),
                    new("light|led does nothing", "power-light", "nothing"),
                    new("light|led stays off|dark", "power-light", "nothing"),
                    new("light|led not come on", "power-light", "nothing"),
                    new("not light up", "power-light", "nothing"),
                    // On, then off.
                    new("on then off", "power-light,start-up", "on-then-off"),
                    new("on and off again?", "power-light,start-up", "on-then-off"),
                    new(
                        "turns|switches|goes|shuts|powers off|down at|straight|right|again|immediately once|away|after?",
                        "power-light,start-up",
                        "on-then-off"
                    ),
                    new("turns|switches|goes|shuts itself off", "power-light,start-up", "on-then-off"),
                    new("dies at|right|straight once|away|off", "power-light,start-up", "on-then-off"),
                    new("dies after|within a? one|few|couple? second|seconds|minute|moments", "power-light,start-up", "on-then-off"),
                    new(
                        "comes|turns|goes|powers on for a? split? second|moment|instant and|then dies|off|out",
                        "power-light,start-up",
                        "on-then-off"
                    ),
                    new("for a split second", "power-light,start-up", "on-then-off"),
                    new(
                        "flashes|blinks|lights|glows once|briefly when|if|as i? plug|plugged|connect|connected",
                        "charging,power-light",
                        "one-second"
                    ),
                    new(
                        "for a|one second|moment when|if|as i? plug|plugged|connect|connected charger|adapter?",
                        "charging,power-light",
                        "one-second"
                    ),
                    new("light|led blinks|flashes|blinking|flashing on? and off", "power-light", "blinks"),
                    new(
                        "light|led flashes|blinks|comes|lights|glows on? once|briefly when|if|as i? plug|plugged|connect|connected",
                        "charging,power-light",
                        "one-second"
                    ),
                    new(
                        "light|led comes|flashes on? for a|one|about second when|if|as i? plug|plugged|connect|connected charger|adapter?",
                        "charging,power-light",
                        "one-second"
                    ),
                    new("no response|reaction at? all?", "power-light,buttons,start-up,cartridge", "nothing"),
                    new("light|led for a|one|about second", "power-light", "one-second"),
                    new("dim|weak|faint light|led", "power-light", "dim"),
                    new("light|led is? dim|weak|faint", "power-light", "dim"),
                    new("light|led blinks|flashes|blinking|flashing", "power-light", "blinks"),
                    new("blinking|flashing|blinks|flashes light|led", "power-light", "blinks"),
                    // Start.
                    new("blinks|flashes|blinking|flashing about? once|every a? second|sec", "start-up,cartridge,power-light", "blinks"),
                    new("blinks|flashes|blinking|flashing", "start-up,cartridge,power-light", "blinks"),
                    new("resets|restarts itself|constantly|repeatedly", "start-up,cartridge", "blinks"),
                    new("garbled|scrambled|corrupt*|jumbled|glitched logo|title", Start, "garbled-logo"),
                    new("logo|title is? garbled|scrambled|corrupt*|jumbled|glitched|wrong", Start, "garbled-logo"),
                    new("black|dark|solid box|square|bar|block", Start, "black-box"),
                    new("solid black box|square|bar|block", Start, "black-box"),
                    new("logo|title then|and blank|nothing|black|freezes", Start, "logo-then-blank"),
                    new("logo|title fine|ok|good then blank|nothing|black|freezes", Start, "logo-then-blank"),
                    new("logo|title then|and white", Start, "white-after"),
                    new("logo|title fine|ok|good then white", Start, "white-after"),
                    new("white after|behind the? logo|title", Start, "white-after"),
                    new("goes white screen? after the? logo|title", Start, "white-after"),
                    new("white screen after the? logo|title", Start, "white-after"),
                    new("stops|freezes|hangs after|behind|at|on the logo|title", Start, "logo-then-blank"),
                    new("solid|plain|single colour screen?", "start-up,picture,video-out,cartridge", "solid-colour"),
                    new("white|blue|grey|green|red|pink|purple screen", "start-up,picture,video-out,cartridge", "solid-colour"),
                    new("screen is? all? white|blue|grey|green|red|pink|purple", "start-up,picture,video-out,cartridge", "solid-colour"),
                    new("not start|boot", Start, "fail"),
                    new("not start|boot up", Start, "fail"),
                    new("seen|recognised|detected without a? logo|title", "cartridge", "seen-no-logo"),
                    new("no logo|title", Start, "fail"),
                    new("cartridge|game|card not seen|recognised|read|detected", Start, "black-box"),
                    new("not read|see|recognise|detect|load|play cartridge*|game*|card*", Start, "fail"),
                    new("not read|reading", "cartridge,disc,start-up", "fail"),
                    new("never loads|load|starts|start", "disc", "not-read"),
                    new("never loads|load|starts|start", Start, "fail"),
                    new(
                        "works|runs|plays|lasts for? _ minutes|minute|mins then|and|before goes|turns|shuts|switches|cuts|dies off|out?",
                        "start-up",
                        "warm"
                    ),
                    new("memory card not seen|recognised|read|detected|found", "saving", "cannot-save"),
                    new("memory card not save|saves|work*", "saving", "cannot-save"),
                    // Picture.
                    new("no picture|image|display|video", Shown, "nothing"),
                    new("dead screen|display", Shown, "nothing"),
                    new("screen|picture|display is? faded|washed out?", "picture", "dim"),
                    new("screen|picture full of? garbage|gibberish|rubbish", "picture", "garbled-sprites"),
                    new("screen|picture full of? garbage|gibberish|rubbish", "video-out", "garbled"),
                    new("garbage|gibberish on screen|display", "picture", "garbled-sprites"),
                    new("garbage|gibberish on screen|display", "video-out", "garbled"),
                    new("nothing on|at screen|display", Shown, "nothing"),
                    new("blank|plain|solid coloured|colour screen|picture", "start-up,picture,video-out,cartridge", "solid-colour"),
                    new("vertical lines|line|stripes missing|gone", "picture", "vertical-lines"),
                    new("horizontal lines|line|stripes missing|gone", "picture", "horizontal-lines"),
                    new("blank|black|dark|empty screen|display|picture", Shown, "nothing"),
                    new("screen|display|picture is|stays|remains? blank|black|dark|empty", Shown, "nothing"),
                    new("missing|dead vertical lines", "picture", "vertical-lines"),
                    new("not get|have picture|image|video", Shown, "nothing"),
                    new("not get|have sound|audio", "speaker", "nothing"),
                    new("not respond|react to? buttons|presses", "buttons", "nothing"),
                    new("vertical lines|line|stripes", "picture", "vertical-lines"),
                    new("dead|missing rows|row", "picture", "horizontal-lines"),
                    new("rows|row dead|missing|gone", "picture", "horizontal-lines"),
                    new("dead|missing columns|column", "picture", "vertical-lines"),
                    new("columns|column dead|missing|gone", "picture", "vertical-lines"),
                    new("lines|line|stripes down|up screen|picture|display?", "picture", "vertical-lines"),
                    new("lines|line|stripes across screen|picture|display?", "picture", "horizontal-lines"),
                    new("screen goes|turns white|blue|grey|green|red|pink|purple", "start-up,picture,video-out,cartridge", "solid-colour"),
                    new("horizontal lines|line|stripes", "picture", "horizontal-lines"),
                    new("garbled|wrong|scrambled|corrupt* sprites|figures|graphics|characters", "picture", "garbled-sprites"),
                    new("garbled|wrong|scrambled|corrupt* sprites|figures|graphics|characters", "video-out", "garbled"),
                    new("garbled|wrong|scrambled|corrupt* sprites|figures|graphics|characters", Start, "fail"),
                    new("garbled|scrambled|corrupt* picture|image|screen", "picture", "garbled-sprites"),
                    new("garbled|scrambled|corrupt* picture|image|screen", "video-out", "garbled"),
                    new("garbled|scrambled|corrupt* picture|image|screen", Start, "fail"),
                    new("picture|image|graphics is? garbled|scrambled|corrupt*", "picture", "garbled-sprites"),
                    new("picture|image|graphics is? garbled|scrambled|corrupt*", "video-out", "garbled"),
                    new("picture|image|graphics is? garbled|scrambled|corrupt*", Start, "fail"),
                    new("garbled", "start-up,cartridge,picture", "garbled-logo"),
                    new("flickers|flicker|flickering|flickery", "picture,video-out,backlight", "flicker"),
                    new("dim|faint|dark|pale picture|screen|image|display", "picture,backlight", "dim"),
                    new("picture|screen|image|display is? very? dim|faint|pale", "picture,backlight", "dim"),
                    new("burnt|burned|rotted|rotten screen|display|polariser|film", "picture", "burnt"),
                    new("black|dark blot|spot|stain on screen|display", "picture", "burnt"),
                    new("cracked|broken|smashed screen|display|panel", "picture", "burnt"),
                    new("no|dark|dead backlight", "backlight", "nothing"),
                    new("backlight is? out|off|dead|gone|dark", "backlight", "nothing"),
                    new("dim|weak|pink backlight", "backlight", "dim"),
                    new("backlight is? dim|weak|pink", "backlight", "dim"),
                    new("picture|image|screen rolls|rolling|jumps", "video-out,picture", "flicker"),
                    new("garbled|scrambled|corrupt* video|output", "video-out", "garbled"),
                    new("video|output is? garbled|scrambled|corrupt*", "video-out", "garbled"),
                    new("no colour", "video-out", "no-colour"),
                    new("black and white", "video-out", "no-colour"),
                    new("bars|noise|hum in|on|across|through picture|screen", "video-out,picture", "buzz"),
                    // Sound.
                    new("no sound|audio|speaker", "speaker,phones", "nothing"),
                    new("no sound|audio with|through|in|from|on headphones|phones|earphones", "phones", "nothing"),
                    new("no sound|audio unless|without headphones|phones|earphones plugged? in?", "speaker", "nothing"),
                    new("weak|quiet|low|faint speaker", "speaker", "quiet"),
                    new("hear sound|music|audio|game", "speaker", "pass"),
                    new(
                        "crackl*|scratchy sound|audio? when|as|if i? turn|turned|move|moved|adjust|touch volume|wheel|knob|dial|slider",
                        "speaker,phones,wheel",
                        "crackle"
                    ),
                    new("when|as|if i? turn|turned|turning|move|moved|adjust|touch volume|wheel|knob|dial|slider", "", ""),
                    new("silent|mute", "speaker,phones", "nothing"),
                    new("sound|audio|speaker is|stays? dead|gone|out|missing|silent", "speaker", "nothing"),
                    new("no headphones|phones sound?", "phones", "nothing"),
                    new("quiet|low|faint|weak sound|audio|volume", "speaker,phones", "quiet"),
                    new("sound|audio|volume|speaker is? very|too? quiet|low|faint|weak", "speaker,phones", "quiet"),
                    new("quiet", "speaker,phones", "quiet"),
                    new("crackles|crackly|crackling|crackle|scratchy", "speaker,phones,wheel", "crackle"),
                    new("buzzes|buzz|buzzing|hum|hums|humming", "speaker,video-out,phones", "buzz"),
                    new("speaker rattles|distorts|distorted|rattling", "speaker", "rattle"),
                    new("distorted sound|audio", "speaker", "rattle"),
                    new("one side|ear|channel only", "phones", "one-side"),
                    new("only one side|ear|channel", "phones", "one-side"),
                    // Buttons.
                    new("no|none buttons|button respond*|work*|answer*", "buttons", "nothing"),
                    new("a|b|c|x|y|l|r|start|select|fire button|key is? sticky|sticks|sticking", "buttons", "stuck"),
                    new("stick drifts|drifting|wanders", "stick", "drifts"),
                    new("stick jumps|jumpy|jitters", "stick", "jumps"),
                    new("left|right|up|down on d-pad|dpad|pad sticks|stuck", "buttons", "stuck"),
                    new("need|needs pushing|pressing very? hard|firmly", "buttons", "hard-press"),
                    new("start|select and|or select|start are|is? dead|not", "buttons", "one-dead"),
                    new("shoulder|trigger|bumper button|buttons? is|are? dead|broken|stuck|not", "~shoulder,~trigger,buttons", "one-dead"),
                    new("left|right shoulder|trigger|bumper is? dead|broken|not", "~shoulder,~trigger,buttons", "one-dead"),
                    new("left|right shoulder|trigger|bumper is? stuck|jammed", "~shoulder,~trigger,buttons", "stuck"),
                    new("l|r button|trigger? is? dead|broken|gone", "~shoulder,~trigger,buttons", "one-dead"),
                    new("l|r button|trigger? not work*|respond*|answer*", "~shoulder,~trigger,buttons", "one-dead"),
                    new("a|b|c|x|y|z|start|select|fire|jump|left|right|up|down button|key is? dead|broken|gone", "buttons", "one-dead"),
                    new(
                        "a|b|c|x|y|z|start|select|fire|jump|left|right|up|down button|key not work*|respond*|answer*",
                        "buttons",
                        "one-dead"
                    ),
                    new("d-pad|dpad|pad|direction* left|right|up|down not work*|respond*|answer*", "buttons", "one-dead"),
                    new("d-pad|dpad|pad|direction* left|right|up|down is? dead|gone", "buttons", "one-dead"),
                    new("left|right|up|down on d-pad|dpad|pad not work*|respond*|answer*", "buttons", "one-dead"),
                    new("only works|work|answers in|at? middle|centre", "reset,buttons", "dead-centre"),
                    new(
                        "only works|work|answers|responds if|when you|i? press|push|pressed|pushed very|really? hard",
                        "buttons,reset",
                        "hard-press"
                    ),
                    new("one|a|some|two|few button|buttons dead|broken|not", "buttons", "one-dead"),
                    new("one|a|some|two|few button|buttons not work*|respond*|answer*", "buttons", "one-dead"),
                    new("one|two|some button|buttons", "buttons", "one-dead"),
                    new("button|buttons|pad|key not work*|respond*|answer*", "buttons", "fail"),
                    new("button|buttons|key|keys is|are? dead", "buttons", "one-dead"),
                    new("press|push|hit hard|hammer*", "buttons", "hard-press"),
                    new("hard to? press|push", "buttons", "hard-press"),
                    new("needs|need a? hard|firm press|push", "buttons", "hard-press"),
                    new("buttons on one side", "buttons", "one-side"),
                    new("button|pad|direction|key is? stuck", "buttons", "stuck"),
                    new("as if held down?", "buttons", "stuck"),
                    new("dead|only centre|middle", "reset,buttons", "dead-centre"),
                    new("reset not work*", "reset", "nothing"),
                    new("reset does nothing", "reset", "nothing"),
                    // Charging.
                    new("not charge|charging", "charging", "nothing"),
                    new("no charge|charging light|led?", "charging", "nothing"),
                    new("charge|charging light|led for a|one|about second", "charging", "one-second"),
                    new("charge|charging light|led comes on then|and off|out", "charging", "one-second"),
                    new("never|not gets|comes|reach*|get|fully to? full|charged", "charging", "never-full"),
                    new("charges|charging only when|if held|wiggled|pressed", "charging", "pressed"),
                    new("charge|charging light|led stays|remains on forever|always?", "charging", "never-full"),
                    new("charge|charging light|led never goes out|off|green", "charging", "never-full"),
                    new(
                        "only charges|charge|charging when|if|with plug|cable|lead|cord? is? held|wiggled|pushed|pressed|angled|bent",
                        "charging",
                        "pressed"
                    ),
                    new("only charges|charge|charging at an? angle", "charging", "pressed"),
                    new("plug|cable|lead|cord held|is? at an? angle", "charging", "pressed"),
                    // Saving.
                    new("not save|saves|saving", "saving", "cannot-save"),
                    new("not keep|hold save*|saves|game*", "saving", "nothing"),
                    new("loses|lost|forgets save*|saves|game*|progress", "saving", "nothing"),
                    new("save|saves is|are? gone|lost|wiped", "saving", "nothing"),
                    new("clock is? lost|wrong|resets", "saving", "nothing"),
                    new("loses|forgets time|clock|date|settings", "saving", "nothing"),
                    // Discs and trays.
                    new("skips|skipping", "disc", "skips"),
                    new("noisy|loud|grinding drive|disc", "disc", "noisy"),
                    new("noisy|grinding", "disc", "noisy"),
                    new("drive is? noisy|loud|grinding", "disc", "noisy"),
                    new("long|slow loading|load", "disc,storage", "long-loading"),
                    new("loads slowly|slow|forever", "disc,storage", "long-loading"),
                    new("disc|disk not spin*|turn*", "disc", "nothing"),
                    new("no disc|disk seen|found|detected?", "disc", "not-read"),
                    new("disc|disk not seen|read|found|recognised|detected", "disc", "not-read"),
                    new("not read|see|recognise|load|play disc*|disk*", "disc", "not-read"),
                    new("spins|turns with lid|tray open", "disc", "spins-open"),
                    new("tray|lid sticks|stuck|jams|jammed", "tray", "sticks"),
                    new("lid|tray open message|error|warning", "tray", "not-noticed"),
                    new("thinks|says lid|tray is? open", "tray", "not-noticed"),
                    new("tray|lid not open|move|eject", "tray", "nothing"),
                    new("tray|lid|door not stay|stays|latch|latches shut|closed|down?", "tray", "sticks"),
                    new("tray|lid|door not shut|close|latch", "tray", "sticks"),
                    new("clicks|clicking", "storage", "clicks"),
                    new("clicking|clicks disk|drive", "storage", "clicks"),
                    // Ports.
                    new("pad|controller|port not seen|work*|recognised|detected", "link", "nothing"),
                    new("port|controller is? dead", "link", "nothing"),
                    new("link not work*", "link", "nothing"),
                    // It comes and goes.
                    new("only when|if i? press|push|hold|wiggle|lean|squeeze|move|touch|tap|knock|shake|bump|tilt|bend", "", "pressed"),
                    new("only works|work|there|comes when|if pressed|pushed|held|wiggled|leaned|squeezed|moved|touched", "", "pressed"),
                    new("only when|if pressed|pushed|held|wiggled|leaned|squeezed|moved|touched", "", "pressed"),
                    new("unless i? press|push|hold|wiggle|lean|squeeze|touch", "", "pressed"),
                    new("wobble|wiggle|jiggle _? and|until it? starts|works|boots|comes", "", "pressed"),
                    new("unless pressed|pushed|held|wiggled|leaned|squeezed", "", "pressed"),
                    new("when|if i? press|push|hold|wiggle|lean|squeeze|move|touch|tap|knock|shake|bump|tilt|bend", "", "pressed"),
                    new("with|under a? weight|finger", "", "pressed"),
                    new("must|needs|has to? be? held|pressed|pushed|wiggled", "", "pressed"),
                    new(
                        "when pressed|pushed|held|wiggled|leaned|squeezed|moved|touched|tapped|knocked|shaken|bumped|tilted",
                        "",
                        "pressed"
                    ),
                    new("when|if cord|cable|lead|wire|plug is? moved|bent|wiggled|touched|held", "", "pressed"),
                    new("when|once|after warm|hot", "start-up,picture", "warm"),
                    new("after it? warms|heats up?", "start-up,picture", "warm"),
                ]
        ).OrderByDescending(p => p.Words.Count(w => !w.EndsWith('?'))).ThenByDescending(p => p.Words.Count).ToList();
}
