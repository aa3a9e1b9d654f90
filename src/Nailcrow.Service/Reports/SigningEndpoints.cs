using System.Security.Claims;
using System.Security.Cryptography;
using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Reports;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Tickets;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.People;
using Nailcrow.Service.Swaps;
using Nailcrow.Service.Tickets;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Service.Reports;

/// <summary>The customer signs on a screen: what is signed is shown first, and kept with the signature word for word.</summary>
internal static class SigningEndpoints
{
    private const int MostOfAName = 200;
    private const int MostOfAStatement = 4_000;

    public static void MapSigning(this WebApplication app)
    {
        var ticket = app.MapGroup("/api/tickets/{number:long}").WithTags("Reports");
        ticket.MapGet("/signing", ToSign).WithName("GetSigningText");
        ticket.MapPut("/signatures/{signature:guid}", Sign).WithName("KeepSignature").Accepts<byte[]>("image/png", "image/jpeg");
        ticket.MapGet("/signatures/{signature:guid}", Signed).WithName("ShowSigned");
    }

    /// <summary>What would be signed now.</summary>
    internal static async Task<Results<Ok<SigningText>, ProblemHttpResult>> ToSign(
        long number,
        TicketJournal journal,
        CancellationToken ct
    ) =>
        await journal.ReadAsync(number, ct) is { Ticket.Report: not null } record
            ? TypedResults.Ok(SigningText.Of(ServiceReport.Of(record)))
            : Refusals.NoTicket(number);

    /// <summary>Keeps a signature with what stood over it. The same one sent twice is kept once.</summary>
    /// <param name="seen">The SHA-256 of what was shown; if that is no longer what would be signed, nothing is kept.</param>
    internal static async Task<Results<Ok<Receipt>, ProblemHttpResult>> Sign(
        long number,
        Guid signature,
        string name,
        string seen,
        HttpRequest request,
        TicketJournal journal,
        TimeProvider time,
        ClaimsPrincipal person,
        CancellationToken ct,
        string? statement = null
    )
    {
        if (name.Length > MostOfAName || statement?.Length > MostOfAStatement)
            return Refusals.Unusable($"A name has at most {MostOfAName} characters, what they say {MostOfAStatement:N0}.");
        if (!(await PictureBody.ReadAsync(request, ct)).Is(out var picture, out var unusable))
            return Refusals.Unusable(unusable);
        if (await journal.ReadAsync(number, ct) is not { Ticket.Report: not null } record)
            return Refusals.NoTicket(number);
        if (record.Find(signature)?.Body is CustomerSignedOff { Signature: not null } before)
            return Receipts.Answer(await journal.WriteAsync(number, Intents.By(person.ToActor(), before, time.GetUtcNow(), signature), ct));
        var text = SigningText.Of(ServiceReport.Of(record));
        if (!text.Sha256.Equals(seen, StringComparison.OrdinalIgnoreCase))
            return Refusals.Refused("Something was recorded since this was shown; read what it is now, and sign that.");
        var signed = new Signature(
            signature,
            Convert.ToHexStringLower(SHA256.HashData(picture.Content)),
            picture.MediaType,
            picture.Content.Length,
            text.Text,
            text.Sha256
        );
        var body = new CustomerSignedOff(name.Trim(), string.IsNullOrWhiteSpace(statement) ? null : statement.Trim(), signed);
        return Receipts.Answer(
            await journal.WriteAsync(number, Intents.By(person.ToActor(), body, time.GetUtcNow(), signature) with { Picture = picture }, ct)
        );
    }

    /// <summary>What was signed, word for word; the picture of the signature is among the ticket's pictures.</summary>
    internal static async Task<Results<Ok<SigningText>, ProblemHttpResult>> Signed(
        long number,
        Guid signature,
        TicketJournal journal,
        CancellationToken ct
    ) =>
        await journal.ReadAsync(number, ct) is not { } record ? Refusals.NoTicket(number)
        : record.Find(signature)?.Body is CustomerSignedOff { Signature: { } kept }
            ? TypedResults.Ok(new SigningText(kept.Signed, kept.SignedSha256))
        : Refusals.NotFound($"There is no such signature on {TicketNumber.Text(number)}.");
}
