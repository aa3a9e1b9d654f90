using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Cli.Tickets;
using Nailcrow.Client;
using Nailcrow.Core.Reports.Papers;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Cli.Reports;

/// <summary>Every paper of a ticket: run sheet, delivery note, labels, packing lists, certificates, report.</summary>
internal static class DocumentCommands
{
    public static Command Build() =>
        new("document", "The papers of a ticket: which there are, and each as a PDF.") { List(), Save(), Send() };

    private static Command List()
    {
        var ticket = Said.Ticket();
        return new Command("list", "What papers there are of a ticket, and why another cannot be had yet.") { ticket }.Does(async call =>
        {
            var number = call.Get(ticket);
            var papers = await call.Client.DocumentsAsync(number, call.Ct);
            var letters = (await call.Client.TicketAsync(number, call.Ct)).Letters;
            call.Show(
                papers,
                ContractJson.Default.IReadOnlyListTicketPaper,
                screen =>
                {
                    screen.Table(
                        ["paper", "about", ""],
                        papers.Select(p =>
                            new[]
                            {
                                Words.Of(p.Kind),
                                Screen.Safe(p.About ?? ""),
                                Screen.Safe(p.NotYet is { } no ? $"not yet: {no}" : p.Title),
                            }
                        )
                    );
                    foreach (var letter in letters)
                        screen.Line(Screen.Safe(letter));
                    screen.Line(
                        $"'nailcrow document save {TicketNumber.Text(number)}' writes all there are; with the name of a paper, that one."
                    );
                }
            );
        });
    }

    private static Command Save()
    {
        var ticket = Said.Ticket();
        var kind = new Argument<string?>("PAPER")
        {
            Description = $"Which: {string.Join(", ", Enum.GetValues<PaperKind>().Select(k => Words.Of(k)))}. None for all there are.",
            Arity = ArgumentArity.ZeroOrOne,
        };
        var about = Said.Optional("--about", "Which of its kind: the serial of a drive, or whom the box goes to.");
        var into = Said.Optional("--into", "Which folder they go to. Default: here.", "FOLDER");
        return new Command("save", "Papers of a ticket as PDF files, to be read, printed or sent.") { ticket, kind, about, into }.Does(
            async call =>
            {
                var number = call.Get(ticket);
                var folder = call.Get(into) ?? ".";
                var wanted = await WantedAsync(call, number, call.Get(kind), call.Get(about));
                Directory.CreateDirectory(folder);
                foreach (var paper in wanted)
                {
                    var path = Path.Combine(folder, paper.FileName(number));
                    await Fetched.IntoAsync(
                        path,
                        file => call.Client.DocumentAsync(number, paper.Kind, paper.About, file, call.Ct),
                        call.Ct
                    );
                    call.Screen.Line($"{Screen.Safe(path)} is written.");
                }
            }
        );
    }

    private static Command Send()
    {
        var ticket = Said.Ticket();
        var kind = Said.Text("PAPER", $"Which: {string.Join(", ", Enum.GetValues<PaperKind>().Select(k => Words.Of(k)))}.");
        var to = Said.Needed("--to", "Who gets it: one address, as name@place.example.", "ADDRESS");
        var about = Said.Optional("--about", "Which of its kind: the serial of a drive, or whom the box goes to.");
        var says = Said.Optional("--says", "What you say with it.");
        return new Command("send", "Send a paper by mail; what comes of it is told by the ticket.") { ticket, kind, to, about, says }.Does(
            async call =>
            {
                var number = call.Get(ticket);
                if (!Words.Parse<PaperKind>(call.Get(kind), "kind of paper").Is(out var of, out var unknown))
                    throw new UsageProblem(unknown);
                await call.WriteAsync(
                    number,
                    new PaperMailed(of, call.Get(to)!, call.Get(about), call.Get(says)),
                    $"It goes out to {call.Get(to)} by mail."
                );
            }
        );
    }

    /// <summary>What is asked for; a paper that cannot be had is asked of the service, which says why.</summary>
    private static async Task<IReadOnlyList<TicketPaper>> WantedAsync(Call call, long number, string? kind, string? about)
    {
        var all = await call.Client.DocumentsAsync(number, call.Ct);
        if (kind is null)
            return about is null
                ? [.. all.Where(p => p.NotYet is null)]
                : throw new UsageProblem("Say which paper about that: nailcrow document save T-1042 return-label --about SERIAL.");
        if (!Words.Parse<PaperKind>(kind, "kind of paper").Is(out var of, out var unknown))
            throw new UsageProblem(unknown);
        return about is not null ? [new(of, "", about)] : [.. all.Where(p => p.Kind == of && p.NotYet is null).DefaultIfEmpty(new(of, ""))];
    }
}
