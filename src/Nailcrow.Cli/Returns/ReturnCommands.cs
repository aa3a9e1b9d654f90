using System.CommandLine;
using System.Globalization;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Cli.Tickets;
using Nailcrow.Client;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Terms;

namespace Nailcrow.Cli.Returns;

internal static class ReturnCommands
{
    public static Command Build() =>
        new("return", "Drives going back.")
        {
            Show(),
            Open(),
            ReturnAskCommands.AskMaker(),
            ReturnAskCommands.Fetch(),
            Send(),
            Arrive(),
            ReturnEndCommands.Inspect(),
            ReturnEndCommands.Settle(),
            ReturnEndCommands.Kept(),
            ReturnEndCommands.Destroyed(),
            ReturnEndCommands.Lost(),
        };

    private static Command Show()
    {
        var ticket = Said.Ticket();
        return new Command("show", "Who holds each drive that moved, and how far its return is.") { ticket }.Does(async call =>
        {
            var view = await call.Client.TicketAsync(call.Get(ticket), call.Ct);
            call.Show(
                view,
                ContractJson.Default.TicketView,
                screen =>
                {
                    if (view.Custody.Count == 0)
                        screen.Line("No drive has moved.");
                    else
                        screen.Table(
                            ["serial", "to", "when", "by"],
                            view.Custody.Select(m =>
                                new[]
                                {
                                    $"[bold]{Screen.Safe(m.Serial)}[/]",
                                    Screen.Safe(m.To.ToString()),
                                    Telling.Clock(m.At, view.Zone),
                                    Screen.Safe(m.By),
                                }
                            )
                        );
                    foreach (var back in view.Returns)
                        screen.Line(
                            $"{Screen.Safe(back.Serial)}: {Screen.Safe(back.Reason)} to {Screen.Safe(back.To.ToString())}, number "
                                + $"{Screen.Safe(back.Authorisation ?? "none")}, due "
                                + $"{back.DueBy?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture) ?? "not said"}"
                                + $"{(back.LateCost is { } late ? $" (late, it costs {Screen.Safe(late)})" : "")}, "
                                + (
                                    back.Outcome is { } outcome
                                        ? $"{Words.Of(outcome)}{(back.OutcomeSays is { } says ? $", {Screen.Safe(says)}" : "")}"
                                    : back.Found is { } found ? $"arrived, {Screen.Safe(found)}"
                                    : back.ArrivedAt is not null ? "arrived"
                                    : back.SentAt is not null ? $"sent with {Screen.Safe(back.Carrier)} {Screen.Safe(back.Tracking)}"
                                    : "not sent yet"
                                )
                        );
                    ReturnAskCommands.Tell(screen, view);
                }
            );
        });
    }

    private static Command Open()
    {
        var (ticket, serial) = (Said.Ticket(), Said.Text("SERIAL", "The drive that goes back."));
        var maker = Said.Optional("--to-maker", "Exchange under warranty: the maker's name.", "NAME");
        var depot = Said.Optional("--to-depot", "Back to stores: the depot's name.", "NAME");
        var number = Said.Optional("--authorisation", "The maker's number for the exchange.", "NUMBER");
        var due = new Option<DateOnly?>("--due") { Description = "When it has to be there, as 2026-03-31.", HelpName = "DATE" };
        var agreed = Said.Optional("--data-agreed-by", "Who at the customer agreed that their data may leave.", "NAME");
        var cost = Said.Optional("--late-cost", "What it costs when it is late, as \"180.00 EUR\".", "AMOUNT");
        var why = Said.OneOf<ReturnReason>("--why", "Why it goes, where that is not an exchange or what came out.", "reason");
        return new Command("open", "Say why and where it goes, and by when.")
        {
            ticket,
            serial,
            maker,
            depot,
            number,
            due,
            agreed,
            cost,
            why,
        }.Does(call =>
        {
            var (usual, to) = (call.Get(maker), call.Get(depot)) switch
            {
                ({ } name, null) => (ReturnReason.ExchangeUnderWarranty, new Holder(HolderKind.Maker, name)),
                (null, { } name) => (ReturnReason.BackToStores, Holder.OfPlace(name)),
                _ => throw new UsageProblem("Say where it goes: one of --to-maker NAME and --to-depot NAME."),
            };
            return call.WriteAsync(
                call.Get(ticket),
                new ReturnOpened(
                    call.Get(serial),
                    call.Get(why) ?? usual,
                    to,
                    call.Get(number),
                    call.Get(due),
                    call.Get(agreed),
                    call.Get(cost)
                ),
                $"a return for {call.Get(serial)} is open."
            );
        });
    }

    private static Command Send()
    {
        var (ticket, serial) = (Said.Ticket(), Said.Text("SERIAL", "The drive that goes back."));
        var carrier = Said.Needed("--carrier", "Who takes it.", "NAME");
        var tracking = Said.Optional("--tracking", "The carrier's number for it.", "NUMBER");
        return new Command("send", "It was handed to a carrier.") { ticket, serial, carrier, tracking }.Does(call =>
            call.WriteAsync(
                call.Get(ticket),
                new ReturnSent(call.Get(serial), call.Get(carrier)!, call.Get(tracking)),
                $"{call.Get(serial)} is with {call.Get(carrier)}."
            )
        );
    }

    private static Command Arrive()
    {
        var (ticket, serial) = (Said.Ticket(), Said.Text("SERIAL", "The drive whose box arrived."));
        var inside = Said.Optional("--in-box", "The serial on the drive that is in the box.", "SERIAL");
        var state = Said.OneOf<BoxState>("--state", "How the box came.", "state");
        var shelf = Said.Optional("--shelf", "Where it was put in the depot.", "NAME");
        return new Command("arrive", "A box arrived: read the serial inside.") { ticket, serial, inside, state, shelf }.Does(call =>
            call.WriteAsync(
                call.Get(ticket),
                new ReturnArrived(call.Get(serial), call.Get(inside) ?? "", call.Get(state), call.Get(shelf)),
                $"the box for {call.Get(serial)} was opened."
            )
        );
    }
}
