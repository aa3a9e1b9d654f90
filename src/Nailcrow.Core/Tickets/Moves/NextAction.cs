using Nailcrow.Core.Procedures;
using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Guarding;
using Nailcrow.Core.Swaps.Following.Leaving;
using Nailcrow.Core.Swaps.Gates;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Planning;
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
            ? new(
                "dispatcher",
                $"On hold{(ticket.HoldUntil is { } until ? $" until {EntryTold.Clock(until)}" : "")}: {hold.TrimEnd('.')}. "
                    + $"Lift the hold when that is over.{StandsOpen(ticket)}",
                Move.LiftHold
            )
        : ticket.Help is { IsOpen: true } help ? new("lead", $"Answer {help.By}: {help.Reason}", Move.AnswerHelp)
        : WhereNoSwapHelps(ticket, danger) is { } talk ? talk
        : ticket.Engineer is null ? new("dispatcher", "Assign an engineer, or take it.", Move.Take)
        : IsOffWithoutASheet(ticket) is { } off ? off
        : WhereNobodyIsThere(ticket) ?? BeforeTheRun(ticket) ?? InTheRun(ticket) ?? AfterTheRun(ticket);

    /// <summary>Another conversation, before anyone drives there; a lead's go-ahead makes it an ordinary ticket.</summary>
    private static NextAction? WhereNoSwapHelps(Ticket ticket, Danger? danger) =>
        ticket.Run is not null || ticket.HasMoved || ticket.Help is { GoAhead: true } ? null
        : (danger ?? Danger.Of(ticket)) is { Help: SwapHelp.NoRedundancy or SwapHelp.TooManyLost, Sentence: var why }
            ? new("lead", $"Talk to the customer before anyone travels. {why}", Move.NoSwap)
        : null;

    /// <summary>A machine that is off is switched on on somebody's word; a sheet that had it switched off says itself when.</summary>
    private static NextAction? IsOffWithoutASheet(Ticket ticket) =>
        ticket.Run is not null || ticket.Power is not [.., { To: null } off]
            ? null
            : new(
                Engineer(ticket),
                $"The machine is off since {EntryTold.Clock(off.From)}. Say when it is on again, and who allowed it.",
                Move.TellPower
            );

    /// <summary>A visit ended before its work was done: the ticket is planned again, with what was learnt.</summary>
    private static NextAction? WhereNobodyIsThere(Ticket ticket) =>
        ticket.IsOnSite || ticket.SiteVisits is not [.., { EndedEarly: true } last] ? null
        : ticket.Swap.InSerial is null && PartWanted(ticket) is { } wanted ? wanted
        : ticket.Visit is null
            ? new(
                "dispatcher",
                $"Plan the next visit. The last one ended: {Words.Of(last.Ended ?? VisitEnd.AnotherDay).Replace('-', ' ')}"
                    + $"{(last.Learnt is { } learnt ? $". {learnt.TrimEnd('.')}" : "")}.{StandsOpen(ticket)}",
                Move.PlanVisit
            )
        : new(Engineer(ticket), $"Travel there again, and say when you have arrived.{StandsOpen(ticket)}", Move.Arrive);

    private static string StandsOpen(Ticket ticket) =>
        ticket.Swap is { PulledAt: not null, InSerial: null, Bay: { } bay } ? $" Bay {bay} is empty until then." : "";

    private static NextAction? BeforeTheRun(Ticket ticket) =>
        ticket.Run is not null ? null
        : ticket.Latest is null ? new(Engineer(ticket), "Take a snapshot: nothing is known of the bays yet.", Move.TakeSnapshot)
        : PartWanted(ticket) is { } wanted ? wanted
        : !ticket.IsOnSite ? new(Engineer(ticket), "Travel there, and say when you have arrived.", Move.Arrive)
        : new(Engineer(ticket), "Start the run sheet.", Move.StartRun);

    private static NextAction? PartWanted(Ticket ticket) =>
        ticket.Parts.Find(p => p.GivenUp is not null) is { GivenUp: { } why } gone
            ? new(
                "stores",
                $"Reserve another replacement: {gone.Serial} was given up, {Words.Of(why).Replace('-', ' ')}.",
                Move.ReservePart
            )
        : TooSmallByNow.Of(ticket) is { } small
            ? new(
                small.Part.IssuedTo is null ? "stores" : Engineer(ticket),
                $"Give {small.Part.Serial} up as too small: {small.Told()} Stores reserves a larger one.",
                Move.GiveUpPart
            )
        : ticket.PartsSetAside < ticket.DrivesWanted
            ? new(
                "stores",
                ticket.DrivesWanted == 1
                    ? "Reserve a replacement that fits."
                    : $"Reserve a replacement that fits; {ticket.PartsSetAside} of {ticket.DrivesWanted} are set aside.",
                Move.ReservePart
            )
        : ticket.Parts.Find(p => p.IssuedTo is null) is { } part
            ? Target.PartElsewhere(ticket, part.Serial) is { } where
                    ? new(
                        "stores",
                        $"Reserve another replacement, or issue {part.Serial} once it is back: it is {where}.",
                        Move.ReservePart
                    )
                : new("stores", $"Issue {part.Serial} to {Engineer(ticket)}.", Move.IssuePart)
        : null;

    private static NextAction? InTheRun(Ticket ticket) =>
        ticket is { Sheet: { } sheet, Run: { IsFinished: false } run } && sheet.Step(run.Current) is { } step
            ? RunMonitor.Stop(ticket, run.Since) is { } stop
                ? new(Engineer(ticket), $"Stop, and call a lead: {stop}", Move.CallHelp)
                : step.Gate == GateFact.PartInHand && PartWanted(ticket) is { } wanted
                    ? wanted
                    : new(Engineer(ticket), ToDo(ticket, run, step), Move.FollowRun)
            : null;

    private static string ToDo(Ticket ticket, Run run, RunStep step) =>
        LeadsNo.EndsHere(ticket, run, step) ? $"End the run: {ticket.Help?.AnsweredBy} said no. {ticket.Help?.Answer}"
        : step.Gate is null ? step.Say
        : AtGate(ticket, run, step);

    /// <summary>A shut gate says what would open it; an open one only has to be gone through.</summary>
    private static string AtGate(Ticket ticket, Run run, RunStep step) =>
        GateCheck.Unmet(ticket, run, step) is not { } unmet ? $"Go on: {step.Say}"
        : step.Gate.ComesWithTheRebuild() ? $"Follow the rebuild. {unmet}"
        : unmet;

    private static NextAction AfterTheRun(Ticket ticket)
    {
        if (ticket.Run is { HandedOver: true } && ticket.Swap.InSerial is null)
            return new("lead", "The run was handed over: say how it goes on, and start another sheet.", Move.StartRun);
        if (ticket.Aside is [var aside, ..])
            return new(Engineer(ticket), $"Put back as it was, and say so: {aside}.", Move.PutBack);
        if (ticket.Discrepancies.Find(d => d.IsOpen) is { } open)
            return new("lead", $"Settle: {open.Sentence}", Move.Settle);
        foreach (var (serial, holder) in ticket.Custody.Open)
            return ticket.Returns.Find(r => r.Serial == serial) switch
            {
                null => WhereTo(ticket, serial, holder),
                { SentAt: null } => new(Engineer(ticket), ToSend(ticket, serial), Move.SendReturn),
                { To.Kind: Returns.HolderKind.Depot } when Delivered(ticket, serial) is { } parcel => new(
                    "stores",
                    $"Open the box {parcel.Label} that {parcel.Carrier} delivered, and book {serial} in.",
                    Move.BookIn
                ),
                var back => new("stores", $"Book {serial} in when it arrives{back.Until()}.", Move.BookIn),
            };
        return ticket.SignedOffBy is null
            ? new(Engineer(ticket), "Have the customer sign off.", Move.SignOff)
            : new(Engineer(ticket), "Close the ticket.", Move.Close);
    }

    private static string ToSend(Ticket ticket, string serial) =>
        ticket.Parcels.LastOrDefault(p => p.Serials.Contains(serial)) switch
        {
            null => $"Send {serial} back{Until(ticket, serial)}.",
            { Refused: not null } parcel => $"Send {serial} back otherwise{Until(ticket, serial)}. {parcel.Stand()}.",
            { Stands: false } parcel => $"Send {serial} anew{Until(ticket, serial)}. {parcel.Stand()}.",
            { Label: null } parcel => $"Pack {serial}. {parcel.Stand()}.",
            var parcel => $"Hand {serial} to {parcel.Carrier} with the label {parcel.Label}"
                + $"{(parcel.CollectsOn is { } day ? $"; they come on {Returns.Carrying.Parcel.Day(day)}" : "")}.",
        };

    private static string Until(Ticket ticket, string serial) => ticket.Returns.Find(r => r.Serial == serial)?.Until() ?? "";

    private static Returns.Carrying.Parcel? Delivered(Ticket ticket, string serial) =>
        ticket.Parcels.LastOrDefault(p =>
            p.Serials.Contains(serial) && p.Said.Exists(s => s.Step == Returns.Carrying.ParcelStep.Delivered)
        );

    /// <summary>A drive with the customer's data goes the way that was agreed for such drives.</summary>
    private static NextAction WhereTo(Ticket ticket, string serial, Returns.Holder holder) =>
        (Target.HoldsCustomersData(ticket, serial) ? ticket.Report?.DataAgreed : null) switch
        {
            Appliances.Owners.DataAgreement.StaysWithThem => new(
                Engineer(ticket),
                $"Hand {serial} to {ticket.Report?.Customer}: it stays there. Write down who takes it.",
                Move.KeepDrive
            ),
            Appliances.Owners.DataAgreement.DestroyedThere => new(
                Engineer(ticket),
                $"Have {serial} destroyed there, and write down how and before whom.",
                Move.DestroyDrive
            ),
            _ => new(Engineer(ticket), $"Open a return for {serial}, which is with {holder}.", Move.OpenReturn),
        };

    private static string Engineer(Ticket ticket) => ticket.Engineer ?? "engineer";
}
