using Nailcrow.Core.Appliances;
using Nailcrow.Core.Terms;

namespace Nailcrow.Appliances.Redfish;

/// <summary>Asks a machine something within its deadline; every way it can fail becomes a refusal in a sentence.</summary>
internal static class RedfishAsking
{
    /// <param name="advice">What to do instead, as a sentence behind the refusal.</param>
    public static async Task<Parsed<T>> AskAsync<T>(
        HttpClient http,
        LinkSettings settings,
        Appliance appliance,
        string advice,
        Func<RedfishMachine, CancellationToken, Task<T>> ask,
        CancellationToken ct
    )
    {
        if (appliance.Address is not { } address)
            return new Parsed<T>.Refused($"{appliance.Asset} has no management address; type in what its screen shows.");
        using var deadline = CancellationTokenSource.CreateLinkedTokenSource(ct);
        deadline.CancelAfter(settings.LookDeadline);
        try
        {
            return new Parsed<T>.Ok(await ask(await RedfishMachine.OpenAsync(http, new Uri(address), deadline.Token), deadline.Token));
        }
        catch (Exception e) when (!ct.IsCancellationRequested && MachineTrouble.Sentence(e, settings) is { } sentence)
        {
            return new Parsed<T>.Refused($"{appliance.Asset} at {address} {sentence}{advice}");
        }
    }
}
