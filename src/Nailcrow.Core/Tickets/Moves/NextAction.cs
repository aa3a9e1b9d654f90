using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Gates;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Risk;

namespace Nailcrow.Core.Tickets.Moves;

/// <summary>The one thing to do next on a ticket, by whom, and what kind of thing it is.</summary>
public sealed record NextAction(string Who, string Say, Move Move)
{
    public static NextAction Of(Ticket ticket) => Of(ticket, null);

    /// <param name="danger">Where it has been reckoned already; it is looked for only where a swap may not help.</param>
    public static NextAction Of(Ticket ticket, Danger? danger) =>
        ticket.OpenAfterEnd is { } after ? new("lead", $"Settle, or reopen: {after.Sentence}", Move.Settle)
        : ticket.IsEnded ? new("nobody", $"Nothing: the ticket is {Words.Of(ticket.Stage)}.", Move.Nothing)
        : ticket.HoldReason is { } hold
            ? new("dispatcher", $"On hold: {hold.TrimEnd('.')}. Lift the hold when that is over.", Move.LiftHold)
        : ticket.Help is { IsOpen: true } help ? new("lead", $"Answer {help.By}: {help.Reason}", Move.AnswerHelp)
        : WhereNoSwapHelps(ticket, danger) is { } talk ? talk
        : ticket.Engineer is null ? new("dispatcher", "Assign an engineer, or take it.", Move.Take)
        : BeforeTheRun(ticket) ?? InTheRun(ticket) ?? AfterTheRun(ticket);

    /// <summary>Another conversation, before anyone drives there; a lead's go-ahead makes it an ordinary ticket.</summary>
    private static NextAction? WhereNoSwapHelps(Ticket ticket, Danger? danger) =>
        ticket.Run is not null || ticket.HasMoved || ticket.Help is { GoAhead: true } ? null
        : (danger ?? Danger.Of(ticket)) is { Help: SwapHelp.NoRedundancy or SwapHelp.TooManyLost, Sentence: var why }
            ? new("lead", $"Talk to the customer before anyone travels. {why}", Move.NoSwap)
        : null;

    private static NextAction? BeforeTheRun(Ticket ticket) =>
        ticket.Run is not null ? null
        : ticket.Latest is null ? new(Engineer(ticket), "Take a snapshot: nothing is known of the bays yet.", Move.TakeSnapshot)
        : ticket.Parts.Count < ticket.DrivesWanted
            ? new(
                "stores",
                ticket.DrivesWanted == 1
                    ? "Reserve a replacement that fits."
                    : $"Reserve a replacement that fits; {ticket.Parts.Count} of {ticket.DrivesWanted} are set aside.",
                Move.ReservePart
            )
        : ticket.Parts.Find(p => p.IssuedTo is null) is { } part
            ? new("stores", $"Issue {part.Serial} to {Engineer(ticket)}.", Move.IssuePart)
        : ticket.ArrivedAt is null ? new(Engineer(ticket), "Travel there, and say when you have arrived.", Move.Arrive)
        : new(Engineer(ticket), "Start the run sheet.", Move.StartRun);

    private static NextAction? InTheRun(Ticket ticket) =>
        ticket is { Sheet: { } sheet, Run: { IsFinished: false } run } && sheet.Step(run.Current) is { } step
            ? RunMonitor.Stop(ticket, run.Since) is { } stop
                ? new(Engineer(ticket), $"Stop, and call a lead: {stop}", Move.CallHelp)
                : new(Engineer(ticket), step.Gate is null ? step.Say : AtGate(ticket, run, step), Move.FollowRun)
            : null;

    /// <summary>A shut gate says what would open it; an open one only has to be gone through.</summary>
    private static string AtGate(Ticket ticket, Run run, RunStep step) =>
        GateCheck.Unmet(ticket, run, step) is not { } unmet ? $"Go on: {step.Say}"
        : step.Gate.ComesWithTheRebuild() ? $"Follow the rebuild. {unmet}"
        : unmet;

    private static NextAction AfterTheRun(Ticket ticket)
    {
        if (ticket.Run is { HandedOver: true } && ticket.Swap.InSerial is null)
            return new("lead", "The run was handed over: say how it goes on, and start another sheet.", Move.StartRun);
        if (ticket.Discrepancies.Find(d => d.IsOpen) is { } open)
            return new("lead", $"Settle: {open.Sentence}", Move.Settle);
        foreach (var (serial, holder) in ticket.Custody.Open)
            return ticket.Returns.Find(r => r.Serial == serial) switch
            {
                null => new(Engineer(ticket), $"Open a return for {serial}, which is with {holder}.", Move.OpenReturn),
                { SentAt: null } => new(Engineer(ticket), $"Send {serial} back.", Move.SendReturn),
                _ => new("stores", $"Book {serial} in when it arrives.", Move.BookIn),
            };
        return ticket.SignedOffBy is null
            ? new(Engineer(ticket), "Have the customer sign off.", Move.SignOff)
            : new(Engineer(ticket), "Close the ticket.", Move.Close);
    }

    private static string Engineer(Ticket ticket) => ticket.Engineer ?? "engineer";
}
