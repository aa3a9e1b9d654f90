using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns.Carrying;

/// <summary>A carrier is asked to fetch one box with drives of this ticket that go to one place. The service asks, and writes down the answer.</summary>
/// <param name="Serials">Drives with an open return to one and the same place.</param>
/// <param name="CollectOn">The day they should come; null for the next they can.</param>
public sealed record CarrierAsked(IReadOnlyList<string> Serials, string Carrier, DateOnly? CollectOn = null) : DecisionBody
{
    public override string Told() =>
        $"{Carrier} asked to fetch {string.Join(", ", Serials)}{(CollectOn is { } day ? $" on {Parcel.Day(day)}" : "")}";

    public override string? Problem(Ticket ticket) =>
        Serials.Count == 0 ? $"Say which drives are in the box; with an open return: {Waiting(ticket)}."
        : string.IsNullOrWhiteSpace(Carrier) ? "Say which carrier is asked."
        : null;

    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now)
    {
        var returns = new List<PartReturn>();
        foreach (var serial in Normalised())
        {
            if (ticket.Returns.Find(r => r.Serial == serial && r.ArrivedAt is null) is not { } open)
                return $"No return for {serial} is open; with an open return: {Waiting(ticket)}.";
            if (open.SentAt is not null)
                return $"{serial} is with {open.Carrier} already.";
            if (ticket.Parcels.Find(p => p.Stands && p.Serials.Contains(serial) && p.IsWaitedFor(ticket)) is { } other)
                return $"{serial} is in a box already. {other.Stand()}.";
            returns.Add(open);
        }
        return returns.Select(r => r.To with { Shelf = null }).Distinct().ToList() is [var first, var second, ..]
            ? $"One box goes to one place: {returns[0].Serial} goes to {first}, another to {second}. Ask for each by itself."
            : null;
    }

    internal override Ticket Fold(Ticket ticket, Stamp stamp)
    {
        var serials = Normalised();
        return ticket.Returns.Find(r => serials.Contains(r.Serial)) is not { } open
            ? ticket.Raise(
                stamp,
                "parcel",
                $"{Carrier} is not to fetch {string.Join(", ", serials)}, which goes nowhere by this record; what was booked is called off."
            )
            : ticket with
            {
                Parcels = ticket.Parcels.Add(new(stamp.Entry, serials, Carrier, open.To, CollectOn, stamp.At, stamp.By)),
            };
    }

    private List<string> Normalised() => [.. Serials.Select(SerialNumber.Normalise).Distinct()];

    private static string Waiting(Ticket ticket) =>
        string.Join(", ", ticket.Returns.Where(r => r.SentAt is null && r.ArrivedAt is null).Select(r => r.Serial).DefaultIfEmpty("none"));
}
