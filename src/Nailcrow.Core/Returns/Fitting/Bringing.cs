using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Returns.Fitting;

/// <summary>What to bring: parts that fit, tools, and what the array holds afterwards.</summary>
public static class Bringing
{
    private const int MostShown = 30;

    /// <param name="fits">Every part in stock, the best first.</param>
    /// <param name="known">Every model of drive that one can buy.</param>
    public static BringView Of(Ticket ticket, Place place, IReadOnlyList<PartFit> fits, IReadOnlyCollection<DriveModel>? known = null)
    {
        var (array, bay) = (
            ticket.OnlyAdds ? null : Target.Array(ticket), // what stands by changes no array
            ticket.Latest?.BayLabelled(Target.Label(ticket, PartReserved.PlaceOfNext(ticket)))
        );
        return new(
            Needed(place, place.Machine, bay),
            [.. fits.Take(MostShown)],
            Forecast(ticket, array, [.. fits.Where(f => f.Fit != Fit.DoesNotFit).Select(f => f.Part)], place.Machine),
            Upgrade(ticket, array, fits),
            Tools(place.Machine),
            EachBay: EachBay(ticket, array, [.. (known ?? []).Where(m => PartFit.GoesInto(m, place.Machine)).Select(m => m.Bytes)])
        );
    }

    private static IReadOnlyList<BaySize> EachBay(Ticket ticket, DriveArray? array, IReadOnlyCollection<long> sizes) =>
        array is not null && Target.Placed(ticket, array) is { Count: > 0 } members && members.All(b => b.Bytes is not null)
            ? Upgrades.EachBay(array, members, sizes)
            : [];

    /// <summary>What the array would hold after exchanges written as "3=12TB,5=16TB".</summary>
    public static Parsed<Upgrade> Planned(Ticket ticket, string plan)
    {
        if (
            Target.Array(ticket) is not { } array
            || Target.Placed(ticket, array) is not { Count: > 0 } members
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

    /// <summary>Before any snapshot: no member of any of its arrays is smaller than this.</summary>
    public static long? SmallestDesigned(Appliance appliance) =>
        (appliance.Arrays ?? []).Select(a => a.MemberBytes).OfType<long>().Cast<long?>().DefaultIfEmpty(null).Max();

    private static string Needed(Place place, ApplianceModel model, Bay? bay) =>
        $"{(bay is null ? "One drive" : $"One drive for bay {bay.Label}")}: {model.FormFactor}"
        + (model.Interfaces is { } interfaces ? $", {string.Join(" or ", interfaces)}" : "")
        + (model.SectorFormats is { } formats ? $", sectors {string.Join(" or ", formats)}" : "")
        + (
            place.LeastBytes is { } bytes
                ? $", at least {bytes:N0} bytes, {ByteSize.Both(bytes)}."
                : ". How large is not known; take a snapshot, or read it from the old drive's label."
        );

    /// <summary>Of the parts that are set aside, each in the place of its drive; else of those proposed.</summary>
    private static CapacityForecast? Forecast(Ticket ticket, DriveArray? array, IReadOnlyList<StockPart> fitting, ApplianceModel model)
    {
        if (array is null || Target.Placed(ticket, array) is not { Count: > 0 } members || members.Any(b => b.Bytes is null))
            return null;
        var changes = Exchanges(ticket, fitting).ToList();
        var now = Upgrades.Now(array, members);
        if (changes.Count == 0)
            return new(now, now, "No part in stock fits.");
        var after = Upgrades.Plan(array, members, changes);
        return new(
            now,
            after.After,
            after.Gain switch
            {
                0 => "The swap changes no capacity.",
                > 0 => $"{ByteSize.Both(after.Gain)} more, {Claimed(model)}.",
                _ => $"{ByteSize.Both(-after.Gain)} less: the array would not hold what it holds now.",
            }
        );
    }

    private static IEnumerable<SizeChange> Exchanges(Ticket ticket, IReadOnlyList<StockPart> fitting)
    {
        var proposed = new Queue<long>(fitting.Select(p => p.Bytes));
        var bays = ticket.Chosen.Count == 0 ? [Target.Bay(ticket)] : ticket.Chosen.Select(s => ticket.Latest?.Holding(s)).ToList();
        for (var i = 0; i < bays.Count; i++)
        {
            var part =
                i < ticket.Parts.Count ? ticket.Parts[i].Bytes
                : proposed.Count > 0 ? proposed.Dequeue()
                : (long?)null;
            // One that is out already has its new one in its place.
            if (bays[i] is { } bay && part is { } bytes)
                yield return new(bay.Label, bay.Bytes ?? 0, ByteSize.Labelled(bytes));
        }
    }

    private static IReadOnlyList<Upgrade> Upgrade(Ticket ticket, DriveArray? array, IReadOnlyList<PartFit> fits)
    {
        if (array is null || Target.Placed(ticket, array) is not { Count: > 0 } members || members.Any(b => b.Bytes is null))
            return [];
        return
        [
            .. Upgrades
                .Best(array, members, [.. fits.Where(f => f.Fit != Fit.DoesNotFit).Select(f => f.Part.Bytes)])
                .Where(u => u.Gain > 0),
        ];
    }

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
