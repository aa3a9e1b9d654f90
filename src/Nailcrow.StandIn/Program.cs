using System.CommandLine;
using Nailcrow.StandIn.Commands;

var root = new RootCommand(
    "A simulated 12-bay appliance to try Nailcrow on: it speaks the open Redfish schema, and its drives can be failed, pulled and inserted."
);
root.Subcommands.Add(RunCommand.Build());
root.Subcommands.Add(SyslogCommand.Say());
root.Subcommands.Add(SyslogCommand.Storm());
HandCommands.AddTo(root);
return await root.Parse(args).InvokeAsync();
