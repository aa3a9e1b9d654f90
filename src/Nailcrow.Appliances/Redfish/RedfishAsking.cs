using System.Diagnostics;
using Nailcrow.Appliances.Reaching;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Terms;

namespace Nailcrow.Appliances.Redfish;

/// <summary>Asks a machine something within its deadline; every way it can fail becomes a refusal in a sentence.</summary>
internal sealed class RedfishAsking(IMachineKeys keys, MachineSessions sessions, LinkSettings settings)
{
    /// <param name="advice">What to do instead, as a sentence behind the refusal.</param>
    public async Task<Parsed<T>> AskAsync<T>(
        HttpClient http,
        Appliance appliance,
        string advice,
        Func<RedfishMachine, CancellationToken, Task<T>> ask,
        CancellationToken ct
    )
    {
        if (appliance.Address is not { } address)
            return new Parsed<T>.Refused($"{appliance.Asset} has no management address; type in what its screen shows.");
        var at = new Uri(address);
        using var deadline = CancellationTokenSource.CreateLinkedTokenSource(ct);
        deadline.CancelAfter(settings.LookDeadline);
        var key = new MachineKey();
        var begun = Stopwatch.GetTimestamp();
        var answered = false;
        try
        {
            key = await keys.OfAsync(appliance, at, deadline.Token);
            var machine = await RedfishMachine.OpenAsync(new RedfishDoor(http, appliance.Asset, at, key, sessions), deadline.Token);
            if (key.Waits)
                await keys.KnownAgainAsync(appliance, deadline.Token); // it answered, so its certificate is known
            var said = await ask(machine, deadline.Token);
            answered = true;
            return new Parsed<T>.Ok(said);
        }
        catch (UnknownCertificateException unknown)
        {
            await OfferAsync(appliance, at, unknown, ct);
            return new Parsed<T>.Refused($"{appliance.Asset} at {address} {Unlooked(appliance, unknown)}");
        }
        catch (Exception e) when (!ct.IsCancellationRequested && MachineTrouble.Sentence(e, settings, appliance, key) is { } sentence)
        {
            return new Parsed<T>.Refused($"{appliance.Asset} at {address} {sentence}{advice}");
        }
        finally
        {
            Measures.MachineAsked(begun, answered);
        }
    }

    private async Task OfferAsync(Appliance appliance, Uri at, UnknownCertificateException unknown, CancellationToken ct)
    {
        try
        {
            await keys.OfferedAsync(appliance, at, unknown.Shown, ct);
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            // A full disk does not hide why the machine was not read; the next look meets the certificate again.
        }
    }

    private static string Unlooked(Appliance appliance, UnknownCertificateException unknown) =>
        (
            unknown.Another
                ? "shows another certificate than the one somebody said yes to"
                : "shows a certificate that nobody has looked at yet"
        )
        + $" (SHA-256 {unknown.Shown.Pairs}). Nothing is sent to it: whoever may compares that with the machine's own screen, and says "
        + $"yes on its page or with 'nailcrow appliance trust {appliance.Asset}'.";
}
