using System.Runtime.CompilerServices;

namespace Mendro.Web.Tests;

/// <summary>What the tests of the web run in. Many shops are open at once, and each would watch its files for changes: some systems
/// allow a user 128 watchers in all, and a page that asks for one more fails. Nothing changes under a test.</summary>
internal static class TestSurroundings
{
    // Before any host is built; servers started by a test inherit it.
    [ModuleInitializer]
    internal static void Set()
    {
        Environment.SetEnvironmentVariable("DOTNET_USE_POLLING_FILE_WATCHER", "1");
        Environment.SetEnvironmentVariable("DOTNET_hostBuilder__reloadConfigOnChange", "false");
        // A machine under load may take longer for an answer than a bench would wait; no test here is about that time.
        Environment.SetEnvironmentVariable("Instruments__PatienceSeconds", "60");
    }
}
