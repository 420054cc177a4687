using System.Runtime.CompilerServices;

namespace Mendro.Web.Tests;

/// <summary>Many shops are open at once here, and each would watch its files for changes: some systems allow a user 128 watchers in
/// all, and a page that asks for one more fails. Nothing changes under a test.</summary>
internal static class NoWatchers
{
    // Before any host is built; servers started by a test inherit it.
    [ModuleInitializer]
    internal static void Set()
    {
        Environment.SetEnvironmentVariable("DOTNET_USE_POLLING_FILE_WATCHER", "1");
        Environment.SetEnvironmentVariable("DOTNET_hostBuilder__reloadConfigOnChange", "false");
    }
}
