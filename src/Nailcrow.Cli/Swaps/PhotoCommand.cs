using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Tickets;

namespace Nailcrow.Cli.Swaps;

internal static class PhotoCommand
{
    public static Command Build()
    {
        var (ticket, file) = (Said.Ticket(), Said.Text("FILE", "A JPEG or PNG of at most 4 MiB."));
        var says = Said.Optional("--says", "What is to be seen on it.", "TEXT");
        return new Command("photo", "Keep a picture with the ticket, at the step its run stands at.") { ticket, file, says }.Does(
            async call =>
            {
                var view = await call.Client.TicketAsync(call.Get(ticket), call.Ct);
                await using var picture = File.OpenRead(call.Get(file));
                call.Show(
                    await call.Client.KeepPhotoAsync(
                        view.Number,
                        Guid.CreateVersion7(),
                        picture,
                        view.Run?.Current?.Id,
                        call.Get(says),
                        call.Ct
                    ),
                    "the picture is kept."
                );
            }
        );
    }
}
