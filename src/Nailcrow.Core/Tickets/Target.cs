using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Risk;

namespace Nailcrow.Core.Tickets;

/// <summary>Which bay a ticket is about, and what has to go into it.</summary>
public static class Target
{
    /// <summary>
    /// The bay's label: of the step that is being done, of the sheet, of the drive whose turn it is, of the reported serial, as
    /// reported.
    /// </summary>
    public static string? Label(Ticket ticket) =>
        ticket is { Sheet: { } sheet, Run: var run } ? (sheet.Step(run?.Current) is { } step ? sheet.DriveOf(step).Bay : sheet.TargetBay)
        : LastSeen(ticket, Serial(ticket)) is { } seen ? seen.Label
        : ticket.Report?.Bay;

    /// <summary>The same of one of several drives, counted from 0 in the order in which they were chosen; else of the drive whose turn it is.</summary>
    public static string? Label(Ticket ticket, int nth) =>
        ticket.Chosen.Count > 1 && LastSeen(ticket, ticket.Chosen.ElementAtOrDefault(nth)) is { } seen ? seen.Label : Label(ticket);

    /// <summary>What the last snapshot shows there; null where nothing is known of it.</summary>
    public static Bay? Bay(Ticket ticket) => ticket.Latest?.BayLabelled(Label(ticket));

    /// <summary>The drive that is to come out, or came out last; null where nobody knows which it is.</summary>
    public static string? Drive(Ticket ticket) =>
        ticket.Sheet is { } sheet ? sheet.DriveOf(sheet.Step(ticket.Run?.Current)).Serial : Serial(ticket);

    /// <summary>The bay that last held a drive of this ticket's machine: one that has failed may be listed no more.</summary>
    public static Bay? LastSeen(Ticket ticket, string? serial) =>
        serial is null ? null : LastThat(ticket, snapshot => snapshot.Holding(serial));

    /// <summary>What the newest snapshot says that says anything of it: nearly always the last one, of hundreds.</summary>
    internal static T? LastThat<T>(Ticket ticket, Func<Snapshot, T?> says)
        where T : class
    {
        for (var i = ticket.Snapshots.Count - 1; i >= 0; i--)
            if (says(ticket.Snapshots[i]) is { } said)
                return said;
        return null;
    }

    /// <summary>Which drive is in a bay now: the one that went in, else the one that was last seen there; null where nobody knows.</summary>
    public static string? SerialIn(Ticket ticket, string bay) =>
        ticket.Swaps.LastOrDefault(s =>
            s.InsertedAt > ticket.Latest?.TakenAt && string.Equals(s.Bay, bay, StringComparison.OrdinalIgnoreCase)
        )
            is { InSerial: { } inserted }
            ? inserted
            : LastThat(ticket, snapshot => snapshot.BayLabelled(bay)?.Serial);

    /// <summary>
    /// Where the drive that is to come out still is; null once it is out, or where nobody knows which it is. A new drive in its bay
    /// is another.
    /// </summary>
    internal static string? StillIn(Ticket ticket, Snapshot now)
    {
        var serial = Drive(ticket);
        return serial is null ? ticket.Report?.Bay : now.Holding(serial)?.Label;
    }

    /// <summary>The array at stake, as the last snapshot shows it.</summary>
    public static DriveArray? Array(Ticket ticket) => ticket.Latest is { } now ? Danger.AtStake(ticket, now) : null;

    /// <summary>
    /// Bytes that a replacement has at least, so that the array holds what it holds now: what the array uses of each member; with
    /// mixed sizes, or where nobody says, reckoned over all members; before any snapshot, as the machine was set up. Null where
    /// nothing tells.
    /// </summary>
    public static long? LeastBytes(Ticket ticket) => LeastBytes(ticket, Label(ticket), Array(ticket));

    /// <summary>The same of the part for one of several drives, <see cref="Label(Ticket, int)"/>.</summary>
    public static long? LeastBytes(Ticket ticket, int nth) =>
        Label(ticket, nth) is { } label && label != Label(ticket)
            ? LeastBytes(ticket, label, ticket.Latest?.ArrayOf(ticket.Latest.BayLabelled(label)) ?? Array(ticket))
            : LeastBytes(ticket);

    private static long? LeastBytes(Ticket ticket, string? label, DriveArray? array)
    {
        var old = ticket.Before?.BayLabelled(label)?.Bytes ?? ticket.Latest?.BayLabelled(label)?.Bytes;
        return array is not null
            ? Reckoned(array, Placed(ticket, array, label), label, old) ?? array.MemberBytes ?? old
            : old ?? (ticket.Report?.Arrays ?? []).Select(a => a.MemberBytes).DefaultIfEmpty(null).Max();
    }

    /// <summary>The members of an array and, where it is none any more, the drive whose place is filled again.</summary>
    public static IReadOnlyList<Bay> Placed(Ticket ticket, DriveArray array) => Placed(ticket, array, Label(ticket));

    private static IReadOnlyList<Bay> Placed(Ticket ticket, DriveArray array, string? label) =>
        [
            .. ticket.Latest?.Bays.Where(b => b.Array == array.Name && (b.Role is BayRole.Member or BayRole.Filling || b.Label == label))
                ?? [],
        ];

    private static long? Reckoned(DriveArray array, IReadOnlyList<Bay> members, string? label, long? old)
    {
        var mixed = array.Level is ArrayLevel.MixedSizeOne or ArrayLevel.MixedSizeTwo;
        var sizes = members.Select(b => b.Label == label ? old : b.Bytes).ToList();
        var nth = members.ToList().FindIndex(b => b.Label == label);
        return (!mixed && array.MemberBytes is not null) || nth < 0 || sizes.Contains(null)
            ? null
            : Capacity.LeastKeeping(array.Level, [.. sizes.OfType<long>()], nth, array.Groups, array.Parity);
    }

