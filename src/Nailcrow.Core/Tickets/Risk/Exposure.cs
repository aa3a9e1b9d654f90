using System.Text.Json.Serialization;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Tickets.Risk;

[JsonConverter(typeof(KebabEnum<ExposurePart>))]
public enum ExposurePart
{
    WaitingForPart,
    Travel,
    Work,
    Rebuild,
}

/// <summary>One stretch of the time without full redundancy.</summary>
/// <param name="To">Null while it lasts.</param>
public sealed record ExposureStretch(ExposurePart Part, DateTimeOffset From, DateTimeOffset? To);

/// <summary>How long the array has been exposed: redundancy back minus fault, and where the time went.</summary>
/// <param name="Until">When redundancy was back; null while it is not.</param>
public sealed record Exposure(DateTimeOffset Since, DateTimeOffset? Until, IReadOnlyList<ExposureStretch> Stretches)
{
    /// <summary>Null for a ticket without a report, and for an early job until its drive is pulled: the array was whole.</summary>
    public static Exposure? Of(Ticket ticket)
    {
        if (
            ticket.Report is not { } report
            || ticket.ReceivedAt is not { } received
            || (report.Job != Intake.JobKind.Fault && !ticket.HasMoved)
        )
            return null;
        var since = report.Job != Intake.JobKind.Fault ? ticket.FirstPulledAt ?? received : report.Since ?? received;
        var until = ticket
            .Readings.FirstOrDefault(r => r.Progress == Progress.Done && r.At > (ticket.Swap.InsertedAt ?? DateTimeOffset.MaxValue))
            ?.At;
        var issued = ticket.Custody.Moves.FirstOrDefault(m => m.To.Kind == HolderKind.Engineer && m.Serial == ticket.Part?.Serial)?.At;
        (ExposurePart Part, DateTimeOffset? End)[] ends =
        [
            (ExposurePart.WaitingForPart, issued ?? ticket.ArrivedAt),
            (ExposurePart.Travel, ticket.ArrivedAt),
            (ExposurePart.Work, ticket.Swap.InsertedAt),
            (ExposurePart.Rebuild, until),
        ];
        var (stretches, from) = (new List<ExposureStretch>(), since);
        foreach (var (part, end) in ends)
        {
            if (end <= from)
                continue; // it was over before the fault counts, as on an early job
            stretches.Add(new(part, from, end ?? ticket.EndedAt));
            if (end is not { } reached)
                break;
            from = reached;
        }
        return new(since, until, stretches);
    }
}
