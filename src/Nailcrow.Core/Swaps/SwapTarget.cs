using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Swaps;

/// <summary>Which drive a ticket is about, and the array its going concerns.</summary>
public sealed record SwapTarget(Bay Bay, DriveArray Array)
{
    /// <summary>By the reported serial, else the reported bay, else the one drive that is out of its array or faulted.</summary>
    public static Parsed<SwapTarget> Of(Ticket ticket) =>
        Meant(ticket) switch
        {
            Parsed<SwapTarget>.Ok(var target) when ticket.Latest is { } now => Swappable(now, target),
            var refused => refused,
        };

    /// <summary>The same, whether or not a swap would bring anything back.</summary>
    public static Parsed<SwapTarget> Meant(Ticket ticket)
    {
        if (ticket.Latest is not { } now)
            return No("Nothing is known of the bays yet; take a snapshot first.");
        if (ticket is { OnlyAdds: true, Report.Array: { } said } && Reported(ticket, now) is null)
            return No(
                $"The report says it is for the array '{said}'; the last snapshot has {string.Join(", ", now.Arrays.Select(a => a.Name))}. "
                    + "Cancel it, and report it with one of them."
            );
        return Named(ticket, now) switch
        {
            Parsed<Bay>.Ok(var bay) => (now.ArrayOf(bay) ?? Reported(ticket, now) ?? Concerned(now, bay)) is { } array
                ? new Parsed<SwapTarget>.Ok(new(bay, array))
                : No(
                    $"Bay {bay.Label} belongs to no array, and no single array here is short of a member; nothing tells which one a new drive is for."
                        + (ticket.OnlyAdds ? $" Report it with its array: {string.Join(", ", now.Arrays.Select(a => a.Name))}." : "")
                ),
            Parsed<Bay>.Refused(var reason) => No(reason),
            _ => throw new System.Diagnostics.UnreachableException(),
        };
    }

    /// <summary>The array that the report says it is for; null where it says none, or none that is there.</summary>
    public static DriveArray? Reported(Ticket ticket, Snapshot now) =>
        now.Arrays.FirstOrDefault(a => string.Equals(a.Name, ticket.Report?.Array, StringComparison.OrdinalIgnoreCase));

    /// <summary>The bay that a drive is added in: the one it went into, the one that was named, else the only one that is empty.</summary>
    private static Parsed<Bay> Empty(Ticket ticket, Snapshot now)
    {
        var empty = now.Bays.Where(b => b.Role == BayRole.Empty).ToList();
        var others = empty.Count == 0 ? "No bay is empty" : $"Empty are {string.Join(", ", empty.Select(b => b.Label))}";
        if ((ticket.Swap.Bay ?? ticket.Report?.Bay) is not { } label)
            return empty is [var only]
                ? new Parsed<Bay>.Ok(only)
                : new Parsed<Bay>.Refused($"The report names no bay for the drive that is added. {others}; report it with one of them.");
        return now.BayLabelled(label) is not { } bay ? new Parsed<Bay>.Refused(NoSuchBay.Sentence(label, now))
            : bay.Serial is { } there && ticket.Swap.InSerial is null
                ? new Parsed<Bay>.Refused($"Bay {label} holds {there}; a drive is added in an empty bay. {others}.")
            : new Parsed<Bay>.Ok(bay);
    }

    private static Parsed<Bay> Named(Ticket ticket, Snapshot now)
    {
        if (ticket.OnlyAdds)
            return Empty(ticket, now);
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
    private static Parsed<SwapTarget> Swappable(Snapshot now, SwapTarget target) =>
        target.Array.Level == ArrayLevel.Raid0
            ? No(
                $"{target.Array.Name} has no redundancy: a swap brings no data back. Say so before anybody travels; it is rebuilt from nothing and restored."
            )
        : Margin.Of(now, target.Array) < 0
            ? No(
                $"{target.Array.Name} has lost more drives than it can bear: a swap brings no data back. Say so before "
                    + "anybody travels; it is rebuilt from nothing and restored."
            )
        : new Parsed<SwapTarget>.Ok(target);

    private static Parsed<SwapTarget> No(string reason) => new Parsed<SwapTarget>.Refused(reason);
}
