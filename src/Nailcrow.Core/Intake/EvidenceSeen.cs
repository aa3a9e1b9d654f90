using System.Text.Json.Serialization;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Intake;

[JsonConverter(typeof(KebabEnum<EvidenceKind>))]
public enum EvidenceKind
{
    LogLines,
    Counters,
    SelfTest,
    LinkSpeed,
    Lamp,
    Beeper,
    Alert,
    Mail,
    Symptom,
}

/// <summary>Something that speaks for or against a drive: a kind, a source, and how often it was seen.</summary>
public sealed record EvidenceSeen(
    EvidenceKind Evidence,
    string Source,
    string Text,
    string? Bay = null,
    string? Serial = null,
    int? Count = null
) : FactBody
{
    public override string Told() =>
        $"Evidence, {EntryTold.Said(Words.Of(Evidence))}: "
        + $"{Text}{(Count is { } count && !Text.Contains($"{count} times", StringComparison.Ordinal) ? $" ({count} times)" : "")}{EntryTold.At(Bay, Serial)}";

    public override string? Problem(Ticket ticket) =>
        string.IsNullOrWhiteSpace(Text) ? "Evidence says what was seen."
        : Bay is not null && ticket.Latest is { } latest && latest.BayLabelled(Bay) is null ? NoSuchBay.Sentence(Bay, latest)
        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        ticket with
        {
            Evidence = ticket.Evidence.Add(
                new(
                    Evidence,
                    Source,
                    Text,
                    Bay,
                    Serial,
                    Count,
                    stamp.At,
                    stamp.By,
                    OwnDoing.StepBehind(ticket, this),
                    Serial is null && Bay is not null ? Target.SerialIn(ticket, Bay) : null
                )
            ),
        };
}
