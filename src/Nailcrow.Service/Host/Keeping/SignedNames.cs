using System.Buffers.Text;
using System.Security.Cryptography;
using System.Text;
using Nailcrow.Store.Intake;

namespace Nailcrow.Service.Host.Keeping;

/// <summary>
/// Addresses that are their own key: a name, and a keyed hash over it that nobody else can make. The same each time, so that
/// whoever was given one keeps it.
/// </summary>
internal abstract class SignedNames(EventSenders senders, string purpose)
{
    private const int LongestKey = 300;

    protected async Task<string> SignAsync(string name, CancellationToken ct) =>
        $"{Base64Url.EncodeToString(Encoding.UTF8.GetBytes(name))}.{await HashAsync(name, ct)}";

    /// <returns>The name, or null where the key is not one of ours.</returns>
    protected async Task<string?> NameAsync(string key, CancellationToken ct)
    {
        if (key.Length > LongestKey || key.Split('.') is not [var signed, var hash] || !Base64Url.IsValid(signed))
            return null;
        var name = Encoding.UTF8.GetString(Base64Url.DecodeFromChars(signed));
        var expected = await HashAsync(name, ct);
        return CryptographicOperations.FixedTimeEquals(Encoding.ASCII.GetBytes(hash), Encoding.ASCII.GetBytes(expected)) ? name : null;
    }

    private async Task<string> HashAsync(string name, CancellationToken ct)
    {
        if (await senders.SecretAsync(purpose, ct) is not { } secret)
            await senders.PutAsync(purpose, secret = Convert.ToBase64String(RandomNumberGenerator.GetBytes(32)), ct);
        return Base64Url.EncodeToString(HMACSHA256.HashData(Encoding.UTF8.GetBytes(secret), Encoding.UTF8.GetBytes(name)));
    }
}

/// <summary>Where a machine pushes its events to.</summary>
internal sealed class PushKeys(EventSenders senders) : SignedNames(senders, "nailcrow push")
{
    public Task<string> OfAsync(string asset, CancellationToken ct) => SignAsync(asset, ct);

    public Task<string?> AssetOfAsync(string key, CancellationToken ct) => NameAsync(key, ct);
}

/// <summary>Where an engineer's calendar is read.</summary>
internal sealed class CalendarKeys(EventSenders senders) : SignedNames(senders, "nailcrow calendar")
{
    public Task<string> OfAsync(string engineer, CancellationToken ct) => SignAsync(engineer, ct);

    public Task<string?> EngineerOfAsync(string key, CancellationToken ct) => NameAsync(key, ct);
}
