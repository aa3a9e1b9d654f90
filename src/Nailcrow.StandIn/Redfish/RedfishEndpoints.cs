using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Nailcrow.StandIn.Machine;

namespace Nailcrow.StandIn.Redfish;

/// <summary>The simulated management interface, in whatever manner it has been told to behave.</summary>
internal static class RedfishEndpoints
{
    // Under the patience for one call, over that for a whole look.
    private static readonly TimeSpan Slowness = TimeSpan.FromSeconds(2);

    private const long FloodBytes = 200 * 1024 * 1024;

    public static void MapRedfish(this WebApplication app)
    {
        app.Use(
            async (http, next) =>
            {
                var ours = http.Request.Path.StartsWithSegments("/redfish", StringComparison.Ordinal);
                if (ours && !http.RequestServices.GetRequiredService<SignIns>().Lets(http.Request))
                    http.Response.StatusCode = 401;
                else
                    await next();
            }
        );
        app.MapPost(SignIns.Path, (HttpContext http, SignIns signIns) => signIns.BeginAsync(http));
        app.MapDelete($"{SignIns.Path}/{{id}}", EndAsync);
        app.MapGet("/redfish/{**rest}", Get);
        app.MapPatch("/redfish/v1/Chassis/1", Patch);
    }

    private static async Task<IResult> EndAsync(string id, HttpContext http, StandInMachine machine, SignIns signIns)
    {
        if (machine.Manner == Manner.Hangs)
            await Task.Delay(Timeout.Infinite, http.RequestAborted);
        return signIns.End(id);
    }

    private static async Task Get(HttpContext http, StandInMachine machine)
    {
        switch (machine.Manner)
        {
            case Manner.Hangs:
                await Task.Delay(Timeout.Infinite, http.RequestAborted);
                break;
            case Manner.Garbage:
                await http.Response.WriteAsync("<html>Please wait while the interface starts ...");
                break;
            case Manner.Slow:
                await Task.Delay(Slowness, http.RequestAborted);
                await AnswerAsync(http, RedfishTree.Resource(machine, http.Request.Path));
                break;
            case Manner.Patchy
                when http.Request.Path.Value?.EndsWith($"/Drives/{StandInMachine.Names[4]}", StringComparison.Ordinal) == true:
                http.Response.StatusCode = 500;
                break;
            case Manner.Flood:
                await FloodAsync(http);
                break;
            default:
                await AnswerAsync(http, RedfishTree.Resource(machine, http.Request.Path));
                break;
        }
    }

    private static async Task Patch(HttpContext http, StandInMachine machine)
    {
        if (machine.Manner == Manner.Hangs)
            await Task.Delay(Timeout.Infinite, http.RequestAborted);
        var change = await JsonSerializer.DeserializeAsync<JsonElement>(http.Request.Body);
        if (change.TryGetProperty("LocationIndicatorActive", out var on) && on.ValueKind is JsonValueKind.True or JsonValueKind.False)
            machine.SwitchLight(on.GetBoolean());
        await AnswerAsync(http, RedfishTree.Resource(machine, http.Request.Path));
    }

    private static async Task AnswerAsync(HttpContext http, JsonObject? resource)
    {
        http.Response.StatusCode = resource is null ? 404 : 200;
        http.Response.ContentType = "application/json";
        await http.Response.WriteAsync(
            resource?.ToJsonString() ?? """{"error":{"code":"Base.1.18.ResourceMissingAtURI","message":"No such resource."}}"""
        );
    }

    private static async Task FloodAsync(HttpContext http)
    {
        http.Response.ContentType = "application/json";
        var chunk = Encoding.ASCII.GetBytes(new string(' ', 64 * 1024));
        for (var sent = 0L; sent < FloodBytes && !http.RequestAborted.IsCancellationRequested; sent += chunk.Length)
            await http.Response.Body.WriteAsync(chunk, http.RequestAborted);
    }
}
