using System.Text.Json;
using Nailcrow.Appliances.Reaching;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Reaching;
using Nailcrow.Core.Terms;

namespace Nailcrow.Appliances.Redfish;

/// <summary>Reads and lights a machine over the open Redfish schema (DMTF DSP0266, DSP0268; SNIA Swordfish for volumes).</summary>
internal sealed class RedfishLink(HttpClient http, TimeProvider time, RedfishAsking asking) : IApplianceLink
{
    public Task<Parsed<MachineLook>> LookAsync(Appliance appliance, CancellationToken ct) =>
        AskAsync(appliance, (machine, deadline) => LookAsync(machine, appliance, new(), deadline), ct);

    public async Task<IReadOnlyList<TrialStep>> TryAsync(Appliance appliance, CancellationToken ct)
    {
        var notes = new RedfishNotes();
        var tried = await AskAsync(
            appliance,
            async (machine, deadline) =>
            {
                notes.Done(RedfishNotes.Root(machine.Root, machine.Door.Key));
                await LookAsync(machine, appliance, notes, deadline);
                await notes.StepAsync("Whether it tells events by itself", () => EventsAsync(machine, deadline), said => said);
                return true;
            },
            ct
        );
        if (tried is Parsed<bool>.Refused(var why))
            notes.Ended(why);
        return notes.Steps;
    }

    public Task<Parsed<bool>> SwitchLightAsync(Appliance appliance, bool on, CancellationToken ct) =>
        AskAsync(
            appliance,
            async (machine, deadline) =>
            {
                var chassis = new RedfishEnclosures(appliance, await machine.MembersAsync(machine.LinkOf("Chassis"), deadline)).Itself;
                await machine.Door.PatchAsync(
                    chassis.Required("@odata.id"),
                    new Dictionary<string, bool> { ["LocationIndicatorActive"] = on },
                    deadline
                );
                return on;
            },
            ct
        );

    private async Task<MachineLook> LookAsync(RedfishMachine machine, Appliance appliance, RedfishNotes notes, CancellationToken ct)
    {
        var survey = await RedfishSurvey.OfAsync(machine, notes, ct);
        return notes.Step(
            "What is made of it",
            () => new RedfishReading(appliance, time.GetUtcNow()).Of(survey, machine),
            RedfishNotes.Made
        );
    }

    private static async Task<string> EventsAsync(RedfishMachine machine, CancellationToken ct)
    {
        if (machine.Root.Find("EventService")?.Text("@odata.id") is not { } path || await machine.TryReadAsync(path, ct) is not { } events)
            return "no; it is asked";
        return (events.Text("ServerSentEventUri"), events.Find("Subscriptions")) switch
        {
            (not null, _) => "yes, as a stream",
            (_, not null) => "yes, where it is told to push them to",
            _ => "no; it is asked",
        };
    }

    private Task<Parsed<T>> AskAsync<T>(Appliance appliance, Func<RedfishMachine, CancellationToken, Task<T>> ask, CancellationToken ct) =>
        asking.AskAsync(
            http,
            appliance,
            " That says nothing about its drives: look at the machine another way, or type in what its screen shows.",
            ask,
            ct
        );
}
