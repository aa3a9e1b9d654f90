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
    public override string? Problem(Ticket ticket) =>
        string.IsNullOrWhiteSpace(Text) ? "Evidence says what was seen."
        : Bay is not null && ticket.Latest is { } latest && latest.BayLabelled(Bay) is null ? NoSuchBay.Sentence(Bay, latest)
        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        ticket with
        {
            Evidence = ticket.Evidence.Add(new(Evidence, Source, Text, Bay, Serial, Count, stamp.At, stamp.By, StepThatCausedIt(ticket))),
        };

    /// <summary>
    /// From the pull until the rebuild is over, what a machine reports of the swap's own bay, or of no bay in particular, is
    /// what the engineer just did. Of another bay it is news.
    /// </summary>
    private string? StepThatCausedIt(Ticket ticket)
    {
        if (ticket.Swap is not { HasBegun: true } swap || ticket.Run is not { } run || Evidence == EvidenceKind.Symptom)
            return null;
        if (ticket.Readings.LastOrDefault() is { Progress: Rebuilds.Progress.Done or Rebuilds.Progress.Failed })
            return null;
        var own = Bay is null ? Serial is null : string.Equals(Bay, swap.Bay, StringComparison.OrdinalIgnoreCase);
        return own ? run.Visits.LastOrDefault()?.Step ?? run.Current : null;
    }
}
