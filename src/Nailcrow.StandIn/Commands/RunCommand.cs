using System.CommandLine;
using Nailcrow.StandIn.Aisle;
using Nailcrow.StandIn.Events;
using Nailcrow.StandIn.Machine;
using Nailcrow.StandIn.Redfish;

namespace Nailcrow.StandIn.Commands;

/// <summary>Switches a simulated appliance on.</summary>
internal static class RunCommand
{
    public static Command Build()
    {
        var port = new Option<int>("--port")
        {
            Description = "Loopback port to answer on; 0 picks a free one.",
            DefaultValueFactory = _ => 7421,
        };
        var seed = new Option<int>("--seed") { Description = "Makes the serials; two seeds, two machines.", DefaultValueFactory = _ => 7 };
        var takes = new Option<double>("--rebuild-seconds")
        {
            Description = "How long a rebuild takes, accelerated.",
            DefaultValueFactory = _ => 60,
        };
        var command = new Command("run", "Switch the simulated 12-bay appliance on.") { port, seed, takes };
        command.SetAction(
            (parsed, ct) => RunAsync(parsed.GetValue(port), new(parsed.GetValue(seed), TimeSpan.FromSeconds(parsed.GetValue(takes))), ct)
        );
        return command;
    }

    private static async Task RunAsync(int port, StandInSettings settings, CancellationToken ct)
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.WebHost.UseUrls($"http://127.0.0.1:{port}");
        builder.Logging.SetMinimumLevel(LogLevel.Warning);
        builder.Logging.AddFilter("Microsoft.Extensions.Hosting", LogLevel.None); // a taken port is told in one line, by the command
        builder
            .Services.AddSingleton(settings)
            .AddSingleton(TimeProvider.System)
            .AddSingleton<StandInMachine>()
            .AddSingleton<Events.EventBoard>();
        builder.Services.ConfigureHttpJsonOptions(json =>
            json.SerializerOptions.Converters.Add(new System.Text.Json.Serialization.JsonStringEnumConverter())
        );
        var app = builder.Build();
        app.MapEvents();
        app.MapRedfish();
        app.MapAisle();
        await app.StartAsync(ct);
        Console.WriteLine($"Stand-in {app.Services.GetRequiredService<StandInMachine>().Serial} answers at {app.Urls.First()}");
        await app.WaitForShutdownAsync(ct);
    }
}
