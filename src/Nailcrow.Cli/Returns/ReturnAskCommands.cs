using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Cli.Tickets;
using Nailcrow.Core.Returns.Carrying;
using Nailcrow.Core.Returns.Claiming;
using Nailcrow.Core.Tickets.Telling;

namespace Nailcrow.Cli.Returns;

/// <summary>What the service asks carriers and makers about drives that go back.</summary>
internal static class ReturnAskCommands
{
    public static Command Fetch()
    {
        var ticket = Said.Ticket();
        var serials = new Argument<string[]>("SERIAL")
        {
            Description = "The drives in the box, all for one place; left out, all that wait to be sent there.",
            Arity = ArgumentArity.ZeroOrMore,
        };
        var carrier = Said.Needed("--carrier", "Who is asked.", "NAME");
        var on = new Option<DateOnly?>("--on") { Description = "The day they should come, as 2026-03-31.", HelpName = "DATE" };
        return new Command("fetch", "Have a carrier fetch a box; the service asks, and writes down the answer.")
        {
            ticket,
            serials,
            carrier,
            on,
        }.Does(async call =>
        {
            var wanted = call.Get(serials) is { Length: > 0 } said
                ? said
                :
                [
                    .. (await call.Client.TicketAsync(call.Get(ticket), call.Ct))
                        .Returns.Where(r => r.SentAt is null && r.ArrivedAt is null)
                        .Select(r => r.Serial),
                ];
            await call.WriteAsync(
                call.Get(ticket),
                new CarrierAsked(wanted, call.Get(carrier)!, call.Get(on)),
                $"{call.Get(carrier)} is asked to fetch {string.Join(", ", wanted)}."
            );
        });
    }

    public static Command AskMaker()
    {
        var (ticket, serial) = (Said.Ticket(), Said.Text("SERIAL", "The drive."));
        var maker = Said.Needed("--maker", "Who is asked.", "NAME");
        var question = Said.OneOf<MakerQuestion>("--for", "What is asked for; left out, whether it is under warranty.", "question");
        var fault = Said.Optional("--fault", "What is wrong with it; left out, what the ticket reports.", "TEXT");
        return new Command("ask-maker", "Ask a drive's maker about its warranty, or for a number to send it back under.")
        {
            ticket,
            serial,
            maker,
            question,
            fault,
        }.Does(call =>
            call.WriteAsync(
                call.Get(ticket),
                new MakerAsked(call.Get(serial), call.Get(maker)!, call.Get(question) ?? MakerQuestion.Warranty, call.Get(fault)),
                $"{call.Get(maker)} is asked about {call.Get(serial)}."
            )
        );
    }

    /// <summary>How boxes and claims of a ticket stand.</summary>
    public static void Tell(Screen screen, TicketView view)
    {
        foreach (var parcel in view.Parcels)
        {
            screen.Line($"Box with {Screen.Safe(string.Join(", ", parcel.Serials))}: {Screen.Safe(parcel.Stand)}");
            foreach (var said in parcel.Said)
                screen.Line($"  {Telling.Clock(said.At, view.Zone)}  {Screen.Safe(said.Told)}");
        }
        foreach (var says in view.Warranties)
            screen.Line(Screen.Safe(says));
        foreach (var claim in view.Claims)
            screen.Line($"{Screen.Safe(claim.Stand)} ({Telling.Clock(claim.At, view.Zone)})");
    }
}
