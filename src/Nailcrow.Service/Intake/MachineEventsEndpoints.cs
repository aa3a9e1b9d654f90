using System.Text;
using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Appliances.Redfish;
using Nailcrow.Appliances.Redfish.Events;
using Nailcrow.Core.Intake;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.Host.Keeping;
using Nailcrow.Service.Intake.Events;
using Nailcrow.Store.Intake;

namespace Nailcrow.Service.Intake;

/// <summary>Doors for machines: events pushed by them, and signed events of other systems. An answer means that it is on disk.</summary>
internal static class MachineEventsEndpoints
{
    public static void MapMachineEvents(this WebApplication app)
    {
        app.MapPost("/api/intake/redfish/{key}", Pushed).WithTags("Intake").WithName("PushEvents").AllowAnonymous();
        app.MapPost("/api/intake/events/{sender}", Signed).WithTags("Intake").WithName("SendEvent").AllowAnonymous();
    }

    /// <summary>Where machines push events of the Redfish schema to. The key in the address says which machine, and that we asked it.</summary>
    internal static async Task<Results<NoContent, ProblemHttpResult>> Pushed(
        string key,
        HttpContext http,
        PushKeys keys,
        Reception reception,
        TimeProvider time,
        CancellationToken ct
    )
    {
        if (await keys.AssetOfAsync(key, ct) is not { } asset)
            return Refusals.NotFound("Nothing subscribes with this key.");
        if (await EventBody.ReadAsync(http, ct) is not { } body)
            return EventBody.TooMuch();
        try
        {
            foreach (var said in RedfishEventReading.Of(body))
                await reception.KeepAsync(MachineEventIntake.Of(asset, said, time.GetUtcNow()), ct);
            return TypedResults.NoContent();
        }
        catch (JsonException)
        {
            return Refusals.Unusable("The body is no JSON; an Event resource of the Redfish schema is expected.");
        }
    }

    /// <summary>A CloudEvents 1.0 event, signed with the secret this sender was given.</summary>
    internal static async Task<Results<NoContent, ProblemHttpResult>> Signed(
        string sender,
        HttpContext http,
        EventSenders senders,
        Reception reception,
        TimeProvider time,
        CancellationToken ct
    )
    {
        if (await EventBody.ReadAsync(http, ct) is not { } body)
            return EventBody.TooMuch();
        var headers = http.Request.Headers;
        var now = time.GetUtcNow();
        // A sender that does not exist is answered like one whose signature is wrong: which there are is nobody's business.
        var secret = await senders.SecretAsync(sender, ct) ?? SignedEvents.NewSecret();
        if (
            SignedEvents.Problem(headers["webhook-id"], headers["webhook-timestamp"], headers["webhook-signature"], body, secret, now) is
            { } problem
        )
            return TypedResults.Problem(problem, statusCode: 401, title: "Not signed as it should be");
        if (!CloudEvent.Read(http.Request.ContentType, headers, body).Is(out var said, out var unread))
            return Refusals.Unusable(unread);
        var id = SignedEvents.IdOf($"{sender} {said.Source}", said.Id);
        if (!said.ToAlert(id, now).Is(out var alert, out var unusable))
            return Refusals.Unusable(unusable);
        await reception.KeepAsync(new(id, now, "cloudevents", sender, Encoding.UTF8.GetString(body), alert.Asset, alert), ct);
        return TypedResults.NoContent();
    }
}
