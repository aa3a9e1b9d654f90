using System.CommandLine;
using Nailcrow.Cli.Appliances;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Telling;

namespace Nailcrow.Cli.Tickets;

/// <summary>One ticket on one screen: what is wrong, how dangerous it is, what is next.</summary>
internal static class TicketShowCommand
{
    public static Command Build()
    {
        var ticket = Said.Ticket();
        return new Command("show", "What is wrong, how dangerous it is, and what to do next.") { ticket }.Does(async call =>
        {
            var view = await call.Client.TicketAsync(call.Get(ticket), call.Ct);
            call.Show(view, ContractJson.Default.TicketView, screen => Draw(screen, view));
        });
    }

    private static void Draw(Screen screen, TicketView view)
    {
        var report = view.Report;
        screen.Line(
            $"[bold]{TicketNumber.Text(view.Number)}[/]  "
                + $"{Words.Of(view.Stage)}{(view.HoldReason is { } hold ? $", on hold: {Screen.Safe(hold)}" : "")}   "
                + $"{Screen.Safe(report.Asset)} {Screen.Safe(report.Model)}, {Screen.Safe(report.Site)}, "
                + $"{Screen.Safe(report.Location)}"
        );
        screen.Line(
            $"{Screen.Safe(report.Symptom)}  [dim]bay {Screen.Safe(report.Bay ?? "?")}, serial "
                + $"{Screen.Safe(report.Serial ?? "?")}, received {Telling.Clock(view.ReceivedAt, view.Zone)}[/]"
        );
        screen.Line();
        screen.Line($"{DangerMark(view.Danger.Margin)} {Screen.Safe(view.Danger.Sentence)}");
        if (view.Danger.Seen is { } seen)
            screen.Line(
                $"  [dim]seen {Telling.Clock(seen.At, view.Zone)} by {Screen.Safe(seen.By)}"
                    + $"{(seen.On is { } on ? $" on {TicketNumber.Text(on)}" : "")}[/]"
            );
        foreach (var doubt in view.Danger.Doubts ?? [])
            screen.Line($"  ! {Screen.Safe(doubt)}");
        foreach (var suspect in view.Danger.Suspects)
            screen.Line($"  also: {Screen.Safe(suspect.Sentence)}");
        if (view.Danger is { AtWorst: { } worst, Margin: { } margin } && worst < margin)
            screen.Line($"  at worst: {(worst < 0 ? "data is lost" : $"margin {worst}")}, if the suspects it reads from fail as well");
        if (view.Chances is { } chances)
            screen.Line(
                $"  while it rebuilds ({chances.HoursLow:0.#} to {chances.HoursHigh:0.#} h): too many drives fail "
                    + $"{Screen.Safe(chances.DrivesFail.Told)}, a sector cannot be read {Screen.Safe(chances.Unreadable.Told)} "
                    + "[dim](estimates)[/]"
            );
        if (view.Exposure is { } exposure)
            screen.Line(
                $"  exposed {Screen.Safe(exposure.Lasted)}: "
                    + $"{string.Join(", ", exposure.Stretches.Select(s => $"{Words.Of(s.Part).Replace('-', ' ')} {Screen.Safe(s.Lasted)}"))}"
            );
        foreach (var aside in view.Aside)
            screen.Line($"  ! moved aside and not back: {Screen.Safe(aside)}");
        foreach (var power in view.Power)
            screen.Line($"  [dim]power[/] {Screen.Safe(power)}");
        foreach (var space in view.Space)
            screen.Line($"  [dim]space[/] {Screen.Safe(space)}");
        if (view.Latest is { } latest)
        {
            screen.Line();
            BayMap.Draw(screen, latest, view.Danger.Verdicts, view.Drawing, view.TargetBay);
        }
        screen.Line();
        Facts(screen, view);
        foreach (var open in view.Discrepancies.Where(d => d.IsOpen))
            screen.Line($"[bold]! {Screen.Safe(open.Id)}[/] {Screen.Safe(open.Sentence)}");
        screen.Next(view.Next);
    }

    private static void Facts(Screen screen, TicketView view)
    {
        Agreed(screen, view);
        People(screen, view);
        Parts(screen, view);
        Around(screen, view);
        Ending(screen, view);
    }

    /// <summary>What was agreed with the customer, and by when.</summary>
    private static void Agreed(Screen screen, TicketView view)
    {
        if (view.Access is { } access && view.EndedAt is null)
            screen.Line($"  getting in {Screen.Safe(access)}");
        foreach (var line in view.EndedAt is null ? view.Customer : [])
            screen.Line($"  {line.About.ToLowerInvariant(), -10} {Screen.Safe(line.Says)}");
        if (view.Agreed is { } agreed)
            screen.Line($"  agreed     {Screen.Safe(agreed)}");
        foreach (var deadline in view.Deadlines.Where(d => d.MetAt is null && view.EndedAt is null))
        {
            var by = deadline.At is { } due ? Telling.Clock(due, view.Zone) : "when the hold is lifted";
            screen.Line(
                (
                    deadline.About is { } serial
                        ? $"  due        {Screen.Safe(serial)} back by {by}"
                        : $"  promise    {Words.Of(deadline.Kind)} by {by}"
                ) + (deadline.Stopped ? ", its clock stands still" : "")
            );
        }
    }

