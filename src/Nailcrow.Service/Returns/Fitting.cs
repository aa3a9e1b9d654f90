using Nailcrow.Client.Appliances;
using Nailcrow.Core;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Risk;
using Nailcrow.Store.Appliances;

namespace Nailcrow.Service.Returns;

/// <summary>Which parts fit a ticket's bay, and what the array then holds.</summary>
internal sealed class Fitting(ReferenceBook book, Drives drives)
{
    private const int MostShown = 30;

    public async Task<BringView?> BringAsync(Ticket ticket, CancellationToken ct)
    {
        if (ticket.Report is not { } report || await book.FindAsync(report.Asset, ct) is not { } known)
            return null;
        var models = (await book.DriveModelsAsync(ct)).ToDictionary(m => m.Id);
        var place = await PlaceAsync(ticket, known, models, ct);
        var stock = await drives.StockAsync(null, ct);
        var fits = PartFit.Ranked(stock.Select(p => PartFit.Of(p, models.GetValueOrDefault(p.Model), place))).ToList();
        var (array, bay) = (ArrayOf(ticket), TargetOf(ticket));
        return new(
            Needed(place, known.Model, bay),
            [.. fits.Take(MostShown)],
            Forecast(ticket, array, bay, fits.FirstOrDefault(f => f.Fit != Fit.DoesNotFit)?.Part, known.Model),
            Upgrade(ticket, array, fits),
            Tools(known.Model)
        );
    }

    /// <summary>What the array would hold after exchanges written as "3=12TB,5=16TB".</summary>
    public static Parsed<Upgrade> Planned(Ticket ticket, string plan)
    {
        if (
            ArrayOf(ticket) is not { } array
            || MembersOf(ticket, array, TargetOf(ticket)) is not { Count: > 0 } members
            || members.Any(b => b.Bytes is null)
        )
            return new Parsed<Upgrade>.Refused("How large the members are is not known; take a snapshot first.");
        var changes = new List<SizeChange>();
        foreach (var part in plan.Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            if (part.Split('=') is not [var label, var size] || members.FirstOrDefault(b => b.Label == label) is not { } bay)
                return new Parsed<Upgrade>.Refused(
                    $"'{part}' names no member of {array.Name}; write BAY=SIZE, as 3=12TB, with bays {string.Join(", ", members.Select(b => b.Label))}."
                );
            if (!ByteSize.Parse(size).Is(out var bytes, out var reason))
                return new Parsed<Upgrade>.Refused(reason);
            changes.Add(new(label, bay.Bytes ?? 0, bytes));
        }
        return new Parsed<Upgrade>.Ok(Upgrades.Plan(array, members, changes));
    }

    /// <summary>A part that is to be reserved, with what speaks against it; refused where it does not fit.</summary>
    public async Task<Parsed<PartReserved>> JudgedAsync(Ticket ticket, PartReserved asked, CancellationToken ct)
    {
        if (ticket.Report is not { } report || await book.FindAsync(report.Asset, ct) is not { } known)
            return new Parsed<PartReserved>.Ok(asked with { Warnings = null });
        var models = (await book.DriveModelsAsync(ct)).ToDictionary(m => m.Id);
        var serial = SerialNumber.Normalise(asked.Serial);
        var listed = (await drives.StockAsync(serial, ct)).FirstOrDefault();
        var part = listed ?? new StockPart(serial, asked.Model, asked.Bytes, asked.Depot, Wiped: ticket.Wiped.Contains(serial));
        // Of a model that is not in the list nothing can be judged; who typed it answers for it.
        if (!models.TryGetValue(part.Model, out var model))
            return new Parsed<PartReserved>.Ok(asked with { Warnings = null });
        var fit = PartFit.Of(
            part with
            {
                Wiped = part.Wiped || ticket.Wiped.Contains(serial),
            },
            model,
            await PlaceAsync(ticket, known, models, ct)
        );
        return fit.Fit == Fit.DoesNotFit
            ? new Parsed<PartReserved>.Refused($"{serial} does not fit: {string.Join(" ", fit.Blocks)}")
            : new Parsed<PartReserved>.Ok(asked with { Warnings = fit.Warns.Count > 0 ? fit.Warns : null });
    }

