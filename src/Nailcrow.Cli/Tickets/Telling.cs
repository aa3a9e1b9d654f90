using Nailcrow.Cli.Shell;
using Nailcrow.Client;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Cli.Tickets;

internal static class Telling
{
    /// <summary>Writes one entry and shows its receipt.</summary>
    public static async Task WriteAsync(this Call call, long ticket, EntryBody body, string what) =>
        call.Show(await call.KeepAsync(ticket, body), what);

    /// <summary>Writes one entry under an id of its own, as of <c>--at</c> where that was said.</summary>
    public static Task<Receipt> KeepAsync(this Call call, long ticket, EntryBody body)
    {
        var now = DateTimeOffset.UtcNow;
        return call.Client.WriteAsync(ticket, new EntryAsk(body, Guid.CreateVersion7(now), call.Get(Globals.At) ?? now, now), call.Ct);
    }

    public static void Show(this Call call, Receipt receipt, string what) =>
        call.Show(receipt, ContractJson.Default.Receipt, screen => screen.Receipt(receipt, what));

    /// <summary>A time as read on the spot: in the zone where the machine stands, with UTC beside where they differ.</summary>
    public static string Clock(DateTimeOffset at, string? zone)
    {
        var utc = at.UtcDateTime;
        if (zone is null || !TimeZoneInfo.TryFindSystemTimeZoneById(zone, out var there))
            return $"{utc:yyyy-MM-dd HH:mm} UTC";
        var local = TimeZoneInfo.ConvertTimeFromUtc(utc, there);
        return local == utc ? $"{utc:yyyy-MM-dd HH:mm} UTC" : $"{local:yyyy-MM-dd HH:mm} ({utc:HH:mm} UTC)";
    }
}
