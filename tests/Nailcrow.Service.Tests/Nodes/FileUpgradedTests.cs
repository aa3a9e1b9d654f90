using Nailcrow.Client;
using Nailcrow.Client.Intake;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.Nodes;

/// <summary>A firm on one file takes this release, and may go back to the one before it, whichever of both began the file.</summary>
[Takes(60)]
public sealed class FileUpgradedTests : IAsyncLifetime
{
    private readonly DirectoryInfo _folder = Directory.CreateTempSubdirectory("nailcrow-upgraded-");
    private string _before = "";

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync()
    {
        AboutTheFile.Only();
        _before = await ReleaseBefore.ServiceAsync(Ct);
    }

    public ValueTask DisposeAsync()
    {
        _folder.Delete(recursive: true);
        return ValueTask.CompletedTask;
    }

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public async Task Each_goes_on_with_what_the_other_kept_and_nothing_of_it_is_lost(bool begunByTheReleaseBefore)
    {
        string[] toAndFro = begunByTheReleaseBefore
            ? [_before, Built.Service, _before, Built.Service]
            : [Built.Service, _before, Built.Service];
        long ticket = 0;
        var notes = new List<string>();

        foreach (var assembly in toAndFro)
        {
            await using var service = await RunningService.StartAsync(
                _folder.FullName,
                assembly: assembly,
                further: ["--Nailcrow:PasswordRounds", "1000"]
            );
            if (ticket == 0)
            {
                await service.FillAsync();
                ticket = (await (await service.SignInAsync("ilka")).ReportAsync(new FaultAsk("FSC-0402", "Amber lamp"), Ct)).Ticket;
                await (await service.SignInAsync("ilka")).WriteAsync(ticket, new EngineerAssigned("ilka"), Ct);
            }
            var ilka = await service.SignInAsync("ilka");
            notes.Add($"Seen by start {notes.Count + 1}");
            await ilka.WriteAsync(ticket, new NoteWritten(notes[^1]), Ct);

            var kept = (await ilka.JournalAsync(ticket, 0, Ct)).Entries;
            kept.Select(e => e.Body).OfType<NoteWritten>().Select(n => n.Text).ShouldBe(notes);
            (await ilka.TicketsAsync(new(Find: "FSC-0402"), Ct)).Tickets.ShouldHaveSingleItem().Number.ShouldBe(ticket);
            (await (await service.SignInAsync("admin")).VerifyAsync(Ct)).Troubles.ShouldBeEmpty();
            await service.StopAsync();
        }
    }
}
