using System.Globalization;
using System.Text.Json;
using Nailcrow.Client;
using Nailcrow.Client.Intake;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;

namespace Nailcrow.Running.Fire;

/// <summary>A machine that rebuilds onto a new drive while nodes are killed, and is followed by whichever of them has that work.</summary>
public sealed class Rebuilding : IAsyncDisposable
{
    // Long enough for all that is done to the nodes meanwhile.
    private const double RebuildSeconds = 900;

    private const int FirstSeed = 40;

    private readonly RunningStandIn _machine;

    private Rebuilding(RunningStandIn machine, long ticket) => (_machine, Ticket) = (machine, ticket);

    public long Ticket { get; }

    /// <summary>Bay 2 has failed, its drive is exchanged, and the machine fills the new one.</summary>
    public static async Task<Rebuilding> BeginAsync(RunningService node, int nth, CancellationToken ct)
    {
        var (seed, asset) = (FirstSeed + nth, $"REBUILD-{nth:000}");
        var machine = await RunningStandIn.StartAsync(seed, RebuildSeconds);
        var (admin, ilka) = (await node.SignInAsync("admin"), await node.SignInAsync("ilka"));
        var as107 = await admin.ApplianceAsync("FSC-0107", ct);
        await admin.LoadAsync(
            new(
                [],
                [],
                [
                    new Appliance(
                        asset,
                        $"BRK12-{seed:0000}",
                        as107.Model.Id,
                        "Corrin Deep Archive",
                        "Hall",
                        machine.Address.ToString().TrimEnd('/'),
                        [new("vault", ArrayLevel.Raid6, 6), new("desk", ArrayLevel.Raid5, 4)]
                    ),
                ]
            ),
            ct
        );
        await machine.HandAsync("fail/2");
        var ticket = (await ilka.ReportAsync(new FaultAsk(asset, "Amber lamp", Bay: "2"), ct)).Ticket;
        await ilka.TakeSnapshotAsync(ticket, ct);
        var onTable = JsonDocument.Parse(await machine.LookAsync()).RootElement.GetProperty("view").GetProperty("table")[0];
        var part = onTable.GetProperty("serial").GetString() ?? "";
        await (await node.SignInAsync("sefa")).WriteAsync(ticket, new PartReserved(part, "Cindral C8", 8_001_563_222_016, "Stores"), ct);
        await ilka.StartRunAsync(ticket, null, ct);
        await machine.HandAsync("pull/2");
        await machine.HandAsync($"insert/2/{part}");
        await machine.HandAsync("start/vault/2");
        // What has happened is written wherever the sheet stands: this engineer did the swap first and tells it now.
        var sheet = (await ilka.TicketAsync(ticket, ct)).Run?.Sheet ?? throw new InvalidOperationException("It was just started.");
        await ilka.WriteAsync(
            ticket,
            new StepAnswered(sheet.Id, sheet.Steps.First(s => s.Records == Records.Inserted).Id, RunStep.Done),
            ct
        );
        return new(machine, ticket);
    }

    /// <summary>
    /// What is wrong with the readings of it: two nodes that follow one machine write what each has seen, and one that slept writes what was
    /// long ago. Each is higher than the one before, and there are some from every stretch of the time.
    /// </summary>
    /// <param name="readings">Percent and the second in which it was written, as "12.5|1764471234.5", in the order in which they were written.</param>
    public static IEnumerable<string> WrongWith(long ticket, IReadOnlyList<string> readings)
    {
        var percents = readings.Select(r => decimal.Parse(r.Split('|')[0], CultureInfo.InvariantCulture)).ToList();
        for (var i = 1; i < percents.Count; i++)
            if (percents[i] <= percents[i - 1])
                yield return $"The rebuild of {ticket} was read in turn as (percent, second): {string.Join("; ", readings.Skip(i - 2).Take(4))}.";
        if (percents.Count < 3)
            yield return $"The rebuild of {ticket} was read {percents.Count} times in all.";
    }

    public ValueTask DisposeAsync() => _machine.DisposeAsync();
}
