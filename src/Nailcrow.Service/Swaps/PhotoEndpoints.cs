using System.Security.Claims;
using System.Security.Cryptography;
using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.People;
using Nailcrow.Service.Tickets;
using Nailcrow.Store.Swaps;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Service.Swaps;

/// <summary>Pictures from the machine, kept with the ticket.</summary>
internal static class PhotoEndpoints
{
    public static void MapPhotos(this WebApplication app)
    {
        var photos = app.MapGroup("/api/tickets/{number:long}/photos").WithTags("Swaps");
        photos.MapPut("/{photo:guid}", Keep).WithName("KeepPhoto").Accepts<byte[]>("image/jpeg", "image/png");
        photos.MapGet("/{photo:guid}", Show).WithName("ShowPhoto");
    }

    /// <param name="step">The step it was taken at.</param>
    /// <param name="says">What is to be seen.</param>
    /// <param name="of">The serial of the drive that it is of.</param>
    internal static async Task<Results<Ok<Receipt>, ProblemHttpResult>> Keep(
        long number,
        Guid photo,
        HttpRequest request,
        TicketJournal journal,
        TimeProvider time,
        ClaimsPrincipal person,
        CancellationToken ct,
        string? step = null,
        string? says = null,
        string? of = null
    )
    {
        if (!(await PictureBody.ReadAsync(request, ct)).Is(out var picture, out var unusable))
            return Refusals.Unusable(unusable);
        if (await journal.ReadAsync(number, ct) is null)
            return Refusals.NoTicket(number);
        var taken = new PhotoTaken(
            photo,
            Convert.ToHexStringLower(SHA256.HashData(picture.Content)),
            picture.MediaType,
            picture.Content.Length,
            step,
            says,
            string.IsNullOrWhiteSpace(of) ? null : of
        );
        // The picture's id is the entry's: sent twice, it is kept once. Its bytes are kept with the entry or not at all.
        var intent = Intents.By(person.ToActor(), taken, time.GetUtcNow(), photo) with
        {
            Picture = picture,
        };
        return Receipts.Answer(await journal.WriteAsync(number, intent, ct));
    }

    internal static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Show(
        long number,
        Guid photo,
        Photos photos,
        TicketJournal journal,
        CancellationToken ct
    ) =>
        await photos.FindAsync(number, photo, ct) is var (mediaType, content) ? TypedResults.File(content, mediaType)
        : (await journal.ReadAsync(number, ct))?.Ticket.PicturesRemoved.GetValueOrDefault(photo) is { } gone
            ? TypedResults.Problem($"It is kept no more: {gone.Told()}.", statusCode: StatusCodes.Status410Gone, title: "Picture removed")
        : Refusals.NotFound("There is no such picture on this ticket.");
}
