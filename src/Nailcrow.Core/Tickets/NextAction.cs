using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps;

namespace Nailcrow.Core.Tickets;

/// <summary>The one thing to do next on a ticket, by whom, and the room where it is done.</summary>
public sealed record NextAction(string Who, string Say, string Room)
{
    public static NextAction Of(Ticket ticket) =>
        ticket.IsEnded ? new("nobody", $"Nothing: the ticket is {Words.Of(ticket.Stage)}.", "tickets")
        : ticket.HoldReason is { } hold ? new("dispatcher", $"On hold: {hold.TrimEnd('.')}. Lift the hold when that is over.", "tickets")
        : ticket.Help is { IsOpen: true } help ? new("lead", $"Answer {help.By}: {help.Reason}", "tickets")
        : ticket.Engineer is null ? new("dispatcher", "Assign an engineer, or take it.", "tickets")
        : BeforeTheRun(ticket) ?? InTheRun(ticket) ?? AfterTheRun(ticket);

    private static NextAction? BeforeTheRun(Ticket ticket) =>
        ticket.Run is not null ? null
        : ticket.Latest is null ? new(Engineer(ticket), "Take a snapshot: nothing is known of the bays yet.", "appliances")
        : ticket.Part is null ? new("stores", "Reserve a replacement that fits.", "returns")
        : ticket.Part.IssuedTo is null ? new("stores", $"Issue {ticket.Part.Serial} to {Engineer(ticket)}.", "returns")
        : ticket.ArrivedAt is null ? new(Engineer(ticket), "Travel there, and say when you have arrived.", "tickets")
        : new(Engineer(ticket), "Start the run sheet.", "swaps");

    private static NextAction? InTheRun(Ticket ticket) =>
        ticket is { Sheet: { } sheet, Run: { IsFinished: false } run } && sheet.Step(run.Current) is { } step
            ? new(Engineer(ticket), step.Gate is { } fact ? AtGate(ticket, step, fact) : step.Say, "swaps")
            : null;

    /// <summary>A shut gate says what would open it; an open one only has to be gone through.</summary>
    private static string AtGate(Ticket ticket, RunStep step, GateFact fact) =>
        GateCheck.Unmet(ticket, fact) is not { } unmet ? $"Go on: {step.Say}"
        : fact is GateFact.ArrayWhole or GateFact.RebuildSeen ? $"Follow the rebuild. {unmet}"
        : unmet;

    private static NextAction AfterTheRun(Ticket ticket)
    {
        if (ticket.Discrepancies.Find(d => d.IsOpen) is { } open)
            return new("lead", $"Settle: {open.Sentence}", "tickets");
        foreach (var (serial, holder) in ticket.Custody.Open)
            return ticket.Returns.Find(r => r.Serial == serial) switch
            {
                null => new(Engineer(ticket), $"Open a return for {serial}, which is with {holder}.", "returns"),
                { SentAt: null } => new(Engineer(ticket), $"Send {serial} back.", "returns"),
                _ => new("stores", $"Book {serial} in when it arrives.", "returns"),
            };
        return ticket.SignedOffBy is null
            ? new(Engineer(ticket), "Have the customer sign off.", "tickets")
            : new(Engineer(ticket), "Close the ticket.", "tickets");
    }

    private static string Engineer(Ticket ticket) => ticket.Engineer ?? "engineer";
}
