using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Tickets.Telling;

namespace Nailcrow.Service.Tests.Host;

/// <summary>A machine as a person would see it at each point of a run, for any way that redundancy comes back.</summary>
internal sealed class MadeUpMachine(int nth, ComesBack pattern, bool early, int drives, bool good)
{
    public const string Array = "vault";

    private static readonly string[] Labels = ["1", "2", "3", "4", "5", "6"];

    public IReadOnlyList<string> Serials => [.. Targets.Select(Serial)];

    /// <summary>A drive that is none of those that are to come out.</summary>
    public string Wrong => Serial("5");

    /// <summary>The bay that a drive is added in.</summary>
    public const string EmptyBay = "7";

    private bool IsAdded => pattern == ComesBack.Added;

    private IEnumerable<string> Targets => Labels.Take(IsAdded ? 0 : drives);

    public string Part(int drive) => $"NEW{nth:0000}D{drive:00}";

    /// <summary>What is in the bays now, and what the new drives are by then.</summary>
    public Snapshot See(TicketView view, BayRole newOnesAre, ArrayState? shown)
    {
        var inserted = view
            .EarlierSwaps.Append(view.Swap)
            .Where(s => s is { Bay: not null, InSerial: not null })
            .ToDictionary(s => s.Bay!, s => s.InSerial!); // the filter left those that have both
        var state =
            shown
            ?? (
                pattern is ComesBack.SpareSteppedIn or ComesBack.Added || (early && inserted.Count == 0)
                    ? ArrayState.Whole
                    : ArrayState.Degraded
            );
        var bays = (IsAdded ? Labels.Append(EmptyBay) : Labels)
            .Select(l =>
                inserted.TryGetValue(l, out var serial)
                    ? new Bay(
                        l,
                        newOnesAre,
                        DriveHealth.Good,
                        $"disk{l}",
                        serial,
                        Bytes: 8_000_000_000_000,
                        Array: newOnesAre is BayRole.Spare or BayRole.Unclaimed ? null : Array
                    )
                : l == EmptyBay ? new Bay(l, BayRole.Empty, DriveHealth.Unknown)
                : AtFirst(l)
            )
            .ToList();
        if (pattern == ComesBack.SpareSteppedIn)
            bays.Add(new("7", BayRole.Member, DriveHealth.Good, "disk7", Serial("7"), Bytes: 8_000_000_000_000, Array: Array));
        return new(
            DateTimeOffset.UtcNow,
            "person",
            bays,
            [new(Array, pattern == ComesBack.Cannot ? ArrayLevel.Raid5 : ArrayLevel.Raid6, 6, state, 8_000_000_000_000)]
        );
    }

    private Bay AtFirst(string label) =>
        new(
            label,
            RoleAtFirst(label),
            Targets.Contains(label) && !early && !good ? DriveHealth.Faulted : DriveHealth.Good,
            $"disk{label}",
            Serial(label),
            Bytes: 8_000_000_000_000,
            Array: pattern is ComesBack.SpareSteppedIn && Targets.Contains(label) ? null : Array
        );

    private BayRole RoleAtFirst(string label) =>
        !Targets.Contains(label) ? BayRole.Member
        : pattern == ComesBack.ReleasedFirst ? BayRole.Unclaimed
        : early ? BayRole.Member
        : BayRole.Dropped;

    private string Serial(string label) => $"OLD{nth:0000}B{label}X";
}
