using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps.Seen;

/// <summary>A picture that goes with a ticket.</summary>
public sealed record Photo(Guid Id, string? Step, string? Says, DateTimeOffset At, string By);

/// <summary>A picture was taken. The picture itself is kept beside the journal; the hash tells that it is still the same one.</summary>
/// <param name="Sha256">Of the picture's bytes, in hex.</param>
/// <param name="Step">The step it was taken at; null where at none.</param>
public sealed record PhotoTaken(Guid Photo, string Sha256, string MediaType, long Bytes, string? Step = null, string? Says = null)
    : FactBody
{
    public override string Told() => $"A picture{(Says is { } says ? $": {says}" : "")}";

    public override string? ByServiceOnly() =>
        "A picture is sent as its bytes, and the service writes its entry: PUT /api/tickets/{number}/photos/{id}, or 'nailcrow ticket photo'.";

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        ticket with
        {
            Photos = ticket.Photos.Add(new(Photo, Step, Says, stamp.At, stamp.By)),
        };
}
