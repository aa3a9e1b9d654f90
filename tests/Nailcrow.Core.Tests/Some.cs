using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Tests.Procedures;
using Nailcrow.Procedures;

namespace Nailcrow.Core.Tests;

/// <summary>Things a test needs and is not about.</summary>
internal static class Some
{
    public static readonly DateTimeOffset Noon = new(2026, 3, 2, 12, 0, 0, TimeSpan.Zero);

    public const string Bad = "P8BADD0517";
    public const string New = "C8NEWW2286";
    public const string Chassis = "BRK12-0042";

    public static readonly ApplianceModel Model = new(
        "brackmere-b12",
        "Brackmere",
        "B12",
        3,
        4,
        BayOrder.DownColumns,
        Loading.Front,
        SwapPower.Hot,
        RebuildStart.ByHand,
        false,
        5,
        4,
        "Press the latch.",
        "Label up.",
        200,
        [],
        ["Two short beeps each minute"],
        [],
        []
    );

    public static Procedure Procedure() => Shipped.Named("front-hot");

    /// <summary>Bays 1 to 6 hold array "vault"; bay 2 holds the bad drive, as the roles say.</summary>
    public static Snapshot Snapshot(
        ArrayLevel level = ArrayLevel.Raid6,
        ArrayState state = ArrayState.Degraded,
        BayRole badRole = BayRole.Dropped,
        string badSerial = Bad,
        DateTimeOffset? at = null
    ) =>
        new(
            at ?? Noon,
            "redfish",
            [
                .. Enumerable
                    .Range(1, 6)
                    .Select(b =>
                        b == 2
                            ? new Bay(
                                "2",
                                badRole,
                                badRole == BayRole.Dropped ? DriveHealth.Faulted : DriveHealth.Good,
                                "dk0",
                                badRole == BayRole.Empty ? null : badSerial,
                                Bytes: 8_000_000_000_000,
                                Array: badRole == BayRole.Empty ? null : "vault"
                            )
                            : new Bay(
                                $"{b}",
                                BayRole.Member,
                                DriveHealth.Good,
                                $"dk{9 - b}",
                                $"P8GOOD000{b}",
                                Bytes: 8_000_000_000_000,
                                Array: "vault"
                            )
                    ),
            ],
            [new("vault", level, 6, state, 8_000_000_000_000)]
        );

    /// <summary>An array alone, each member's role by a letter: m member, d dropped, f filling, e empty; mirrors in pairs if told.</summary>
    public static (Snapshot Snapshot, DriveArray Array) Array(
        ArrayLevel level,
        string roles,
        bool mirrors = false,
        ArrayState? state = null,
        int groups = 1,
        bool told = false
    )
    {
        var bays = roles
            .Select(
                (r, i) =>
                    new Bay(
                        $"{i + 1}",
                        Role(r),
                        Serial: r == 'e' ? null : $"S00{i:00}",
                        Array: r == 'e' ? null : "a",
                        Group: mirrors ? i / 2
                            : told ? i / (roles.Length / groups)
                            : null
                    )
            )
            .ToList();
        var array = new DriveArray(
            "a",
            level,
            roles.Length,
            state ?? (roles.All(r => r == 'm') ? ArrayState.Whole : ArrayState.Degraded),
            Groups: level is ArrayLevel.Raid50 or ArrayLevel.Raid60 ? groups : null,
            Parity: level == ArrayLevel.KPlusM ? 2 : null
        );
        return (new(Noon, "person", bays, [array]), array);
    }

    private static BayRole Role(char letter) =>
        letter switch
        {
            'm' => BayRole.Member,
            'd' => BayRole.Dropped,
            'f' => BayRole.Filling,
            _ => BayRole.Empty,
        };
}
