using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Telling;
using Nailcrow.Service.Appliances;
using Nailcrow.Service.Procedures;
using Nailcrow.Service.Swaps;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Returns;
using Nailcrow.Store.Returns.Outside;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Service.Tickets;

/// <summary>Gathers what is known around a ticket; what is so and what may be done is Core's to say.</summary>
internal sealed class TicketViews(
    ReferenceBook book,
    ProcedureLibrary library,
    SheetMaker sheets,
    BaySightings sightings,
    TicketLines lines,
    Partners partners,
    Warranties warranties,
    TimeProvider time
)
{
    public async Task<TicketView> OfAsync(TicketRecord record, Actor actor, CancellationToken ct)
    {
        var ticket = record.Ticket;
        var asset = (ticket.Report ?? FaultReported.Lost).Asset;
        var known = await book.FindAsync(asset, ct);
        return TicketView.Of(
            record,
            new(
                known?.Model,
                known?.Drawing,
                known?.Site.Zone,
                known?.Site.Access,
                known?.Appliance.Address is not null,
                await library.WithdrawnBecauseAsync(ticket.Sheet, ct),
                RunView.BayLookedFor(ticket) is null ? null : await sightings.OfAsync(asset, ct),
                await sheets.WhyNotAsync(ticket, known, ct),
                await sheets.OutdatedAsync(ticket, known, ct),
                await BesideAsync(ticket, asset, ct),
                known?.Appliance.Location,
                known?.Customer,
                await partners.AllAsync(ct),
                await warranties.ForAsync(Target.Defective(ticket), ct)
            ),
            actor,
            time.GetUtcNow()
        );
    }

    // A machine with more open tickets than this has one trouble, and somebody has to join them.
    private const int MostBeside = 20;

    private async Task<IReadOnlyList<TicketLine>> BesideAsync(Ticket ticket, string asset, CancellationToken ct) =>
        [.. (await lines.OpenAtAsync(asset, MostBeside + 1, ct)).Where(l => l.Number != ticket.Number && !l.HasEnded)];
}
