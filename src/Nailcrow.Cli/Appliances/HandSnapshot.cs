using Nailcrow.Cli.Shell;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Tickets.Telling;

namespace Nailcrow.Cli.Appliances;

/// <summary>A snapshot typed by a person: the last one, with what they see changed in it.</summary>
internal static class HandSnapshot
{
    /// <summary>What a person starts from: the last one, or every bay empty where there is none.</summary>
    public static async Task<Snapshot> StartAsync(Call call, TicketView view) =>
        view.Latest ?? (await call.Client.ApplianceAsync(view.Report.Asset, call.Ct)).Blank;

    public static Snapshot Of(Snapshot start, IEnumerable<string> bays, IEnumerable<string> arrays, DateTimeOffset now)
    {
        var seen = start with { TakenAt = now, Source = "person" };
        seen = bays.Aggregate(seen, (s, said) => WithBay(s, said));
        return arrays.Aggregate(seen, (s, said) => WithArray(s, said));
    }

    private static Snapshot WithBay(Snapshot snapshot, string said)
    {
        if (said.Split('=', 2) is not [var label, var what])
            throw new UsageProblem($"'{said}' names no bay; write --bay 7=SERIAL,member,good,vault or --bay 7=empty.");
        if (snapshot.BayLabelled(label) is not { } bay)
            throw new UsageProblem($"There is no bay '{label}'; its bays are {string.Join(", ", snapshot.Bays.Select(b => b.Label))}.");
        return snapshot with { Bays = [.. snapshot.Bays.Select(b => b == bay ? Told(bay, what, snapshot) : b)] };
    }

    private static Bay Told(Bay bay, string what, Snapshot snapshot)
    {
        if (what is "empty")
            return new Bay(bay.Label, BayRole.Empty, Name: bay.Name);
        var parts = what.Split(',', StringSplitOptions.TrimEntries);
        var array = parts.ElementAtOrDefault(3) ?? bay.Array;
        if (array is not null && snapshot.Arrays.All(a => a.Name != array))
            throw new UsageProblem(
                $"There is no array '{array}'; there are {string.Join(", ", snapshot.Arrays.Select(a => a.Name).DefaultIfEmpty("none"))}."
            );
        var other = bay.Serial != parts[0];
        return bay with
        {
            Serial = parts[0],
            Role =
                parts.Length > 1 ? Said.Word<BayRole>(parts[1], "role")
                : bay.Role == BayRole.Empty ? BayRole.Unclaimed
                : bay.Role,
            Health =
                parts.Length > 2 ? Said.Word<DriveHealth>(parts[2], "health")
                : other ? DriveHealth.Unknown
                : bay.Health,
            Array = array,
            Signs = other ? null : bay.Signs,
            Bytes = other ? null : bay.Bytes,
            Model = other ? null : bay.Model,
        };
    }

    private static Snapshot WithArray(Snapshot snapshot, string said)
    {
        if (said.Split('=', 2) is not [var name, var state] || snapshot.Arrays.FirstOrDefault(a => a.Name == name) is not { } array)
            throw new UsageProblem(
                $"'{said}' names no array here; write NAME=STATE, with a name of "
                    + $"{string.Join(", ", snapshot.Arrays.Select(a => a.Name).DefaultIfEmpty("none"))}."
            );
        return snapshot with
        {
            Arrays =
            [
                .. snapshot.Arrays.Select(a => a == array ? array with { State = Said.Word<ArrayState>(state, "state of an array") } : a),
            ],
        };
    }
}
