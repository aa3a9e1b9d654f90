using System.Text.Json;
using System.Text.Json.Nodes;

namespace Nailcrow.StandIn.Events;

/// <summary>The event service of the open Redfish schema: subscriptions, and a stream.</summary>
internal static class EventEndpoints
{
    public static void MapEvents(this WebApplication app)
    {
        app.MapGet(
            "/redfish/v1/EventService",
            () =>
                Json(
                    new JsonObject
                    {
                        ["@odata.id"] = "/redfish/v1/EventService",
                        ["ServerSentEventUri"] = "/redfish/v1/EventService/SSE",
                        ["Subscriptions"] = new JsonObject { ["@odata.id"] = "/redfish/v1/EventService/Subscriptions" },
                    }
                )
        );
        app.MapGet(
            "/redfish/v1/EventService/Subscriptions",
            (EventBoard board) =>
                Json(
                    new JsonObject
                    {
                        ["@odata.id"] = "/redfish/v1/EventService/Subscriptions",
                        ["Members"] = new JsonArray([
                            .. board.Subscriptions.Select(id => new JsonObject { ["@odata.id"] = EventBoard.Path(id) }),
                        ]),
                    }
                )
        );
        app.MapGet(
            "/redfish/v1/EventService/Subscriptions/{id}",
            (string id, EventBoard board) => board.Subscription(id) is { } found ? Json(found) : Results.NotFound()
        );
        app.MapDelete(
            "/redfish/v1/EventService/Subscriptions/{id}",
            (string id, EventBoard board) => board.Drop(id) ? Results.NoContent() : Results.NotFound()
        );
        app.MapPost("/redfish/v1/EventService/Subscriptions", SubscribeAsync);
        app.MapGet("/redfish/v1/EventService/SSE", StreamAsync);
    }

    private static async Task<IResult> SubscribeAsync(HttpContext http, EventBoard board)
    {
        var asked = await JsonSerializer.DeserializeAsync<JsonElement>(http.Request.Body);
        var destination = asked.TryGetProperty("Destination", out var to) ? to.GetString() : null;
        if (destination is null)
            return Results.BadRequest();
        var id = board.Subscribe(destination, asked.TryGetProperty("Context", out var context) ? context.GetString() : null);
        return Results.Created(EventBoard.Path(id), null);
    }

    private static async Task StreamAsync(HttpContext http, EventBoard board)
    {
        http.Response.ContentType = "text/event-stream";
        await http.Response.Body.FlushAsync();
        await board.ListenAsync(
            async said =>
            {
                await http.Response.WriteAsync($"data: {said.ToJsonString()}\n\n", http.RequestAborted);
                await http.Response.Body.FlushAsync(http.RequestAborted);
            },
            http.RequestAborted
        );
    }

    private static IResult Json(JsonObject body) => Results.Text(body.ToJsonString(), "application/json");
}
