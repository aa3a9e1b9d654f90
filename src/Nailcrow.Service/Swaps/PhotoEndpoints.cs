using System.Security.Claims;
using System.Security.Cryptography;
using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Service.Host;
using Nailcrow.Service.People;
using Nailcrow.Service.Tickets;
using Nailcrow.Store.Swaps;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Service.Swaps;

/// <summary>Pictures from the machine, kept with the ticket.</summary>
internal static class PhotoEndpoints
{
    // The console sends 1600 pixels a side at most, some 400 kB; what is larger comes from elsewhere and is too much for a phone's line.
    private const int MostBytes = 4 * 1024 * 1024;

    public static void MapPhotos(this WebApplication app)
    {
        var photos = app.MapGroup("/api/tickets/{number:long}/photos").WithTags("Swaps");
        photos.MapPut("/{photo:guid}", Keep).WithName("KeepPhoto").Accepts<byte[]>("image/jpeg", "image/png");
        photos.MapGet("/{photo:guid}", Show).WithName("ShowPhoto");
    }

    internal static async Task<Results<Ok<Receipt>, ProblemHttpResult>> Keep(
        long number,
        Guid photo,
        HttpRequest request,
        TicketJournal journal,
        TimeProvider time,
        ClaimsPrincipal person,
        CancellationToken ct,
        string? step = null,
        string? says = null
    )
    {
        if (request.ContentLength > MostBytes)
            return TooLarge(request.ContentLength.Value);
        using var memory = new MemoryStream();
        await request.Body.CopyToAsync(memory, ct);
        var content = memory.ToArray();
        if (content.Length > MostBytes)
            return TooLarge(content.Length);
        if (MediaTypeOf(content) is not { } mediaType)
            return Refusals.Unusable("That is no picture that is taken here; accepted: JPEG and PNG.");
        if (await journal.ReadAsync(number, ct) is null)
            return Refusals.NoTicket(number);
        var taken = new PhotoTaken(photo, Convert.ToHexStringLower(SHA256.HashData(content)), mediaType, content.Length, step, says);
        // The picture's id is the entry's: sent twice, it is kept once. Its bytes are kept with the entry or not at all.
        var intent = Intents.By(person.ToActor(), taken, time.GetUtcNow(), photo) with
        {
            Picture = new(mediaType, content),
        };
        return Receipts.Answer(await journal.WriteAsync(number, intent, ct));
    }

    internal static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Show(
        long number,
        Guid photo,
        Photos photos,
        CancellationToken ct
    ) =>
        await photos.FindAsync(number, photo, ct) is var (mediaType, content)
            ? TypedResults.File(content, mediaType)
            : Refusals.NotFound("There is no such picture on this ticket.");

    /// <summary>By what the bytes begin with (JPEG: ITU-T T.81; PNG: ISO/IEC 15948), whatever was said of them.</summary>
    private static string? MediaTypeOf(ReadOnlySpan<byte> content) =>
        content.StartsWith((ReadOnlySpan<byte>)[0xFF, 0xD8, 0xFF]) ? "image/jpeg"
        : content.StartsWith((ReadOnlySpan<byte>)[0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A]) ? "image/png"
        : null;

    private static ProblemHttpResult TooLarge(long bytes) =>
        Refusals.Unusable($"The picture has {bytes:N0} bytes; at most {MostBytes:N0} are taken. Send a smaller one.");
}
