using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Stores;
using Nailcrow.Core.Terms;
using Nailcrow.Documents.Returns;
using Nailcrow.Service.Host;
using Nailcrow.Store.Returns.Ledger;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Service.Returns;

/// <summary>What stores prints: the picking list, and labels for parts.</summary>
internal static class StoresPaperEndpoints
{
    private const int MostLabels = 480;

    public static void MapStoresPapers(this WebApplication app)
    {
        var stores = app.MapGroup("/api/stores").WithTags("Returns");
        stores.MapGet("/picking-list.pdf", PickingList).WithName("PrintPickingList");
        stores.MapGet("/labels.pdf", Labels).WithName("PrintStockLabels");
    }

    /// <summary>What is to be taken off its shelf, in the order of the shelves, with boxes to tick.</summary>
    internal static async Task<FileContentHttpResult> PickingList(
        LedgerBook book,
        TicketLines lines,
        TimeProvider time,
        CancellationToken ct,
        string? depot = null
    )
    {
        var only = string.IsNullOrWhiteSpace(depot) ? null : depot.Trim();
        using var pdf = new MemoryStream();
        PickingPaper.Write(await StoresEndpoints.ToPickAsync(only, book, lines, ct), only, time.GetUtcNow(), pdf);
        return TypedResults.File(pdf.ToArray(), "application/pdf", "picking list.pdf");
    }

    /// <summary>Labels of parts: one on a page of its own size, several on sheets of 24.</summary>
    /// <param name="serial">Whose labels; repeated for several.</param>
    /// <param name="depot">Else: of all that lie there.</param>
    internal static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Labels(
        LedgerBook book,
        TimeProvider time,
        CancellationToken ct,
        [FromQuery] string[]? serial = null,
        string? depot = null,
        string? shelf = null
    )
    {
        var parts = new List<StoredPart>();
        if (serial is { Length: > 0 and <= MostLabels })
            foreach (var one in serial.Distinct())
            {
                if (!SerialNumber.Parse(one).Is(out var read, out var reason))
                    return Refusals.Unusable(reason);
                if ((await book.ViewAsync(await book.MeantAsync(read.Text, ct), ct))?.Now is not { } part)
                    return Refusals.NotFound($"The ledger has no part {SerialNumber.Normalise(read.Text)}; receive it first.");
                parts.Add(part);
            }
        else if (serial is not { Length: > 0 } && !string.IsNullOrWhiteSpace(depot))
            parts.AddRange(await book.HeldAsync(Holder.OfPlace(depot, shelf), null, MostLabels + 1, ct));
        if (parts.Count is 0 or > MostLabels || serial?.Length > MostLabels)
            return Refusals.Unusable(
                parts.Count > MostLabels || serial?.Length > MostLabels
                    ? $"At most {MostLabels} labels are printed at once; print shelf by shelf."
                : string.IsNullOrWhiteSpace(depot) ? "Say whose label: serial=SERIAL, repeated for several; or depot=NAME, and shelf=SHELF."
                : $"Nothing is {Holder.OfPlace(depot, shelf).Where()}."
            );
        using var pdf = new MemoryStream();
        StockLabels.Write(parts, time.GetUtcNow(), pdf);
        return TypedResults.File(pdf.ToArray(), "application/pdf", "labels.pdf");
    }
}
