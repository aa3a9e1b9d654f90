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
        var of = Said.Optional("--of", "The drive that it is of: as it came back, as it was destroyed.", "SERIAL");
        return new Command("photo", "Keep a picture with the ticket, at the step its run stands at, or of a drive.")
        {
            ticket,
            file,
            says,
            of,
        }.Does(async call =>
        {
            var view = await call.Client.TicketAsync(call.Get(ticket), call.Ct);
            await using var picture = File.OpenRead(call.Get(file));
            call.Show(
                await call.Client.KeepPhotoAsync(
                    view.Number,
                    Guid.CreateVersion7(),
                    picture,
                    call.Get(of) is null ? view.Run?.Current?.Id : null,
                    call.Get(says),
                    call.Ct,
                    call.Get(of)
                ),
                "the picture is kept."
            );
        });
    }
}