    /// <summary>Whose machine it is, where it stands, and its asset number, as the report has them.</summary>
    public static string? Customer(Ticket ticket) => ticket.Report?.Customer;

    public static string? Site(Ticket ticket) => ticket.Report?.Site;

    public static string? Asset(Ticket ticket) => ticket.Report?.Asset;

    /// <summary>Whether a drive was taken out of the machine just then.</summary>
    public static bool CameOut(Ticket ticket, string serial, DateTimeOffset at) =>
        ticket.Swaps.Any(s => s.OutSerial == serial && s.PulledAt == at);

    /// <summary>Whether it ever came out of the machine on this ticket.</summary>
    public static bool CameOut(Ticket ticket, string serial) => ticket.Swaps.Any(s => s.OutSerial == serial);

    /// <summary>
    /// Why sending a part back is not what comes next: it came along for the swap, and may still be fitted. Null where nothing waits for
    /// it. Whoever sends it all the same is believed, and another one is asked for.
    /// </summary>
    public static string? WhyStillNeeded(Ticket ticket, string serial) =>
        ticket.Parts.Exists(p => p.Serial == serial && p.GivenUp is null) && ticket.Run is not { IsFinished: true } && !ticket.IsEnded
            ? $"{serial} is here to be fitted; it goes back when the run is over."
            : null;

    /// <summary>Where a part is that nobody can hand out from there; null where it lies in a depot or a van.</summary>
    public static string? PartElsewhere(Ticket ticket, string serial) =>
        ticket.Custody.HolderOf(serial) is { Kind: not (Returns.HolderKind.Depot or Returns.HolderKind.Van) } holder
            ? holder.Where()
            : null;

    public static bool WentIn(Ticket ticket, string serial) => ticket.Swaps.Any(s => s.InSerial == serial);

    /// <summary>The model and size of a drive as a look last showed it; null where none named its model.</summary>
    public static (string Model, long Bytes)? SeenAs(Ticket ticket, string serial) =>
        ticket.Snapshots.Select(s => s.Holding(serial)).LastOrDefault(b => b?.Model is not null) is { Model: { } model } bay
            ? (model, bay.Bytes ?? 0)
            : null;

    /// <summary>Whether the machine called a drive faulty or worn, when it was seen last.</summary>
    public static bool SeenBad(Ticket ticket, string serial) =>
        ticket.Snapshots.Select(s => s.Holding(serial)).LastOrDefault(b => b is not null)?.Health
            is DriveHealth.Faulted
                or DriveHealth.Worn;

    /// <summary>The drive that is to come out, those that came out, and new ones that never worked; none that is with its maker or gone.</summary>
    public static IReadOnlyList<string> Defective(Ticket ticket) =>
        [
            .. new[] { Drive(ticket) }
                .Concat(ticket.Swaps.Select(s => s.OutSerial))
                .Concat(ticket.GivenUp.Where(p => p.GivenUp is NoReplacement.DeadOnArrival or NoReplacement.NotTaken).Select(p => p.Serial))
                .OfType<string>()
                .Where(s => s.Length > 0)
                .Select(SerialNumber.Normalise)
                .Distinct()
                .Where(s => ticket.Custody.HolderOf(s) is not { Kind: HolderKind.Maker or HolderKind.Destroyed or HolderKind.Lost }),
        ];

    /// <summary>A drive that came out of the customer's machine has the customer's data on it until it was wiped.</summary>
    public static bool HoldsCustomersData(Ticket ticket, string serial)
    {
        var normal = SerialNumber.Normalise(serial);
        return CameOut(ticket, normal) && !IsWiped(ticket, normal);
    }

    /// <summary>Whether a drive was wiped on this ticket, and is not known to have been in the machine since.</summary>
    public static bool IsWiped(Ticket ticket, string serial)
    {
        var normal = SerialNumber.Normalise(serial);
        var cameOut = ticket.Swaps.Where(s => s.OutSerial == normal).Max(s => s.PulledAt);
        return ticket.Wiped.Exists(w => w.Serial == normal && !(w.At < cameOut));
    }

    /// <summary>Why a drive with the customer's data on it may not leave by what was agreed; null where it may.</summary>
    public static string? WhyDataStays(Ticket ticket) => WhyDataStays(ticket.Report?.DataAgreed, ticket.Report?.Customer);

    /// <summary>The same by what a customer agreed to; null is that nothing was agreed.</summary>
    public static string? WhyDataStays(DataAgreement? agreed, string? customer) =>
        agreed switch
        {
            DataAgreement.MayLeave => null,
            DataAgreement.WipedFirst =>
                $"{customer}'s data is on this drive, and it was agreed that drives are wiped before they leave. Wipe it and record "
                    + "how, or write down who agreed that this one leaves as it is.",
            DataAgreement.StaysWithThem =>
                $"{customer}'s data is on this drive, and it was agreed that such drives stay with them. Hand it over, "
                    + "and record who took it; or write down who there agreed that this one leaves all the same.",
            DataAgreement.DestroyedThere =>
                $"{customer}'s data is on this drive, and it was agreed that such drives are destroyed there. Record "
                    + "how and before whom that was done; or write down who there agreed that this one leaves all the same.",
            _ => "The customer's data is on this drive. Ask whether it may leave, and write down who agreed.",
        };

    private static string? Serial(Ticket ticket) =>
        ticket.Chosen.Count > 0 ? ticket.Chosen[Math.Min(ticket.EarlierSwaps.Count, ticket.Chosen.Count - 1)] : ticket.Report?.Serial;
}
