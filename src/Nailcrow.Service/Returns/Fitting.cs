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
        var models = new ListedModels(await driveModels.AllAsync(ct));
        var stock = await WithWarrantiesAsync(await drives.StockAsync(null, ct), ct);
        var weighed = await WeighedAsync(ticket, known.Site, [.. stock.Select(p => p.Depot).Distinct()], ct);
        var place = await PlaceAsync(ticket, known, models, PartReserved.PlaceOfNext(ticket), ct) with { Weighed = weighed };
        var fits = PartFit.Ranked(stock.Select(p => PartFit.Of(p, models.Find(p.Model), place)), weighed);
        return Bringing.Of(ticket, place, fits, models.All) with
        {
            Spares = known.Customer.Spares,
            SetAside = await SetAsideAsync(ticket, known, models, ct),
        };
    }

    /// <summary>What was right when it was set aside may be wrong by now: the machine was seen, a model turned out to never work.</summary>
    private async Task<IReadOnlyList<PartFit>> SetAsideAsync(Ticket ticket, KnownAppliance known, ListedModels models, CancellationToken ct)
    {
        var fits = new List<PartFit>();
        foreach (var (nth, part) in ticket.Parts.Index().Where(p => p.Item.GivenUp is null && !Target.WentIn(ticket, p.Item.Serial)))
        {
            var kept = await AsOnRecordAsync(ticket, new(part.Serial, part.Model, part.Bytes, part.Depot), models, ct);
            fits.Add(PartFit.Of(kept, models.Find(kept.Model), await PlaceAsync(ticket, known, models, nth, ct)));
        }
        return fits;
    }

    /// <summary>A part that is to be reserved, with what speaks against it; refused where it does not fit.</summary>
    public async Task<Parsed<PartReserved>> JudgedAsync(Ticket ticket, PartReserved asked, CancellationToken ct)
    {
        var models = new ListedModels(await driveModels.AllAsync(ct));
        var part = await AsOnRecordAsync(ticket, asked, models, ct);
        // Of a machine that is on no list nothing tells what fits; another machine's data is in nobody's machine.
        if (ticket.Report is not { } report || await book.FindAsync(report.Asset, ct) is not { } known)
            return PartFit.NotWiped(part) is { } unwiped
                ? new Parsed<PartReserved>.Refused($"{part.Serial} does not fit: {unwiped}")
                : new Parsed<PartReserved>.Ok(asked with { Warnings = null });
        var fit = PartFit.Of(part, models.Find(part.Model), await PlaceAsync(ticket, known, models, PartReserved.PlaceOfNext(ticket), ct));
        return fit.Fit == Fit.DoesNotFit
            ? new Parsed<PartReserved>.Refused($"{part.Serial} does not fit: {string.Join(" ", fit.Blocks)}")
            : new Parsed<PartReserved>.Ok(asked with { Warnings = fit.ToOverrule.Count > 0 ? fit.ToOverrule : null });
    }

    /// <summary>
    /// A part as stores has it, and as it is named where stores has nothing. Its own history counts, wherever it comes from and
    /// whatever a list says of it; what this ticket made of it is the journal's to judge.
    /// </summary>
    private async Task<StockPart> AsOnRecordAsync(Ticket ticket, PartReserved asked, ListedModels models, CancellationToken ct)
    {
        var serial = SerialNumber.Normalise(asked.Serial);
        var line = await ledger.LineAsync(serial, ct);
        var part =
            (await drives.StockAsync(serial, ct)).FirstOrDefault()
            ?? new StockPart(serial, line.Part?.Model ?? asked.Model, line.Part?.Bytes ?? 0, asked.Depot, line.Part?.Hours);
        if (models.Find(part.Model) is null) // as a machine named it, once
            part = part with { Model = asked.Model };
        if (part.Bytes == 0)
            part = part with { Bytes = asked.Bytes };
        if (part.UsedIn is null && !ticket.Parts.Exists(p => p.Serial == serial))
            part = part with { UsedIn = line.UnwipedFrom ?? await drives.UsedUnwipedAsync(serial, line.WipedAt, ct) };
        return part with { Wiped = part.Wiped || Target.IsWiped(ticket, serial) };
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

    /// <param name="nth">Which of several drives the part is for.</param>
    private async Task<Place> PlaceAsync(Ticket ticket, KnownAppliance known, ListedModels models, int nth, CancellationToken ct)
    {
        var bay = ticket.Latest?.BayLabelled(Target.Label(ticket, nth));
        var old = bay?.Serial is { } serial ? (await drives.FindAsync(serial, 1, ct)).FirstOrDefault() : null;
        var model = (bay?.Model ?? old?.Model) is { } name ? models.Find(name) : null;
        return new(
            known.Model,
            Target.LeastBytes(ticket, nth) ?? Bringing.SmallestDesigned(known.Appliance),
            model,
            old?.Hours,
            await driveModels.KnownInAsync(known.Model.Id, ct)
        );
    }
}
