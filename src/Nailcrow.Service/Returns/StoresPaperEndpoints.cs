using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Stores;
using Nailcrow.Core.Terms;
using Nailcrow.Documents.Returns;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Store.Returns.Ledger;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Service.Returns;

/// <summary>What stores prints: the picking list, and labels for parts.</summary>
internal static class StoresPaperEndpoints
{
    private const int MostLabels = 480;
    private const int MostNamed = 100; // as many of the longest serials as an address of 8 kB holds

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
        if (serial is { Length: > MostNamed })
            return Refusals.Unusable($"At most {MostNamed} labels are printed by serial at once; name the depot and its shelf.");
        if (serial is { Length: > 0 })
        {
            var known = (await book.OfAsync([.. serial.SelectMany(SerialNumber.Meanings)], ct)).ToDictionary(p => p.Serial);
            foreach (var one in serial.Distinct())
                if (SerialNumber.Meanings(one).FirstOrDefault(known.ContainsKey) is { } meant)
                    parts.Add(known[meant]);
                else
                    return Refusals.NotFound($"The ledger has no part {SerialNumber.Normalise(one)}; receive it first.");
        }
        else if (!string.IsNullOrWhiteSpace(depot))
            parts.AddRange(await book.HeldAsync(Holder.OfPlace(depot, shelf), null, MostLabels + 1, ct));
        if (parts.Count is 0 or > MostLabels)
            return Refusals.Unusable(
                parts.Count > MostLabels ? $"At most {MostLabels} labels are printed at once; print shelf by shelf."
                : string.IsNullOrWhiteSpace(depot) ? "Say whose label: serial=SERIAL, repeated for several; or depot=NAME, and shelf=SHELF."
                : $"Nothing is {Holder.OfPlace(depot, shelf).Where()}."
            );
        using var pdf = new MemoryStream();
        StockLabels.Write(parts, time.GetUtcNow(), pdf);
        return TypedResults.File(pdf.ToArray(), "application/pdf", "labels.pdf");
    }
}
