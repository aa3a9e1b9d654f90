using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Cli.Tickets;
using Nailcrow.Client;
using Nailcrow.Client.Swaps;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Telling;

namespace Nailcrow.Cli.Swaps;

/// <summary>Which drives a ticket swaps, where it is more than the reported one.</summary>
internal static class DrivesCommand
{
    public static Command Build()
    {
        var ticket = Said.Ticket();
        var bays = new Argument<string[]>("BAY")
        {
            Description = "Bay labels, in the order they are done; with none, the proposed order is shown.",
            Arity = ArgumentArity.ZeroOrMore,
            DefaultValueFactory = _ => [],
        };
        var take = new Option<bool>("--worst-first") { Description = "Choose all that are proposed, in the proposed order." };
        return new Command(
            "drives",
            "Show or choose the drives this ticket swaps, in order: several that failed, or bigger ones one by one."
        )
        {
            ticket,
            bays,
            take,
        }.Does(async call =>
        {
            var view = await call.Client.TicketAsync(call.Get(ticket), call.Ct);
            var chosen =
                call.Get(bays) is { Length: > 0 } named ? Held(view, named)
                : call.Get(take) ? Proposed(view)
                : [];
            if (chosen.Count == 0)
                call.Show(
                    new DrivesView(view.Number, view.Chosen, view.InTurn),
                    ContractJson.Default.DrivesView,
                    screen => Draw(screen, view)
                );
            else
                await call.WriteAsync(
                    call.Get(ticket),
                    new DrivesChosen([.. chosen.Select(c => c.Serial)]),
                    $"{(chosen.Count == 1 ? "1 drive is" : $"{chosen.Count} drives are")} chosen: "
                        + $"{string.Join(", ", chosen.Select(c => $"bay {c.Bay} {c.Serial}"))}."
                );
        });
    }

    private static List<(string Bay, string Serial)> Held(TicketView view, string[] bays)
    {
        var now = view.Latest ?? throw new Refusal("Nothing is known of the bays yet; take a snapshot first.");
        return
        [
            .. bays.Select(b =>
                (b, now.BayLabelled(b)?.Serial ?? throw new Refusal($"Bay '{b}' holds no drive with a serial in the last snapshot."))
            ),
        ];
    }

    private static List<(string Bay, string Serial)> Proposed(TicketView view) =>
        view.InTurn.Count > 0
            ? [.. view.InTurn.Select(d => (d.Bay, d.Serial))]
            : throw new Refusal(
                "Nothing is proposed: no drive of the array at stake is unwell in the last snapshot, or one has been moved already. Name the bays."
            );

    private static void Draw(Screen screen, TicketView view)
    {
        if (view.Chosen.Count > 0)
            screen.Line($"Chosen, in this order: {Screen.Safe(string.Join(", ", view.Chosen))}.");
        if (view.InTurn.Count == 0)
            screen.Line(
                view.Latest is null
                    ? "Nothing is known of the bays yet; take a snapshot first."
                    : "Nothing is proposed: no drive of the array at stake is unwell in the last snapshot, or one has been moved already."
            );
        for (var i = 0; i < view.InTurn.Count; i++)
            screen.Line($"  {i + 1, 2}  {Screen.Safe(view.InTurn[i].Why)}");
        if (view.InTurn.Count > 0)
            screen.Line(
                $"Choose with 'nailcrow ticket drives {TicketNumber.Text(view.Number)} BAY ...', or all of these with '--worst-first'."
            );
    }
}
