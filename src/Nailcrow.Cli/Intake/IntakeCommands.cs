using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Intake.Rules;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Cli.Intake;

/// <summary>What machines say by themselves, and the rules that make it understood.</summary>
internal static class IntakeCommands
{
    public static Command Build() =>
        new("intake", "What machines say by themselves.") { List(), Settle(), TakeBack(), Try(), Rules(), Rule(), Sender() };

    private static Command List()
    {
        var outcome = Said.Optional(
            "--outcome",
            "pending, joined, ignored, unmatched, unknown-sender or settled. Default: the two that nobody understood.",
            "WORD"
        );
        return new Command("list", "What came in and nobody understood.") { outcome }.Does(async call =>
        {
            var list = await call.Client.IntakeAsync(call.Get(outcome), call.Ct);
            call.Show(
                list,
                ContractJson.Default.IntakeList,
                screen =>
                {
                    if (list.Items.Count == 0)
                        screen.Line("Nothing waits to be understood.");
                    else
                        screen.Table(
                            ["id", "received (UTC)", "from", "", "text"],
                            list.Items.Select(i =>
                                new[]
                                {
                                    $"{i.Id}",
                                    $"{i.ReceivedAt.UtcDateTime:MM-dd HH:mm:ss}",
                                    Screen.Safe($"{i.Via} {i.Sender}"),
                                    Screen.Safe(i.Ticket is { } ticket ? TicketNumber.Text(ticket) : i.Outcome),
                                    (i.Times > 1 ? $"[bold]{i.Times} times[/] " : "")
                                        + Screen.Safe(i.Text.Length > 100 ? i.Text[..100] + "…" : i.Text),
                                }
                            )
                        );
                    var counts = list.Counts.OrderBy(c => c.Key).Select(c => $"{c.Value} {c.Key}");
                    var away = list.TurnedAway > 0 ? $", {list.TurnedAway} turned away" : "";
                    screen.Line($"[dim]{string.Join(", ", counts)}{away}[/]");
                }
            );
        });
    }

    private static Command Settle()
    {
        var id = new Argument<Guid>("ID") { Description = "Its id, as 'intake list' gives it." };
        var (asset, bay, serial) = (
            Said.Optional("--asset", "The machine it is about: it becomes or joins a ticket there."),
            Said.Optional("--bay", "The bay, if it is known."),
            Said.Optional("--serial", "The drive's serial, if it is known.")
        );
        return new Command("settle", "Make a ticket of a message, or put it aside.") { id, asset, bay, serial }.Does(async call =>
        {
            var receipt = await call.Client.SettleIntakeAsync(call.Get(id), new(call.Get(asset), call.Get(bay), call.Get(serial)), call.Ct);
            if (receipt is null)
                call.Screen.Line($"Put aside; nobody has to look at it. 'nailcrow intake take-back {call.Get(id)}' undoes it.");
            else
                call.Show(receipt, ContractJson.Default.Receipt, screen => screen.Receipt(receipt, "that is where it belongs."));
        });
    }

    private static Command TakeBack()
    {
        var id = new Argument<Guid>("ID") { Description = "Its id, as 'intake list --outcome settled' gives it." };
        return new Command("take-back", "Have a message that was put aside wait again.") { id }.Does(async call =>
        {
            await call.Client.TakeBackIntakeAsync(call.Get(id), call.Ct);
            call.Screen.Line("It waits again to be understood.");
        });
    }

