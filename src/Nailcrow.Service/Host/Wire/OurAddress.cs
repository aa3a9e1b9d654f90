using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;

namespace Nailcrow.Service.Host.Wire;

/// <summary>
/// Where people reach this service, for links in papers, mails and calendars: as it was told, else where it listens. Never what somebody
/// wrote into the Host header of a call: whoever reads the paper would follow it.
/// </summary>
internal sealed class OurAddress(ServiceSettings settings, IServer server)
{
    public Uri Root =>
        new(
            (
                settings.PublicUrl ?? server.Features.Get<IServerAddressesFeature>()?.Addresses.FirstOrDefault() ?? "http://127.0.0.1"
            ).TrimEnd('/') + "/"
        );

    /// <param name="path">Beneath it, without a stroke in front.</param>
    public Uri Of(string path) => new(Root, path);
}
