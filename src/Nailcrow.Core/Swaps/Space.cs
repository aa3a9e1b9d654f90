using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Swaps;

/// <summary>What an array holds for the customer: by its drives before the first pull, by the parts as forecast, and as its screen says.</summary>
/// <param name="Before">Usable bytes by the sizes of the drives; null where not all are known.</param>
/// <param name="Forecast">Usable bytes once every part that is set aside is in.</param>
/// <param name="Planned">Drives for which a part is set aside or in, of <paramref name="Drives"/>.</param>
/// <param name="Exchanged">Drives that are in by now, of <paramref name="Drives"/>.</param>
/// <param name="Seen">What the machine's own screen said, oldest first.</param>
public sealed record Space(
    string Array,
    long? Before,
    long? Forecast,
    int Planned,
    int Exchanged,
    int Drives,
    IReadOnlyList<SpaceSeen> Seen
)
{
    /// <summary>Null where no array is known, or where nothing is to become of its space.</summary>
    public static Space? Of(Ticket ticket)
    {
        if ((ticket.Before ?? ticket.Latest) is not { } basis || ArrayOf(ticket, basis) is not { } array)
            return null;
        var exchanges = Exchanges(ticket, basis);
        var members = basis
            .Bays.Where(b => b.Array == array.Name && (b.Role is BayRole.Member or BayRole.Filling || exchanges.Any(e => e.Bay == b.Label)))
            .ToList();
        var known = members.Count > 0 && members.TrueForAll(b => b.Bytes is not null);
        var space = new Space(
            array.Name,
            known ? Upgrades.Now(array, members).Usable : null,
            known ? Upgrades.Plan(array, members, exchanges).After.Usable : null,
            exchanges.Count,
            ticket.Swaps.Count(IsExchange),
            Math.Max(1, ticket.DrivesWanted),
            ticket.SpaceSeen
        );
        return ticket.Report?.Job == JobKind.Growth || space.Seen.Count > 0 || space.Forecast > space.Before ? space : null;
    }

    /// <summary>Before, forecast, by now and seen, one after the other, each as a sentence.</summary>
    public IReadOnlyList<string> Told() =>
        [
            $"Before: {Say(Before)} by the sizes of its drives.",
            Planned == 0 ? "Forecast: not before a part is set aside." : $"Forecast: {Say(Forecast)}{Gain(Forecast - Before)}, {Of()}.",
            .. Seen.Select(s => $"Seen: the screen said {ByteSize.Both(s.Bytes)}, {s.By}, {s.At.UtcDateTime:yyyy-MM-dd HH:mm} UTC."),
        ];

    private string Of() =>
        Planned < Drives ? $"with the {(Planned == 1 ? "one part" : $"{Planned} parts")} set aside for {Drives} drives"
        : Drives == 1 ? (Exchanged == 0 ? "once the drive is exchanged" : "and the drive is exchanged")
        : Exchanged < Drives ? $"once all {Drives} drives are exchanged; {Exchanged} {(Exchanged == 1 ? "is" : "are")}"
        : $"and all {Drives} drives are exchanged";

    private static string Say(long? bytes) => bytes is { } known ? ByteSize.Both(known) : "not known";

    private static string Gain(long? gain) => gain is > 0 and { } more ? $", {ByteSize.Both(more)} more" : "";

    private static DriveArray? ArrayOf(Ticket ticket, Snapshot basis) =>
        basis.Arrays.FirstOrDefault(a => a.Name == (ticket.Sheet?.Array ?? Target.Array(ticket)?.Name));

    /// <summary>What went in, where it went in; then what is set aside, for the drives that are still to be exchanged.</summary>
    private static List<SizeChange> Exchanges(Ticket ticket, Snapshot basis)
    {
        var swapped = ticket.Swaps.Where(IsExchange).ToList();
        var waiting = new Queue<long>(
            ticket.Parts.Where(p => p.GivenUp is null && !swapped.Exists(s => s.InSerial == p.Serial)).Select(p => p.Bytes)
        );
        var changes = swapped
            .Select(s => (s.Bay, ticket.Parts.Find(p => p.Serial == s.InSerial)?.Bytes))
            .Where(s => s is { Bay: not null, Bytes: not null })
            .Select(s => new SizeChange(s.Bay!, basis.BayLabelled(s.Bay)?.Bytes ?? 0, ByteSize.Labelled(s.Bytes!.Value))) // both are there
            .ToList();
        var bays = ticket.Chosen.Count == 0 ? [Target.Label(ticket)] : ticket.Chosen.Select(s => basis.Holding(s)?.Label);
        foreach (var bay in bays.OfType<string>().Where(b => !changes.Exists(c => c.Bay == b)))
            if (waiting.TryDequeue(out var bytes))
                changes.Add(new(bay, basis.BayLabelled(bay)?.Bytes ?? 0, ByteSize.Labelled(bytes)));
        return changes;
    }

    private static bool IsExchange(Swap swap) => swap.InSerial is not null && swap.InSerial != swap.OutSerial;
}