    private static Command Try()
    {
        var line = Said.Text("LINE", "A whole syslog line, from its <priority> on.");
        var pattern = Said.Optional(
            "--pattern",
            "Try this pattern as well: a regular expression with the captures bay, name, serial, array, asset, count."
        );
        return new Command("try", "Try a pasted line on the rules, without keeping it.") { line, pattern }.Does(async call =>
        {
            var tried = await call.Client.TryLineAsync(
                new(call.Get(line), call.Get(pattern) is { } p ? new IntakeRule("0-tried", p) : null),
                call.Ct
            );
            call.Show(
                tried,
                ContractJson.Default.Tried,
                screen =>
                {
                    if (tried.Problem is { } problem)
                        screen.Line($"Not read: {Screen.Safe(problem)}");
                    else
                    {
                        screen.Line(
                            $"host {Screen.Safe(tried.Host ?? "none")}, app {Screen.Safe(tried.App ?? "none")}, "
                                + $"{(tried.At is { } at ? $"{at.UtcDateTime:yyyy-MM-dd HH:mm:ss} UTC" : "no time")}"
                        );
                        screen.Line($"text  {Screen.Safe(tried.Text)}");
                        screen.Line(
                            tried.Rule is null
                                ? "No rule matches."
                                : $"[bold]{Screen.Safe(tried.Rule)}[/]: "
                                    + (
                                        tried.Outcome == Words.Of(RuleOutcome.Ignore)
                                            ? "ignored"
                                            : $"{tried.Kind}{Of("bay", tried.Bay)}{Of("name", tried.Name)}{Of("serial", tried.Serial)}"
                                                + $"{Of("array", tried.Array)}{Of("asset", tried.Asset)}{Of("count", tried.Count?.ToString())}"
                                    )
                        );
                    }
                }
            );
        });
    }

    private static Command Rules() =>
        new Command("rules", "The rules, in the order they are tried.").Does(async call =>
        {
            var rules = await call.Client.RulesAsync(call.Ct);
            call.Show(
                rules,
                ContractJson.Default.RuleList,
                screen =>
                    screen.Table(
                        ["id", "app", "is", "pattern"],
                        rules.Rules.Select(r =>
                            new[]
                            {
                                $"[bold]{Screen.Safe(r.Id)}[/]",
                                Screen.Safe(r.App ?? "any"),
                                r.Outcome == RuleOutcome.Ignore ? "ignore" : Words.Of(r.Kind),
                                Screen.Safe(r.Pattern),
                            }
                        )
                    )
            );
        });

    private static Command Rule()
    {
        var (id, pattern) = (
            Said.Text("ID", "Its id; rules are tried in order of id."),
            Said.Text("PATTERN", "A regular expression over the message's text, with the captures bay, name, serial, array, asset, count.")
        );
        var app = Said.Optional("--app", "Only lines of this program.");
        var kind = Said.OneOf<EvidenceKind>("--kind", "What it is evidence of. Default log-lines.", "kind of evidence");
        var ignore = new Option<bool>("--ignore") { Description = "Such lines are nothing anybody has to look at." };
        return new Command("rule", "Add or replace a rule; what was not understood is held against it at once.")
        {
            id,
            pattern,
            app,
            kind,
            ignore,
        }.Does(async call =>
        {
            var put = await call.Client.PutRuleAsync(
                new(
                    call.Get(id),
                    call.Get(pattern),
                    call.Get(app),
                    call.Get(ignore) ? RuleOutcome.Ignore : RuleOutcome.Evidence,
                    call.Get(kind) ?? EvidenceKind.LogLines
                ),
                call.Ct
            );
            call.Show(
                put,
                ContractJson.Default.RulePut,
                screen => screen.Line($"Rule {Screen.Safe(put.Rule.Id)} is kept; {put.Understood} messages are understood by it now.")
            );
        });
    }

    private static Command Sender()
    {
        var name = Said.Text("NAME", "Who sends, as letters, digits, dots and dashes.");
        return new Command("sender", "Let a system send signed CloudEvents; its secret is shown once.") { name }.Does(async call =>
        {
            var sender = await call.Client.PutSenderAsync(call.Get(name), call.Ct);
            call.Show(
                sender,
                ContractJson.Default.EventSenderView,
                screen =>
                {
                    screen.Line($"Events go to  {Screen.Safe(sender.Url)}");
                    screen.Line($"Signed with   {Screen.Safe(sender.Secret)}");
                    screen.Line("[dim]docs/intake.md says how an event is signed.[/]");
                }
            );
        });
    }

    private static string Of(string name, string? value) => value is null ? "" : $", {name} {value}";
}
