using System.Text.Json.Serialization;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Returns.Ledger;

/// <summary>What a line of the ledger says of a part.</summary>
[JsonConverter(typeof(KebabEnum<MovementKind>))]
public enum MovementKind
{
    /// <summary>It came into the firm's hands: goods in, or it stood on the list of stock.</summary>
    Came,

    /// <summary>It went to another holder.</summary>
    Went,

    /// <summary>Somebody counted, and found it there.</summary>
    Counted,

    /// <summary>It is set aside for a ticket.</summary>
    Reserved,

    /// <summary>That ticket does not need it any more.</summary>
    Released,

    /// <summary>What was on it is gone.</summary>
    Wiped,

    /// <summary>It is to go to somebody, by a day: a return was opened for it.</summary>
    Announced,

    /// <summary>Whoever it went to has said what comes of it.</summary>
    Settled,

    /// <summary>A line before it was not so; the ticket's journal says who put it right, and why.</summary>
    Undone,

    /// <summary>It was so after all.</summary>
    Redone,

    /// <summary>Somebody has looked at what came back.</summary>
    Inspected,

    /// <summary>It was to go in somewhere, and is no replacement.</summary>
    GivenUp,
}

/// <summary>What a part is, as far as its label or a list says.</summary>
/// <param name="UsedIn">The machine it came out of, where a list says so; null for a new one.</param>
public sealed record PartData(string Model, long Bytes, int? Hours = null, string? UsedIn = null);

/// <summary>Where a part is to go.</summary>
/// <param name="Authorisation">The number under which it is taken there.</param>
public sealed record Announcement(Holder To, DateOnly? DueBy = null, string? Authorisation = null, string? Reason = null);

/// <summary>One line of the ledger. Nothing in it is ever changed; what was wrong is undone by another line.</summary>
/// <param name="Id">The same for the same event, however often it is told: of a ticket's it is made from the entry that tells of it.</param>
/// <param name="At">When it happened.</param>
/// <param name="By">Who did it.</param>
/// <param name="To">Who holds it from then on; null where it went to nobody else.</param>
/// <param name="Ticket">The ticket whose entry caused it; null for what stores does by itself.</param>
/// <param name="Asset">The machine whose bay it went into, or came out of.</param>
/// <param name="Entry">That entry.</param>
/// <param name="Of">The line that is undone or redone.</param>
/// <param name="GivenUpAs">Why it was no replacement.</param>
/// <param name="Found">What whoever looked at it found.</param>
/// <param name="Failed">The machine it came out of called it faulty or worn.</param>
public sealed record Movement(
    Guid Id,
    string Serial,
    MovementKind Kind,
    DateTimeOffset At,
    string By,
    Holder? To = null,
    long? Ticket = null,
    string? Asset = null,
    Guid? Entry = null,
    Guid? Of = null,
    PartData? Part = null,
    Announcement? Going = null,
    string? Note = null,
    NoReplacement? GivenUpAs = null,
    InspectionFinding? Found = null,
    bool? Failed = null
)
{
    /// <summary>Order of arrival among the lines of its part, from 1; the ledger gives it.</summary>
    public long Seq { get; init; }

    /// <summary>When it was written down; the ledger gives it.</summary>
    public DateTimeOffset RecordedAt { get; init; }

    /// <summary>The line as one sentence, the same everywhere.</summary>
    public string Told() => $"{What()}{(Note is { } note ? $" {note}" : "")}";

    private string What() =>
        Kind switch
        {
            MovementKind.Came => $"Came to {To}.",
            MovementKind.Counted => $"Found {To?.Where()}.",
            MovementKind.Reserved => "Set aside.",
            MovementKind.Released => "Not needed there any more.",
            MovementKind.Wiped => "Wiped.",
            MovementKind.Announced => $"Is to go to {Going?.To}{(Going?.DueBy is { } due ? $", by {due:yyyy-MM-dd}" : "")}.",
            MovementKind.Settled => "Settled.",
            MovementKind.Inspected => "Looked at.",
            MovementKind.GivenUp => $"Given up: {Words.Of(GivenUpAs ?? NoReplacement.NotNeeded).Replace('-', ' ')}.",
            MovementKind.Went when To?.Kind == HolderKind.Bay => $"Went into {To} of {Asset}.",
            MovementKind.Went when Asset is not null => $"Came out of {Asset}, and went to {To}.",
            MovementKind.Went => $"Went to {To}.",
            MovementKind.Undone => "A line before was not so.",
            _ => "It was so after all.",
        };
}
