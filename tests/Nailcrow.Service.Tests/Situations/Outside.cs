using System.Text.Json;
using Nailcrow.Client;
using Nailcrow.Client.Returns;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Tickets.Telling;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>A carrier, maker or mail server that the firm can speak to, for one test: simulated, and known under a name of its own.</summary>
internal sealed class Outside : IAsyncDisposable
{
    private readonly TheFirm _firm;
    private readonly RunningStandIn _at;

    private Outside(TheFirm firm, RunningStandIn at, string name) => (_firm, _at, Name) = (firm, at, name);

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    public string Name { get; }

    public static async Task<Outside> CarrierAsync(TheFirm firm, string name, bool tells = false) =>
        await KnownAsync(
            firm,
            PartnerKind.Carrier,
            name,
            await RunningStandIn.CarrierAsync(tells ? new Uri(await EventsAsync(firm, name)) : null)
        );

    public static async Task<Outside> MakerAsync(TheFirm firm, string name) =>
        await KnownAsync(firm, PartnerKind.Maker, name, await RunningStandIn.MakerAsync());

    public static async Task<Outside> MailAsync(TheFirm firm, string name = "Post")
    {
        var at = await RunningStandIn.MailAsync();
        await (await firm.AsAsync("admin")).PutPartnerAsync(name, new(PartnerKind.Mail, $"{at.TakesMailAt}care@fenwright.example"), Ct);
        return new(firm, at, name);
    }

    /// <summary>The mails it took for an address, the oldest first: subject, text, and what came with each.</summary>
    public async Task<IReadOnlyList<(string Subject, string Text, IReadOnlyList<(string Name, string Sha256)> Papers)>> MailsAsync(
        string to
    )
    {
        using var seen = JsonDocument.Parse(await _at.LookAsync());
        return
        [
            .. seen
                .RootElement.GetProperty("now")
                .EnumerateArray()
                .Where(m => m.GetProperty("to").GetString() == to)
                .Select(m =>
                    (
                        Text(m, "subject"),
                        Text(m, "text"),
                        (IReadOnlyList<(string, string)>)
                            [.. m.GetProperty("papers").EnumerateArray().Select(p => (Text(p, "name"), Text(p, "sha256")))]
                    )
                ),
        ];
        static string Text(JsonElement of, string name) => of.GetProperty(name).GetString() ?? "";
    }

    /// <summary>A hand at it: "behave/down", "parcel/PC04070001/lost?says=gone".</summary>
    public Task<string> HandAsync(string what) => _at.HandAsync(what);

    /// <summary>What it has and was told, as somebody in its office sees it.</summary>
    public Task<string> LookAsync() => _at.LookAsync();

    /// <summary>How often it was called, and let the caller in.</summary>
    public async Task<int> CallsAsync()
    {
        using var seen = JsonDocument.Parse(await _at.LookAsync());
        return seen.RootElement.GetProperty("calls").GetInt32();
    }

    private static readonly ErrandView Nothing = new(Guid.Empty, "", "", 0, default, "", null, 0, null);

    /// <summary>What stands in the outbox for a story's ticket, once it is so.</summary>
    public static Task<ErrandView> ErrandAsync(Story story, Func<ErrandView, bool> isSo, string? state = null) =>
        ComesAsync(
            async () =>
                (await (await story.AsAsync("sefa")).OutboxAsync(state, null, Ct)).Errands.FirstOrDefault(e => e.Ticket == story.Ticket)
                ?? Nothing,
            e => e != Nothing && isSo(e)
        );

    /// <summary>The last box of a story's ticket, once it is so.</summary>
    public static async Task<ParcelView> ParcelAsync(Story story, Func<ParcelView, bool> isSo) =>
        (await ComesAsync(() => story.ViewAsync(), v => v.Parcels.Count > 0 && isSo(v.Parcels[^1]))).Parcels[^1];

    /// <summary>Asked for again until it is so; what waits outside is not known to the minute.</summary>
    public static Task<T> ComesAsync<T>(Func<Task<T>> look, Func<T, bool> isSo) => Soon.ComesAsync(look, isSo, Ct);

    public async ValueTask DisposeAsync()
    {
        await (await _firm.AsAsync("admin")).RemovePartnerAsync(Name, Ct);
        await _at.DisposeAsync();
    }

    private static async Task<Outside> KnownAsync(TheFirm firm, PartnerKind kind, string name, RunningStandIn at)
    {
        await (await firm.AsAsync("admin")).PutPartnerAsync(name, new(kind, at.Address.AbsoluteUri, RunningStandIn.PartnersSecret), Ct);
        return new(firm, at, name);
    }

    private static async Task<string> EventsAsync(TheFirm firm, string name)
    {
        using var http = await firm.HttpAsync("admin");
        return $"{http.BaseAddress}api/partners/{Uri.EscapeDataString(name)}/events";
    }
}
