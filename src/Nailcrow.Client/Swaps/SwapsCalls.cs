using Nailcrow.Client.Appliances;
using Nailcrow.Client.Rebuilds;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Reports;
using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Leaving;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Telling;

namespace Nailcrow.Client;

/// <summary>What is done and seen at the machine, and the drives it is about.</summary>
public sealed partial class NailcrowClient
{
    /// <summary>The service looks at the machine and keeps what it sees.</summary>
    public Task<Receipt> TakeSnapshotAsync(long number, CancellationToken ct) =>
        PostOnceAsync($"api/tickets/{number}/snapshots?id={NewId()}", Json.Receipt, ct);

    /// <summary>The service asks the machine how far its rebuild is, and keeps the answer.</summary>
    public Task<Receipt> TakeReadingAsync(long number, CancellationToken ct) =>
        PostOnceAsync($"api/tickets/{number}/readings?id={NewId()}", Json.Receipt, ct);

    public Task<Receipt> SwitchLightAsync(long number, bool on, CancellationToken ct) =>
        PostOnceAsync($"api/tickets/{number}/light?id={NewId()}", new(on), Json.LightAsk, Json.Receipt, ct);

    /// <param name="because">Why a run that is under way is left for it.</param>
    public Task<Receipt> StartRunAsync(
        long number,
        string? procedure,
        CancellationToken ct,
        DateTimeOffset? at = null,
        string? because = null
    ) => PostOnceAsync($"api/tickets/{number}/sheet?id={NewId()}", new(procedure, at, because), Json.SheetAsk, Json.Receipt, ct);

    /// <summary>What a run that is under way may be left for.</summary>
    public async Task<IReadOnlyList<OtherSheet>> OtherSheetsAsync(long number, CancellationToken ct) =>
        (await GetAsync($"api/tickets/{number}/sheets", Json.OtherSheets, ct)).Sheets;

    public Task<DriveList> FindDrivesAsync(string find, CancellationToken ct) =>
        GetAsync($"api/drives?find={Uri.EscapeDataString(find)}", Json.DriveList, ct);

    public Task<DriveLifeView> DriveAsync(string serial, CancellationToken ct) =>
        GetAsync($"api/drives/{Uri.EscapeDataString(serial)}", Json.DriveLifeView, ct);

    public Task<SnapshotList> SnapshotsAsync(string asset, CancellationToken ct) =>
        GetAsync($"api/appliances/{Uri.EscapeDataString(asset)}/snapshots", Json.SnapshotList, ct);

    public Task<BayMapView> BayMapAsync(string asset, CancellationToken ct) =>
        GetAsync($"api/appliances/{Uri.EscapeDataString(asset)}/map", Json.BayMapView, ct);

    /// <summary>Two snapshots, each named by ticket and entry as "T-1002/5".</summary>
    public Task<SnapshotDifference> CompareAsync(string before, string after, CancellationToken ct) =>
        GetAsync(
            $"api/snapshots/compare?before={Uri.EscapeDataString(before)}&after={Uri.EscapeDataString(after)}",
            Json.SnapshotDifference,
            ct
        );

    /// <summary>The steps of the sheet as its paper numbers them.</summary>
    public Task<IReadOnlyList<PaperPlace>> PaperOrderAsync(long number, CancellationToken ct) =>
        GetAsync($"api/tickets/{number}/paper", Json.IReadOnlyListPaperPlace, ct);

    /// <summary>The run sheet as a PDF.</summary>
    public Task PaperAsync(long number, Stream into, CancellationToken ct) => FileAsync($"api/tickets/{number}/sheet.pdf", into, ct);

    /// <summary>Keeps a picture with a ticket; the same id again counts once.</summary>
    /// <summary>What a customer would sign now.</summary>
    public Task<SigningText> ToSignAsync(long number, CancellationToken ct) =>
        GetAsync($"api/tickets/{number}/signing", Json.SigningText, ct);

    /// <summary>What was signed, word for word.</summary>
    public Task<SigningText> SignedAsync(long number, Guid signature, CancellationToken ct) =>
        GetAsync($"api/tickets/{number}/signatures/{signature}", Json.SigningText, ct);

    /// <param name="seen">The SHA-256 of what was shown.</param>
    public async Task<Receipt> SignAsync(
        long number,
        Guid signature,
        string name,
        string? statement,
        string seen,
        Stream picture,
        CancellationToken ct
    )
    {
        var asked =
            $"name={Uri.EscapeDataString(name)}&seen={seen}" + (statement is null ? "" : $"&statement={Uri.EscapeDataString(statement)}");
        return await PutPictureAsync($"api/tickets/{number}/signatures/{signature}?{asked}", picture, "image/png", ct);
    }

    /// <param name="of">The serial of the drive that it is of.</param>
    public async Task<Receipt> KeepPhotoAsync(
        long number,
        Guid photo,
        Stream picture,
        string? step,
        string? says,
        CancellationToken ct,
        string? of = null
    )
    {
        var query = string.Join(
            '&',
            new[] { ("step", step), ("says", says), ("of", of) }
                .Where(q => q.Item2 is not null)
                .Select(q => $"{q.Item1}={Uri.EscapeDataString(q.Item2!)}")
        ); // the filter left those that are said
        return await PutPictureAsync($"api/tickets/{number}/photos/{photo}?{query}", picture, "image/jpeg", ct);
    }

    /// <summary>Readings of the rebuild, oldest first, a page of them.</summary>
    public Task<ReadingPage> ReadingsAsync(long number, int after, CancellationToken ct) =>
        GetAsync($"api/tickets/{number}/readings?after={after}", Json.ReadingPage, ct);
}
