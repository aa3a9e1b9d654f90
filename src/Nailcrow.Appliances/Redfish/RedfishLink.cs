using System.Text.Json;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Terms;

namespace Nailcrow.Appliances.Redfish;

/// <summary>Reads and lights a machine over the open Redfish schema (DMTF DSP0266, DSP0268; SNIA Swordfish for volumes).</summary>
public sealed class RedfishLink(HttpClient http, TimeProvider time, LinkSettings settings) : IApplianceLink
{
    public Task<Parsed<MachineLook>> LookAsync(Appliance appliance, CancellationToken ct) =>
        AskAsync(
            appliance,
            async (machine, deadline) =>
            {
                var chassis = await ChassisAsync(machine, appliance, deadline);
                var system = await machine.FirstMemberAsync("Systems", deadline);
                var storage = await machine.FirstMemberAsync(machine.LinkOf(system, "Storage"), deadline);
                var drives = await machine.ReadAllAsync(storage.Links("Drives"), deadline);
                var volumes = await machine.MembersAsync(machine.LinkOf(storage, "Volumes"), deadline);
                return new RedfishReading(appliance, time.GetUtcNow()).Of(drives, volumes, chassis);
            },
            ct
        );

    public Task<Parsed<bool>> SwitchLightAsync(Appliance appliance, bool on, CancellationToken ct) =>
        AskAsync(
            appliance,
            async (machine, deadline) =>
            {
                var chassis = await ChassisAsync(machine, appliance, deadline);
                await machine.PatchAsync(
                    chassis.Required("@odata.id"),
                    new Dictionary<string, bool> { ["LocationIndicatorActive"] = on },
                    deadline
                );
                return on;
            },
            ct
        );

    /// <summary>Addresses move; another machine's bays on this ticket would lead somebody to the wrong drive.</summary>
    private static async Task<JsonElement> ChassisAsync(RedfishMachine machine, Appliance appliance, CancellationToken ct)
    {
        var chassis = await machine.FirstMemberAsync("Chassis", ct);
        return
            chassis.Text("SerialNumber") is { } serial && SerialComparison.Between(serial, appliance.Serial).Outcome != SerialOutcome.Exact
            ? throw new RedfishException($"it is the machine with the serial {serial}, and {appliance.Asset} has {appliance.Serial}.")
            : chassis;
    }

    private Task<Parsed<T>> AskAsync<T>(Appliance appliance, Func<RedfishMachine, CancellationToken, Task<T>> ask, CancellationToken ct) =>
        RedfishAsking.AskAsync(
            http,
            settings,
            appliance,
            " That says nothing about its drives: look at the machine another way, or type in what its screen shows.",
            ask,
            ct
        );
}
