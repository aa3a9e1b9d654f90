using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Tickets.Moves;

/// <summary>
/// How a move is made: by an entry that is written, by the service at the machine, by a sheet the service compiles, or on a page of
/// its own.
/// </summary>
[JsonConverter(typeof(KebabEnum<MoveWay>))]
public enum MoveWay
{
    Entry,
    Machine,
    Sheet,
    Page,
}

/// <summary>One thing a person may do on a ticket now, or may not and why. Front ends show these and decide nothing.</summary>
/// <param name="Say">What its button says.</param>
/// <param name="WhyNot">Why this person may not do it now; null where they may.</param>
/// <param name="Body">For an entry: the body that is written once the fields are filled in.</param>
/// <param name="Fields">What has to be said, in order.</param>
/// <param name="About">The drive, discrepancy, part or step it is about; null where it is about the ticket.</param>
public sealed record OfferedMove(
    Move Move,
    string Say,
    string? WhyNot,
    MoveWay Way,
    EntryBody? Body,
    IReadOnlyList<MoveField> Fields,
    string? About = null
)
{
    [JsonIgnore]
    public bool May => WhyNot is null;
}

[JsonConverter(typeof(KebabEnum<FieldKind>))]
public enum FieldKind
{
    Text,
    Lines,
    Serial,
    Bytes,
    Number,
    Choice,
    Person,
    Day,
    Time,

    /// <summary>The number of a ticket, as people write it or as digits.</summary>
    Ticket,

    /// <summary>Something that is counted: the names stores knows are offered, and another may be said.</summary>
    Supply,

    /// <summary>Yes, or nothing said: two choices, of which one is the word true.</summary>
    Flag,
}

/// <summary>Something a person says to make a move.</summary>
/// <param name="Name">Where in the body it goes; a dot leads into a part of it (<c>to.name</c>).</param>
/// <param name="Value">What stands there until somebody says otherwise.</param>
/// <param name="Choices">For a choice: what may be said.</param>
/// <param name="Most">Characters at most.</param>
/// <param name="Except">For a person: who cannot be meant.</param>
public sealed record MoveField(
    string Name,
    string Label,
    FieldKind Kind = FieldKind.Text,
    bool Required = true,
    string? Value = null,
    IReadOnlyList<FieldChoice>? Choices = null,
    string? Hint = null,
    int Most = 200,
    string? Except = null
);

/// <param name="Value">The word that goes into the body.</param>
public sealed record FieldChoice(string Value, string Label);
