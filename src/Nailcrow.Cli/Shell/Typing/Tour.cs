using System.CommandLine;
using System.CommandLine.Help;
using Nailcrow.Cli.Admin;
using Nailcrow.Cli.Appliances;
using Nailcrow.Cli.Intake;
using Nailcrow.Cli.People;
using Nailcrow.Cli.Procedures;
using Nailcrow.Cli.Rebuilds;
using Nailcrow.Cli.Reports;
using Nailcrow.Cli.Returns;
using Nailcrow.Cli.Returns.Stock;
using Nailcrow.Cli.Swaps;
using Nailcrow.Cli.Tickets;
using Nailcrow.Cli.Tickets.Planning;

namespace Nailcrow.Cli.Shell.Typing;

/// <summary>All commands in the order the job runs; the help of the whole is a walk along it.</summary>
internal static class Tour
{
    /// <summary>One stop: a line of the story, and the commands that play there.</summary>
    public sealed record Stop(string Say, IReadOnlyList<Command> Commands);

    public static RootCommand Build()
    {
        IReadOnlyList<Stop> stops =
        [
            new(
                "Say who you are.",
                [
                    PeopleCommands.SignIn(),
                    PeopleCommands.SignOut(),
                    PeopleCommands.Who(),
                    PeopleCommands.Password(),
                    SecondFactorCommands.Build(),
                    ElsewhereCommands.Build(),
                ]
            ),
            new("See what machines said that nobody understood.", [IntakeCommands.Build()]),
            new(
                "See what is waiting, take one, and say how it goes.",
                [DeskCommands.Desk(), DeskCommands.Day(), TicketListCommand.Build(), TicketCommands.Build()]
            ),
            new(
                "See the machine: how dangerous is it, and what is in which bay?",
                [BaysCommand.Build(), ApplianceCommands.Build(), CustomerCommands.Build(), SnapshotCommands.Build(), DriveCommands.Build()]
            ),
            new("Have the replacement with you before you travel.", [BringCommand.Build(), PartCommands.Build()]),
            new("Follow the run sheet, one step at a time.", [RunCommands.Build(), LightCommands.Build(), ProcedureCommands.Build()]),
            new("Follow the rebuild, from there or from home.", [RebuildCommands.Build()]),
            new(
                "Send back what came out, and account for every part.",
                [ReturnCommands.Build(), DocumentCommands.Build(), StockCommands.Build(), WarrantyCommands.Build(), OutboxCommands.Build()]
            ),
            new(
                "Keep the house in order.",
                [
                    PersonCommands.Build(),
                    ComingInCommands.Keys(),
                    PartnerCommands.Build(),
                    ImportCommands.Import(),
                    ImportCommands.Export(),
                    AdminCommands.Build(),
                    CompletionCommand.Build(),
                ]
            ),
        ];
        var root = new RootCommand("Nailcrow leads a drive swap from the fault to the closed ticket.")
        {
            Globals.Json,
            Globals.At,
            Globals.As,
            Globals.Service,
        };
        foreach (var command in stops.SelectMany(s => s.Commands))
            root.Subcommands.Add(command);
        if (root.Options.OfType<HelpOption>().FirstOrDefault() is { Action: HelpAction usual } help)
            help.Action = new TourHelp(stops, usual);
        return root.Suggests();
    }
}
