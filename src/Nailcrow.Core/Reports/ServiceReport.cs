using Nailcrow.Core.Appliances;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Risk;
using Nailcrow.Core.Tickets.Waiting;

namespace Nailcrow.Core.Reports;

/// <summary>One thing that was so, seen or decided.</summary>
/// <param name="At">Null where it has no time of its own.</param>
public sealed record ReportLine(DateTimeOffset? At, string? By, string Says);

public sealed record ReportPart(string Name, IReadOnlyList<ReportLine> Lines);

/// <summary>
/// What was done on a ticket, for the customer and for later: told from its journal, so that nothing that was overruled,
/// went wrong or was settled can be left out of it.
/// </summary>
/// <param name="IsFinal">The ticket has ended; until then it is how things stand.</param>
/// <param name="AsOf">When the last entry arrived.</param>
public sealed record ServiceReport(
    long Ticket,
    string Title,
    bool IsFinal,
    DateTimeOffset AsOf,
    IReadOnlyList<string> Heading,
    IReadOnlyList<ReportPart> Parts
)
{
    /// <exception cref="ArgumentException">The ticket has no report of a fault yet.</exception>
    public static ServiceReport Of(TicketRecord record)
    {
        var ticket = record.Ticket;
        var report = ticket.Report ?? throw new ArgumentException("A ticket without a report has no machine.", nameof(record));
        var told = record.AsItCounts().ToList();
        return new(
            ticket.Number,
            ticket.IsEnded ? "Service report" : $"Service report so far: the ticket is {Words.Of(ticket.Stage).Replace('-', ' ')}",
            ticket.IsEnded,
            record.LastRecorded,
            report.Heading(),
            [
                .. new ReportPart[]
                {
                    new("What was wrong", [.. WhatWasWrong(ticket)]),
                    new("Before anything was touched", [.. Before(ticket)]),
                    new("Who was there", [.. ticket.SiteVisits.Select(v => new ReportLine(v.ArrivedAt, v.Engineer, v.Told()))]),
                    new(
                        "What was done",
                        [
                            .. told.SelectMany(Done)
                                .Concat(Agreed(ticket))
                                .Concat(ticket.SeatedInVain.Concat(ticket.Swaps).SelectMany(Swapped))
                                .OrderBy(l => l.At),
                        ]
                    ),
                    new("Warnings that were overruled", [.. OverruledSteps.Of(told)]),
                    new("What was not as it should be", [.. NotAsItShould(ticket, told)]),
                    new("Without full redundancy", [.. Exposed(ticket)]),
                    new("When it was off", [.. ticket.Power.Select(p => new ReportLine(p.From, null, p.Told()))]),
                    new("What the array holds", [.. (Space.Of(ticket)?.Told() ?? []).Select(s => new ReportLine(null, null, s))]),
                    new("Where the drives are", [.. Whereabouts(ticket, told)]),
                    new("What stays to be done", [.. Left(ticket)]),
                    new("How it ended", [.. Ending(ticket, told)]),
                    new("What was put right in the record", [.. PutRight.Of(record)]),
                }.Where(p => p.Lines.Count > 0),
            ]
        );
    }

    private static IEnumerable<ReportLine> WhatWasWrong(Ticket ticket)
    {
        if (ticket.Report is { } report)
            yield return new(
                report.Since ?? ticket.ReceivedAt,
                null,
                $"{report.Symptom.TrimEnd('.')}.{(report.Bay is { } bay ? $" Bay {bay}{(report.Serial is { } serial ? $", {serial}" : "")}." : "")}"
            );
        foreach (var evidence in ticket.Evidence)
            yield return new(evidence.At, evidence.Source, $"{evidence.Text.TrimEnd('.')}.");
    }

    private static IEnumerable<ReportLine> Before(Ticket ticket)
    {
        yield return new(
            null,
            null,
            ticket.Backup is { } backup ? $"Backup: {backup}{(ticket.BackupDetail is { } detail ? $". {detail.TrimEnd('.')}" : "")}."
                : ticket.IsEnded ? "Nobody asked about a backup."
                : "Nobody has asked about a backup yet."
        );
        if (ticket.Before is { } before)
            yield return new(
                before.TakenAt,
                null,
                $"A snapshot of {before.Bays.Count} bays, {SeenBy(before)}. "
                    + $"{string.Join(" ", before.Arrays.Select(a => $"{a.Name} was {Words.Of(a.State)}, {before.MembersOf(a)} of {a.DesignMembers} members."))}"
            );
    }

    private static IEnumerable<ReportLine> Done(Entry entry) =>
        entry.Body switch
        {
            SheetCompiled s => [new(entry.Happened, entry.By, $"{s.Sheet.Title} ({s.Sheet.Procedure} {s.Sheet.Version}) was begun.")],
            RebuildChosen chosen => [new(entry.Happened, entry.By, chosen.Told())],
            _ => [],
        };

    private static IEnumerable<ReportLine> Agreed(Ticket ticket)
    {
        if (ticket.Agreed is { } agreed)
            yield return new(agreed.At, agreed.By, $"Agreed: {agreed.Says}");
    }

    private static IEnumerable<ReportLine> Swapped(Swap swap)
    {
        if (swap is { PulledAt: { } pulled, OutSerial: { } old })
            yield return new(pulled, null, $"{old} came out of bay {swap.Bay}.");
        if (swap is { InsertedAt: { } inserted, InSerial: { } part })
            yield return new(
                inserted,
                null,
                part == swap.OutSerial ? $"The same drive went back into bay {swap.Bay}." : $"{part} went into bay {swap.Bay}."
            );
        if (swap.StartedByHandAt is { } started)
            yield return new(started, null, "The rebuild was started by hand.");
    }

    private static IEnumerable<ReportLine> NotAsItShould(Ticket ticket, IReadOnlyList<Entry> told)
    {
        foreach (var miss in ticket.Swaps.SelectMany(s => s.NearMisses).Where(n => n.NotSo is null))
            yield return new(
                miss.At,
                miss.By,
                miss.OnPurpose is { } word
                    ? $"{miss.Serial} was taken out of bay {miss.Bay} on purpose, to be read, and went straight back. Allowed by {word}"
                    : $"Another drive, {miss.Serial}, was pulled from bay {miss.Bay} and went straight back."
            );
        foreach (var entry in told)
            if (entry.Body is HelpCalled call)
                yield return new(entry.Happened, entry.By, $"Called for help: {call.Reason}");
            else if (entry.Body is HelpAnswered answer)
                yield return new(entry.Happened, entry.By, $"{(answer.GoAhead ? "Go on" : "Do not go on")}: {answer.Reason}");
        foreach (var discrepancy in ticket.Discrepancies)
            yield return new(
                discrepancy.At,
                discrepancy.By,
                discrepancy.IsOpen
                    ? $"{discrepancy.Sentence} This is open."
                    : $"{discrepancy.Sentence} Settled by {discrepancy.SettledBy}: {discrepancy.Settlement}"
            );
    }

    private static IEnumerable<ReportLine> Exposed(Ticket ticket) =>
        Exposure.Of(ticket, ticket.EndedAt ?? DateTimeOffset.UnixEpoch) is not { } exposure
            ? []
            : exposure.Stretches.Select(s => new ReportLine(
                s.From,
                null,
                $"{Named(s.Part)}: {(s.To is { } to ? Watch.Told(to - s.From) : "still")}."
            ));

    private static string Named(ExposurePart part) =>
        part switch
        {
            ExposurePart.WaitingForPart => "Waiting for the part",
            ExposurePart.Travel => "Travel",
            ExposurePart.Work => "Work at the machine",
            ExposurePart.Rebuild => "Rebuild",
            ExposurePart.SwitchedOff => "Switched off",
            _ => throw new System.Diagnostics.UnreachableException(),
        };

    private static IEnumerable<ReportLine> Whereabouts(Ticket ticket, IReadOnlyList<Entry> told) =>
        [
            .. Holders(ticket),
            .. ticket.Supplies.Select(s => new ReportLine(s.At, s.By, $"Used: {s.Told()}.")),
            .. told.Where(e => e.Body is DriveKept or DriveDestroyed or PartLost or ReturnSettled)
                .Select(e => new ReportLine(e.Happened, e.By, $"{e.Body.Told()}.")),
        ];

    private static IEnumerable<ReportLine> Holders(Ticket ticket) =>
        ticket
            .Custody.Moves.GroupBy(m => m.Serial)
            .Select(moves => moves.Last())
            .Select(m => new ReportLine(
                m.At,
                null,
                $"{m.Serial}: {m.To}.{(ticket.Returns.Find(r => r.Serial == m.Serial) is { } back ? $" Going back: {back.Reason.Replace('-', ' ')}." : "")}"
            ));

    /// <summary>Drives that are not well and stay in, and what the customer was advised.</summary>
    private static IEnumerable<ReportLine> Left(Ticket ticket)
    {
        foreach (var suspect in Danger.Of(ticket).Suspects)
            yield return new(ticket.Latest?.TakenAt, null, suspect.Sentence);
        foreach (var advice in ticket.Advice)
            yield return new(null, null, advice.Decision is null ? $"{advice.Told()} Not decided yet." : advice.Told());
    }

    private static IEnumerable<ReportLine> Ending(Ticket ticket, IReadOnlyList<Entry> told)
    {
        if (ticket.After is { } after)
            yield return new(
                after.TakenAt,
                null,
                $"A snapshot {SeenBy(after)}: "
                    + $"{string.Join(" ", after.Arrays.Select(a => $"{a.Name} is {Words.Of(a.State)}, {after.MembersOf(a)} of {a.DesignMembers} members."))} "
                    + $"{Changed(ticket, after)}"
            );
        if (ticket.RestoredFrom is { } source)
            yield return new(
                null,
                ticket.RestoreConfirmedBy,
                $"The data was restored from: {source.TrimEnd('.')}."
                    + (
                        ticket.RestoreConfirmedBy is null
                            ? " Nobody has confirmed that it is there."
                            : " The customer confirmed that it is there."
                    )
            );
        if (ticket.SignedOffBy is { } customer)
            yield return ticket.Signed is { } signed
                ? new(
                    signed.At,
                    customer,
                    $"Signed on the screen for the customer: the data is there. What was signed is kept with the signature, under {signed.Sha256[..12]}."
                        + (
                            ticket.PicturesRemoved.TryGetValue(signed.Photo, out var gone)
                                ? $" The picture of the signature is kept no more since {gone.At.UtcDateTime:yyyy-MM-dd}."
                                : ""
                        )
                )
                : new(null, customer, "Signed for the customer: the data is there.");
        foreach (var entry in told)
            if (entry.Body is TicketClosed { Otherwise: { } otherwise, Reason: var reason })
                yield return new(entry.Happened, entry.By, $"Closed as {Words.Of(otherwise).Replace('-', ' ')}: {reason}");
            else if (entry.Body is TicketClosed)
                yield return new(entry.Happened, entry.By, "Closed.");
            else if (entry.Body is TicketCancelled cancelled)
                yield return new(entry.Happened, entry.By, $"Cancelled: {cancelled.Reason}");
            else if (entry.Body is TicketReopened reopened)
                yield return new(entry.Happened, entry.By, $"Opened again: {reopened.Reason}");
    }

    private static string SeenBy(Snapshot snapshot) => snapshot.Source == "person" ? "as a person saw it" : "as the machine told it";

    private static string Changed(Ticket ticket, Snapshot after) =>
        ticket.Before is not { } before ? ""
        : SnapshotComparison.Between(before, after).Where(c => c.OtherDrive).ToList() is { Count: > 0 } changes
            ? $"Another drive than before is in {(changes.Count == 1 ? "bay" : "bays")} {string.Join(", ", changes.Select(c => c.Bay))} only."
        : "Every bay holds the drive it held before.";
}
