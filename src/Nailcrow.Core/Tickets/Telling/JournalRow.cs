using Nailcrow.Core.People;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Correcting;

namespace Nailcrow.Core.Tickets.Telling;

/// <summary>How an entry stands in the story of its ticket.</summary>
/// <param name="Chapter">What several of it are called: those that follow each other are told as one, and open. Null for what stands alone.</param>
/// <param name="IsDecision">Somebody chose it; what was only seen or done is a fact.</param>
/// <param name="MayBePutRight">Whoever asks may put it right in some way.</param>
public sealed record JournalRow(string? Chapter, bool IsDecision, bool MayBePutRight)
{
    public static JournalRow Of(Entry entry, Actor actor) =>
        new(
            ChapterOf(entry.Body),
            entry.Body is DecisionBody and not (StepPassed or StepDecided or StepTakenBack or EntryCorrected),
            Correctable.WhyNot(entry, actor) is null
        );

    private static string? ChapterOf(EntryBody body) =>
        body switch
        {
            StepAnswered or StepPassed or StepDecided or StepTakenBack or SerialShown => "steps of the sheet",
            ReadingTaken or ReadingTakenBack => "readings of the rebuild",
            SnapshotTaken or MachineSeen => "looks at the machine",
            _ => null,
        };
}
