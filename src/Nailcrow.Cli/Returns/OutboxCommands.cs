using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Cli.Tickets;
using Nailcrow.Client;
using Nailcrow.Client.Returns;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Cli.Returns;

/// <summary>What is to be said outside, and what could not be.</summary>
internal static class OutboxCommands
{
    public static Command Build() => new("outbox", "What is to be said to carriers and makers, and what could not be.") { List(), Again() };

    private static Command List()
    {
        var state = Said.OneOf<ErrandState>("--state", "Only what is so far; left out, what waits and what was given up.", "state");
        var after = Said.Optional("--after", "The next page: what the page before said.", "TEXT");
        return new Command("list", "What waits to be said, how often it was tried and what was answered.") { state, after }.Does(
            async call =>
            {
                var page = await call.Client.OutboxAsync(call.Get(state) is { } only ? Words.Of(only) : null, call.Get(after), call.Ct);
                call.Show(page, ContractJson.Default.OutboxPage, screen => Tell(screen, page));
            }
        );
    }

    private static void Tell(Screen screen, OutboxPage page)
    {
        if (page.Errands.Count == 0)
            screen.Line("Nothing. Everything that had to be said was said.");
        foreach (var errand in page.Errands)
        {
            screen.Line(
                $"[bold]{TicketNumber.Text(errand.Ticket)}[/]  {Screen.Safe(errand.What)}: {errand.State.Replace('-', ' ')}"
                    + (errand.Tries > 0 ? $", tried {(errand.Tries == 1 ? "once" : $"{errand.Tries} times")}" : "")
                    + (errand.NextAt is { } next ? $", next at {Telling.Clock(next, null)}" : "")
            );
            if (errand.Says is { } says)
                screen.Line($"        {Screen.Safe(says)}");
            if (errand.State is "given-up" or "waiting")
                screen.Line($"        [dim]nailcrow outbox again {errand.Id}[/]");
        }
        if (page.Next is { } more)
            screen.Line($"[dim]more: --after \"{Screen.Safe(more)}\"[/]");
    }

    private static Command Again()
    {
        var id = new Argument<Guid>("ID") { Description = "Which, as 'outbox list' says it." };
        return new Command("again", "Say it again now, whatever its pause.") { id }.Does(async call =>
        {
            var errand = await call.Client.SendAgainAsync(call.Get(id), call.Ct);
            call.Show(errand, ContractJson.Default.ErrandView, screen => screen.Line($"{Screen.Safe(errand.What)}: tried now."));
        });
    }
}
