using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns.Issuing;

/// <summary>Why a replacement is no replacement.</summary>
[JsonConverter(typeof(KebabEnum<NoReplacement>))]
public enum NoReplacement
{
    DeadOnArrival,
    TooSmall,
    DoesNotFit,

    /// <summary>It sits and turns, and the machine will not have it.</summary>
    NotTaken,

    /// <summary>Another array's data is on it, and it is not wiped here.</summary>
    CarriesOldData,

    /// <summary>It never came, or somebody else used it.</summary>
    NotHere,

    /// <summary>Nothing is wrong with it, and nothing waits for it.</summary>
    NotNeeded,

    /// <summary>Nothing is wrong with it, and another one suits better: nearer, larger, longer under warranty.</summary>
    FoundBetter,
}

/// <summary>A part that was to go in and does not: another one takes its place on the ticket.</summary>
public sealed record PartGivenUp(string Serial, NoReplacement Reason, string? Note = null) : FactBody
{
    public override string Told() => $"Gave up {Serial}: {EntryTold.Said(Words.Of(Reason))}{(Note is { } note ? $". {note}" : "")}";

    public override string? Problem(Ticket ticket) =>
        SerialNumber.Parse(Serial) is Parsed<SerialNumber>.Refused no ? no.Reason
        : ticket.Parts.Exists(p => p.Serial == SerialNumber.Normalise(Serial)) ? null
        : $"{SerialNumber.Normalise(Serial)} is no part of this ticket; its parts: {Parts(ticket)}.";

    internal override Ticket Fold(Ticket ticket, Stamp stamp)
    {
        var serial = SerialNumber.Normalise(Serial);
        if (ticket.Parts.Find(p => p.Serial == serial) is not { } part)
            return ticket.Raise(stamp, "given-up", $"{serial} was given up, and it was no part of this ticket.");
        if (part.GivenUp == Reason)
            return ticket; // said twice
        var without = Without(ticket, part, Reason);
        // In its bay it stays until it is taken out; what never came is with nobody we know of.
        return Reason == NoReplacement.NotHere && part.IssuedTo is null
            ? without with
            {
                Custody = new Custody(without.Custody.Moves.RemoveAll(m => m.Serial == serial)),
            }
            : without;
    }

    /// <summary>Its place waits for another part, unless that one is set aside already.</summary>
    internal static Ticket Without(Ticket ticket, ReservedPart part, NoReplacement reason)
    {
        var given = part with { GivenUp = reason };
        return ticket with
        {
            Parts = ticket.Parts.Count > ticket.DrivesWanted ? ticket.Parts.Remove(part) : ticket.Parts.Replace(part, given),
            GivenUp = ticket.GivenUp.RemoveAll(p => p.Serial == part.Serial).Add(given),
        };
    }

    private static string Parts(Ticket ticket) => ticket.Parts.Count == 0 ? "none" : string.Join(", ", ticket.Parts.Select(p => p.Serial));
}
