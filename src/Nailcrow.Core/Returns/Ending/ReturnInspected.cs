using System.Text.Json.Serialization;
using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns.Ending;

/// <summary>What somebody who looked at it found of a drive that came back.</summary>
[JsonConverter(typeof(KebabEnum<InspectionFinding>))]
public enum InspectionFinding
{
    AsAnnounced,

    /// <summary>It was announced as bad, and nothing is wrong with it.</summary>
    NothingWrong,

    /// <summary>Knocked about, or opened.</summary>
    Damaged,

    /// <summary>Something that belongs to it is missing: its carrier, its screws, its box.</summary>
    Incomplete,
}

/// <summary>Stores has looked at what came back, and not only booked it in: its serial, its state, whether all is there.</summary>
/// <param name="Note">What was seen; needed wherever it is not as announced.</param>
public sealed record ReturnInspected(string Serial, InspectionFinding Found, string? Note = null) : FactBody
{
    public override string Told() => $"Looked at {Serial}: {Said()}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Stores, Role.Lead];

    public override string? Problem(Ticket ticket)
    {
        if (HandedOn.Problem(Serial) is { } no)
            return no;
        var serial = SerialNumber.Normalise(Serial);
        return ticket.Returns.Find(r => r.Serial == serial) switch
        {
            null => $"No return for {serial} was opened on this ticket.",
            { ArrivedAt: null } => $"{serial} has not arrived yet; book it in first.",
            { To.Kind: not HolderKind.Depot } back => $"{serial} went to {back.To}; what they find is written down as what came of it.",
            _ => Found != InspectionFinding.AsAnnounced && string.IsNullOrWhiteSpace(Note) ? "Say what you saw." : null,
        };
    }

    internal override Ticket Fold(Ticket ticket, Stamp stamp)
    {
        var serial = SerialNumber.Normalise(Serial);
        if (ticket.Returns.Find(r => r.Serial == serial) is not { } back)
            return ticket;
        var looked = ticket with
        {
            Returns = ticket.Returns.Replace(
                back,
                back with
                {
                    InspectedAt = stamp.At,
                    InspectedBy = stamp.By,
                    Found = Said(),
                    FoundAs = Found,
                }
            ),
        };
        return Found is InspectionFinding.Damaged or InspectionFinding.Incomplete
            ? looked.Raise(stamp, "return", $"{serial} is not as it was sent: {Said()}. Claim it from whoever had it, with a picture.")
            : looked;
    }

    private string Said() => Words.Of(Found).Replace('-', ' ') + (string.IsNullOrWhiteSpace(Note) ? "" : $". {Note.TrimEnd('.')}");
}
