using System.Net;
using System.Text;
using Nailcrow.Appliances;
using Nailcrow.Appliances.Reaching;
using Nailcrow.Appliances.Redfish;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Reaching;

namespace Nailcrow.Fuzz;

/// <summary>A machine that answers what an input says: a line each, the path and after a space what is there. Asked for all of it.</summary>
internal sealed class MadeUpMachine : HttpMessageHandler
{
    private static readonly Appliance Appliance = new(
        "FSC-0901",
        "CHS-1",
        "brackmere-b12",
        "Corrin",
        "Hall",
        "http://127.0.0.1/",
        Expansions: [new("E1", "brackmere-b12", "CHS-2")]
    );

    private readonly Dictionary<string, string> _there = [];

    private MadeUpMachine(byte[] input)
    {
        foreach (var line in Encoding.UTF8.GetString(input).Split('\n'))
            if (line.IndexOf(' ', StringComparison.Ordinal) is > 0 and var cut)
                _there[line[..cut].TrimEnd('/')] = line[(cut + 1)..];
    }

    public static void Take(byte[] input)
    {
        using var machine = new MadeUpMachine(input);
        using var http = new HttpClient(machine, disposeHandler: false);
        var link = new RedfishLink(
            http,
            TimeProvider.System,
            new RedfishAsking(
                new NoMachineKeys(),
                new MachineSessions(new MachineConnections(new AllowedAddresses([]))),
                new LinkSettings()
            )
        );
        link.LookAsync(Appliance, CancellationToken.None).GetAwaiter().GetResult();
        link.TryAsync(Appliance, CancellationToken.None).GetAwaiter().GetResult();
        link.SwitchLightAsync(Appliance, on: true, CancellationToken.None).GetAwaiter().GetResult();
    }

    protected override Task<HttpResponseMessage> SendAsync(HttpRequestMessage request, CancellationToken ct) =>
        Task.FromResult(
            _there.TryGetValue(request.RequestUri?.AbsolutePath.TrimEnd('/') ?? "", out var said)
                ? new HttpResponseMessage(HttpStatusCode.OK)
                {
                    RequestMessage = request,
                    Content = new StringContent(said, Encoding.UTF8, "application/json"),
                }
                : new HttpResponseMessage(HttpStatusCode.NotFound) { RequestMessage = request }
        );
}