    private async Task<Place> PlaceAsync(
        Ticket ticket,
        KnownAppliance known,
        IReadOnlyDictionary<string, DriveModel> models,
        CancellationToken ct
    )
    {
        var bay = TargetOf(ticket);
        var old = bay?.Serial is { } serial ? (await drives.FindAsync(serial, 1, ct)).FirstOrDefault() : null;
        // Redfish names a model without its maker; the list names both.
        var model = (bay?.Model ?? old?.Model) is { } name
            ? models.GetValueOrDefault(name)
                ?? models.Values.FirstOrDefault(m => m.Id.EndsWith(" " + name, StringComparison.OrdinalIgnoreCase))
            : null;
        return new(
            known.Model,
            ArrayOf(ticket)?.MemberBytes ?? bay?.Bytes ?? SmallestDesigned(known.Appliance),
            model,
            old?.Hours,
            await book.QualifiedAsync(known.Model.Id, ct)
        );
    }

    /// <summary>Before any snapshot: no member of any of its arrays is smaller than this.</summary>
    private static long? SmallestDesigned(Appliance appliance) =>
        (appliance.Arrays ?? []).Select(a => a.MemberBytes).OfType<long>().Cast<long?>().DefaultIfEmpty(null).Max();

    private static Bay? TargetOf(Ticket ticket) =>
        ticket.Latest is { } now
            ? now.Holding(ticket.Sheet?.TargetSerial ?? ticket.Report?.Serial) ?? now.BayLabelled(ticket.Report?.Bay)
            : null;

    private static DriveArray? ArrayOf(Ticket ticket) =>
        ticket.Latest is { } now ? now.Arrays.FirstOrDefault(a => a.Name == Danger.Of(ticket).Array) : null;

    private static string Needed(Place place, ApplianceModel model, Bay? bay) =>
        $"{(bay is null ? "One drive" : $"One drive for bay {bay.Label}")}: {model.FormFactor}"
        + (model.Interfaces is { } interfaces ? $", {string.Join(" or ", interfaces)}" : "")
        + (model.SectorFormats is { } formats ? $", sectors {string.Join(" or ", formats)}" : "")
        + (
            place.LeastBytes is { } bytes
                ? $", at least {bytes:N0} bytes, {ByteSize.Both(bytes)}."
                : ". How large is not known; take a snapshot, or read it from the old drive's label."
        );

    private static CapacityForecast? Forecast(Ticket ticket, DriveArray? array, Bay? bay, StockPart? part, ApplianceModel model)
    {
        if (
            array is null
            || bay is null
            || MembersOf(ticket, array, bay) is not { Count: > 0 } members
            || members.Any(b => b.Bytes is null)
        )
            return null;
        var (now, after) = (
            Upgrades.Now(array, members),
            part is null ? null : Upgrades.Plan(array, members, [new(bay.Label, bay.Bytes ?? 0, part.Bytes)])
        );
        return new(
            now,
            after?.After ?? now,
            after is null ? "No part in stock fits."
                : after.Gain == 0 ? "The swap changes no capacity."
                : $"{ByteSize.Both(after.Gain)} more, {Claimed(model)}."
        );
    }

    private static IReadOnlyList<Upgrade> Upgrade(Ticket ticket, DriveArray? array, IReadOnlyList<PartFit> fits)
    {
        if (array is null || MembersOf(ticket, array, TargetOf(ticket)) is not { Count: > 0 } members || members.Any(b => b.Bytes is null))
            return [];
        return
        [
            .. Upgrades
                .Best(array, members, [.. fits.Where(f => f.Fit != Fit.DoesNotFit).Select(f => f.Part.Bytes)])
                .Where(u => u.Gain > 0),
        ];
    }

    /// <summary>The members and, where it was dropped, the drive that is to be replaced: its place is what is filled again.</summary>
    private static IReadOnlyList<Bay> MembersOf(Ticket ticket, DriveArray array, Bay? bay) =>
        [
            .. ticket.Latest?.Bays.Where(b =>
                b.Array == array.Name && (b.Role is BayRole.Member or BayRole.Filling || b.Label == bay?.Label)
            ) ?? [],
        ];

    private static string Claimed(ApplianceModel model) =>
        model.Growth switch
        {
            Growth.Automatic => "which the machine takes by itself",
            Growth.Prompted => "once the machine's question is answered",
            Growth.ByHand => "once it is claimed on the machine",
            _ => "which this machine cannot use",
        };

    private static IReadOnlyList<string> Tools(ApplianceModel model) =>
        [
            "Earthing strap",
            .. model.Tools ?? [],
            .. model.CarrierScrews > 0 ? [$"Screwdriver for {model.CarrierScrews} carrier screws"] : Array.Empty<string>(),
            .. model.Bezel == Bezel.Key ? ["Bezel key"] : Array.Empty<string>(),
            .. model.CoverLimitSeconds is { } limit
                ? [$"A clock: the cover may be off for {limit / 60.0:0.#} minutes"]
                : Array.Empty<string>(),
        ];
}
