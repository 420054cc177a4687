namespace Mendro.Core.Planning;

/// <content>Ways of saying that it is dead, goes off, or starts wrongly.</content>
internal static partial class Lexicon
{
    private static Phrase[] OfPower =>
    [
        // Nothing at all.
        new("no sign|signs of life", "power-light,start-up,cartridge", "nothing"),
        new("no life", "power-light,start-up,cartridge", "nothing"),
        new("nothing works|work at? all?", "power-light,buttons", "nothing"),
        new("no lights", "power-light", "nothing"),
        new("still nothing", "power-light,start-up,cartridge", "nothing"),
        new("light|led stays on", "power-light", "pass"),
        new("blank", "cartridge", "fail"),
        new("bricked", "power-light,start-up,cartridge", "nothing"),
        new("not come to? life", "power-light,start-up", "nothing"),
        new("no output", "output,video-out", "nothing"),
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
        new("solid|steady|constant red|green? light|led", "power-light", "pass"),
        new("light|led does nothing", "power-light", "nothing"),
        new("light|led stays off|dark", "power-light", "nothing"),
        new("light|led not come on", "power-light", "nothing"),
        new("not light up", "power-light", "nothing"),
        new("charge|charging light|led comes|goes|is on", "charging", "pass"),
        new("charge|charging light|led comes|goes|is|lights|flashes on|up? for a|one|about second|moment|instant|bit", "charging", "one-second"),
        new("charge|charging light|led comes|goes|lights|flashes on|up? briefly|momentarily", "charging", "one-second"),
        new("lights up red|green|orange|amber", "power-light", "pass"),
        new("not stay on", "power-light,start-up", "on-then-off"),
        // On, then off.
        new("on then off", "power-light,start-up", "on-then-off"),
        new("on and off again?", "power-light,start-up", "on-then-off"),
        new("on and|then right|straight|immediately|directly off again?", "power-light,start-up", "on-then-off"),
        new(
            "powers|turns|switches|comes up|on then|and off|dies|out after|within _ second|seconds|moments",
            "power-light,start-up",
            "on-then-off"
        ),
        new("powers|turns|switches|comes up then|and off|dies|out", "power-light,start-up", "on-then-off"),
        new("orange|amber|charge light|led flashes|blinks|comes on? then|and goes? off|out", "charging", "one-second"),
        new(
            "turns|switches|goes|shuts|powers off|down at|straight|right|again|immediately once|away|after?",
            "power-light,start-up",
            "on-then-off"
        ),
        new("turns|switches|goes|shuts itself off", "power-light,start-up", "on-then-off"),
        new("flickers|flicker on and off", "power-light,start-up", "on-then-off"),
        new("light? goes|turns|comes red|green|orange then|and straight|right|immediately? off|out", "power-light", "on-then-off"),
        new("shuts|switches|turns|cuts down|off|out after|within a? one|few|couple|some second|seconds|moment", "power-light,start-up", "on-then-off"),
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
        new("light|led comes|goes|lights on? red|green|orange? for a|one|about? second", "power-light", "one-second"),
        new("dim|weak|faint light|led", "power-light", "dim"),
        new("light|led is? dim|weak|faint", "power-light", "dim"),
        new("light|led|lamp glows weakly|dimly|faintly", "power-light", "dim"),
        new("light|led blinks|flashes|blinking|flashing", "power-light", "blinks"),
        new("blinking|flashing|blinks|flashes light|led", "power-light", "blinks"),
        // Start.
        new("blinks|flashes|blinking|flashing about? once|every a? second", "start-up,cartridge,power-light", "blinks"),
        new("blinks|flashes|blinking|flashing", "start-up,cartridge,power-light", "blinks"),
        new("keeps resetting|restarting|rebooting|blinking", "start-up,cartridge", "blinks"),
        new("resets|restarts itself|constantly|repeatedly", "start-up,cartridge", "blinks"),
        new("garbled|scrambled|corrupt*|jumbled|glitched logo|title", Start, "garbled-logo"),
        new("logo|title is? garbled|scrambled|corrupt*|jumbled|glitched|wrong", Start, "garbled-logo"),
        new("black|dark|solid box|square|bar|block", Start, "black-box"),
        new("solid black box|square|bar|block", Start, "black-box"),
        new("logo|title then|and blank|nothing|black|freezes", Start, "logo-then-blank"),
        new("logo|title fine|ok|good then blank|nothing|black|freezes", Start, "logo-then-blank"),
        new("logo|title shows|appears|comes|loads up? then|and? it? freezes|blank|nothing|black|stops|hangs|dies", Start, "logo-then-blank"),
        new("logo|title then|and white", Start, "white-after"),
        new("logo|title fine|ok|good then white", Start, "white-after"),
        new("white after|behind the? logo|title", Start, "white-after"),
        new("goes white screen? after the? logo|title", Start, "white-after"),
        new("white screen after the? logo|title", Start, "white-after"),
        new("stops|freezes|hangs after|behind|at|on the logo|title", Start, "logo-then-blank"),
        new("screen|picture stays|remains white|blue|grey|green|red|pink|purple", "start-up,picture,video-out,cartridge", "solid-colour"),
        new("solid|plain|single colour screen?", "start-up,picture,video-out,cartridge", "solid-colour"),
        new("white|blue|grey|green|red|pink|purple screen", "start-up,picture,video-out,cartridge", "solid-colour"),
        new("screen is? all? white|blue|grey|green|red|pink|purple", "start-up,picture,video-out,cartridge", "solid-colour"),
        new("not start|boot", Start, "fail"),
        new("not start|boot up", Start, "fail"),
        new("seen|recognised|detected without a? logo|title", "cartridge", "seen-no-logo"),
        new("no logo|title", Start, "fail"),
        new("cartridge|game|card not seen|recognised|read|detected", Start, "black-box"),
        new("not read|see|recognise|detect|load|play cartridge*|game*|card*", "cartridge,disc,start-up", "fail"),
        new("not read|reading", "cartridge,disc,start-up", "fail"),
        new("never loads|load|starts|start|boots|boot", "disc", "not-read"),
        new("never loads|load|starts|start|boots|boot", Start, "fail"),
        new("screen goes|turns black|blank|dark after|behind logo|title", Start, "logo-then-blank"),
        new("boots to solid|plain? white|blue|grey|green|red|pink|purple", "start-up,picture,video-out,cartridge", "solid-colour"),
        new("stops|quits|dies|fails|crashes|freezes work? after|within about? _ minutes|mins", "start-up", "warm"),
        new("gets hot|warm then|and crashes|dies|freezes|stops", "start-up", "warm"),
        new("crashes|freezes|dies|stops when|once|after is|gets? hot|warm", "start-up", "warm"),
        new(
            "works|runs|plays|lasts for? _ minutes|minute|mins then|and|before it? goes|turns|shuts|switches|cuts|dies|freezes|hangs|crashes|stops off|out?",
            "start-up",
            "warm"
        ),
        new("memory card not seen|recognised|read|detected|found", "saving", "cannot-save"),
        new("not see|read|find|detect|recognise memory card", "saving", "cannot-save"),
        new("memory card not save|saves|work*", "saving", "cannot-save"),
    ];
}
