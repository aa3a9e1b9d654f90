using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps.Seen;

/// <summary>A picture that goes with a ticket.</summary>
/// <param name="Of">The drive that is to be seen on it; null where it is of none, or nobody said.</param>
/// <param name="Removed">That it is kept no more; null while it is.</param>
public sealed record Photo(Guid Id, string? Step, string? Says, DateTimeOffset At, string By, string? Of = null, Removal? Removed = null);

/// <summary>A picture was taken. The picture itself is kept beside the journal; the hash tells that it is still the same one.</summary>
/// <param name="Sha256">Of the picture's bytes, in hex.</param>
/// <param name="Step">The step it was taken at; null where at none.</param>
/// <param name="Serial">The drive that it is of: as it was found when it came back, as it was destroyed.</param>
public sealed record PhotoTaken(
    Guid Photo,
    string Sha256,
    string MediaType,
    long Bytes,
    string? Step = null,
    string? Says = null,
    string? Serial = null
) : FactBody
{
    public override string Told() => $"A picture{(Serial is { } serial ? $" of {serial}" : "")}{(Says is { } says ? $": {says}" : "")}";

    // Of 4 MB each at most that is two gigabytes. A job has some dozens; a script that went wrong stops here.
    internal const int MostOfOneTicket = 500;

    public override string? Problem(Ticket ticket) =>
        ticket.Photos.Count(p => p.Id != Photo && !ticket.PicturesRemoved.ContainsKey(p.Id)) >= MostOfOneTicket
            ? $"{TicketNumber.Text(ticket.Number)} has {MostOfOneTicket} pictures, and no more are kept with one; a lead lets some go first, at "
                + "the entries they came with ('nailcrow ticket correct')."
        : Serial is null ? null
        : !SerialNumber.Parse(Serial).Is(out var serial, out var reason) ? reason
        : ticket.Custody.HolderOf(serial.Text) is not null || ticket.Returns.Exists(r => r.Serial == serial.Text) ? null
        : $"{serial.Text} is no drive that this ticket moved; leave it out, and say in words what is to be seen.";

    public override string? ByServiceOnly() =>
        "A picture is sent as its bytes, and the service writes its entry: PUT /api/tickets/{number}/photos/{id}, or 'nailcrow ticket photo'.";

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        ticket with
        {
            Photos = ticket.Photos.Add(new(Photo, Step, Says, stamp.At, stamp.By, Serial is null ? null : SerialNumber.Normalise(Serial))),
        };
}
