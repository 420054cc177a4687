using System.Globalization;
using Mendro.Cli;

// Numbers are written by rule and not by the machine's language.
CultureInfo.DefaultThreadCurrentCulture = CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;

return Commands.Run(args, Console.Out, Console.Error);
