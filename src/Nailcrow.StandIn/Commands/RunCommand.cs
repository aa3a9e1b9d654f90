using System.CommandLine;
using System.Net;
using System.Security.Cryptography;
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
        var expansion = new Option<bool>("--expansion")
        {
            Description = "Hang a second enclosure at it, whose drives and arrays have the same names.",
        };
        var name = new Option<string>("--name")
        {
            Description = "Whom its management interface knows.",
            DefaultValueFactory = _ => "service",
        };
        var secret = new Option<string?>("--secret") { Description = "What it asks for; left out, it lets in anybody." };
        var tls = new Option<int?>("--tls")
        {
            Description = "Loopback port on which its management interface answers with TLS too; 0 picks a free one.",
        };
        var certificate = new Option<string?>("--certificate")
        {
            Description = "The file its own certificate is kept in; made where there is none.",
            HelpName = "FILE",
        };
        var command = new Command("run", "Switch the simulated 12-bay appliance on.")
        {
            port,
            seed,
            takes,
            expansion,
            name,
            secret,
            tls,
            certificate,
        };
        command.SetAction(
            (parsed, ct) =>
                RunAsync(
                    parsed.GetValue(port),
                    parsed.GetValue(tls),
                    new(parsed.GetValue(seed), TimeSpan.FromSeconds(parsed.GetValue(takes)), parsed.GetValue(expansion)),
                    new(parsed.GetValue(name)!, parsed.GetValue(secret)),
                    new(parsed.GetValue(certificate)),
                    ct
                )
        );
        return command;
    }

    private static async Task RunAsync(
        int port,
        int? tls,
        StandInSettings settings,
        SignInSettings signIn,
        OwnCertificate certificate,
        CancellationToken ct
    )
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.WebHost.UseKestrelHttpsConfiguration();
        builder.WebHost.ConfigureKestrel(kestrel =>
        {
            kestrel.Listen(IPAddress.Loopback, port);
            if (tls is { } at)
                kestrel.Listen(
                    IPAddress.Loopback,
                    at,
                    on => on.UseHttps(https => https.ServerCertificateSelector = (_, _) => certificate.Now)
                );
        });
        builder.Logging.SetMinimumLevel(LogLevel.Warning);
        builder.Logging.AddFilter("Microsoft.Extensions.Hosting", LogLevel.None); // a taken port is told in one line, by the command
        builder
            .Services.AddSingleton(settings)
            .AddSingleton(signIn)
            .AddSingleton(certificate)
            .AddSingleton<SignIns>()
            .AddSingleton(TimeProvider.System)
            .AddSingleton<StandInMachine>()
            .AddSingleton<Events.EventBoard>();
        builder.Services.ConfigureHttpJsonOptions(json =>
            json.SerializerOptions.Converters.Add(new System.Text.Json.Serialization.JsonStringEnumConverter())
        );
        var app = builder.Build();
        app.MapRedfish();
        app.MapEvents();
        app.MapAisle();
        await app.StartAsync(ct);
        Console.WriteLine($"Stand-in {app.Services.GetRequiredService<StandInMachine>().Serial} answers at {app.Urls.First()}");
        if (app.Urls.FirstOrDefault(u => u.StartsWith("https", StringComparison.Ordinal)) is { } safe)
            Console.WriteLine($"With TLS at {safe}, showing {certificate.Now.GetCertHashString(HashAlgorithmName.SHA256)}");
        await app.WaitForShutdownAsync(ct);
    }
}
