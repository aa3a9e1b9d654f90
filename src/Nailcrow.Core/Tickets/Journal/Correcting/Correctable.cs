using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Carrying;
using Nailcrow.Core.Returns.Claiming;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Returns.Supplies;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Swaps.Following.Leaving;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Core.Tickets.Journal.Reading;

namespace Nailcrow.Core.Tickets.Journal.Correcting;

/// <summary>What of the record may be put right, by whom, and what to do where it may not.</summary>
public static class Correctable
{
    /// <summary>Why nobody, or not this person, puts this entry right in any way; null where they may in some.</summary>
    public static string? WhyNot(Entry entry, Actor actor) =>
        entry.By == Actor.Service.Name || entry.Body is not (PhotoTaken or CustomerSignedOff) && entry.Body.ByServiceOnly() is not null
            ? "The service wrote it, from what a machine or another ticket said; take another look, or write a note."
        : WhyNever(entry.Body) is { } never ? never
        : entry.By != actor.Name && !actor.MayActAs([Role.Lead]) ? $"{entry.By} wrote it: {entry.By} or a lead puts it right."
        : null;

    /// <summary>Why it cannot be said that nothing of it was so; null where it can.</summary>
    public static string? WhyItStands(TicketRecord record, Entry entry) =>
        entry.Body switch
        {
            FaultReported => "A ticket begins with its report. Say what was so instead, or cancel the ticket.",
            StepAnswered answered when !IsNearMiss(record, entry) =>
                $"The sheet went on from '{answered.Step}'. Say what the answer was instead, take it back while it is the last one, or call a lead.",
            _ => null,
        };

    /// <summary>Why this correction may not be written, as a sentence; null where it may.</summary>
    public static string? Refusal(TicketRecord record, Intent intent, EntryCorrected correction, DateTimeOffset now) =>
        record.Find(correction.Entry) is not { } entry
            ? $"{TicketNumber.Text(record.Ticket.Number)} has no entry {correction.Entry}; its journal has their ids."
        : WhyNot(entry, intent.Actor) is { } never ? never
        : correction.IsNotSo() ? WhyItStands(record, entry)
        : entry.Body is EntryCorrected ? "A correction is taken back as not so; then put the entry right anew."
        : WhyNotThen(entry, correction) ?? WhyNotSuch(record, entry, correction, intent.Actor) ?? WhyTheRunStands(record, intent, now);

    /// <summary>What has an opposite of its own is not put right by words.</summary>
    private static string? WhyNever(EntryBody body) =>
        body switch
        {
            EntryCorrected
            or FaultReported
            or EvidenceSeen
            or NoteWritten
            or ArrivedOnSite
            or Planning.LeftSite
            or PhotoTaken
            or StepAnswered
            or DrivePulled
            or DrivePutBack
            or DriveInserted
            or DriveReseated
            or DriveWithdrawn
            or DriveWiped
            or PartReserved
            or PartIssued
            or PartGivenUp
            or ReturnOpened
            or ReturnSent
            or ReturnArrived
            or ReturnInspected
            or ReturnSettled
            or DriveKept
            or DriveDestroyed
            or PartTakenBack
            or PartLost
            or CarrierAsked
            or MakerAsked
            or SuppliesUsed
            or CustomerSignedOff
            or LocatorSwitched => null,
            SnapshotTaken taken => taken.Snapshot.Source == Rebuilds.Reading.Person ? null : "A machine said it; take another look.",
            ReadingTaken taken => taken.Source == Rebuilds.Reading.Person ? null : "A machine said it; a machine's readings stand.",
            PictureRemoved => "What is gone does not come back by words; write a note, or take another picture.",
            Unreadable => "This version cannot read it; write a note.",
            _ =>
                $"'{EntryKinds.Of(body)}' was decided, and is not put right but decided otherwise: assign, plan, lift, answer or reopen as it is now.",
        };

    private static bool IsNearMiss(TicketRecord record, Entry entry) =>
        record.Ticket.Swaps.Any(s => s.NearMisses.Exists(n => n.Entry == entry.Id));

    private static string? WhyNotThen(Entry entry, EntryCorrected correction) =>
        correction.HappenedAt is not { } at ? null
        : entry.Body is SnapshotTaken ? "What was typed of a machine is of when it was typed: say that it was not so, and type it again."
        : entry.Body is StepAnswered ? "Answers of a run keep their time: what came after them was ruled by it."
        : at < ServiceClock.Earliest || at > entry.RecordedAt
            ? $"It was recorded at {EntryTold.Clock(entry.RecordedAt)}, so it happened before that; {EntryTold.Clock(at)} is not."
        : null;

    private static string? WhyNotSuch(TicketRecord record, Entry entry, EntryCorrected correction, Actor actor)
    {
        if (correction.Instead is not { } instead)
            return null;
        if (instead.GetType() != entry.Body.GetType())
            return $"It is an entry of the kind '{EntryKinds.Of(entry.Body)}', and is put right by one of that kind.";
        if (entry.Body is CustomerSignedOff { Signature: not null } || instead is CustomerSignedOff { Signature: not null })
            return "What was signed is signed as it was: say that it was not so, and have it signed again.";
        if (IsSeenAgain(entry.Body))
            return "What was seen of a machine, in a picture or by a percentage is not put right piece by piece: say that it was not so, and record it again.";
        if (entry.Body is FaultReported was && instead is FaultReported so && IsAnotherMachine(was, so))
            return "Of a report its symptom, bay, serial, job and time are put right here, not which machine it is.";
        if (entry.Body is StepAnswered at && instead is StepAnswered answer && (at.Sheet, at.Step) != (answer.Sheet, answer.Step))
            return $"The answer was given at '{at.Step}', and is put right there.";
        var then = Ticket.Fold(record.Ticket.Number, record.AsItCounts().Where(e => e.IsBefore(entry)));
        return Ruling.On(then, instead, actor, entry.Happened) switch
        {
            Ruling.Unusable(var reason) => reason,
            Ruling.Refused(var reason) => reason,
            Ruling.NotAllowed(var reason) => reason,
            _ => null,
        };
    }

    /// <summary>What a person sees again rather than says otherwise.</summary>
    internal static bool IsSeenAgain(EntryBody body) => body is SnapshotTaken or PhotoTaken or ReadingTaken;

    /// <summary>As they are written: lists in records compare by reference.</summary>
    private static bool IsAnotherMachine(FaultReported was, FaultReported so) => Which(was) != Which(so);

    private static string Which(FaultReported report) =>
        WrittenBody.From(report with { Symptom = "", Bay = null, Serial = null, Job = default, Since = null }).Text;

    /// <summary>What was done at the machine after an answer was done on its word: the way that was gone cannot become another.</summary>
    private static string? WhyTheRunStands(TicketRecord record, Intent intent, DateTimeOffset now)
    {
        var (was, becomes) = (record.Ticket, record.With(record.Next(intent, now)).Ticket);
        return Way(was).SequenceEqual(Way(becomes))
            ? null
            : $"With that the sheet would have gone another way; it stands at '{was.Run?.Current ?? "its end"}', and what was done was done on "
                + "the answer as it was. Call a lead, or say it in a note.";
    }

    private static IEnumerable<string?> Way(Ticket ticket) =>
        ticket.Run is { } run ? [.. run.Visits.Select(v => v.Step), run.Current, $"{run.Sheet}", $"{ticket.Interrupted.Count}"] : [];
}
