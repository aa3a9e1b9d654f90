using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Claiming;
using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Returns;
using Nailcrow.Store.Returns.Ledger;

namespace Nailcrow.Service.Returns;

/// <summary>Gathers what is in stock and what is known of a ticket's machine; what fits and what the array then holds is Core's to say.</summary>
internal sealed class Fitting(
    ReferenceBook book,
    DriveModels driveModels,
    Drives drives,
    LedgerBook ledger,
    Warranties warranties,
    TimeProvider time
)
{
    public async Task<BringView?> BringAsync(Ticket ticket, CancellationToken ct)
    {
        if (ticket.Report is not { } report || await book.FindAsync(report.Asset, ct) is not { } known)
            return null;
        var models = (await driveModels.AllAsync(ct)).ToDictionary(m => m.Id);
        var stock = await WithWarrantiesAsync(await drives.StockAsync(null, ct), ct);
        var weighed = await WeighedAsync(ticket, known.Site, [.. stock.Select(p => p.Depot).Distinct()], ct);
        var place = await PlaceAsync(ticket, known, models, ct) with { Weighed = weighed };
        var fits = PartFit.Ranked(stock.Select(p => PartFit.Of(p, models.GetValueOrDefault(p.Model), place)), weighed);
        return Bringing.Of(ticket, place, fits, models.Values) with { Spares = known.Customer.Spares };
    }

    /// <summary>A part that is to be reserved, with what speaks against it; refused where it does not fit.</summary>
    public async Task<Parsed<PartReserved>> JudgedAsync(Ticket ticket, PartReserved asked, CancellationToken ct)
    {
        if (ticket.Report is not { } report || await book.FindAsync(report.Asset, ct) is not { } known)
            return new Parsed<PartReserved>.Ok(asked with { Warnings = null });
        var models = (await driveModels.AllAsync(ct)).ToDictionary(m => m.Id);
        var serial = SerialNumber.Normalise(asked.Serial);
        var listed = (await drives.StockAsync(serial, ct)).FirstOrDefault();
        var part = listed ?? new StockPart(serial, asked.Model, asked.Bytes, asked.Depot, Wiped: Target.IsWiped(ticket, serial));
        if (!models.ContainsKey(part.Model)) // as a machine named it, once
            part = part with { Model = asked.Model };
        if (part.Bytes == 0)
            part = part with { Bytes = asked.Bytes };
        // Its own history counts, wherever it comes from and whatever the list says of it; what this ticket made of it is the journal's to judge.
        if (
            part.UsedIn is null
            && !ticket.Parts.Exists(p => p.Serial == serial)
            && await drives.UsedUnwipedAsync(serial, (await ledger.LineAsync(serial, ct)).WipedAt, ct) is { } machine
        )
            part = part with { UsedIn = machine };
        // Of a model that is not in the list nothing can be judged; who typed it answers for it.
        if (!models.TryGetValue(part.Model, out var model))
            return new Parsed<PartReserved>.Ok(asked with { Warnings = null });
        var fit = PartFit.Of(
            part with
            {
                Wiped = part.Wiped || Target.IsWiped(ticket, serial),
            },
            model,
            await PlaceAsync(ticket, known, models, ct)
        );
        return fit.Fit == Fit.DoesNotFit
            ? new Parsed<PartReserved>.Refused($"{serial} does not fit: {string.Join(" ", fit.Blocks)}")
            : new Parsed<PartReserved>.Ok(asked with { Warnings = fit.Warns.Count > 0 ? fit.Warns : null });
    }

    private async Task<IReadOnlyList<StockPart>> WithWarrantiesAsync(IReadOnlyList<StockPart> stock, CancellationToken ct)
    {
        var known = await warranties.ForAsync(stock.Select(p => p.Serial), ct);
        return known.Count == 0 ? stock : [.. stock.Select(p => p with { Warranty = KnownWarranty.Of(known, p.Serial, p.Model) })];
    }

    /// <summary>A depot that is called as one of the sites stands where that site is; of another nobody knows how far it is.</summary>
    private async Task<Weighing> WeighedAsync(Ticket ticket, Site site, IReadOnlyCollection<string> depots, CancellationToken ct)
    {
        var now = time.GetUtcNow();
        var km = new Dictionary<string, double>();
        foreach (var depot in await book.SitesAsync(depots, ct))
            if (depot.Name == site.Name)
                km[depot.Name] = 0;
            else if (TravelOrder.Km(site, depot) is { } far)
                km[depot.Name] = far;
        var promised = Deadline.Of(ticket, now).FirstOrDefault(d => d.Kind == DeadlineKind.Restore && d.MetAt is null)?.At;
        return new(now, km, ticket.Visit is { } visit && visit.From > now ? visit.From : promised, ticket.Engineer);
    }

    private async Task<Place> PlaceAsync(
        Ticket ticket,
        KnownAppliance known,
        IReadOnlyDictionary<string, DriveModel> models,
        CancellationToken ct
    )
    {
        var bay = Target.Bay(ticket);
        var old = bay?.Serial is { } serial ? (await drives.FindAsync(serial, 1, ct)).FirstOrDefault() : null;
        var model = (bay?.Model ?? old?.Model) is { } name
            ? models.GetValueOrDefault(name) ?? models.Values.FirstOrDefault(m => DriveModel.IsCalled(m.Id, name))
            : null;
        return new(
            known.Model,
            Target.LeastBytes(ticket) ?? Bringing.SmallestDesigned(known.Appliance),
            model,
            old?.Hours,
            await driveModels.KnownInAsync(known.Model.Id, ct)
        );
    }
}
