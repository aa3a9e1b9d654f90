using Nailcrow.StandIn.Events;
using Nailcrow.StandIn.Machine;
using Nailcrow.StandIn.Redfish;

namespace Nailcrow.StandIn.Aisle;

/// <summary>What hands do at the machine. The page at / is the aisle it stands in; the commands use the same door.</summary>
internal static class AisleEndpoints
{
    public static void MapAisle(this WebApplication app)
    {
        var aisle = app.MapGroup("/aisle");
        aisle.MapGet(
            "/",
            (StandInMachine machine, SignIns signIns) =>
                new
                {
                    machine.Serial,
                    SignedIn = signIns.Count,
                    machine.LocatorOn,
                    Manner = machine.Manner.ToString(),
                    View = machine.View(),
                }
        );
        MapDrives(aisle);
        MapMachine(aisle);
        app.MapGet(
            "/",
            () =>
                Results.Stream(
                    typeof(AisleEndpoints).Assembly.GetManifestResourceStream("Nailcrow.StandIn.Aisle.aisle.html")!,
                    "text/html; charset=utf-8"
                )
        ); // embedded by the project file
    }

    private static void MapDrives(RouteGroupBuilder aisle)
    {
        aisle.MapPost(
            "/fail/{bay:int}",
            (int bay, StandInMachine machine, EventBoard board) => Try(() => Told(board, bay, machine.Fail(bay), "Critical"))
        );
        aisle.MapPost(
            "/warn/{bay:int}",
            (int bay, StandInMachine machine, EventBoard board) => Try(() => Told(board, bay, machine.Warn(bay), "Warning"))
        );
        aisle.MapPost(
            "/pull/{bay:int}",
            (int bay, StandInMachine machine, EventBoard board) => Try(() => Told(board, bay, machine.Pull(bay), "Warning"))
        );
        aisle.MapPost(
            "/insert/{bay:int}/{serial}",
            (int bay, string serial, StandInMachine machine, EventBoard board) =>
                Try(() => Told(board, bay, machine.Insert(bay, serial), "OK"))
        );
        aisle.MapPost(
            "/fail-listed/{bay:int}",
            (int bay, StandInMachine machine, EventBoard board) => Try(() => Told(board, bay, machine.FailListed(bay), "Critical"))
        );
        aisle.MapPost(
            "/fail-at/{bay:int}/{percent:decimal}",
            (int bay, decimal percent, StandInMachine machine) => Try(() => machine.FailAt(bay, percent))
        );
        aisle.MapPost("/refuse/{bay:int}", (int bay, StandInMachine machine) => Try(() => machine.Refuse(bay)));
    }

    private static void MapMachine(RouteGroupBuilder aisle)
    {
        aisle.MapPost("/start/{array}/{bay:int}", (string array, int bay, StandInMachine machine) => Try(() => machine.Start(array, bay)));
        aisle.MapPost("/finish/{array}", (string array, StandInMachine machine) => Try(() => machine.Finish(array)));
        aisle.MapPost("/take-over/{array}", (string array, StandInMachine machine) => Try(() => machine.TakeOver(array)));
        aisle.MapPost("/restart", (StandInMachine machine) => Try(machine.Restart));
        aisle.MapPost("/behave/{manner}", Behave);
        aisle.MapPost("/new-certificate", (OwnCertificate certificate) => Try(certificate.Renew));
        aisle.MapPost(
            "/forget-sessions",
            (SignIns signIns) =>
                Try(() =>
                {
                    signIns.Forget();
                    return "Nobody is signed in at it any more.";
                })
        );
    }

    private static string Told(EventBoard board, int bay, string said, string severity)
    {
        board.Tell(bay, said, severity);
        return said;
    }

    private static IResult Behave(string manner, StandInMachine machine)
    {
        if (!Enum.TryParse<Manner>(manner, ignoreCase: true, out var wanted))
            return Results.Text(
                $"'{manner}' is no manner; accepted: {string.Join(", ", Enum.GetNames<Manner>()).ToLowerInvariant()}.",
                statusCode: 409
            );
        machine.Behave(wanted);
        return Results.Text($"The management interface now behaves: {wanted.ToString().ToLowerInvariant()}.");
    }

    private static IResult Try(Func<string> act)
    {
        try
        {
            return Results.Text(act());
        }
        catch (StandInRefusal no)
        {
            return Results.Text(no.Message, statusCode: 409);
        }
    }
}
