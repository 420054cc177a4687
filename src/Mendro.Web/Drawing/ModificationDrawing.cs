namespace Mendro.Web.Drawing;

/// <summary>Small circuit drawings of modifications.</summary>
public static class ModificationDrawing
{
    /// <summary>A drawing by its id; empty when there is none.</summary>
    public static string Of(string id) =>
        id switch
        {
            "follower" => Follower,
            "enable-pin" => EnablePin,
            _ => "",
        };

    // An emitter follower: what comes out is what goes in less one junction, with the strength for 75 Ω.
    private const string Follower = """
        <svg viewBox="0 0 420 200" role="img"
        aria-label="Emitter follower: base to composite video, collector to 5 volts, emitter through 1 kilohm to ground and out to the socket">
        <g fill="none" stroke="currentColor" stroke-width="2">
        <path d="M30 100H150M150 70v60M150 88l40-30M150 112l40 30M190 58V24M190 142v18M190 142H330"/>
        <path d="M178 126l12 16l-19 -4" fill="currentColor"/>
        <path d="M182 160h16v0v26h-16zM190 186v8M176 194h28"/>
        <circle cx="168" cy="100" r="38"/><circle cx="30" cy="100" r="4"/><circle cx="334" cy="142" r="5"/><path d="M178 24h24"/></g>
        <g class="draw-words"><text x="20" y="72">composite video,</text><text x="20" y="88">by the modulator</text><text x="212" y="28">+5 V</text>
        <text x="212" y="104">NPN, 2N2222 type</text><text x="212" y="178">1 kΩ to ground</text><text x="346" y="147">to the socket</text></g></svg>
        """;

    private const string EnablePin = """
        <svg viewBox="0 0 420 150" role="img"
        aria-label="The enable pin is lifted off its pad; it touches nothing, or a wire leads from it to ground">
        <g fill="none" stroke="currentColor" stroke-width="2"><path d="M20 120H400"/><path d="M120 40h180v50H120z"/>
        <path d="M120 66h-20v46h-16"/><path d="M300 66h26l14 -18" stroke-width="3"/><path d="M332 112h24" stroke-width="5"/>
        <path d="M340 48c30 0 40 20 40 60" stroke-dasharray="5 4"/><path d="M368 108h24M373 113h14"/><circle cx="134" cy="52" r="4"/></g>
        <g class="draw-words"><text x="150" y="70">authentication chip</text><text x="246" y="34">enable pin, lifted</text>
        <text x="30" y="142">board</text><text x="284" y="142">its pad, empty</text></g></svg>
        """;
}
