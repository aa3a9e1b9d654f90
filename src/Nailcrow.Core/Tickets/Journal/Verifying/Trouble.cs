using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Tickets.Journal.Verifying;

/// <summary>What is wrong with a record. A text nobody can read is another thing than one that somebody changed.</summary>
[JsonConverter(typeof(KebabEnum<TroubleKind>))]
public enum TroubleKind
{
    /// <summary>Something is not what was written.</summary>
    Changed,

    /// <summary>It is what was written, and this version cannot read it.</summary>
    CannotBeRead,

    /// <summary>Something that was written is not there any more.</summary>
    Missing,

    /// <summary>Something is there that no entry tells of.</summary>
    Unexplained,

    /// <summary>What keeps the journal append-only in the database is not in place.</summary>
    Unguarded,

    /// <summary>The lists do not say what the journal says; they can be told anew.</summary>
    ListsDiffer,

    /// <summary>It is not what was sealed.</summary>
    NotAsSealed,
}

/// <summary>One thing that is wrong, and where.</summary>
public sealed record Trouble(TroubleKind Kind, long? Ticket, long? Seq, string Sentence);
