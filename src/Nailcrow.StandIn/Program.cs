using System.CommandLine;
using System.CommandLine.Invocation;
using System.Net.Sockets;
using Nailcrow.Core.Terms;
using Nailcrow.StandIn.Commands;

var root = new RootCommand(
    "What Nailcrow is tried on: a simulated 12-bay appliance that speaks the open Redfish schema, whose drives can be failed, pulled "
        + "and inserted; a carrier; a maker of drives; a mail server."
);
root.Subcommands.Add(RunCommand.Build());
root.Subcommands.Add(PartnerCommands.Carrier());
root.Subcommands.Add(PartnerCommands.Maker());
root.Subcommands.Add(PartnerCommands.Mail());
root.Subcommands.Add(SyslogCommand.Say());
root.Subcommands.Add(SyslogCommand.Storm());
HandCommands.AddTo(root);
var parsed = root.Parse(args.Length == 0 ? ["--help"] : args);

// The same ends as nailcrow's: 0 done, 1 refused, 2 usage, 3 not reachable.
if (parsed.Action is ParseErrorAction)
    return Say(2, string.Join(" ", parsed.Errors.Select(e => e.Message)) + Meant());
try
{
    return await parsed.InvokeAsync(new InvocationConfiguration { EnableDefaultExceptionHandler = false });
}
catch (HttpRequestException)
{
    return Say(3, "No stand-in answers there. 'nailcrow-standin run' starts one; --at says where.");
}
catch (OperationCanceledException)
{
    return 0; // left with Ctrl-C
}
catch (Exception e) when (e is IOException or SocketException or UnauthorizedAccessException or InvalidOperationException)
{
    return Say(1, e.Message); // a port that is taken says which
}

string Meant() =>
    parsed.UnmatchedTokens is [var typed, ..] && parsed.CommandResult.Command is RootCommand
        ? Nearest.Hint(typed, root.Subcommands.Select(c => c.Name))
        : "";

static int Say(int code, string sentence)
{
    Console.Error.WriteLine(Visible.Lines(sentence));
    return code;
}
