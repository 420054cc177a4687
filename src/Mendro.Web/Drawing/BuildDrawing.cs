using Mendro.Core.Profiles;

namespace Mendro.Web.Drawing;

/// <summary>How a build looks from outside, in a few lines: drawn from its parts, so that a shop's own model is drawn too.</summary>
internal static class BuildDrawing
{
    private const double Width = 96;
    private const double Height = 64;

    /// <summary>The drawing.</summary>
    public static string Of(DeviceProfile profile)
    {
        var svg = new Svg(Width, Height, profile.Name);
        var kinds = profile.Parts.Select(p => p.Kind).ToHashSet();
        switch (profile.Kind)
        {
            case DeviceKind.Handheld:
                Handheld(svg, profile, kinds);
                break;
            case DeviceKind.Console or DeviceKind.DiscConsole:
                Console(svg, profile, kinds);
                break;
            case DeviceKind.Controller:
                Pad(svg, kinds);
                break;
            case DeviceKind.Cartridge:
                Cartridge(svg, profile, kinds);
                break;
            default:
                Accessory(svg, profile, kinds);
                break;
        }

        return svg.ToString();
    }

    private static void Handheld(Svg svg, DeviceProfile profile, HashSet<string> kinds)
    {
        var folds = profile.Parts.Any(p => p.Id == "hinge" && p.Name.StartsWith("Hinge", StringComparison.Ordinal));
        if (folds)
            svg.Box(24, 4, 48, 26, "cd body", 3).Box(32, 8, 32, 18, "cd", 1).Box(24, 32, 48, 28, "cd body", 3).Path("M26 31H70");
        else
            svg.Box(14, 8, 68, 48, "cd body", 5).Box(32, 14, 32, 22, "cd", 1);
        var y = folds ? 42 : 24;
        var (left, right) = folds ? (32, 64) : (23, 73);
        svg.Path($"M{left - 5} {y}h10M{left} {y - 5}v10").Dot(right - 3, y + 3, 2.2).Dot(right + 3, y - 2, 2.2);
        if (kinds.Contains("optical-drive"))
            svg.Dot(48, 47, 6).Dot(48, 47, 1.4);
        if (!folds && !kinds.Contains("lithium-pack"))
            Cells(svg, profile.Supply?.Cells ?? 2, 44);
        else if (kinds.Contains("lithium-pack"))
            svg.Box(folds ? 40 : 60, folds ? 50 : 44, 16, 7, "cd", 1).Text(folds ? 48 : 68, folds ? 56 : 50, "Li", "tiny");
        if (profile.Hazards?.Contains("inverter") == true)
            svg.Path("M34 33h28", "cd live").Path("M34 38l-2 2M48 38v3M62 38l2 2");
        if (kinds.Contains("board-pins"))
            svg.Path("M20 40h8M20 43h8M22 38v7M24 38v7M26 38v7");
    }

    private static void Cells(Svg svg, int cells, double y)
    {
        var drawn = Math.Min(cells, 6);
        for (var n = 0; n < drawn; n++)
            svg.Box(48 - drawn * 4.5 + n * 9, y, 7, 9, "cd", 1)
                .Path(FormattableString.Invariant($"M{48 - drawn * 4.5 + n * 9 + 2} {y}v-1.5h3v1.5"));
    }

    private static void Console(Svg svg, DeviceProfile profile, HashSet<string> kinds)
    {
        svg.Box(12, 26, 72, 28, "cd body", 2);
        if (kinds.Contains("hold-down") || kinds.Contains("eject"))
            svg.Box(20, 32, 36, 10, "cd", 1).Path(kinds.Contains("eject") ? "M22 37h32" : "M38 20v9M35 26l3 3 3-3");
        else if (kinds.Contains("optical-drive"))
            svg.Path("M26 26a22 9 0 0 1 44 0").Dot(48, 22, 3);
        else
            svg.Box(30, 14, 36, 12, "cd", 1).Path("M34 26v-3h28v3");
        if (kinds.Contains("hard-disk"))
            svg.Box(60, 34, 18, 12, "cd", 1).Dot(66, 40, 3);
        svg.Dot(18, 49, 2).Path("M66 50h4M72 50h4");
        if (profile.Archetype?.Fed == FedBy.Mains || profile.Hazards?.Contains("mains") == true)
            svg.Path("M84 40h8M92 36v8").Path("M85 33c2 -4 4 4 7 0");
        else
            for (var n = 0; n < Math.Clamp(profile.Supply?.Rails?.Count ?? 1, 1, 3); n++)
                svg.Path($"M84 {36 + n * 5}h8");
        if (kinds.Contains("auth-chip"))
            svg.Box(62, 46, 6, 5, "cd solid");
    }

    private static void Pad(Svg svg, HashSet<string> kinds)
    {
        svg.Box(14, 18, 68, 30, "cd body", 12).Path("M23 30h12M29 24v12").Dot(63, 34, 3.2).Dot(71, 27, 3.2);
        if (kinds.Contains("stick"))
            svg.Dot(38, 42, 5).Dot(38, 42, 2).Dot(58, 42, 5).Dot(58, 42, 2);
        else
            svg.Path("M43 36h4M50 36h4");
        if (kinds.Contains("cord"))
            svg.Path("M48 18c0-8 8-4 8-14");
        else
            svg.Path("M44 12a6 6 0 0 1 8 0M41 8a10 10 0 0 1 14 0");
    }

    private static void Cartridge(Svg svg, DeviceProfile profile, HashSet<string> kinds)
    {
        svg.Box(26, 8, 44, 42, "cd body", 3).Box(32, 14, 32, 16, "cd", 1).Path("M32 50v6h32v-6");
        for (var x = 35; x < 63; x += 4)
            svg.Path($"M{x} 51v4");
        if (kinds.Contains("save-cell"))
            svg.Dot(40, 40, 6).Text(40, 43, "+", "tiny");
        if (profile.Parts.Any(p => p.Id == "clock"))
            svg.Dot(56, 40, 6).Path("M56 40v-4M56 40h3");
        if (kinds.Contains("board-pins"))
            svg.Box(30, 34, 36, 6, "cd", 1).Path("M34 34v6M40 34v6M46 34v6M52 34v6M58 34v6");
    }

    private static void Accessory(Svg svg, DeviceProfile profile, HashSet<string> kinds)
    {
        if (profile.Archetype?.Gives == Gives.Power || kinds.Contains("supply-board"))
        {
            svg.Box(14, 18, 34, 30, "cd body", 3).Path("M14 27h-8M14 39h-8").Path("M48 33c20 0 14 14 34 14").Box(82, 43, 8, 8, "cd", 2);
            svg.Path(profile.Supply?.AdapterKind == "ac" ? "M24 33c3.5 -7 7 7 14 0" : "M24 31h14M24 36h3.5M29.2 36h3.5M34.5 36h3.5");
            return;
        }

        if (kinds.Contains("cartridge-edge"))
        {
            svg.Box(32, 10, 32, 44, "cd body", 3).Box(38, 16, 20, 12, "cd", 1);
            for (var x = 37; x < 61; x += 4)
                svg.Path($"M{x} 46v7");
            return;
        }

        svg.Box(8, 12, 14, 10, "cd body", 2).Path("M22 17c30 0-10 30 34 30h14").Box(70, 42, 14, 10, "cd body", 2).Path("M84 47h5M3 17h5");
    }
}
