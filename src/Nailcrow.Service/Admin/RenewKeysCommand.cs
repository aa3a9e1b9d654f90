using System.Globalization;
using Microsoft.AspNetCore.DataProtection.KeyManagement;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Keeping;
using Nailcrow.Store;
using Nailcrow.Store.OnFile;
using static Nailcrow.Service.Host.OnTheMachine;

namespace Nailcrow.Service.Admin;

/// <summary>
/// <c>nailcrow-service renew-keys [--without-lost] [--Nailcrow:Data=PLACE]</c>: on the machine itself, while no service works: a new key, all secrets kept
/// under it, and the keys before good for nothing. For whoever may have seen them, or has left.
/// </summary>
internal static class RenewKeysCommand
{
    private const string WithoutLost = "--without-lost";

    public const string Usual = $"nailcrow-service renew-keys [{WithoutLost}] [--Nailcrow:Data=PLACE]";

    // As long as data protection lets a key live by itself.
    private static readonly TimeSpan Lives = TimeSpan.FromDays(90);

    public static async Task<int> RunAsync(string[] args)
    {
        string[] said = [.. args.Skip(1).Where(word => word != WithoutLost)];
        if (NoSetting(said) is { } word)
            return Say($"'{word}' is nothing that is taken: {Usual}.", Usage);
        var settings = Settings(said);
        if (settings.ProblemsOfThePlace().FirstOrDefault() is { } problem)
            return Say(problem, Refused);
        var place = Path.GetFullPath(settings.Data);
        if (settings.Database is null && !File.Exists(place))
            return Say($"There is no database at {place}; --Nailcrow:Data=PLACE says where it is.", Refused);
        try
        {
            using var held = settings.Database is null ? FileInUse.Hold(place) : null;
            return await RenewAsync(settings with { Data = place }, args.Contains(WithoutLost));
        }
        catch (FileInUseException)
        {
            return Say($"A service works on {place}. Stop it, and say this again: it has the keys in hand.", Refused);
        }
    }

    private static async Task<int> RenewAsync(ServiceSettings settings, bool withoutLost)
    {
        await using var services = Services(settings);
        var (database, secrets) = (services.GetRequiredService<Database>(), services.GetRequiredService<KeptSecrets>());
        await database.IsHereAsync(CancellationToken.None);
        if (settings.Database is null)
            return await RenewAsync(services, settings, withoutLost);
        var code = Refused;
        // A node that starts meanwhile waits, and has the new key in hand from its first moment.
        await database.OneByOneAsync(
            async () =>
            {
                if (await secrets.AtWorkAsync(CancellationToken.None) is { Count: > 0 } nodes)
                    Say($"{string.Join(", ", nodes)} work on it. Stop them, and say this again: they have the keys in hand.", Refused);
                else
                    code = await RenewAsync(services, settings, withoutLost);
            },
            CancellationToken.None
        );
        return code;
    }

    private static ServiceProvider Services(ServiceSettings settings)
    {
        var services = new ServiceCollection()
            .AddSingleton(TimeProvider.System)
            .AddLogging()
            .AddNailcrowStore(settings.Data, settings.Database)
            .AddSingleton<ISecretKeeper, ProtectedSecrets>();
        services.AddKeys(settings);
        return services.BuildServiceProvider();
    }

    /// <summary>
    /// Ended in the middle it can be said again: until all secrets are under the new key, the keys before are good. With the wrong
    /// certificate, or the folder of keys elsewhere, nothing opens: what is good for them must not end the keys that would.
    /// </summary>
    private static async Task<int> RenewAsync(IServiceProvider services, ServiceSettings settings, bool withoutLost)
    {
        var lost = await services.GetRequiredService<KeptSecrets>().LostAsync(CancellationToken.None);
        if (lost.Count > 0 && !withoutLost)
            return Say(
                $"With the keys that are here these cannot be opened: {string.Join("; ", lost)}. Nothing was changed. Put the keys back that they "
                    + "are under, or give their certificate (Nailcrow:KeysCertificatesBefore:0); where those are gone for good, say "
                    + $"{WithoutLost}, and give these anew.",
                Refused
            );
        var (now, keys) = (DateTimeOffset.UtcNow, services.GetRequiredService<IKeyManager>());
        var before = keys.GetAllKeys().Where(key => !key.IsRevoked).ToList();
        var key = keys.CreateNewKey(now, now + Lives);
        // Whoever has opened something goes on for a while with the keys that were there then: others protect it anew.
        await using var afresh = Services(settings);
        var renewed = await afresh.GetRequiredService<KeptSecrets>().KeepAnewAsync(new("root", null), now, CancellationToken.None);
        foreach (var old in before)
            keys.RevokeKey(old.KeyId, "Renewed.");
        Console.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"A new key, good until {key.ExpirationDate.UtcDateTime:yyyy-MM-dd} and followed by another by itself. Secrets kept under it: "
                    + $"{renewed.Kept}. Keys before it, which open nothing any more: {before.Count}. Whoever was signed in signs in again. Make "
                    + $"a backup: secrets in an older one cannot be read."
            )
        );
        foreach (var whose in lost)
            Console.WriteLine($"  Could not be opened, and has to be given anew: {whose}.");
        return Done;
    }
}
