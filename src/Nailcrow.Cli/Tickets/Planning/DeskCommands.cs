using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Client.Tickets.Planning;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Core.Tickets.Waiting;

namespace Nailcrow.Cli.Tickets.Planning;

/// <summary>What comes first, who goes there, in which order.</summary>
internal static class DeskCommands
{
    public static Command Desk()
    {
        var narrowing = new Narrowing(TicketOrder.Worst);
        return narrowing
            .On(new Command("desk", "Open tickets, what comes first on top, with who could take those that nobody has."))
            .Does(async call =>
            {
                var asked = narrowing.Asked(call);
                var desk = await call.Client.DeskAsync(call.Ct, asked);
                call.Show(
                    desk,
                    ContractJson.Default.DeskView,
                    screen =>
                    {
                        if (desk.Lines.Count == 0)
                            screen.Line("No such ticket is open.");
                        else
                            screen.Table(["", "ticket", "because", "due", "appliance", "site", "who"], desk.Lines.Select(Row));
                        Narrowing.TellMore(screen, TicketOrder.Worst, desk.Next, desk.Count);
                        screen.Line();
                        foreach (var procedure in desk.NotUsed ?? [])
                            screen.Line($"[bold]![/] {Screen.Safe(procedure.Says)}");
                        foreach (var engineer in desk.Engineers)
                            screen.Line(
                                engineer.Out
                                    ? $"[bold]![/] {Screen.Safe(engineer.Engineer)} may not come in any more and still leads {engineer.Open}: "
                                        + $"nailcrow person hand-over {Screen.Safe(engineer.Engineer)} --to ENGINEER"
                                    : $"  {Screen.Safe(engineer.Engineer), -12} {engineer.Open} open, {engineer.Visits} visits planned"
                            );
                    }
                );
            });
    }

    private static string[] Row(DeskLine line) =>
        [
            Urgent(line.Priority.Urgency),
            $"[bold]{TicketNumber.Text(line.Ticket.Number)}[/]",
            Screen.Safe(line.Priority.Because),
            Due(line.Ticket),
            Screen.Safe(line.Ticket.Asset),
            Screen.Safe(line.Ticket.Site),
            Screen.Safe(
                line.Ticket.Engineer
                    ?? (line.Candidates.Count == 0 ? "nobody" : $"nobody; could: {string.Join(", ", line.Candidates.Select(Told))}")
            ),
        ];

    public static Command Day()
    {
        var name = new Argument<string?>("ENGINEER")
        {
            Description = "Whose day; default: yours.",
            Arity = ArgumentArity.ZeroOrOne,
            DefaultValueFactory = _ => null,
        };
        return new Command("day", "An engineer's stops in a good order, and their calendar feed.") { name }.Does(async call =>
        {
            var day = await call.Client.DayAsync(call.Get(name) ?? (await call.Client.MeAsync(call.Ct)).Name, call.Ct);
            call.Show(
                day,
                ContractJson.Default.DayView,
                screen =>
                {
                    if (day.Stops.Count == 0)
                        screen.Line($"Nothing is open for {Screen.Safe(day.Engineer)}.");
                    else
                        screen.Table(
                            ["ticket", "visit", "km", "site", "appliance", "because", "next"],
                            day.Stops.Select(s =>
                                new[]
                                {
                                    $"[bold]{TicketNumber.Text(s.Ticket.Number)}[/]",
                                    s.Ticket.VisitFrom is { } from
                                        ? $"{from.UtcDateTime:MM-dd HH:mm}–{s.Ticket.VisitTo?.UtcDateTime:HH:mm} UTC"
                                        : "[dim]no time yet[/]",
                                    s.KmFromBefore is { } km ? $"{km:0}" : "",
                                    Screen.Safe(s.Ticket.Site),
                                    Screen.Safe(s.Ticket.Asset),
                                    Screen.Safe(s.Priority.Because),
                                    Screen.Safe(s.Ticket.Next.Say),
                                }
                            )
                        );
                    if (day.Calendar.Length > 0)
                        screen.Plain($"calendar feed: {day.Calendar}\n"); // unwrapped: an address is copied whole
                }
            );
        });
    }

    /// <summary>Agrees when somebody is expected there.</summary>
    public static Command Plan()
    {
        var ticket = Said.Ticket();
        var from = new Option<DateTimeOffset>("--from")
        {
            Description = "Begins, as 2026-03-02T09:00+01:00.",
            HelpName = "TIME",
            Required = true,
        };
        var hours = new Option<double>("--hours")
        {
            Description = "How long, in hours. Default 2.",
            HelpName = "HOURS",
            DefaultValueFactory = _ => 2,
        };
        return new Command("plan", "Plan the engineer's visit; planning another moves it.") { ticket, from, hours }.Does(call =>
            call.WriteAsync(
                call.Get(ticket),
                new VisitPlanned(call.Get(from), call.Get(from) + TimeSpan.FromHours(call.Get(hours))),
                $"the visit is planned for {call.Get(from).UtcDateTime:yyyy-MM-dd HH:mm} UTC."
            )
        );
    }

    public static Command Hold()
    {
        var (ticket, text) = (Said.Ticket(), Said.Text("TEXT", "Why."));
        var waits = Said.OneOf<WaitsFor>(
            "--waits-for",
            "What it waits for; customer and access stop the promise's clocks. Default other.",
            "thing to wait for"
        );
        var until = new Option<DateTimeOffset?>("--until")
        {
            Description = "Until when, if that is agreed: 2026-11-27T22:00+01:00.",
            HelpName = "TIME",
        };
        return new Command("hold", "Put it on hold, with the reason.") { ticket, text, waits, until }.Does(call =>
            call.WriteAsync(call.Get(ticket), new PutOnHold(call.Get(text), call.Get(waits) ?? WaitsFor.Other, call.Get(until)), "on hold.")
        );
    }

    private static string Told(Candidate candidate) =>
        candidate.Km is { } km
            ? $"{candidate.Engineer} ({candidate.Load} open, {km:0} km from {candidate.Near})"
            : $"{candidate.Engineer} ({candidate.Load} open)";

    private static string Urgent(Urgency urgency) =>
        urgency switch
        {
            Urgency.Now => "[bold red]now[/]",
            Urgency.Today => "[bold]today[/]",
            Urgency.Soon => "soon",
            _ => "[dim]can wait[/]",
        };

    private static string Due(TicketLine line) =>
        line is { DueAt: { } at, Due: { } what } ? $"{Words.Of(what)} {at.UtcDateTime:MM-dd HH:mm} UTC" : "";
}
