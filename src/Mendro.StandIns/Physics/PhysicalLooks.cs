using Mendro.Core.Library;

namespace Mendro.StandIns.Physics;

/// <summary>
/// How a failure looks, by what is really missing (common practice, no source): told here once more and apart from the library's
/// weights, so that the advice is not judged by its own picture.
/// </summary>
public static class PhysicalLooks
{
    /// <summary>Looks of a part that works badly or passes no signal, by part kind, failure mode and kind of function; the mode <c>*</c>
    /// stands for all. A kind of function that is not named is not harmed by what merely works badly.</summary>
    private static readonly Dictionary<(string Kind, string Mode, string Function), string[]> Signals = new()
    {
        [("cartridge-connector", "*", "start-up")] = ["black-box", "garbled-logo", "garbled-logo", "solid-colour", "logo-then-blank"],
        [("cartridge-connector", "*", "cartridge")] = ["black-box", "garbled-logo"],
        [("test-cartridge", "*", "start-up")] = ["black-box", "garbled-logo", "black-box"],
        [("test-cartridge", "*", "cartridge")] = ["black-box", "garbled-logo"],
        [("cartridge-edge", "*", "cartridge")] = ["black-box", "garbled-logo", "black-box", "logo-then-blank"],
        [("test-console", "*", "cartridge")] = ["black-box", "garbled-logo"],
        [("chip-legs", "*", "cartridge")] = ["garbled-logo", "garbled-logo", "black-box", "logo-then-blank"],
        [("chip-legs", "*", "picture")] = ["garbled-sprites"],
        [("trace", "*", "cartridge")] = ["garbled-logo", "black-box"],
        [("logic", "*", "cartridge")] = ["black-box", "garbled-logo", "solid-colour"],
        [("logic", "*", "start-up")] = ["solid-colour", "nothing", "garbled-logo"],
        [("logic", "*", "picture")] = ["solid-colour", "nothing", "garbled-sprites"],
        [("logic", "*", "video-out")] = ["solid-colour", "nothing"],
        [("auth-chip", "*", "start-up")] = ["blinks"],
        [("ribbon", "*", "picture")] = ["nothing", "solid-colour", "flicker", "pressed"],
        [("ribbon", "*", "buttons")] = ["one-side"],
        [("ribbon", "*", "disc")] = ["nothing", "not-read"],
        [("ribbon", "*", "storage")] = ["nothing", "freezes"],
        [("joint", "*", "speaker")] = ["nothing", "pressed"],
        [("joint", "*", "phones")] = ["nothing", "pressed"],
        [("display-joint", "*", "picture")] = ["vertical-lines"],
        [("display-ribbon", "*", "picture")] = ["horizontal-lines"],
        [("display-panel", "burnt", "picture")] = ["burnt"],
        [("display-panel", "broken", "picture")] = ["burnt", "nothing", "horizontal-lines"],
        [("backlight", "*", "backlight")] = ["dim", "nothing", "nothing"],
        [("tube-backlight", "worn", "backlight")] = ["dim", "nothing", "dim", "flicker"],
        [("tube-backlight", "broken", "backlight")] = ["nothing"],
        [("inverter", "*", "backlight")] = ["nothing"],
        [("side-joint", "*", "picture")] = ["horizontal-lines"],
        [("display-bias", "*", "picture")] = ["nothing", "dim"],
        [("drive-mechanics", "belt", "tray")] = ["sticks", "sticks", "nothing"],
        [("drive-mechanics", "gear", "disc")] = ["noisy", "skips", "long-loading"],
        [("drive-mechanics", "gear", "tray")] = ["sticks"],
        [("drive-mechanics", "motor", "disc")] = ["nothing"],
        [("drive-mechanics", "motor", "tray")] = ["nothing"],
        [("modulator", "*", "video-out")] = ["nothing", "buzz", "no-colour"],
        [("vibration-motor", "*", "vibration")] = ["nothing"],
        [("clock-capacitor", "*", "saving")] = ["nothing"],
        [("transformer", "weak", "output")] = ["low", "buzz"],
        [("wheel", "dirty", "speaker")] = ["crackle", "crackle", "quiet"],
        [("wheel", "dirty", "phones")] = ["crackle"],
        [("wheel", "dirty", "wheel")] = ["crackle"],
        [("wheel", "dirty", "picture")] = ["dim"],
        [("wheel", "cracked-joint", "speaker")] = ["nothing", "pressed", "crackle"],
        [("wheel", "cracked-joint", "phones")] = ["nothing", "pressed"],
        [("wheel", "cracked-joint", "wheel")] = ["nothing"],
        [("speaker", "torn", "speaker")] = ["rattle", "rattle", "quiet"],
        [("speaker", "wire-off", "speaker")] = ["nothing"],
        [("phones-socket", "cracked", "phones")] = ["one-side", "pressed", "nothing"],
        [("phones-socket", "cracked", "speaker")] = ["nothing", "pressed"],
        [("phones-socket", "stuck", "speaker")] = ["nothing"],
        [("button-pad", "dirty", "buttons")] = ["hard-press", "one-dead"],
        [("button-pad", "worn", "buttons")] = ["hard-press", "one-dead"],
        [("button-pad", "misaligned", "buttons")] = ["one-dead", "stuck"],
        [("push-switch", "weak", "reset")] = ["dead-centre", "dead-centre", "nothing"],
        [("push-switch", "weak", "buttons")] = ["one-dead", "hard-press"],
        [("lithium-pack", "unbalanced", "charging")] = ["never-full"],
        [("port", "*", "link")] = ["nothing", "pressed"],
        [("port", "*", "saving")] = ["cannot-save"],
        [("port", "*", "buttons")] = ["nothing"],
        [("cord", "*", "buttons")] = ["nothing", "one-dead"],
        [("cord", "*", "link")] = ["pressed", "nothing"],
        [("save-cell", "*", "saving")] = ["nothing"],
        [("socket", "*", "video-out")] = ["pressed", "nothing"],
        [("socket", "*", "speaker")] = ["pressed", "nothing"],
        [("socket", "*", "link")] = ["pressed", "nothing"],
        [("test-cable", "*", "video-out")] = ["pressed", "nothing"],
        [("test-cable", "*", "speaker")] = ["nothing", "buzz"],
        [("test-screen", "*", "video-out")] = ["nothing"],
        [("test-screen", "*", "speaker")] = ["nothing"],
        [("optical-drive", "dry", "disc")] = ["noisy", "long-loading", "skips"],
        [("optical-drive", "dirty-lens", "disc")] = ["skips", "not-read", "long-loading"],
        [("optical-drive", "laser-worn", "disc")] = ["not-read", "skips"],
        [("test-disc", "*", "disc")] = ["skips", "not-read"],
        [("hard-disk", "*", "storage")] = ["clicks", "freezes", "long-loading"],
        [("hard-disk", "*", "start-up")] = ["logo-then-blank"],
        [("lid-switch", "*", "disc")] = ["nothing", "spins-open"],
        [("lid-switch", "*", "tray")] = ["not-noticed", "sticks"],
        [("adapter", "wrong", "video-out")] = ["buzz"],
        [("stick", "dirty", "stick")] = ["drifts", "jumps"],
        [("stick", "worn", "stick")] = ["drifts", "short"],
        [("stick", "dead", "stick")] = ["nothing"],
        [("port", "*", "video-out")] = ["nothing", "pressed"],
        [("port", "*", "speaker")] = ["nothing", "pressed"],
        [("cord", "*", "video-out")] = ["pressed", "nothing", "flicker"],
        [("cord", "*", "speaker")] = ["nothing", "pressed"],
        [("amplifier", "dead", "speaker")] = ["nothing"],
        [("amplifier", "dead", "phones")] = ["nothing"],
        [("amplifier", "distorts", "speaker")] = ["rattle", "buzz"],
        [("amplifier", "distorts", "phones")] = ["buzz"],
        [("coupling-capacitor", "*", "speaker")] = ["quiet"],
        [("coupling-capacitor", "*", "phones")] = ["quiet", "one-side"],
        [("output-socket", "*", "video-out")] = ["nothing", "flicker", "pressed"],
        [("output-socket", "*", "speaker")] = ["nothing", "buzz"],
        [("board-edge", "*", "start-up")] = ["blinks", "black-box", "blinks"],
        [("board-edge", "*", "cartridge")] = ["blinks", "black-box", "garbled-logo"],
        [("eject", "sticks", "tray")] = ["sticks", "not-noticed"],
        [("eject", "broken", "tray")] = ["nothing", "not-noticed"],
        [("hold-down", "*", "start-up")] = ["blinks", "pressed"],
        [("hold-down", "*", "cartridge")] = ["blinks", "pressed"],
        [("board-pins", "*", "start-up")] = ["nothing", "pressed"],
        [("board-pins", "*", "picture")] = ["nothing", "pressed", "vertical-lines"],
        [("board-pins", "*", "speaker")] = ["nothing", "pressed"],
        [("board-pins", "*", "buttons")] = ["one-dead"],
        [("front-board", "dead", "power-light")] = ["nothing"],
        [("front-board", "dead", "reset")] = ["nothing"],
        [("front-board", "dead", "link")] = ["nothing"],
        [("board-capacitor", "*", "cartridge")] = ["garbled-logo", "logo-then-blank"],
        [("cartridge-shell", "*", "cartridge")] = ["pressed", "black-box"],
        [("memory", "*", "start-up")] = ["garbled-logo", "solid-colour"],
        [("memory", "*", "picture")] = ["garbled-sprites"],
        [("memory", "*", "video-out")] = ["garbled"],
        [("wheel", "worn", "speaker")] = ["nothing", "crackle"],
        [("wheel", "worn", "phones")] = ["nothing", "crackle"],
        [("wheel", "worn", "wheel")] = ["nothing"],
        [("wheel", "worn", "picture")] = ["dim"],
        [("trace", "fouled", "start-up")] = ["garbled-logo"],
        [("trace", "fouled", "buttons")] = ["stuck"],
        [("trace", "cracked", "start-up")] = ["pressed", "nothing"],
        // Of capacitors the section tells: what they feed is harmed.
        [("capacitors", "*", "speaker")] = ["quiet", "quiet", "buzz"],
        [("capacitors", "*", "phones")] = ["quiet"],
        [("capacitors", "*", "backlight")] = ["dim", "nothing"],
        [("capacitors", "*", "picture")] = ["dim", "flicker"],
        [("capacitors", "*", "video-out")] = ["buzz"],
        [("capacitors", "*", "saving")] = ["nothing"],
    };

    /// <summary>Looks of a function when a part fails so, or null when that part's fault does not harm it.</summary>
    public static string[]? Of(string kind, FailureMode mode, string function) =>
        Signals.GetValueOrDefault((kind, mode.Id, function)) ?? Signals.GetValueOrDefault((kind, "*", function));

    /// <summary>Look of a function whose supply is short of what it wants; null when it works with that.</summary>
    /// <param name="function">Kind of function.</param>
    /// <param name="share">Volts that arrive as a share of what is wanted.</param>
    public static string? OfSupply(string function, double share) =>
        function switch
        {
            "power-light" => share < 0.35 ? "nothing"
            : share < 0.7 ? "dim"
            : null,
            "start-up" or "cartridge" => share < 0.35 ? "nothing"
            : share < 0.7 ? "on-then-off"
            : share < 0.88 ? "garbled-logo"
            : null,
            "backlight" => share < 0.4 ? "nothing"
            : share < 0.8 ? "dim"
            : null,
            "picture" => share < 0.5 ? "nothing"
            : share < 0.85 ? "dim"
            : null,
            "output" => share < 0.35 ? "nothing"
            : share < 0.85 ? "low"
            : null,
            _ => share < 0.8 ? "nothing" : null,
        };
}
