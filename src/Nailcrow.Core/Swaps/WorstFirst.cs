using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Risk;

namespace Nailcrow.Core.Swaps;

/// <summary>A drive that this ticket could swap, in its turn.</summary>
/// <param name="Why">A sentence that names it and says what puts it there.</param>
public sealed record DriveInTurn(string Bay, string Serial, string Why);

/// <summary>
/// The order in which several drives of one array are done. It is proposed; a person chooses. Drives that the array has lost
/// go first, since filling their places gives redundancy back while pulling a member takes it; then whatever most speaks against.
/// </summary>
public static class WorstFirst
{
    /// <param name="danger">The ticket's, as it has been reckoned already.</param>
    public static IReadOnlyList<DriveInTurn> Of(Ticket ticket, Danger danger) =>
        ticket is not { Latest: { } now, HasMoved: false, IsEnded: false }
        || now.Arrays.FirstOrDefault(a => a.Name == danger.Array) is not { } array
            ? []
        : ticket.Report?.Job == JobKind.Growth ? Growing(now, array, ticket)
        :
        [
            .. Suspect
                .Of(now, array, ticket.Evidence, targetLabel: null)
                .Select(s => (Suspect: s, Bay: now.BayLabelled(s.Bay)))
                .Where(s => Concerns(s.Bay, array, ticket))
                .OrderByDescending(s => s.Bay!.Role != BayRole.Member)
                .ThenByDescending(s => s.Suspect.Weight) // where it concerns the array there is a bay
                .Select(s => new DriveInTurn(s.Suspect.Bay, s.Suspect.Serial ?? "", s.Suspect.Sentence)),
        ];

    /// <summary>A drive that was dropped and reads good is looked into first; it is swapped only where the ticket is about it.</summary>
    private static bool Concerns(Bay? bay, DriveArray array, Ticket ticket) =>
        bay is { Serial: { } serial }
        && (bay.Array == array.Name || bay is { Role: BayRole.Dropped, Array: null })
        && (bay is not { Role: BayRole.Dropped, Health: DriveHealth.Good } || IsReported(bay, serial, ticket));

    private static bool IsReported(Bay bay, string serial, Ticket ticket) =>
        ticket.Report?.Serial is { } reported
            ? SerialComparison.Between(reported, serial).Outcome is SerialOutcome.Exact or SerialOutcome.Fragment
            : ticket.Report?.Bay == bay.Label;

    /// <summary>All members: what is not well, then the smallest, then as the bays are numbered.</summary>
    private static IReadOnlyList<DriveInTurn> Growing(Snapshot now, DriveArray array, Ticket ticket)
    {
        var against = Suspect.Of(now, array, ticket.Evidence, targetLabel: null).ToDictionary(s => s.Bay);
        return
        [
            .. now.Holding(array)
                .Where(b => b is { Role: BayRole.Member, Serial: not null })
                .OrderByDescending(b => against.GetValueOrDefault(b.Label)?.Weight ?? 0)
                .ThenBy(b => b.Bytes)
                .ThenBy(b => b.Label.PadLeft(6, '0'), StringComparer.Ordinal)
                .Select(b => new DriveInTurn(
                    b.Label,
                    b.Serial ?? "",
                    against.GetValueOrDefault(b.Label)?.Sentence
                        ?? $"Bay {b.Label} ({b.Serial}): nothing speaks against it{(b.Bytes is { } bytes ? $"; {ByteSize.Both(bytes)}" : "")}."
                )),
        ];
    }
}
