using System.CommandLine;
using Nailcrow.StandIn.Partners;

namespace Nailcrow.StandIn.Commands;

/// <summary>Switches a simulated carrier, maker or mail server on.</summary>
internal static class PartnerCommands
{
    private const string UsualSecret = "nailcrow-stand-in-secret";

    public static Command Carrier()
    {
        var (port, secret) = (Port(7431), Secret());
        var tells = new Option<Uri?>("--tells")
        {
            Description = "Where it tells what becomes of parcels; without, it has to be asked.",
            HelpName = "URL",
            CustomParser = HandCommands.Address,
        };
        var every = new Option<double>("--moves-every")
        {
            Description = "Seconds after which a parcel goes a step by itself: collected, on the way, delivered. 0: only by hand.",
            DefaultValueFactory = _ => 0,
            HelpName = "SECONDS",
        };
        var command = new Command("carrier", "Switch a simulated carrier on, which books and moves boxes.") { port, secret, tells, every };
        command.SetAction(
            (parsed, ct) =>
            {
                var door = new PartnerDoor(parsed.GetValue(secret)!);
                var carrier = new CarrierStandIn(door, parsed.GetValue(tells), TimeSpan.FromSeconds(parsed.GetValue(every)));
                return RunAsync("carrier", parsed.GetValue(port), carrier.Map, carrier.MoveAsync, ct);
            }
        );
        return command;
    }

    public static Command Maker()
    {
        var (port, secret) = (Port(7432), Secret());
        var command = new Command("maker", "Switch a simulated maker of drives on, which knows warranties and takes drives back.")
        {
            port,
            secret,
        };
        command.SetAction(
            (parsed, ct) =>
                RunAsync(
                    "maker",
                    parsed.GetValue(port),
                    new MakerStandIn(new PartnerDoor(parsed.GetValue(secret)!)).Map,
                    _ => Task.CompletedTask,
                    ct
                )
        );
        return command;
    }

    public static Command Mail()
    {
        var port = Port(7433);
        var smtp = new Option<int>("--takes-at")
        {
            Description = "Loopback port to take mail at, over SMTP; 0 picks a free one.",
            DefaultValueFactory = _ => 7434,
            HelpName = "PORT",
        };
        var command = new Command("mail", "Switch a simulated mail server on, which takes every mail and delivers none.") { port, smtp };
        command.SetAction(
            (parsed, ct) =>
            {
                var mail = new MailStandIn(new PartnerDoor(UsualSecret), parsed.GetValue(smtp));
                return RunAsync("mail server", parsed.GetValue(port), mail.Map, mail.TakeAsync, ct);
            }
        );
        return command;
    }

    private static Option<int> Port(int usual) =>
        new("--port") { Description = "Loopback port to answer on; 0 picks a free one.", DefaultValueFactory = _ => usual };

    private static Option<string> Secret() =>
        new("--secret")
        {
            Description = "What both sign with, as 'nailcrow partner set' was told.",
            DefaultValueFactory = _ => UsualSecret,
            HelpName = "TEXT",
        };

    private static async Task RunAsync(
        string what,
        int port,
        Action<WebApplication> map,
        Func<CancellationToken, Task> meanwhile,
        CancellationToken ct
    )
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.WebHost.UseUrls($"http://127.0.0.1:{port}");
        builder.Logging.SetMinimumLevel(LogLevel.Warning);
        builder.Logging.AddFilter("Microsoft.Extensions.Hosting", LogLevel.None); // a taken port is told in one line, by the command
        var app = builder.Build();
        map(app);
        await app.StartAsync(ct);
        Console.WriteLine($"Stand-in {what} answers at {app.Urls.First()}");
        using var until = CancellationTokenSource.CreateLinkedTokenSource(ct, app.Lifetime.ApplicationStopping);
        var moving = meanwhile(until.Token);
        await app.WaitForShutdownAsync(ct);
        await Task.WhenAny(moving);
    }
}
