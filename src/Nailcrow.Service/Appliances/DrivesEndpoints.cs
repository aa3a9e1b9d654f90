using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Client.Appliances;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Reports;
using Nailcrow.Core.Returns.Claiming;
using Nailcrow.Core.Returns.Stores;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Returns;
using Nailcrow.Store.Returns.Ledger;

namespace Nailcrow.Service.Appliances;

/// <summary>Drives and what became of them, snapshots and how they differ, and which bay is which.</summary>
internal static class DrivesEndpoints
{
    private const int MostFound = 50;

    public static void MapDrives(this WebApplication app)
    {
        var group = app.MapGroup("/api").WithTags("Appliances");
        group.MapGet("/drives", Find).WithName("FindDrives");
        group.MapGet("/drives/{serial}", Life).WithName("ShowDrive");
        group.MapGet("/appliances/{asset}/snapshots", Snapshots).WithName("ListSnapshots");
        group.MapGet("/appliances/{asset}/map", Map).WithName("ShowBayMap");
        group.MapGet("/snapshots/compare", Compare).WithName("CompareSnapshots");
    }

    internal static async Task<Results<Ok<DriveList>, ProblemHttpResult>> Find(string find, Drives drives, CancellationToken ct) =>
        find.Trim().Length < 4
            ? Refusals.Unusable("Give at least the last four characters of a serial.")
            : TypedResults.Ok(new DriveList([.. (await drives.FindAsync(find, MostFound, ct)).Select(Line)]));

    internal static async Task<Results<Ok<DriveLifeView>, ProblemHttpResult>> Life(
        string serial,
        Drives drives,
        LedgerBook ledger,
        Warranties warranties,
        TimeProvider time,
        CancellationToken ct
    )
    {
        if (!SerialNumber.Parse(serial).Is(out var read, out var reason))
            return Refusals.Unusable(reason);
        var key = SerialNumber.Normalise(read.Text);
        var listed = (await drives.FindAsync(key, 1, ct)).FirstOrDefault(d => d.Serial == key);
        var events = await drives.LifeAsync(key, ct);
        var line = await ledger.ViewAsync(key, ct);
        var model = listed?.Model ?? line?.Now?.Model;
        var warranty = KnownWarranty
            .Of(await warranties.ForAsync([key], ct), key, model)
            ?.Told(DateOnly.FromDateTime(time.GetUtcNow().UtcDateTime));
        return listed is null && events.Count == 0 && line is null && warranty is null
            ? Refusals.NotFound($"Nothing is known of a drive with the serial {key}.")
            : TypedResults.Ok(
                new DriveLifeView(key, listed is null ? null : Line(listed), events, Places(listed, events, line?.Now), line, warranty)
            );
    }

    internal static async Task<Results<Ok<SnapshotList>, ProblemHttpResult>> Snapshots(
        string asset,
        Drives drives,
        ReferenceBook book,
        CancellationToken ct
    ) =>
        await book.FindAsync(asset, ct) is not { } known
            ? Refusals.NotFound($"No appliance has the asset number '{asset}'.")
            : TypedResults.Ok(
                new SnapshotList(
                    known.Appliance.Asset,
                    [
                        .. (await drives.SnapshotsAsync(known.Appliance.Asset, 200, ct)).Select(s => new KeptSnapshotView(
                            s.Ticket,
                            s.Seq,
                            s.At,
                            s.Source,
                            s.By
                        )),
                    ]
                )
            );

    /// <summary>Any two snapshots, each named by ticket and entry as "T-1002/5".</summary>
    internal static async Task<Results<Ok<SnapshotDifference>, ProblemHttpResult>> Compare(
        string before,
        string after,
        Drives drives,
        CancellationToken ct
    )
    {
        var (a, b) = (await NamedAsync(before, drives, ct), await NamedAsync(after, drives, ct));
        return a is null || b is null
            ? Refusals.NotFound($"'{(a is null ? before : after)}' is no snapshot; name it by its ticket and entry, as T-1002/5.")
            : TypedResults.Ok(new SnapshotDifference(a, b, SnapshotComparison.Between(a, b), BayVerdict.ForAll(b)));
    }

    internal static async Task<Results<Ok<BayMapView>, ProblemHttpResult>> Map(
        string asset,
        ReferenceBook book,
        Drives drives,
        BaySightings sightings,
        CancellationToken ct
    )
    {
        if (await book.FindAsync(asset, ct) is not { } known)
            return Refusals.NotFound($"No appliance has the asset number '{asset}'.");
        var seen = await sightings.OfAsync(known.Appliance.Asset, ct);
        var latest = (await drives.LatestAsync([known.Appliance.Asset], ct)).GetValueOrDefault(known.Appliance.Asset);
        return TypedResults.Ok(new BayMapView(known.Appliance.Asset, [.. Lines(known, latest, seen)], BayMap.Warning(seen)));
    }

    private static IEnumerable<BayMapLine> Lines(KnownAppliance known, Snapshot? latest, IReadOnlyList<BaySighting> seen)
    {
        foreach (var enclosure in known.Drawing)
        {
            var row = 0;
            foreach (var bays in enclosure.Drawers.SelectMany(d => d))
            {
                row++;
                for (var column = 0; column < bays.Count; column++)
                    if (bays[column] is { Length: > 0 } label)
                    {
                        var confirmed = seen.Where(s => string.Equals(s.Bay, label, StringComparison.OrdinalIgnoreCase)).MaxBy(s => s.At);
                        yield return new(
                            label,
                            enclosure.Enclosure,
                            row,
                            column + 1,
                            confirmed?.Name ?? latest?.BayLabelled(label)?.Name,
                            confirmed?.How,
                            confirmed?.At,
                            confirmed?.Ticket
                        );
                    }
            }
        }
    }

    /// <summary>Where the newest of each record puts it: more than one is a contradiction that somebody has to look at.</summary>
    private static IReadOnlyList<string> Places(ListedDrive? listed, IReadOnlyList<LifeEvent> events, StoredPart? now)
    {
        var places = events
            .Where(e => e.Bay is not null || e.Kind == LifeEventKind.Moved)
            .GroupBy(e => e.Ticket)
            .Select(g => g.MaxBy(e => e.At))
            .OfType<LifeEvent>()
            .ToList();
        var newest = places.MaxBy(e => e.At);
        if (now is not null && (newest is null || now.Since > newest.At))
            return [$"It is {now.Holder.Where()}."]; // stores has had it in hand since
        var told = newest is null
            ? []
            : places
                .Where(p => p.Kind == LifeEventKind.Seen && newest.Kind == LifeEventKind.Seen && p.Asset != newest.Asset)
                .Append(newest)
                .Select(p => p.Sentence)
                .ToList();
        return told.Count > 0 ? told
            : listed is { Asset: { } asset } ? [$"By the list, in {(listed.Bay is { } bay ? $"bay {bay} of " : "")}{asset}."]
            : listed is { Depot: { } depot } ? [$"By the list, in the depot {depot}."]
            : [];
    }

    private static async Task<Snapshot?> NamedAsync(string name, Drives drives, CancellationToken ct) =>
        name.Split('/') is [var ticket, var seq]
        && TicketNumber.Parse(ticket) is Parsed<long>.Ok(var number)
        && long.TryParse(seq, out var entry)
            ? await drives.SnapshotAsync(number, entry, ct)
            : null;

    private static DriveLine Line(ListedDrive drive) =>
        new(drive.Serial, drive.Model, drive.Bytes, drive.Asset, drive.Bay, drive.Depot, drive.Hours, drive.UsedIn, drive.With);
}
