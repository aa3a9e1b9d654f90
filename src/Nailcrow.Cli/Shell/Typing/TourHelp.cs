using System.CommandLine;
using System.CommandLine.Help;
using System.CommandLine.Invocation;

namespace Nailcrow.Cli.Shell.Typing;

/// <summary>Help for the whole tells the job in order; help for one command is the usual kind.</summary>
internal sealed class TourHelp(IReadOnlyList<Tour.Stop> stops, HelpAction usual) : SynchronousCommandLineAction
{
    public override int Invoke(ParseResult parsed)
    {
        if (parsed.CommandResult.Command is not RootCommand root)
            return usual.Invoke(parsed);
        var output = parsed.InvocationConfiguration.Output;
        output.WriteLine(root.Description);
        output.WriteLine();
        output.WriteLine("  nailcrow NOUN VERB ...      'nailcrow NOUN VERB --help' tells one command.");
        foreach (var stop in stops)
        {
            output.WriteLine();
            output.WriteLine(stop.Say);
            foreach (var command in stop.Commands)
            foreach (var (name, says) in Lines(command))
                output.WriteLine($"  {name, -26}{says}");
        }
        output.WriteLine();
        output.WriteLine("Everywhere");
        foreach (var option in root.Options.Where(o => !o.Hidden))
            output.WriteLine($"  {option.Name + (option.HelpName is { } value ? $" {value}" : ""), -26}{option.Description}");
        output.WriteLine();
        output.WriteLine("Ends with 0 done, 1 refused, 2 usage, 3 not reachable, 4 not allowed.");
        return 0;
    }

    private static IEnumerable<(string Name, string Says)> Lines(Command command) =>
        command.Subcommands.Count == 0
            ? [(command.Name, command.Description ?? "")]
            : command.Subcommands.Select(verb => ($"{command.Name} {verb.Name}", verb.Description ?? ""));
}
