using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Tests.Shared;

/// <summary>Models that ship with the library.</summary>
internal static class Shipped
{
    public static DeviceProfile Profile(string id) =>
        TradeLibrary.Shipped.Profiles.Concat(TradeLibrary.Shipped.Archetypes).Single(p => p.Id == id);

    public static DeviceModel Model(string id) => new(Profile(id), TradeLibrary.Shipped);

    /// <summary>The folder of the whole house.</summary>
    public static string Root()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(folder.FullName, "Mendro.slnx")))
            folder = folder.Parent!;
        return folder.FullName;
    }
}
