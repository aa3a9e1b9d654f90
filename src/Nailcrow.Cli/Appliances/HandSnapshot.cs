using Nailcrow.Cli.Shell;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Tickets.Telling;

namespace Nailcrow.Cli.Appliances;

/// <summary>What a person sees in the bays, as it is typed: "7=SERIAL,member,good,vault", "7=empty", and "vault=degraded".</summary>
internal static class HandSnapshot
{
    /// <summary>What a person starts from: the last one, or every bay empty where there is none.</summary>
    public static async Task<Snapshot> StartAsync(Call call, TicketView view) =>
        view.Latest ?? (await call.Client.ApplianceAsync(view.Report.Asset, call.Ct)).Blank;

    /// <exception cref="UsageProblem">What was typed is none, or names a bay, an array or a word that there is not.</exception>
    public static Snapshot Of(Snapshot start, IEnumerable<string> bays, IEnumerable<string> arrays, DateTimeOffset now) =>
        new SeenByPerson([.. bays.Select(OfBay)], [.. arrays.Select(said => OfArray(said, start))])
            .On(start, now)
            .Is(out var seen, out var reason)
            ? seen
            : throw new UsageProblem(reason);

    private static SeenBay OfBay(string said)
    {
        if (said.Split('=', 2) is not [var label, var what])
            throw new UsageProblem($"'{said}' names no bay; write --bay 7=SERIAL,member,good,vault or --bay 7=empty.");
        if (what is "empty")
            return new(label, Role: BayRole.Empty);
        var parts = what.Split(',', StringSplitOptions.TrimEntries);
        return new(
            label,
            parts[0],
            parts.Length > 1 ? Said.Word<BayRole>(parts[1], "role") : null,
            parts.Length > 2 ? Said.Word<DriveHealth>(parts[2], "health") : null,
            parts.ElementAtOrDefault(3)
        );
    }

    private static SeenArray OfArray(string said, Snapshot start) =>
        said.Split('=', 2) is [var name, var state]
            ? new(name, Said.Word<ArrayState>(state, "state of an array"))
            : throw new UsageProblem(
                $"'{said}' names no array here; write NAME=STATE, with a name of "
                    + $"{string.Join(", ", start.Arrays.Select(a => a.Name).DefaultIfEmpty("none"))}."
            );
}
