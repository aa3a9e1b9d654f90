using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Moves;

namespace Nailcrow.Cli.Tickets;

/// <summary>Everything that may be done on a ticket now, by whoever asks, with the command that does it; and what may not, with why.</summary>
internal static class MovesCommand
{
    public static Command Build()
    {
        var ticket = Said.Ticket();
        return new Command("moves", "What you may do on it now, with the command that does it; and what not, and why.") { ticket }.Does(
            async call =>
            {
                var view = await call.Client.TicketAsync(call.Get(ticket), call.Ct);
                call.Show(
                    new MoveList(view.Number, view.Moves),
                    ContractJson.Default.MoveList,
                    screen =>
                    {
                        screen.Next(view.Next);
                        screen.Table(
                            ["you may", "with"],
                            view.Moves.Where(m => m.May).Select(m => new[] { Screen.Safe(m.Say), Screen.Safe(CommandOf(view.Number, m)) })
                        );
                        screen.Line();
                        screen.Table(
                            ["not now", "because"],
                            view.Moves.Where(m => !m.May)
                                .Select(m => new[] { $"[dim]{Screen.Safe(m.Say)}[/]", $"[dim]{Screen.Safe(m.WhyNot)}[/]" })
                        );
                    }
                );
            }
        );
    }

    /// <summary>The command line that makes a move, what has to be said in capitals.</summary>
    internal static string CommandOf(long number, OfferedMove move)
    {
        var t = TicketNumber.Text(number);
        return $"nailcrow {OfTicket(t, move) ?? AtMachine(t, move) ?? OfParts(t, move, move.About) ?? $"ticket show {t}"}";
    }

    private static string? OfTicket(string t, OfferedMove move) =>
        move.Move switch
        {
            Move.LiftHold => $"ticket resume {t}",
            Move.AnswerHelp => $"ticket answer {t} REASON --{move.About}",
            Move.Take => $"ticket take {t}",
            Move.Arrive => $"ticket arrive {t}",
            Move.Leave => $"ticket leave {t} --why REASON",
            Move.Advise => $"ticket advise {t} {(move.About is null ? "TEXT" : $"\"{move.About}\"")} --decided DECISION",
            Move.Settle => $"ticket settle {t} {move.About} HOW",
            Move.SignOff => $"ticket sign-off {t} NAME",
            Move.Close => $"ticket close {t}",
            Move.JoinTicket => $"ticket join {t} INTO",
            Move.LinkTicket => $"ticket link {t} OTHER --how HOW",
            Move.NothingToSwap => $"ticket close {t} --otherwise nothing-to-swap --reason REASON",
            Move.CloseOtherwise => $"ticket close {t} --otherwise WAY --reason TEXT",
            Move.Assign => $"ticket assign {t} ENGINEER",
            Move.HandOver => $"ticket hand-over {t} ENGINEER",
            Move.PlanVisit => $"ticket plan {t} --from TIME",
            Move.PutOnHold => $"ticket hold {t} REASON",
            Move.WriteNote => $"ticket note {t} TEXT",
            Move.CallHelp => $"ticket call {t} TEXT",
            Move.AddEvidence => $"ticket evidence {t} TEXT",
            Move.ChooseDrives => $"ticket drives {t} BAY...",
            Move.Cancel => $"ticket cancel {t} TEXT",
            Move.Reopen => $"ticket reopen {t} TEXT",
            _ => null,
        };

    private static string? AtMachine(string t, OfferedMove move) =>
        move.Move switch
        {
            Move.TakeSnapshot => $"snapshot take {t}",
            Move.TypeSnapshot => $"snapshot write {t} --bay BAY=SERIAL,ROLE,HEALTH,ARRAY",
            Move.ChooseRebuild => $"rebuild way {t} --copies COPIES --agreed TEXT",
            Move.MoveAside => $"ticket aside {t} WHAT",
            Move.PutBack => $"ticket aside {t} \"{move.About}\" --back",
            Move.TellPower => $"ticket power {t} --change CHANGE --allowed-by NAME",
            Move.StartRun => $"run start {t}",
            Move.FollowRun => $"run follow {t}",
            Move.DecideStep => $"run answer {t} ANSWER",
            Move.PassStep => $"run answer {t}",
            Move.OverruleStep => $"run overrule {t} REASON",
            Move.TakeBackStep => $"run undo {t}",
            Move.SwitchLight =>
                $"light {(move.Say.EndsWith("on", StringComparison.Ordinal) ? "on" : "off")} {t}{(move.Way == MoveWay.Machine ? "" : " --by-hand")}",
            Move.TakeReading => $"rebuild read {t}",
            Move.TypeReading => $"rebuild read {t} --percent PERCENT",
            Move.TakeBackReading => $"rebuild take-back {t}",
            _ => null,
        };

    private static string? OfParts(string t, OfferedMove move, string? about) =>
        move.Move switch
        {
            Move.ReservePart => $"part reserve {t} SERIAL --model MODEL --size SIZE --depot DEPOT",
            Move.IssuePart => $"part issue {t} --serial {about ?? "SERIAL"} --to NAME",
            Move.GiveUpPart => $"part give-up {t} {about} --why REASON",
            Move.OpenReturn => $"return open {t} {about} {HowItGoesBack(move)}",
            Move.MailPaper => $"document send {t} PAPER --to ADDRESS",
            Move.AskCarrier => $"return fetch {t} --carrier CARRIER",
            Move.AskMaker => $"return ask-maker {t} {about} --maker MAKER --for QUESTION",
            Move.SendReturn => $"return send {t} {about} --carrier CARRIER",
            Move.BookIn when move.Body is ReturnArrived { State: BoxState.Empty } => $"return arrive {t} {about} --state empty",
            Move.BookIn => $"return arrive {t} {about} --in-box SERIAL",
            Move.KeepDrive => $"return kept {t} {about} NAME",
            Move.DestroyDrive => $"return destroyed {t} {about} METHOD --seen-by NAME",
            Move.TakeBackPart => $"part take-back {t} {about} --depot DEPOT",
            Move.InspectReturn => $"return inspect {t} {about}" + (move.Fields.Count > 0 ? " --found FINDING --note TEXT" : ""),
            Move.SettleReturn => $"return settle {t} {about} {HowItEnded(move.Body)}",
            Move.UseSupplies => $"part used {t} SUPPLY COUNT",
            Move.WriteOff => $"return lost {t} {about} REASON --on-it TEXT",
            Move.RecordWipe => $"part wiped {t} {about} METHOD",
            _ => null,
        };

    private static string HowItGoesBack(OfferedMove move) =>
        (move.Body is ReturnOpened { To.Kind: HolderKind.Maker } ? "--to-maker NAME --authorisation NUMBER" : "--to-depot NAME")
        + (
            move.Body is ReturnOpened { Reason: not (ReturnReason.ExchangeUnderWarranty or ReturnReason.BackToStores) } open
                ? $" --why {Words.Of(open.Reason)}"
                : ""
        )
        + (move.Fields.Any(f => f.Name == "dataAgreedBy") ? " --data-agreed-by NAME" : "");

    private static string HowItEnded(EntryBody? body) =>
        body switch
        {
            ReturnSettled { Outcome: Outcome.Charged } => "charged --amount AMOUNT",
            ReturnSettled { Outcome: Outcome.Refused } => "refused --note TEXT",
            ReturnSettled settled => Words.Of(settled.Outcome),
            _ => "OUTCOME",
        };
}
