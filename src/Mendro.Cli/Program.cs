using Mendro.Cli;

return Commands.Run(args, Console.Out, Console.Error);
