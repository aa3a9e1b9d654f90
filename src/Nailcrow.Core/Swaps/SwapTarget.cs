using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Swaps;

/// <summary>Which drive a ticket is about, and the array its going concerns.</summary>
public sealed record SwapTarget(Bay Bay, DriveArray Array)
{
    /// <summary>By the reported serial, else the reported bay, else the one drive that is out of its array or faulted.</summary>
    public static Parsed<SwapTarget> Of(Ticket ticket)
    {
        if (ticket.Latest is not { } now)
            return No("Nothing is known of the bays yet; take a snapshot first.");
        return Named(ticket, now) switch
        {
            Parsed<Bay>.Ok(var bay) => Concerned(now, bay) is { } array
                ? Swappable(now, bay, array)
                : No(
                    $"Bay {bay.Label} belongs to no array, and no single array here is short of a member; nothing tells which one a new drive is for."
                ),
            Parsed<Bay>.Refused(var reason) => No(reason),
            _ => throw new System.Diagnostics.UnreachableException(),
        };
    }

    private static Parsed<Bay> Named(Ticket ticket, Snapshot now)
    {
        if (ticket.Report?.Serial is { } serial)
            return BySerial(ticket, now, serial);
        if (ticket.Report?.Bay is { } label)
            return now.BayLabelled(label) is { } bay ? new Parsed<Bay>.Ok(bay) : new Parsed<Bay>.Refused(NoSuchBay.Sentence(label, now));
        var unwell = now.Bays.Where(b => b.Role == BayRole.Dropped || b.Health == DriveHealth.Faulted).ToList();
        return unwell is [var only]
            ? new Parsed<Bay>.Ok(only)
            : new Parsed<Bay>.Refused(
                "The report names no drive, and "
                    + $"{(unwell.Count == 0 ? "none" : $"{unwell.Count} ({string.Join(", ", unwell.Select(b => b.Label))})")} "
                    + "of the bays has a drive that is dropped or faulted; say which one it is."
            );
    }

    private static Parsed<Bay> BySerial(Ticket ticket, Snapshot now, string serial)
    {
        var fits = now
            .Bays.Where(b =>
                b.Serial is not null && SerialComparison.Between(serial, b.Serial).Outcome is SerialOutcome.Exact or SerialOutcome.Fragment
            )
            .ToList();
        if (fits.Count == 0 && Gone(ticket, now, serial) is { } gone)
            return new Parsed<Bay>.Ok(gone);
        return fits is [var only]
            ? new Parsed<Bay>.Ok(only)
            : new Parsed<Bay>.Refused(
                $"The report names {serial}, and "
                    + $"{(fits.Count == 0 ? "no bay holds it" : $"bays {string.Join(" and ", fits.Select(b => b.Label))} both could")} "
                    + "in the last snapshot. Unknown drive: call, do not guess."
            );
    }

    /// <summary>
    /// A drive that the machine lists no more is where it was last seen, or reported, unless another one is there now.
    /// </summary>
    private static Bay? Gone(Ticket ticket, Snapshot now, string serial)
    {
        var seen = Target.LastSeen(ticket, serial);
        var whole = seen?.Serial ?? (SerialNumber.Parse(serial) is Parsed<SerialNumber>.Ok ? SerialNumber.Normalise(serial) : null);
        return whole is not null && now.BayLabelled(seen?.Label ?? ticket.Report?.Bay) is { Serial: null } bay
            ? bay with
            {
                Serial = whole,
                Role = BayRole.Dropped,
                Array = seen?.Array,
            }
            : null;
    }

    /// <summary>The array that a drive is of, else the one that is short of a drive, else the only one; null where none of that tells.</summary>
    public static DriveArray? Concerned(Snapshot now, Bay bay) =>
        now.ArrayOf(bay)
        ?? (
            now.Arrays.Where(a => !now.IsWhole(a)).ToList() is [var shortOne] ? shortOne
            : now.Arrays is [var only] ? only
            : null
        );

    /// <summary>Where redundancy cannot come back, no swap procedure applies, and nobody should travel for one.</summary>
    private static Parsed<SwapTarget> Swappable(Snapshot now, Bay bay, DriveArray array) =>
        array.Level == ArrayLevel.Raid0
            ? No(
                $"{array.Name} has no redundancy: a swap brings no data back. Say so before anybody travels; it is rebuilt from nothing and restored."
            )
        : Margin.Of(now, array) < 0
            ? No(
                $"{array.Name} has lost more drives than it can bear: a swap brings no data back. Say so before "
                    + "anybody travels; it is rebuilt from nothing and restored."
            )
        : new Parsed<SwapTarget>.Ok(new(bay, array));

    private static Parsed<SwapTarget> No(string reason) => new Parsed<SwapTarget>.Refused(reason);
}
