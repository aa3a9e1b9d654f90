using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Linking;

namespace Nailcrow.Core.Swaps.Seen;

/// <summary>
/// A picture is kept no more: it showed what nobody may keep, or it was kept as long as was agreed. The entry that came with it stays, and
/// with it the picture's hash; only the bytes are gone.
/// </summary>
/// <param name="Photo">The picture's id, also of a signature.</param>
public sealed record PictureRemoved(Guid Photo, string Because) : DecisionBody
{
    public override string Told() => $"A picture is kept no more: {Because}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Lead];

    public override bool MayFollowTheEnd() => true;

    /// <summary>Which pictures came with the ticket is known to its record alone: <see cref="WhyNot"/> rules on it.</summary>
    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now) =>
        ticket.PicturesRemoved.TryGetValue(Photo, out var gone) ? $"It is gone already: {gone.Told()}."
        : string.IsNullOrWhiteSpace(Because) ? "Say why it may not be kept; the journal tells it instead of the picture."
        : null;

    /// <summary>What of a record has no such picture, as a sentence; null where one came with it, whatever was said of it since.</summary>
    public static string? WhyNot(TicketRecord record, Guid photo) =>
        record.Arrived.Any(e => PictureOf(e.Body) == photo)
            ? null
            : $"No picture {photo} came with {TicketNumber.Text(record.Ticket.Number)}; its journal has the entries that pictures came with.";

    /// <summary>The picture that is kept beside an entry; null where none is.</summary>
    public static Guid? PictureOf(EntryBody body) =>
        body switch
        {
            PhotoTaken taken => taken.Photo,
            CustomerSignedOff { Signature: { } signature } => signature.Photo,
            _ => null,
        };

    /// <summary>
    /// When the record heard that the ticket ended; null while it has not. What cannot be undone does not go by a time that somebody said.
    /// </summary>
    public static DateTimeOffset? EndHeard(TicketRecord record) =>
        record.Ticket.IsEnded
            ? record.Arrived.Where(e => e.Body is TicketClosed or TicketCancelled or TicketJoined).Max(e => (DateTimeOffset?)e.RecordedAt)
            : null;

    /// <summary>The bytes go when the entry is recorded, whenever somebody says that they decided it.</summary>
    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        ticket with
        {
            PicturesRemoved = ticket.PicturesRemoved.SetItem(Photo, new(stamp.RecordedAt, stamp.By, Because)),
        };
}
