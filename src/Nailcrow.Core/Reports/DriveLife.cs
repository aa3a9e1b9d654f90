using System.Text.Json.Serialization;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Reports;

[JsonConverter(typeof(KebabEnum<LifeEventKind>))]
public enum LifeEventKind
{
    Seen,
    Moved,
    Wiped,
}

/// <summary>One thing that is known of a drive: seen in a bay, handed to somebody, wiped.</summary>
public sealed record LifeEvent(
    string Serial,
    DateTimeOffset At,
    LifeEventKind Kind,
    string Asset,
    string? Bay,
    string Sentence,
    string By,
    long Ticket
);

/// <summary>What a ticket's journal says of every drive in it.</summary>
public static class DriveLife
{
    public static IReadOnlyList<LifeEvent> Of(TicketRecord record)
    {
        var asset = record.Ticket.Report?.Asset ?? "";
        var events = new List<LifeEvent>();
        Snapshot? before = null;
        foreach (var entry in record.AsItCounts())
            switch (entry.Body)
            {
                case SnapshotTaken taken:
                    events.AddRange(
                        New(taken.Snapshot, before)
                            .Select(b => new LifeEvent(
                                Norm(b.Serial),
                                entry.Happened,
                                LifeEventKind.Seen,
                                asset,
                                b.Label,
                                $"In bay {b.Label} of {asset}: {Words.Of(b.Role)}, reads {Words.Of(b.Health)}.",
                                entry.By,
                                entry.Ticket
                            ))
                    );
                    before = taken.Snapshot;
                    break;
                case DriveWiped wiped:
                    events.Add(
                        new(
                            Norm(wiped.Serial),
                            entry.Happened,
                            LifeEventKind.Wiped,
                            asset,
                            null,
                            $"Wiped: {wiped.Method}",
                            entry.By,
                            entry.Ticket
                        )
                    );
                    break;
            }
        events.AddRange(
            record.Ticket.Custody.Own.Select(m => new LifeEvent(
                m.Serial,
                m.At,
                LifeEventKind.Moved,
                asset,
                m.To.Kind == HolderKind.Bay ? m.To.Name : null,
                $"Went to {m.To}{(m.To.Kind == HolderKind.Bay ? $" of {asset}" : "")}.",
                m.By,
                record.Ticket.Number
            ))
        );
        return events;
    }

    /// <summary>Bays whose drive was not there, or not so, in the snapshot before: a drive that stays as it is is told once.</summary>
    private static IEnumerable<Bay> New(Snapshot now, Snapshot? before) =>
        now.Bays.Where(b =>
            b.Serial is not null
            && (before?.BayLabelled(b.Label) is not { } was || was.Serial != b.Serial || was.Role != b.Role || was.Health != b.Health)
        );

    private static string Norm(string? serial) => SerialNumber.Normalise(serial ?? "");
}