    private static void People(Screen screen, TicketView view)
    {
        if (view.Visit is { } visit)
            screen.Line($"  visit      {Telling.Clock(visit.From, view.Zone)} to {Telling.Clock(visit.To, view.Zone)}");
        if (view.Engineer is { } engineer)
            screen.Line(
                $"  engineer   {Screen.Safe(engineer)}{(view.ArrivedAt is { } at ? $", arrived {Telling.Clock(at, view.Zone)}" : "")}"
            );
        if (view.Help is { } help)
        {
            var answer = help.GoAhead is { } go
                ? $"{Screen.Safe(help.AnsweredBy)}: {(go ? "go on" : "refused")}, {Screen.Safe(help.Answer)}"
                : "waiting";
            screen.Line($"  help       {Screen.Safe(help.By)}: {Screen.Safe(help.Reason)} [bold]{answer}[/]");
        }
    }

    private static void Parts(Screen screen, TicketView view)
    {
        if (view.Chosen.Count > 1)
            screen.Line($"  drives     {view.Chosen.Count}, in this order: {Screen.Safe(string.Join(", ", view.Chosen))}");
        foreach (var part in view.Replacements)
            screen.Line($"  part       {Screen.Safe(part.Serial)} {Screen.Safe(part.Model)}, {Screen.Safe(part.Is)}");
        foreach (var swap in view.EarlierSwaps.Append(view.Swap).Where(s => s.OutSerial is not null || s.InSerial is not null))
            screen.Line(
                swap.OutSerial is null
                    ? $"  in         {Screen.Safe(swap.InSerial)} in bay {Screen.Safe(swap.Bay)}"
                    : $"  out        {Screen.Safe(swap.OutSerial)} from bay {Screen.Safe(swap.Bay)}"
                        + (swap.InSerial is { } now ? $", {Screen.Safe(now)} in" : "")
            );
    }

    /// <summary>What else has to do with it, and what happened on the way.</summary>
    private static void Around(Screen screen, TicketView view)
    {
        foreach (var link in view.Links)
            screen.Line($"  link       {Words.Of(link.How).Replace('-', ' ')} {TicketNumber.Text(link.Ticket)}");
        foreach (var other in view.Beside)
            screen.Line(
                $"  beside     {TicketNumber.Text(other.Number)} is open on this machine: {Screen.Safe(other.Symptom)}"
                    + (other.Bay is { } at ? $", bay {Screen.Safe(at)}" : "")
            );
        foreach (var there in view.SiteVisits)
            screen.Line($"  on site    {Screen.Safe(there.Engineer)}: {Screen.Safe(there.Told())}");
        if (view.Photos.Count > 0)
            screen.Line($"  pictures   {Pictures(view.Photos)}");
        foreach (var miss in view.EarlierSwaps.Append(view.Swap).SelectMany(s => s.NearMisses))
            screen.Line(
                $"  {(miss.OnPurpose is null ? "near miss" : "trial"), -9}  {Screen.Safe(miss.Serial)} came out of bay "
                    + $"{Screen.Safe(miss.Bay)} and went straight back"
                    + (miss.OnPurpose is { } word ? $", on purpose, allowed by {Screen.Safe(word)}" : "")
                    + (miss.NotSo is { } none ? $"; that was not so ({Screen.Safe(none)})" : "")
            );
    }

    private static void Ending(Screen screen, TicketView view)
    {
        if (view.Swap.InSerial is not null)
            screen.Line($"  rebuild    {Screen.Safe(view.Rebuild.Look.Sentence)}");
        foreach (var back in view.Returns)
            screen.Line(
                $"  return     {Screen.Safe(back.Serial)} to {Screen.Safe(back.To.ToString())}, "
                    + $"{(back.ArrivedAt is not null ? "arrived" : back.SentAt is not null ? $"with {Screen.Safe(back.Carrier)}" : "not sent")}"
            );
        if (view.SignedOffBy is { } signed)
            screen.Line($"  sign-off   {Screen.Safe(signed)}");
        var unmet = view.Closing.Where(c => !c.Met).Select(c => c.Name).ToList();
        if (view.EndedAt is null && view.Swap.InSerial is not null && unmet.Count > 0)
            screen.Line($"  to close   {Screen.Safe(string.Join(", ", unmet))}");
    }

    private static string Pictures(IReadOnlyCollection<Photo> photos) =>
        photos.Count(p => p.Removed is not null) is > 0 and var gone
            ? $"{photos.Count - gone}, and {gone} that {(gone == 1 ? "is" : "are")} kept no more"
            : $"{photos.Count}";

    private static string DangerMark(int? margin) =>
        margin switch
        {
            null => "[dim]?[/]",
            <= 0 => "[bold red]DANGER[/]",
            _ => "[bold]margin " + margin + "[/]",
        };
}
